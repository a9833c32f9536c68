import { asPart } from './numbers.ts';

/** Length of a window the voice's level is measured in, in milliseconds. */
export const LEVEL_WINDOW_MS = 50;

/** So far under the loud parts of the voice it still counts as speech, in dB. */
const SPEECH_DEPTH_DB = 24;
/** Nothing softer than this is speech, however quiet the rest. */
const SILENCE_DB = -60;
/** Music goes down before a word and stays down between words. */
const BEFORE_MS = 400;
const AFTER_MS = 700;
/** Time it takes to go down or come back. */
const RAMP_MS = 300;

/** Which windows hold speech, by the level of each in dB (full scale 0). */
export function speechWindows(levels: ArrayLike<number>): boolean[] {
  const sorted = Array.from(levels)
    .filter((level) => level > SILENCE_DB)
    .sort((a, b) => a - b);
  const loud = sorted[Math.floor(sorted.length * 0.9)] ?? -Infinity;
  return Array.from(levels, (level) => level > SILENCE_DB && level > loud - SPEECH_DEPTH_DB);
}

/**
 * How far music is let up between words, for each window: 0 while somebody speaks, with time to go
 * down and come back, 1 where nobody does.
 */
export function openness(speech: readonly boolean[]): Float32Array {
  const [before, after, ramp] = [BEFORE_MS, AFTER_MS, RAMP_MS].map((ms) =>
    Math.round(ms / LEVEL_WINDOW_MS),
  ) as [number, number, number];
  const open = new Float32Array(speech.length).fill(1);
  let since = Infinity;
  for (let i = 0; i < speech.length; i += 1) {
    since = speech[i] ? 0 : since + 1;
    open[i] = asPart((since - after) / ramp);
  }
  let until = Infinity;
  for (let i = speech.length - 1; i >= 0; i -= 1) {
    until = speech[i] ? 0 : until + 1;
    open[i] = Math.min(open[i] ?? 1, Math.max(0, (until - before) / ramp));
  }
  return open;
}
