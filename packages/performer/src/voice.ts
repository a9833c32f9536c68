import { chance } from './chance.ts';

/** Length of the voice before it repeats, in seconds. */
export const VOICE_LOOP_S = 16;

const SYLLABLE_S = 0.21;
/** Formants of five vowels, first and second, in Hz (rounded textbook values, from memory). */
const VOWELS = [
  [730, 1090],
  [530, 1840],
  [270, 2290],
  [570, 840],
  [300, 870],
] as const;

/**
 * Loudness of the voice at `seconds`, 0 to 1: syllables in phrases of about three seconds with
 * breaths between.
 */
export function speechAt(seconds: number): number {
  const s = ((seconds % VOICE_LOOP_S) + VOICE_LOOP_S) % VOICE_LOOP_S;
  if (s % 4 > 3.1) return 0;
  const syllable = Math.floor(s / SYLLABLE_S);
  const part = (s % SYLLABLE_S) / SYLLABLE_S;
  if (chance(syllable) < 0.12) return 0;
  return Math.sin(Math.PI * part) * (0.6 + 0.4 * chance(syllable + 1000));
}

/**
 * Voice-like sound: a buzzing source through two formants, spoken in syllables. Not speech, but it
 * has a voice's loudness, pitch and pauses.
 * @returns `count` samples from -1 to 1, starting at sample `from` of the loop
 */
export function voiceSamples(sampleRate: number, from: number, count: number): Float32Array {
  const out = new Float32Array(count);
  for (let i = 0; i < count; i += 1) {
    const seconds = ((from + i) / sampleRate) % VOICE_LOOP_S;
    const loud = speechAt(seconds);
    if (loud === 0) continue;
    const vowel =
      VOWELS[Math.floor(chance(Math.floor(seconds / SYLLABLE_S) + 77) * VOWELS.length)] ??
      VOWELS[0];
    // Whole cycles over the loop, with a little melody, so that it joins without a click.
    const phase = 2 * Math.PI * (168 * seconds + 1.4 * Math.sin((2 * Math.PI * seconds) / 4));
    let value = 0;
    for (let harmonic = 1; harmonic <= 18; harmonic += 1) {
      const hz = 168 * harmonic;
      const near = (formant: number, width: number) => 1 / (1 + ((hz - formant) / width) ** 2);
      value +=
        (Math.sin(phase * harmonic) / harmonic ** 0.4) *
        (near(vowel[0], 110) + 0.6 * near(vowel[1], 160));
    }
    out[i] = Math.max(-1, Math.min(1, value * loud * 0.22));
  }
  return out;
}
