import type { Alignment } from './speech-align.ts';
import { SURE_SENTENCE } from './speech-trust.ts';
import { SPEECH_STEP_MS } from './speech-sound.ts';
import { median, runsOf } from './numbers.ts';
import { merge, overlaps, type TimeSpan } from '../time/index.ts';

/** Sound with less than this between it is one word. */
const WITHIN_WORD_MS = 150;
/** A number takes as long as this to say. */
const WORD_MS = { least: 100, most: 1_300 } as const;
/** Fewer words than this are no beat. */
const FEWEST = 4;
const MOST = 60;
/** Whoever counts keeps a beat: the longest gap is at most this many of the usual one. */
const UNEVEN = 2;
/** Numbers that must be known as what they are; a short one may be mumbled. */
const KNOWN_PART = 0.75;

/** Words said one by one in a beat: perhaps a count. In milliseconds of the recording. */
export interface SpokenBeat extends TimeSpan {
  words: TimeSpan[];
}

/**
 * Stretches of single words in a beat, outside what is known to be something else.
 * @param speech frames in which somebody speaks
 */
export function spokenBeats(speech: Uint8Array, known: readonly TimeSpan[]): SpokenBeat[] {
  const spoken = runsOf(speech.length, (frame) => speech[frame] === 1).map(({ from, to }) => ({
    startMs: from * SPEECH_STEP_MS,
    endMs: to * SPEECH_STEP_MS,
  }));
  const words = merge(spoken, WITHIN_WORD_MS - 1);
  const isFree = (word: TimeSpan) => !known.some((span) => overlaps(span, word));
  const isShort = ({ startMs, endMs }: TimeSpan) =>
    endMs - startMs >= WORD_MS.least && endMs - startMs <= WORD_MS.most;
  return runsOf(words.length, (i) => isFree(words[i] as TimeSpan) && isShort(words[i] as TimeSpan))
    .flatMap(({ from, to }) => inBeat(words.slice(from, to)))
    .filter((beat) => beat.length >= FEWEST && beat.length <= MOST)
    .map((beat) => ({
      startMs: beat[0]?.startMs ?? 0,
      endMs: beat.at(-1)?.endMs ?? 0,
      words: beat,
    }));
}

/** Cut where the beat stops: at gaps much longer than the usual one. */
function inBeat(words: readonly TimeSpan[]): TimeSpan[][] {
  const gaps = words.slice(1).map(({ startMs }, i) => startMs - (words[i]?.startMs ?? 0));
  const usual = median(gaps);
  const beats: TimeSpan[][] = [];
  words.forEach((word, i) => {
    if (i > 0 && (gaps[i - 1] ?? 0) <= UNEVEN * usual) beats.at(-1)?.push(word);
    else beats.push([word]);
  });
  return beats;
}

/**
 * Whether the words of a beat are the numbers from one, each in its place.
 * @param numbers where "one", "two" … as many as there are words were found, in milliseconds of the
 * recording
 */
export function isCount({ words }: SpokenBeat, numbers: Alignment['sentences']): boolean {
  const inPlace = words.filter((word, i) => {
    const found = numbers[i];
    return found && found.confidence >= SURE_SENTENCE && overlaps(found, word);
  });
  return inPlace.length >= KNOWN_PART * words.length;
}
