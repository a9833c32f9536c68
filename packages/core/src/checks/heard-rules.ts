import { isTrusted, spokenSentences } from '../assembly/index.ts';
import { changeBlock, type Block } from '../lesson/index.ts';
import { countWords, wordsPerMinute } from '../schedule/index.ts';
import { rewriteScript } from '../script/index.ts';
import { SURE_SENTENCE, type SoundFault } from '../signal/index.ts';
import { lengthText, totalLength } from '../time/index.ts';
import type { Found } from './finding.ts';
import { shownAt, shownStretches, titleOf, type WatchedBlock } from './watched-blocks.ts';

const HARM = 'cannot hear it or read along' as const;
const short = (text: string) => (text.length > 60 ? `${text.slice(0, 57)}…` : text);

function withoutSentence(draft: Block, text: string): void {
  const at = draft.script.indexOf(text);
  if (at >= 0)
    rewriteScript(
      draft,
      `${draft.script.slice(0, at).trimEnd()} ${draft.script.slice(at + text.length).trimStart()}`.trim(),
    );
}

/** What is written is said, and what is said is written. */
export function scriptSaid(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const { block, alignment, facts } = watched;
    const heard = spokenSentences(
      block.script,
      alignment,
      facts,
      block.edits.filter((edit) => edit.kind === 'said'),
    );
    if (!heard || !facts.said) return [];
    const found: Found[] = heard
      .filter(({ isSaid }) => !isSaid)
      .map(({ text }) => ({
        key: `left out ${block.id} ${text}`.slice(0, 200),
        harm: HARM,
        blockId: block.id,
        atMs: watched.placed.startMs,
        say: `“${short(text)}” is in the script of ${titleOf(watched)} and is not said.`,
        why: 'Captions and cues follow what is said; a sentence that is not is not shown.',
        bench: 'script',
        remedy: {
          label: 'Take it out of the script',
          change: changeBlock(block.id, (draft) => withoutSentence(draft, text)),
        },
      }));
    const unsure = heard.filter(
      ({ isSaid, confidence }) => isSaid && confidence !== null && confidence < SURE_SENTENCE,
    );
    if (unsure[0])
      found.push({
        key: `words unsure ${block.id}`,
        harm: HARM,
        blockId: block.id,
        atMs: watched.placed.startMs,
        say: `Not sure where ${unsure.length === 1 ? 'a sentence' : `${unsure.length} sentences`} of ${titleOf(watched)} ${unsure.length === 1 ? 'is' : 'are'} said, such as “${short(unsure[0].text)}”. Drag ${unsure.length === 1 ? 'it' : 'them'} to its place.`,
        why: 'Noise, music or other words lie over it. Until then it stands where it is most likely said.',
        bench: 'assemble',
        remedy: null,
      });
    const [added, ...more] = isTrusted(facts.said) ? shownStretches(watched, facts.said.added) : [];
    if (added)
      found.push({
        key: `added ${block.id}`,
        harm: HARM,
        blockId: block.id,
        atMs: shownAt(watched, added.startMs),
        say: `In ${titleOf(watched)} something is said for ${lengthText(totalLength([added, ...more]))} that is not in the script.`,
        why: 'WCAG 2.2, 1.2.2: captions hold all that is said. Write it into the script, or leave it out.',
        bench: 'script',
        remedy: null,
      });
    return found;
  });
}

/**
 * Within a sentence, without the pauses about it, people speak 180 to 240 words a minute (from
 * memory).
 */
const MOST_WPM = 250;
/** A shorter sentence tells nothing about a pace. */
const PACED_WORDS = 5;

/** Sentences are said no faster than can be followed. */
export function saidSlowly(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const { block, alignment, facts } = watched;
    const heard =
      spokenSentences(
        block.script,
        alignment,
        facts,
        block.edits.filter((edit) => edit.kind === 'said'),
      ) ?? [];
    const fast = heard
      .flatMap(({ text, startMs, endMs }) => {
        if (startMs === null || endMs === null || countWords(text) < PACED_WORDS) return [];
        const wpm = wordsPerMinute(text, endMs - startMs);
        return wpm > MOST_WPM ? [{ text, startMs, wpm }] : [];
      })
      .sort((a, b) => b.wpm - a.wpm);
    const [worst] = fast;
    if (!worst) return [];
    return [
      {
        key: `fast words ${block.id}`,
        harm: HARM,
        blockId: block.id,
        atMs: shownAt(watched, worst.startMs),
        say: `“${short(worst.text)}” in ${titleOf(watched)} is said at ${Math.round(worst.wpm)} words a minute${fast.length > 1 ? `, and ${fast.length - 1} more of its sentences too fast` : ''}; ${MOST_WPM} is the most.`,
        why: 'Within a sentence people speak 180 to 240 words a minute (from memory); who has to move at the same time follows no more. Say it more slowly, or say less.',
        bench: 'film',
        remedy: null,
      },
    ];
  });
}

/**
 * Speech nearer to what is heard between it than this is hard to follow (common practice); WCAG
 * 2.2, 1.4.7 asks for 20 dB over music.
 */
const OVER_NOISE_DB = 15;
const OVER_MUSIC_DB = 20;
/** Softer than this, raised to the usual loudness, brings the room's hiss up with it. */
const QUIET_DB = -42;

const FAULTS: Record<
  Exclude<SoundFault, 'silence'>,
  { say: string; why: string; leastMs: number }
> = {
  wind: {
    say: 'has wind in the microphone',
    why: 'Low rumble covers the words; a sock over the microphone helps (common practice).',
    leastMs: 1_000,
  },
  overloaded: {
    say: 'is overloaded',
    why: 'Clipped sound cannot be repaired; stand further away or turn the microphone down.',
    leastMs: 300,
  },
};

/** The voice is loud enough, clear of noise, and not overloaded. */
export function voiceClear(blocks: readonly WatchedBlock[]): Found[] {
  return blocks.flatMap((watched): Found[] => {
    const { block, facts } = watched;
    const { sound, speech } = facts.watched;
    const spoken = shownStretches(watched, speech);
    if (!sound || block.script.trim() === '' || spoken.length === 0) return [];
    const base = {
      harm: HARM,
      blockId: block.id,
      atMs: shownAt(watched, spoken[0]?.startMs ?? 0),
      bench: 'film' as const,
      remedy: null,
    };
    const { speechDb, betweenDb, isMusic } = sound;
    const found: Found[] = [];
    if (speechDb !== null && speechDb < QUIET_DB)
      found.push({
        ...base,
        key: `quiet ${block.id}`,
        say: `The voice in ${titleOf(watched)} is ${Math.round(speechDb)} dB under full scale: too quiet.`,
        why: 'Made louder, the room’s noise becomes louder with it (common practice). Speak nearer to the microphone.',
      });
    const over = speechDb !== null && betweenDb !== null ? speechDb - betweenDb : null;
    const least = isMusic ? OVER_MUSIC_DB : OVER_NOISE_DB;
    if (over !== null && over < least)
      found.push({
        ...base,
        key: `noise ${block.id}`,
        say: `The voice in ${titleOf(watched)} is only ${Math.round(over)} dB louder than the ${isMusic ? 'music' : 'noise'} under it; ${least} dB is the least.`,
        why: isMusic
          ? 'WCAG 2.2, 1.4.7.'
          : 'Speech in noise tires children, most of all those who hear badly (common practice).',
        bench: 'assemble',
      });
    for (const fault of ['wind', 'overloaded'] as const) {
      const { say, why, leastMs } = FAULTS[fault];
      const shown = shownStretches(
        watched,
        sound.faults.filter((one) => one.fault === fault),
      );
      if (totalLength(shown) >= leastMs)
        found.push({
          ...base,
          key: `${fault} ${block.id}`,
          atMs: shownAt(watched, shown[0]?.startMs ?? 0),
          say: `The sound of ${titleOf(watched)} ${say} for ${lengthText(totalLength(shown))}.`,
          why,
        });
    }
    return found;
  });
}
