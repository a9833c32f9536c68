import { boxAbout, isSomebody, sureJoints, type SeenPose } from './pose.ts';

/** A pose at a moment, in milliseconds. */
export interface PoseAt {
  atMs: number;
  pose: SeenPose;
}

/** The middle a closer view has from a moment on, in thousandths of the picture. */
export interface PathPoint {
  atMs: number;
  x: number;
  y: number;
}

/**
 * A view that follows every step makes one seasick: it waits until the performer has gone this part
 * of what is shown.
 */
const SLACK = 0.12;
/** Frames on either side that a middle is taken over. */
const AROUND = 2;

/** The middle of a box around what is surely seen. */
function middleOf(pose: SeenPose): { x: number; y: number } {
  const { left, right, top, bottom } = boxAbout(sureJoints(pose));
  return { x: (left + right) / 2, y: (top + bottom) / 2 };
}

const median = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;

/**
 * A calm path that keeps the performer in a view `zoom` percent as large: it stays where it is
 * while the performer moves little, and does not leave the picture. Frames in which nobody is seen
 * are passed over.
 * @returns points in order of time; none when nobody is seen at all
 */
export function followPath(frames: readonly PoseAt[], zoom: number): PathPoint[] {
  const seen = frames
    .filter(({ pose }) => isSomebody(pose))
    .map(({ atMs, pose }) => ({ atMs, ...middleOf(pose) }));
  const half = 50 / zoom;
  const within = (value: number) => Math.min(1 - half, Math.max(half, value));
  const points: PathPoint[] = [];
  let at: { x: number; y: number } | null = null;
  seen.forEach(({ atMs }, i) => {
    const near = seen.slice(Math.max(0, i - AROUND), i + AROUND + 1);
    const wanted = {
      x: within(median(near.map(({ x }) => x))),
      y: within(median(near.map(({ y }) => y))),
    };
    const isFar =
      at === null ||
      Math.abs(wanted.x - at.x) > SLACK * 2 * half ||
      Math.abs(wanted.y - at.y) > SLACK * 2 * half;
    // The view stands until it goes: where it stood is a point too.
    const before = points.at(-1);
    const lastMs = seen[i - 1]?.atMs;
    if (isFar && at && before && lastMs !== undefined && lastMs > before.atMs)
      points.push({ atMs: lastMs, x: before.x, y: before.y });
    if (!isFar) return;
    at = wanted;
    points.push({ atMs, x: Math.round(wanted.x * 1_000), y: Math.round(wanted.y * 1_000) });
  });
  return points;
}
