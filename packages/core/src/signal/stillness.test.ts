import { describe, expect, it } from 'vitest';
import { bodyOf, type Body } from './body.ts';
import { joints, type SeenPose } from './pose.ts';
import { repetitionsIn } from './repetitions.ts';
import { stillStretches } from './stillness.ts';

const EVERY_MS = 100;
/** A standing figure; `squat` lowers hips and shoulders, `tremble` is the noise of the frame. */
function poseAt(i: number, squat: number, tremble: number): SeenPose {
  return joints.map((joint, j) => {
    const isLow = /ankle|knee/.test(joint);
    const height = /ankle/.test(joint)
      ? 0.9
      : /knee/.test(joint)
        ? 0.75
        : /hip/.test(joint)
          ? 0.55
          : /shoulder|elbow|wrist/.test(joint)
            ? 0.35
            : 0.2;
    const noise = tremble * Math.sin(i * (j + 3) * 1.7);
    return {
      x: 0.5 + (joint.startsWith('left') ? 0.05 : -0.05) + noise,
      y: height + (isLow ? 0 : 0.15 * squat) + noise,
      score: 0.9,
    };
  });
}

/** Still for 3 s, squats of 2 s, still for 3 s. */
const squats = 6;
const squatAt = (i: number) =>
  i < 30 || i >= 30 + squats * 20 ? 0 : (1 - Math.cos(((i - 30) * 2 * Math.PI) / 20)) / 2;
const frames = 60 + squats * 20;

function bodyWith(tremble: number, squat = squatAt): Body {
  const body = bodyOf(
    Array.from({ length: frames }, (_, i) => poseAt(i, squat(i), tremble)),
    EVERY_MS,
    1.78,
  );
  if (!body) throw new Error('The figure is a body.');
  return body;
}
const motion = [Array.from({ length: frames }, (_, i) => 3 * squatAt(i))];
const ends = (stretches: { startMs: number; endMs: number }[]) => [
  stretches[0]?.endMs ?? NaN,
  stretches.at(-1)?.startMs ?? NaN,
];

describe('standing still', () => {
  it('is seen by the body, and by the picture where the look at the body trembles', () => {
    for (const stretches of [
      stillStretches(bodyWith(0)),
      stillStretches(bodyWith(0), motion),
      stillStretches(bodyWith(0.02), motion),
    ]) {
      const [head = NaN, tail = NaN] = ends(stretches);
      expect(Math.abs(head - 3_000)).toBeLessThanOrEqual(300);
      expect(Math.abs(tail - (3_000 + squats * 2_000))).toBeLessThanOrEqual(300);
    }
    expect(stillStretches(bodyWith(0.02))).toEqual([]);
  });

  it('is not trusted to a picture that never stands, as with a camera in the hand', () => {
    const shaken = [Array.from({ length: frames }, (_, i) => Math.sin(i * 1.3))];
    expect(stillStretches(bodyWith(0), shaken)).toEqual(stillStretches(bodyWith(0)));
  });
});

describe('what stands still is no repetition', () => {
  it('neither begins nor tops a move, and the true ones are all there', () => {
    const rests = stillStretches(bodyWith(0.004), motion);
    const found = repetitionsIn(bodyWith(0.004), rests);
    expect(found).toHaveLength(squats);
    expect(found[0]?.startMs).toBeGreaterThanOrEqual(2_500);
    // A sway within a rest is not counted, however alike.
    const swaying = (i: number) => (i < 24 && i > 4 ? 0.5 * squatAt(30 + (i - 4)) : squatAt(i));
    const swayed = repetitionsIn(bodyWith(0.002, swaying), [{ startMs: 0, endMs: 3_000, sway: 0 }]);
    expect(swayed.every(({ topMs }) => topMs >= 3_000)).toBe(true);
    expect(swayed).toHaveLength(squats);
  });

  it('a hold at the furthest point is no rest: it moved to get there', () => {
    const held = (i: number) =>
      i < 30 || i >= 30 + squats * 20 ? 0 : Math.min(1, 1.6 * squatAt(i));
    const body = bodyWith(0, held);
    const rests = Array.from({ length: squats }, (_, n) => ({
      startMs: 3_500 + n * 2_000,
      endMs: 4_500 + n * 2_000,
      sway: 0,
    }));
    expect(repetitionsIn(body, rests)).toHaveLength(squats);
  });
});
