import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  frameHint,
  isSomebody,
  joints,
  lightHint,
  nextCrop,
  poseFrom,
  soundHint,
  standing,
  steady,
  wholeCrop,
  type SeenPose,
} from './index.ts';

const ASPECT = 16 / 9;
/**
 * Joints of somebody standing with the arms down, in body heights from the floor and from the
 * middle (the proportions the watch counts on).
 */
const UPRIGHT: Record<string, [number, number]> = {
  nose: [0, 0.92],
  eye: [0.02, 0.94],
  ear: [0.04, 0.93],
  shoulder: [0.11, 0.83],
  elbow: [0.14, 0.66],
  wrist: [0.16, 0.5],
  hip: [0.06, 0.53],
  knee: [0.06, 0.28],
  ankle: [0.06, 0.04],
};

function body(x: number, floorY: number, height: number, hidden: readonly string[] = []): SeenPose {
  return joints.map((joint) => {
    const [side = '', kind = joint] = joint.includes(' ') ? joint.split(' ') : ['', joint];
    const [dx, up] = UPRIGHT[kind] ?? [0, 0];
    // Facing the camera, the performer's left is on the picture's right.
    return {
      x: x + ((side === 'right' ? -dx : dx) * height) / ASPECT,
      y: floorY - up * height,
      score: hidden.includes(kind) ? 0.05 : 0.7,
    };
  });
}
const arms = { left: 0.5, right: 0.5, top: 1 };

describe('where the performer stands', () => {
  it('is read off the joints, with the feet out of sight too', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.3, max: 0.7, noNaN: true }),
        fc.double({ min: 0.7, max: 1.1, noNaN: true }),
        fc.double({ min: 0.2, max: 0.9, noNaN: true }),
        fc.boolean(),
        (x, floorY, height, feetHidden) => {
          const seen = standing(body(x, floorY, height, feetHidden ? ['ankle', 'knee'] : []));
          expect(seen?.x).toBeCloseTo(x, 6);
          expect(Math.abs((seen?.height ?? 0) - height)).toBeLessThan(0.01);
          expect(Math.abs((seen?.floorY ?? 0) - floorY)).toBeLessThan(0.02);
        },
      ),
    );
  });

  it('is nobody when too few joints are sure', () => {
    expect(
      isSomebody(
        body(0.5, 0.9, 0.7, ['eye', 'ear', 'shoulder', 'elbow', 'wrist', 'hip', 'knee', 'ankle']),
      ),
    ).toBe(false);
    expect(frameHint(body(0.5, 0.9, 0.7, Object.keys(UPRIGHT)), arms, 0.9, ASPECT)).toBe('nobody');
    expect(frameHint(null, arms, 0.9, ASPECT)).toBe('nobody');
  });
});

describe('hints', () => {
  it.each([
    ['good', body(0.5, 0.9, 0.7), arms],
    ['step back', body(0.5, 0.9, 0.7), { ...arms, top: 1.25 }],
    ['step back', body(0.5, 1.1, 0.7), arms],
    ['step back', body(0.5, 0.93, 0.8), { left: 1.1, right: 1.1, top: 1 }],
    // Too far to the picture's left is too far to the performer's right.
    ['move left', body(0.1, 0.9, 0.7), arms],
    ['move right', body(0.9, 0.9, 0.7), arms],
    ['come closer', body(0.5, 0.7, 0.2), arms],
  ] as const)('say “%s”', (hint, pose, room) => {
    expect(frameHint(pose, room, 0.9, ASPECT)).toBe(hint);
  });

  it('turn round when the picture and the move do', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0.3, max: 1, noNaN: true }),
        fc.double({ min: 0.2, max: 1.5, noNaN: true }),
        fc.double({ min: 0.2, max: 1.5, noNaN: true }),
        (x, height, left, right) => {
          const swapped = { 'move left': 'move right', 'move right': 'move left' } as const;
          const here = frameHint(body(x, 0.9, height), { left, right, top: 1 }, 0.9, ASPECT);
          const there = frameHint(
            body(1 - x, 0.9, height),
            { left: right, right: left, top: 1 },
            0.9,
            ASPECT,
          );
          expect(there).toBe(here === 'move left' || here === 'move right' ? swapped[here] : here);
        },
      ),
    );
  });

  it('are said only after a while', () => {
    const said = steady<string>(900);
    expect([
      said('a', 0),
      said('a', 500),
      said('a', 900),
      said('b', 1_000),
      said('b', 1_800),
      said('a', 1_850),
      said('b', 1_900),
      said('b', 2_800),
    ]).toEqual([null, null, 'a', 'a', 'a', 'a', 'a', 'b']);
  });
});

describe('the tracking crop', () => {
  it('is a square on the picture that holds the performer, and the whole picture while nobody is there', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.2, max: 0.8, noNaN: true }),
        fc.double({ min: 0.2, max: 0.8, noNaN: true }),
        (x, height) => {
          const pose = body(x, 0.95, height);
          const crop = nextCrop(pose, ASPECT);
          expect(crop.width * ASPECT).toBeCloseTo(crop.height, 9);
          for (const joint of pose) {
            expect(joint.x > crop.left && joint.x < crop.left + crop.width).toBe(true);
            expect(joint.y > crop.top && joint.y < crop.top + crop.height).toBe(true);
          }
          // What the model says within the crop comes back to the same place.
          const output = pose.flatMap((joint) => [
            (joint.y - crop.top) / crop.height,
            (joint.x - crop.left) / crop.width,
            joint.score,
          ]);
          poseFrom(output, crop).forEach((joint, i) =>
            expect(
              Math.hypot(joint.x - (pose[i]?.x ?? 0), joint.y - (pose[i]?.y ?? 0)),
            ).toBeLessThan(1e-9),
          );
        },
      ),
    );
    expect(nextCrop(null, ASPECT)).toEqual(wholeCrop(ASPECT));
    expect(wholeCrop(9 / 16).width).toBeCloseTo(16 / 9, 9);
  });
});

describe('light and sound', () => {
  const picture = (luma: number, others: number) =>
    Uint8Array.from({ length: 32 * 18 }, (_, i) => (i % 32 >= 12 && i % 32 < 20 ? luma : others));
  const box = { left: 12 / 32, right: 20 / 32, top: 0, bottom: 1 };
  it.each([
    [null, 120, 130],
    ['too dark', 25, 30],
    ['too bright', 245, 240],
    ['light from behind', 60, 210],
    ['light from behind', 40, 200],
  ] as const)('is “%s” at %i on %i', (hint, luma, others) => {
    expect(lightHint(picture(luma, others), 32, box)).toBe(hint);
  });

  it.each([
    ['silent', { loudestDb: -70, peak: 0.001, rumbleDb: -90, voiceDb: -90 }],
    ['too quiet', { loudestDb: -45, peak: 0.05, rumbleDb: -60, voiceDb: -48 }],
    ['good', { loudestDb: -20, peak: 0.4, rumbleDb: -40, voiceDb: -22 }],
    ['too loud', { loudestDb: -5, peak: 0.9, rumbleDb: -20, voiceDb: -6 }],
    ['too loud', { loudestDb: -15, peak: 1, rumbleDb: -20, voiceDb: -16 }],
    ['wind', { loudestDb: -20, peak: 0.5, rumbleDb: -20, voiceDb: -40 }],
  ] as const)('sounds “%s”', (hint, facts) => {
    expect(soundHint(facts)).toBe(hint);
  });
});
