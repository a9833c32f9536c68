import { execFileSync } from 'node:child_process';
import { calledCount } from '@zest/core/script';
import { SURE_SENTENCE } from '@zest/core/signal';
import { describe, expect, it } from 'vitest';
import { alignScript, SPEECH_RATE, wordsSaid } from './speech.ts';

const COUNTS = { language: 'en' as const, own: [] };
const numbers = (most: number) => calledCount(most, 'up', COUNTS);
/** Another voice than the one that is compared with. */
const VOICE = 'en-us+f3';

/** Words said one by one in a beat of 1.4 s, over a little noise; null is a beat in which nothing is said. */
function spoken(words: readonly (string | null)[]): Float32Array {
  const sound = Float32Array.from({ length: Math.round((words.length * 1.4 + 2) * SPEECH_RATE) }, (_, i) => Math.sin(i * 12.9898 + Math.sin(i) * 78.233) * 0.001);
  words.forEach((word, i) => {
    if (word === null) return;
    const wave = execFileSync('espeak-ng', ['-v', VOICE, '-s', '170', '--stdout', '--', word]).subarray(44);
    const start = Math.round((1 + i * 1.4 + (i % 3) * 0.06) * SPEECH_RATE);
    for (let s = 0; s * 2 + 1 < wave.length && start + s < sound.length; s += 1) sound[start + s] = (sound[start + s] ?? 0) + (wave.readInt16LE(s * 2) / 32_768) * 0.6;
  });
  return sound;
}
const counted = async (words: readonly (string | null)[]) => (await wordsSaid([], spoken(words), 'en', COUNTS)).counts.map((one) => one.numbers);

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

describe('a script in a voice unlike the synthesiser’s', () => {
  const script = ['Hold the disc flat in front of you.', 'Step with the other foot.', 'Turn your shoulders before the arm.', 'Let it go when your hand points at the target.', 'Your thumb stays on top.', 'Breathe out as you throw.', 'Fetch it and walk back to the line.', 'Do five more with the other hand.'];
  const other = ['Sit tall on the chair.', 'The band lies under both feet.', 'Pull your elbows back slowly.', 'Count to three on the way down.', 'Keep your neck long and your chin in.', 'Rest when the clock says so.', 'Loosen the band if it hurts.', 'We finish with two easy rounds.'];
  const spokenBy = (lines: readonly string[]) => {
    const sound = lines.flatMap((line) => {
      const wave = execFileSync('espeak-ng', ['-v', 'en-gb-scotland+croak', '-s', '150', '--stdout', '--', line]).subarray(44);
      // Through a bad microphone in a hall: few heights, and echoes.
      const made = execFileSync('ffmpeg', ['-v', 'error', '-f', 's16le', '-ar', String(SPEECH_RATE), '-ac', '1', '-i', 'pipe:0', '-af', 'highpass=f=250,lowpass=f=3400,aecho=0.8:0.7:40|90|170:0.4|0.3|0.2,apad=pad_dur=0.6', '-f', 's16le', '-ar', String(SPEECH_RATE), 'pipe:1'], { input: wave });
      return Array.from({ length: made.length >> 1 }, (_, i) => made.readInt16LE(i * 2) / 32_768);
    });
    return Float32Array.from(sound, (value, i) => value + Math.sin(i * 12.9898 + Math.sin(i) * 78.233) * 0.001);
  };

  it('is sure of most sentences of the right one and of none of another one', async () => {
    const sound = spokenBy(script);
    const sure = async (lines: readonly string[]) => (await alignScript(lines, sound, 'en')).sentences.filter((one) => (one?.confidence ?? 0) >= SURE_SENTENCE).length;
    expect(await sure(script)).toBeGreaterThanOrEqual(6);
    expect(await sure(other)).toBe(0);
  });
});
