import { runsOf, smoothed, median } from './numbers.ts';
import { isSomebody, joints, SURE_JOINT, type Joint, type SeenPose } from './pose.ts';

/**
 * The performer over time, looked at at a steady rate: each joint's way, in heights of the body,
 * and when anybody was there.
 */
export interface Body {
  everyMs: number;
  length: number;
  /** Height of the body in heights of the picture, from the length of the trunk. */
  height: number;
  /**
   * To the right and up, in heights of the body from the picture's left lower corner; gaps are
   * bridged.
   */
  x: Record<Joint, Float64Array>;
  y: Record<Joint, Float64Array>;
  /** The part of the frames in which a joint was surely seen, 0 to 1. */
  seen: Record<Joint, number>;
  present: Uint8Array;
}

/**
 * Shoulders to hips, in heights of the body (proportions of a grown or drawn body, from memory).
 */
export const TRUNK = 0.3;
/** Joints surely seen in a smaller part of the frames than this say nothing. */
export const SEEN_OFTEN = 0.35;
/**
 * A joint that jumps so far and back within one frame was taken for another one, in heights of the
 * body.
 */
const SPIKE = 0.14;
/** Light smoothing: more of it erases quick skipping. In seconds. */
const SMOOTH_S = 0.05;

const paired = (pose: SeenPose, left: Joint, right: Joint, aspect: number) => {
  const [a, b] = [pose[joints.indexOf(left)], pose[joints.indexOf(right)]];
  return a && b && a.score >= SURE_JOINT && b.score >= SURE_JOINT
    ? { x: ((a.x + b.x) / 2) * aspect, y: (a.y + b.y) / 2 }
    : null;
};

function bridged(values: Float64Array, sure: Uint8Array): Float64Array {
  const known: number[] = [];
  for (let i = 0; i < sure.length; i += 1) if (sure[i] === 1) known.push(i);
  if (known.length === 0 || known.length === sure.length) return values;
  const filled = Float64Array.from(values);
  let next = 0;
  for (let i = 0; i < values.length; i += 1) {
    while (next < known.length && (known[next] as number) < i) next += 1;
    if (sure[i]) continue;
    const [before, after] = [known[next - 1], known[next]];
    const [a, b] = [values[before ?? after ?? 0] as number, values[after ?? before ?? 0] as number];
    filled[i] =
      before === undefined || after === undefined
        ? before === undefined
          ? b
          : a
        : a + ((b - a) * (i - before)) / (after - before);
  }
  return filled;
}

function withoutSpikes(values: Float64Array): Float64Array {
  return values.map((value, i) => {
    const [before, after] = [values[i - 1], values[i + 1]];
    if (before === undefined || after === undefined) return value;
    const between = (before + after) / 2;
    return Math.abs(value - between) > SPIKE && Math.abs(after - before) < SPIKE / 2
      ? between
      : value;
  });
}

/**
 * The performer's joints as clean ways through time; null when hardly anybody is ever seen.
 * @param poses one a frame, as parts of the picture
 * @param aspect width of the picture over its height
 */
export function bodyOf(poses: readonly SeenPose[], everyMs: number, aspect: number): Body | null {
  const trunks = poses.flatMap((pose) => {
    const [shoulders, hips] = [
      paired(pose, 'left shoulder', 'right shoulder', aspect),
      paired(pose, 'left hip', 'right hip', aspect),
    ];
    return shoulders && hips && isSomebody(pose)
      ? [Math.hypot(shoulders.x - hips.x, shoulders.y - hips.y)]
      : [];
  });
  if (trunks.length < 3) return null;
  const height = median(trunks) / TRUNK;
  if (height < 0.02) return null;
  const present = Uint8Array.from(poses, (pose) => (isSomebody(pose) ? 1 : 0));
  const sigma = (SMOOTH_S * 1_000) / everyMs;
  const ways = { x: {}, y: {}, seen: {} } as Pick<Body, 'x' | 'y' | 'seen'>;
  for (const [j, joint] of joints.entries()) {
    const [sure, xs, ys] = [
      new Uint8Array(poses.length),
      new Float64Array(poses.length),
      new Float64Array(poses.length),
    ];
    for (let i = 0; i < poses.length; i += 1) {
      const seen = poses[i]?.[j];
      sure[i] = seen && seen.score >= SURE_JOINT ? 1 : 0;
      xs[i] = ((seen?.x ?? 0) * aspect) / height;
      ys[i] = (1 - (seen?.y ?? 0)) / height;
    }
    const clean = (values: Float64Array) => smoothed(withoutSpikes(bridged(values, sure)), sigma);
    ways.x[joint] = clean(xs);
    ways.y[joint] = clean(ys);
    ways.seen[joint] = sure.reduce((sum, one) => sum + one, 0) / Math.max(1, poses.length);
  }
  return {
    everyMs,
    length: poses.length,
    height,
    ...ways,
    present: withoutGaps(present, Math.round(500 / everyMs)),
  };
}

/** Gaps of up to `most` frames are filled: somebody lost for a moment is still there. */
function withoutGaps(present: Uint8Array, most: number): Uint8Array {
  const filled = Uint8Array.from(present);
  for (const { from, to } of runsOf(present.length, (i) => present[i] === 0)) {
    if (from > 0 && to < present.length && to - from <= most) filled.fill(1, from, to);
  }
  return filled;
}
