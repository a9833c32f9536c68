import { spokenPath } from '@zest/contract';

/** How many words are asked for at once. */
const SIDE_BY_SIDE = 4;

/** Fetches words the pacer says, ready to be played; a word that cannot be had stays a tone. */
export async function fetchSpoken(
  audio: AudioContext,
  language: string,
  words: readonly string[],
  known: Map<string, AudioBuffer>,
): Promise<void> {
  const left = words.filter((word) => !known.has(word));
  const one = async () => {
    for (let word = left.shift(); word !== undefined; word = left.shift()) {
      try {
        const answer = await fetch(spokenPath(language, word));
        if (answer.ok) known.set(word, await audio.decodeAudioData(await answer.arrayBuffer()));
      } catch {
        // No connection: the tone alone has to do.
      }
    }
  };
  await Promise.all(Array.from({ length: SIDE_BY_SIDE }, one));
}
