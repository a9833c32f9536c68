import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  clockRate,
  findMarks,
  MARK_LEAD_MS,
  MARK_NUMBERS,
  MARK_RATE_HZ,
  MARK_TAIL_MS,
  markedStretches,
  markLengthMs,
  markSamples,
} from './index.ts';

/** A repeatable source of chance. */
function chanceOf(seed: number): () => number {
  let state = seed >>> 0;
  return () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 4_294_967_296;
}
const gauss = (chance: () => number) =>
  Math.sqrt(-2 * Math.log(chance() + 1e-12)) * Math.cos(2 * Math.PI * chance());

/** Sound with marks in it, at any rate; places in milliseconds. */
function made(
  marks: { kind: 'start' | 'end'; number: number; atMs: number }[],
  seconds: number,
  loud = 0.1,
  rateHz = MARK_RATE_HZ,
): Float32Array {
  const sound = new Float32Array(Math.round(seconds * rateHz));
  for (const { kind, number, atMs } of marks) {
    const from = Math.round((atMs / 1000) * rateHz);
    markSamples(kind, number, rateHz).forEach(
      (value, i) => (sound[from + i] = (sound[from + i] ?? 0) + loud * value),
    );
  }
  return sound;
}

function inRoom(dry: Float32Array, seed: number, reverbSeconds = 0.5): Float32Array {
  const chance = chanceOf(seed);
  const wet = dry.slice();
  for (let k = 0; k < 150; k += 1) {
    const delay = Math.round(MARK_RATE_HZ * (0.006 + 0.4 * chance()));
    const gain =
      0.25 * Math.exp((-6.9 * delay) / MARK_RATE_HZ / reverbSeconds) * (chance() < 0.5 ? -1 : 1);
    for (let i = delay; i < wet.length; i += 1)
      wet[i] = (wet[i] ?? 0) + gain * (dry[i - delay] ?? 0);
  }
  return wet;
}

function noisy(sound: Float32Array, sigma: number, seed: number): Float32Array {
  const chance = chanceOf(seed);
  return sound.map((value) => value + sigma * gauss(chance));
}

/** Read at another speed, by straight lines between samples. */
function resampled(sound: Float32Array, step: number): Float32Array {
  return Float32Array.from({ length: Math.floor((sound.length - 1) / step) }, (_, i) => {
    const at = i * step;
    const low = Math.floor(at);
    return (sound[low] ?? 0) + ((sound[low + 1] ?? 0) - (sound[low] ?? 0)) * (at - low);
  });
}

/** A machine that others use as well takes its time over a minute of sound. */
const PATIENCE_MS = 60_000;
/** Power of a mark's sweep while it sounds, for noise at a given distance to it. */
const SWEEP_RMS = Math.sqrt(0.5 * 0.9);

describe('sync marks', () => {
  it(
    'are found within 10 ms in equal noise (0 dB) and echo, clipped too, with their number',
    () => {
      fc.assert(
        fc.property(
          fc.integer({ min: 0, max: MARK_NUMBERS - 1 }),
          fc.integer({ min: 0, max: 2_000 }),
          fc.nat(1_000),
          fc.boolean(),
          (number, atMs, seed, isClipped) => {
            const dry = made(
              [
                { kind: 'start', number, atMs },
                { kind: 'end', number, atMs: atMs + 5_000 },
              ],
              10,
            );
            const heard = noisy(inRoom(dry, seed), 0.1 * SWEEP_RMS, seed + 1);
            const found = findMarks(
              isClipped ? heard.map((value) => Math.max(-0.08, Math.min(0.08, value))) : heard,
            );
            expect(found.map((mark) => [mark.kind, mark.number])).toEqual([
              ['start', number],
              ['end', number],
            ]);
            expect(Math.abs((found[0]?.atMs ?? 0) - atMs)).toBeLessThan(10);
            expect(Math.abs((found[1]?.atMs ?? 0) - atMs - 5_000)).toBeLessThan(10);
          },
        ),
        { numRuns: 12 },
      );
    },
    PATIENCE_MS,
  );

  it(
    'are found after 44.1 kHz and a clock that is 200 parts in a million off, which is measured',
    () => {
      const playedMs = 60_000;
      const endMs = 1_000 + MARK_LEAD_MS + playedMs + MARK_TAIL_MS;
      const at44 = made(
        [
          { kind: 'start', number: 41, atMs: 1_000 },
          { kind: 'end', number: 41, atMs: endMs },
        ],
        70,
        0.1,
        44_100,
      );
      const sound = noisy(resampled(at44, 44_100 / MARK_RATE_HZ / 1.0002), 0.03, 7);
      const [stretch] = markedStretches(findMarks(sound));
      expect(stretch?.number).toBe(41);
      expect(Math.abs((stretch?.blockStartMs ?? 0) - 6_000 * 1.0002)).toBeLessThan(10);
      expect(((stretch && clockRate(stretch, playedMs)) ?? 0) * 1e6).toBeCloseTo(1_000_200, -1.5);
      expect(stretch && clockRate(stretch, 30_000)).toBeNull();
    },
    PATIENCE_MS,
  );

  it(
    'are not found in noise, glides, chords and clicks',
    () => {
      const chance = chanceOf(3);
      const sound = Float32Array.from({ length: MARK_RATE_HZ * 60 }, (_, i) => {
        const t = i / MARK_RATE_HZ;
        const chord =
          [220, 277, 330, 1_760, 3_520].reduce(
            (sum, hz) => sum + Math.sin(2 * Math.PI * hz * t),
            0,
          ) * 0.05;
        const glide = 0.2 * Math.sin(2 * Math.PI * (400 * t + 300 * Math.sin(t * 3)));
        const drum = 0.6 * Math.exp(-((t * 2) % 1) * 40) * (2 * chance() - 1);
        return chord + glide + drum + 0.05 * gauss(chance);
      });
      expect(findMarks(sound)).toEqual([]);
      expect(findMarks(new Float32Array(MARK_RATE_HZ))).toEqual([]);
      expect(findMarks(new Float32Array(0))).toEqual([]);
    },
    PATIENCE_MS,
  );

  it('are over before the count-in, and only numbers they can say', () => {
    expect(markLengthMs(MARK_NUMBERS - 1) + 3_000).toBeLessThan(MARK_LEAD_MS);
    expect(() => markSamples('start', MARK_NUMBERS, 48_000)).toThrow(`0 to ${MARK_NUMBERS - 1}`);
    expect(() => markSamples('start', 1.5, 48_000)).toThrow('whole number');
  });

  it('pair up by number, several performances in one recording', () => {
    const mark = (kind: 'start' | 'end', number: number, atMs: number) => ({
      kind,
      number,
      atMs,
      score: 1,
    });
    expect(
      markedStretches([
        mark('end', 9, 100),
        mark('start', 1, 1_000),
        mark('start', 2, 20_000),
        mark('end', 2, 40_000),
      ]),
    ).toEqual([
      { number: 1, blockStartMs: 6_000, blockEndMs: null, score: 1 },
      { number: 2, blockStartMs: 25_000, blockEndMs: 39_500, score: 1 },
    ]);
  });
});
