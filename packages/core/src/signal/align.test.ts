import { describe, expect, it } from 'vitest';
import { seededChance } from '../schedule/index.ts';
import { alignSpeech, type SpeechMatch } from './speech-align.ts';
import { SURE_SENTENCE } from './speech-trust.ts';
import type { BandSound } from './speech-sound.ts';

// Speech as powers in bands, a frame every 20 ms: each sound has a shape of its own, each voice
// tilts it and trembles. So every sentence's place is known to the frame.

const BANDS = 26;
const QUIET = 1e-7;

const SOUNDS = Array.from({ length: 18 }, (_, s) => {
  const chance = seededChance(s * 97 + 11);
  const peaks = [2 + chance() * 7, 9 + chance() * 8, 17 + chance() * 8];
  return Array.from({ length: BANDS }, (__, band) =>
    peaks.reduce((sum, at, i) => sum + Math.exp(-((band - at) ** 2) / 4) / (i + 1), 0.02),
  );
});

/** The sounds of a sentence: which, and for how many frames. */
type Sentence = readonly (readonly [sound: number, frames: number])[];
function sentence(seed: number, sounds = 11): Sentence {
  const chance = seededChance(seed);
  return Array.from({ length: sounds }, () => [
    Math.floor(chance() * SOUNDS.length),
    3 + Math.floor(chance() * 4),
  ]);
}
const lengthOf = (said: Sentence) => said.reduce((sum, [, frames]) => sum + frames, 0);

interface Voice {
  /** Frames it takes for one of the plan. */
  pace: number;
  /** Power a band more than the one below. */
  tilt: number;
  tremble: number;
  seed: number;
}
type Part = Sentence | number;

/** Frames of what is said, with pauses of so many frames; and where each part begins. */
function spoken(parts: readonly Part[], { pace, tilt, tremble, seed }: Voice) {
  const chance = seededChance(seed);
  const rows: number[][] = [];
  const speech: number[] = [];
  const begins: number[] = [];
  for (const part of parts) {
    begins.push(rows.length);
    if (typeof part === 'number')
      for (let i = 0; i < part; i += 1) {
        rows.push(Array.from({ length: BANDS }, () => QUIET * (0.5 + chance())));
        speech.push(0);
      }
    else
      for (const [sound, frames] of part)
        for (let i = 0; i < Math.max(1, Math.round(frames * pace)); i += 1) {
          rows.push(
            (SOUNDS[sound] ?? []).map(
              (power, band) =>
                1e-3 * power * (1 + tilt) ** band * Math.exp(tremble * (chance() - 0.5)),
            ),
          );
          speech.push(1);
        }
  }
  const sound: BandSound = { frames: rows.length, powers: Float32Array.from(rows.flat()) };
  return { sound, speech: Uint8Array.from(speech), begins };
}

const script = [1, 2, 3, 4].map((seed) => sentence(seed));
const PAUSE = 12;
const made: Voice = { pace: 1, tilt: 0, tremble: 0.3, seed: 5 };
const teacher: Voice = { pace: 1.2, tilt: 0.06, tremble: 1.2, seed: 9 };

/** The script by the synthesiser, and a recording of these parts by the teacher. */
function match(parts: readonly Part[], voice = teacher) {
  const reference = spoken(
    script.flatMap((one) => [one, PAUSE]),
    made,
  );
  const recording = spoken(parts, voice);
  const total = reference.speech.length;
  const given: SpeechMatch = {
    recording: recording.sound,
    speech: recording.speech,
    reference: reference.sound,
    referenceSpeech: reference.speech,
    starts: [...script.map((_, i) => reference.begins[i * 2] ?? 0), total],
  };
  return { found: alignSpeech(given), begins: recording.begins.map((frame) => frame * 20) };
}
const inOrder = (order: readonly number[]): Part[] => [
  15,
  ...order.flatMap((i): Part[] => [script[i] ?? [], 10 + i * 2]),
];

describe('a script in a recording', () => {
  it('is found sentence by sentence, by another voice at another pace', () => {
    const { found, begins } = match(inOrder([0, 1, 2, 3]));
    expect(found.added).toEqual([]);
    found.sentences.forEach((said, i) => {
      const startMs = begins[1 + i * 2] ?? NaN;
      expect(Math.abs((said?.startMs ?? NaN) - startMs)).toBeLessThanOrEqual(20);
      expect(Math.abs((said?.endMs ?? NaN) - (begins[2 + i * 2] ?? NaN))).toBeLessThanOrEqual(20);
      expect(said?.confidence).toBeGreaterThanOrEqual(SURE_SENTENCE);
    });
  });

  it('has null for what was left out, and tells what was added', () => {
    const aside = sentence(77, 20);
    const parts = inOrder([0, 1, 3]);
    parts.splice(5, 0, aside, 20);
    const { found, begins } = match(parts);
    expect(found.sentences.map((said) => said === null)).toEqual([...[false, false, true, false]]);
    const at = begins[5] ?? NaN;
    expect(found.added).toHaveLength(1);
    expect(Math.abs((found.added[0]?.startMs ?? NaN) - at)).toBeLessThanOrEqual(60);
    expect(
      Math.abs((found.added[0]?.endMs ?? NaN) - (at + Math.round(lengthOf(aside) * 1.2) * 20)),
    ).toBeLessThanOrEqual(200);
  });

  it('is not sure where something else is said', () => {
    const others = [41, 42, 43, 44].map((seed) => sentence(seed));
    const { found } = match([15, ...others.flatMap((one): Part[] => [one, 12])]);
    for (const said of found.sentences) expect(said?.confidence ?? 0).toBeLessThan(SURE_SENTENCE);
  });

  it('is less sure the worse the recording is, by these figures', () => {
    const figures = (tremble: number) =>
      match(inOrder([0, 2, 3]), { ...teacher, tremble }).found.sentences.map(
        (said) => said && `${said.startMs}-${said.endMs} ${said.confidence}`,
      );
    expect([figures(4), figures(6)]).toMatchInlineSnapshot(`
      [
        [
          "300-1460 1",
          null,
          "1660-2820 1",
          "3100-4360 1",
        ],
        [
          "300-1460 1",
          null,
          "1660-2820 1",
          "3100-4360 1",
        ],
      ]
    `);
  });
});
