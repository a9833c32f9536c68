import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SURE_SENTENCE, trustIn } from './speech-trust.ts';
import { bestPath, type Band, type Path, type TransitionCosts } from './speech-path.ts';
import { bandAbout, openBetween } from './speech-start.ts';
import { bandSound, noiseFloor, speechFrames } from './speech-sound.ts';

const PRICES: TransitionCosts = {
  repeat: 0.35,
  jump: [0, 0.15, 0.5],
  skip: 12,
  silence: -0.55,
  noise: 0.1,
  insertion: 14,
  insertionFrame: -0.45,
};
const QUIET = -1;
const STRANGE = -2;

/**
 * A recording as the frames of the sentences it holds, in order; quiet and strange ones among them.
 */
function wayOf(recording: readonly number[], lengths: readonly number[]): Int32Array {
  const starts = lengths.reduce<number[]>(
    (list, length) => [...list, (list.at(-1) ?? 0) + length],
    [0],
  );
  return pathOf(recording, starts, () => [0, starts.at(-1) ?? 0]).at;
}

function pathOf(recording: readonly number[], starts: readonly number[], band: Band): Path {
  const speech = Uint8Array.from(recording, (frame) => (frame === QUIET ? 0 : 1));
  return bestPath(
    recording.length,
    { starts, quiet: new Uint8Array(starts.at(-1) ?? 0) },
    speech,
    PRICES,
    band,
    (frame, from, to, row) => {
      for (let r = from; r < to; r += 1)
        row[r] = recording[frame] === QUIET ? 0.45 : recording[frame] === r ? -1 : 0.6;
    },
  );
}

describe('the way through a recording and its script', () => {
  it('finds every sentence, what was left out and what was added', () => {
    const sentence = fc.record({
      length: fc.integer({ min: 40, max: 80 }),
      isSaid: fc.boolean(),
      pause: fc.integer({ min: 5, max: 25 }),
      aside: fc.constantFrom(0, 0, 0, 60),
    });
    fc.assert(
      fc.property(fc.array(sentence, { minLength: 2, maxLength: 7 }), (plan) => {
        const recording: number[] = Array.from({ length: 10 }, () => QUIET);
        const begins: (number | null)[] = [];
        let first = 0;
        for (const { length, isSaid, pause, aside } of plan) {
          begins.push(isSaid ? recording.length : null);
          if (isSaid)
            recording.push(
              ...Array.from({ length }, (_, i) => first + i),
              ...Array.from({ length: pause }, () => QUIET),
            );
          if (isSaid && aside > 0)
            recording.push(
              ...Array.from({ length: aside }, () => STRANGE),
              ...Array.from({ length: pause }, () => QUIET),
            );
          first += length;
        }
        const at = wayOf(
          recording,
          plan.map(({ length }) => length),
        );
        recording.forEach((frame, t) => {
          if (frame >= 0) expect(at[t]).toBe(frame);
          else expect(at[t]).toBeLessThan(0);
        });
      }),
      { numRuns: 60 },
    );
  });

  it('costs the same where only what is near it is possible', () => {
    const sentence = fc.record({ isSaid: fc.boolean(), pause: fc.integer({ min: 5, max: 25 }) });
    fc.assert(
      fc.property(fc.array(sentence, { minLength: 4, maxLength: 9 }), (plan) => {
        const starts = Array.from({ length: plan.length + 1 }, (_, s) => s * 200);
        const recording = plan.flatMap(({ isSaid, pause }, s) => [
          ...Array.from({ length: isSaid ? 200 : 0 }, (_, i) => s * 200 + i),
          ...Array.from({ length: pause }, () => QUIET),
        ]);
        const total = plan.length * 200;
        const free = pathOf(recording, starts, () => [0, total]);
        const near = pathOf(recording, starts, bandAbout(free, starts, total, 1));
        expect(near.cost).toBeCloseTo(free.cost, 2);
      }),
      { numRuns: 15 },
    );
  });

  it('follows whoever speaks slower or faster than the script was made', () => {
    const slow = [QUIET, ...Array.from({ length: 120 }, (_, i) => Math.floor(i / 1.5)), QUIET];
    const at = wayOf(slow, [80]);
    expect([at[1], at[120]]).toEqual([0, 79]);
    const fast = [QUIET, ...Array.from({ length: 40 }, (_, i) => i * 2), QUIET];
    expect([...wayOf(fast, [80])].slice(1, 41).every((r, i) => r === i * 2)).toBe(true);
  });
});

const RATE = 16_000;
const noise = (seconds: number, level: number, seed: number) => {
  let state = seed;
  return Float32Array.from({ length: Math.round(seconds * RATE) }, () => {
    state = (state * 1_103_515_245 + 12_345) % 2_147_483_648;
    return (state / 1_073_741_824 - 1) * level;
  });
};
/** A buzz through a moving formant: not speech, but as rich and as changing. */
const buzz = (seconds: number) =>
  Float32Array.from({ length: Math.round(seconds * RATE) }, (_, i) => {
    const s = i / RATE;
    return (
      Array.from(
        { length: 20 },
        (__, h) =>
          Math.sin(2 * Math.PI * 130 * (h + 1) * s) /
          (1 + ((130 * (h + 1) - 900 - 600 * Math.sin(7 * s)) / 300) ** 2),
      ).reduce((sum, value) => sum + value, 0) * 0.15
    );
  });
const tone = (seconds: number, hertz = 880) =>
  Float32Array.from(
    { length: Math.round(seconds * RATE) },
    (_, i) => 0.3 * Math.sin((2 * Math.PI * hertz * i) / RATE),
  );

describe('what is possible between sentences that are sure', () => {
  it('is all of them, and elsewhere what was possible before', () => {
    const starts = Array.from({ length: 7 }, (_, s) => s * 100);
    const band: Band = (t) => [Math.max(0, t - 20), Math.min(600, t + 20)];
    const sure = [
      { sentence: 1, span: [90, 180] },
      { sentence: 4, span: [420, 500] },
      { sentence: 5, span: [520, 590] },
    ] as const;
    const open = openBetween(band, sure, 600, starts);
    const between = open(300);
    expect(between).toEqual([100, 500]);
    expect([open(0), open(40)]).toEqual([
      [0, 200],
      [0, 200],
    ]);
    expect(open(510)).toEqual(band(510));
    expect(open(599)).toEqual(band(599));
  });

  it('is what was possible before where that would be too much', () => {
    const starts = [0, 5_000, 10_000];
    const band: Band = (t) => [t, t + 1];
    expect(openBetween(band, [], 5_000, starts)(3_000)).toEqual([3_000, 3_001]);
    expect(openBetween(band, [], 500, starts)(300)).toEqual([0, 10_000]);
  });
});

describe('where somebody speaks', () => {
  it('is told from quiet, from a beep and from a knock', () => {
    const sound = noise(6, 0.0005, 7);
    const lay = (part: Float32Array, seconds: number) =>
      part.forEach(
        (value, i) =>
          (sound[Math.round(seconds * RATE) + i] =
            (sound[Math.round(seconds * RATE) + i] ?? 0) + value),
      );
    lay(buzz(1.5), 1);
    // A vowel in which nearly nothing but the pitch of the voice is heard.
    lay(tone(0.2, 190), 2.5);
    lay(tone(0.4), 3.5);
    lay(noise(0.06, 0.5, 3), 4.5);
    const bands = bandSound(sound, RATE);
    const speech = speechFrames(bands, noiseFloor(bands));
    const at = (seconds: number) => speech[Math.round(seconds * 50)];
    expect([
      at(0.5),
      at(1.2),
      at(1.8),
      at(2.3),
      at(2.6),
      at(3),
      at(3.7),
      at(4.52),
      at(5.5),
    ]).toEqual([0, 1, 1, 1, 1, 0, 0, 0, 0]);
  });
});

describe('how sure a sentence is', () => {
  const evidence = fc.array(
    fc.oneof(
      { weight: 4, arbitrary: fc.double({ min: 0, max: 12, noNaN: true }) },
      { weight: 1, arbitrary: fc.constant(null) },
      { weight: 1, arbitrary: fc.constant(undefined) },
    ),
    { maxLength: 20 },
  );

  it('grows with what speaks for it and for its neighbours, and what is not found has none', () => {
    fc.assert(
      fc.property(
        evidence,
        fc.nat(19),
        fc.double({ min: 0, max: 5, noNaN: true }),
        (own, at, more) => {
          const trust = trustIn(own);
          expect(trust.map((one) => one === null)).toEqual(own.map((one) => one === undefined));
          for (const one of trust) if (one !== null) expect(one >= 0 && one <= 1).toBe(true);
          const before = own[at];
          if (before === undefined || before === null) return;
          const raised = trustIn(own.map((one, i) => (i === at ? before + more : one)));
          // Where one alone is sure among many it counts for nothing, so a second one may only add.
          if (trust.filter((one) => (one ?? 0) >= SURE_SENTENCE).length !== 1)
            trust.forEach(
              (one, i) =>
                one !== null &&
                expect(raised[i] ?? 0).toBeGreaterThanOrEqual(Math.min(one, SURE_SENTENCE - 0.01)),
            );
        },
      ),
    );
  });

  it('is enough for sentences that all fit, and not for what fits by chance', () => {
    // What was measured: a person’s voice with the right script, and with another one.
    expect(
      trustIn([5.5, 5.1, 7.9, 7.2, 5.9, 4.9]).every((one) => (one ?? 0) >= SURE_SENTENCE),
    ).toBe(true);
    expect(
      trustIn([3.2, 2.4, 1.5, 2.4, 2.3, 4.9, null, 2.5, 1.9]).some(
        (one) => (one ?? 0) >= SURE_SENTENCE,
      ),
    ).toBe(false);
    expect(
      trustIn([null, null, 9, null, null, null]).some((one) => (one ?? 0) >= SURE_SENTENCE),
    ).toBe(false);
  });
});
