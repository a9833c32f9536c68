import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { PoseWatch, type LookedAt } from './looks.ts';
import type { Picture } from './picture.ts';
import { joints, type SeenPose } from './pose.ts';

const [WIDTH, HEIGHT] = [128, 72];

/** A dark picture with a bright square; the square's middle is where the body is. */
function pictureWith(x: number): Picture {
  const rgb = new Uint8Array(WIDTH * HEIGHT * 3);
  const left = Math.round(x * WIDTH) - 12;
  for (let row = 20; row < 52; row += 1)
    rgb.fill(240, (row * WIDTH + Math.max(0, left)) * 3, (row * WIDTH + left + 24) * 3);
  return { rgb, width: WIDTH, height: HEIGHT };
}
const poseAt = (x: number): SeenPose => joints.map((_, j) => ({ x, y: 0.3 + j / 50, score: 0.9 }));

/** What comes back of a body that is at these places, and how often it was looked at. */
async function watched(places: readonly number[]): Promise<{ poses: LookedAt[]; looks: number }> {
  let looks = 0;
  // The square tells where it is: of two pictures alike the same is seen.
  const watch = new PoseWatch((picture) => {
    looks += 1;
    const row = picture.rgb.subarray(30 * WIDTH * 3, 31 * WIDTH * 3);
    return Promise.resolve(poseAt((row.indexOf(240) / 3 + 12) / WIDTH));
  });
  const poses: LookedAt[] = [];
  const reused = pictureWith(0.5);
  for (const x of places) {
    // Its pixels are written over, as those of a stream are.
    reused.rgb.set(pictureWith(x).rgb);
    for (const one of await watch.add(reused))
      poses.push({ ...one, picture: { ...one.picture, rgb: Uint8Array.from(one.picture.rgb) } });
  }
  poses.push(...(await watch.end()));
  return { poses, looks };
}
const off = (poses: readonly LookedAt[], places: readonly number[]) =>
  Math.max(...poses.map(({ pose }, i) => Math.abs((pose[0]?.x ?? NaN) - (places[i] ?? NaN))));

describe('looking at the body', () => {
  it('gives back each picture once, in order, whatever happens in it', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.double({ min: 0.15, max: 0.85, noNaN: true }), { maxLength: 30 }),
        async (places) => {
          const { poses, looks } = await watched(places);
          expect(poses).toHaveLength(places.length);
          expect(looks).toBeLessThanOrEqual(places.length);
          // Compared as bytes: element by element it takes a minute.
          const isRight = ({ picture }: LookedAt, i: number) =>
            Buffer.from(picture.rgb).equals(pictureWith(places[i] ?? NaN).rgb);
          expect(poses.map(isRight)).toEqual(places.map(() => true));
        },
      ),
      { numRuns: 60 },
    );
  });

  it('is done once a second where nothing moves', async () => {
    const places = Array.from({ length: 100 }, () => 0.5);
    const { poses, looks } = await watched(places);
    expect(looks).toBeLessThanOrEqual(20);
    expect(off(poses, places)).toBeLessThan(0.01);
  });

  it('is done for every other picture on a slow way, and lies between on it', async () => {
    const places = Array.from({ length: 100 }, (_, i) => 0.5 - 0.2 * Math.cos((i * Math.PI) / 40));
    const { poses, looks } = await watched(places);
    expect(looks).toBeLessThanOrEqual(64);
    expect(off(poses, places)).toBeLessThan(0.02);
  });

  it('is done for all pictures of a quick move', async () => {
    const places = Array.from({ length: 100 }, (_, i) => 0.5 + 0.12 * Math.sin(i * 1.3));
    const { poses, looks } = await watched(places);
    expect(looks).toBeGreaterThan(85);
    expect(off(poses, places)).toBeLessThan(0.02);
  });
});
