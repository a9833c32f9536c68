import { execFileSync } from 'node:child_process';
import { calledCount } from '@zest/core/script';
import { describe, expect, it } from 'vitest';
import { SPEECH_RATE, wordsSaid } from './speech.ts';

const COUNTS = { language: 'en' as const, own: [] };
const numbers = (most: number) => calledCount(most, 'up', COUNTS);
/** Another voice than the one that is compared with. */
const VOICE = 'en-us+f3';

/**
 * Words said one by one in a beat of 1.4 s, over a little noise; null is a beat in which nothing is
 * said.
 */
function spoken(words: readonly (string | null)[]): Float32Array {
  const sound = Float32Array.from(
    { length: Math.round((words.length * 1.4 + 2) * SPEECH_RATE) },
    (_, i) => Math.sin(i * 12.9898 + Math.sin(i) * 78.233) * 0.001,
  );
  words.forEach((word, i) => {
    if (word === null) return;
    const wave = execFileSync('espeak-ng', [
      '-v',
      VOICE,
      '-s',
      '170',
      '--stdout',
      '--',
      word,
    ]).subarray(44);
    const start = Math.round((1 + i * 1.4 + (i % 3) * 0.06) * SPEECH_RATE);
    for (let s = 0; s * 2 + 1 < wave.length && start + s < sound.length; s += 1)
      sound[start + s] = (sound[start + s] ?? 0) + (wave.readInt16LE(s * 2) / 32_768) * 0.6;
  });
  return sound;
}
const counted = async (words: readonly (string | null)[]) =>
  (await wordsSaid([], spoken(words), 'en', COUNTS)).counts.map((one) => one.numbers);

describe('counting aloud', () => {
  it('is heard as far as it goes, and two short counts together', async () => {
    expect(await counted(numbers(8))).toEqual([8]);
    expect(await counted(numbers(11))).toEqual([11]);
    expect(await counted([...numbers(6), null, null, null, ...numbers(5)])).toEqual([6, 5]);
  });

  it('is not heard in other words in a beat, in numbers that are not in order, or in too few', async () => {
    expect(await counted(['up', 'down', 'up', 'well', 'good', 'down', 'rest', 'go'])).toEqual([]);
    expect(await counted(numbers(8).reverse())).toEqual([]);
    expect(await counted(numbers(9).slice(1))).toEqual([]);
    expect(await counted(numbers(3))).toEqual([]);
  });

  it('is not taken out of the script’s own sentences', async () => {
    const sound = spoken(numbers(8));
    expect((await wordsSaid(numbers(8), sound, 'en', COUNTS)).counts).toEqual([]);
  });
});
