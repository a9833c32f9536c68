import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  followPath,
  joints,
  LEVEL_WINDOW_MS,
  onWideFrame,
  openness,
  placeOfJoint,
  speechWindows,
  type SeenPose,
} from './index.ts';

/** A body about a place, all of it surely seen. */
const bodyAt = (x: number, y = 0.5): SeenPose =>
  joints.map((_, i) => ({ x: x + ((i % 5) - 2) * 0.02, y: y + ((i % 7) - 3) * 0.06, score: 0.8 }));
const nobody: SeenPose = joints.map(() => ({ x: 0.5, y: 0.5, score: 0 }));

describe('a view that follows', () => {
  it('stands still while the performer sways, and comes along when the performer goes', () => {
    const swaying = Array.from({ length: 20 }, (_, i) => ({
      atMs: i * 400,
      pose: bodyAt(0.5 + 0.02 * Math.sin(i)),
    }));
    expect(followPath(swaying, 200)).toHaveLength(1);
    const walking = Array.from({ length: 20 }, (_, i) => ({
      atMs: i * 400,
      pose: bodyAt(0.3 + 0.02 * i),
    }));
    const path = followPath(walking, 200);
    expect(path[0]?.x).toBeLessThan(340);
    expect(path.at(-1)?.x).toBeGreaterThanOrEqual(600);
    expect(followPath([{ atMs: 0, pose: nobody }], 200)).toEqual([]);
  });

  it('is in order of time and never leaves the picture', () => {
    const frame = fc.record({
      x: fc.double({ min: -0.2, max: 1.2, noNaN: true }),
      y: fc.double({ min: -0.2, max: 1.2, noNaN: true }),
      seen: fc.boolean(),
    });
    fc.assert(
      fc.property(
        fc.array(frame, { maxLength: 30 }),
        fc.integer({ min: 100, max: 400 }),
        (frames, zoom) => {
          const path = followPath(
            frames.map(({ x, y, seen }, i) => ({
              atMs: i * 400,
              pose: seen ? bodyAt(x, y) : nobody,
            })),
            zoom,
          );
          const half = 50_000 / zoom;
          path.forEach(({ atMs, x, y }, i) => {
            expect(atMs).toBeGreaterThan(path[i - 1]?.atMs ?? -1);
            for (const value of [x, y])
              expect(value >= half - 1 && value <= 1_000 - half + 1).toBe(true);
          });
        },
      ),
    );
  });
});

describe('music under speech', () => {
  it('is down while somebody speaks and up where nobody does, without a jump', () => {
    const level = fc.constantFrom(-80, -70, -20, -18, -25);
    fc.assert(
      fc.property(fc.array(level, { maxLength: 200 }), (levels) => {
        const speech = speechWindows(levels);
        const open = openness(speech);
        expect(speech).toEqual(levels.map((one) => one > -60));
        speech.forEach((isSpeech, i) => {
          if (isSpeech) expect(open[i]).toBe(0);
          if (i > 0)
            expect(Math.abs((open[i] ?? 0) - (open[i - 1] ?? 0))).toBeLessThanOrEqual(
              LEVEL_WINDOW_MS / 300 + 1e-6,
            );
        });
        if (!speech.includes(true)) expect([...open].every((one) => one === 1)).toBe(true);
      }),
    );
  });

  it('takes noise far under the voice for silence', () => {
    expect(speechWindows([-20, -21, -50, -20, -19, -20, -22, -20, -20, -20])).toEqual([
      true,
      true,
      false,
      true,
      true,
      true,
      true,
      true,
      true,
      true,
    ]);
  });
});

it('joints lie on the wide frame where their picture is fitted into it', () => {
  const [nose] = onWideFrame([{ x: 0, y: 0.25, score: 1 }], 9 / 16);
  // An upright picture fills the middle: 9/16 of 9/16 of the width.
  expect(nose?.x).toBeCloseTo(0.5 - 81 / 256 / 2, 6);
  expect(nose?.y).toBe(0.25);
  expect(onWideFrame([{ x: 0.1, y: 0.2, score: 1 }], 16 / 9)[0]?.x).toBeCloseTo(0.1, 9);
  expect(placeOfJoint(bodyAt(0.5), 'left knee')).not.toBeNull();
  expect(placeOfJoint(nobody, 'left knee')).toBeNull();
});
