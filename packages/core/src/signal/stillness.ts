import { SEEN_OFTEN, type Body } from './body.ts';
import { quantile, runsOf } from './numbers.ts';
import { joints } from './pose.ts';

/**
 * Slower than this in heights of the body a second is standing still: what is left is breathing and
 * the noise of the frame.
 */
export const STILL_SPEED = 0.09;
/** Movement is judged over this long. */
const WINDOW_MS = 400;

/** How fast the fastest parts of the body move, frame by frame, in heights of the body a second. */
export function speedOf(body: Body): Float64Array {
  const reach = Math.max(1, Math.round(WINDOW_MS / 2 / body.everyMs));
  const used = joints.filter((joint) => body.seen[joint] >= SEEN_OFTEN);
  return Float64Array.from({ length: body.length }, (_, i) => {
    const [a, b] = [Math.max(0, i - reach), Math.min(body.length - 1, i + reach)];
    const seconds = ((b - a) * body.everyMs) / 1_000;
    // Who bounces is back after a while: it is the furthest within the window that counts.
    const moved = used.map((joint) => {
      const [x, y] = [body.x[joint], body.y[joint]];
      let furthest = 0;
      for (let k = a; k <= b; k += 1)
        for (let l = k + 1; l <= b; l += 1)
          furthest = Math.max(
            furthest,
            Math.hypot((x[l] as number) - (x[k] as number), (y[l] as number) - (y[k] as number)),
          );
      return furthest;
    });
    return seconds > 0 ? quantile(moved, 0.8) / seconds : 0;
  });
}

/**
 * A picture in which nothing of what moves in the clip changes more than this over the window, in
 * its own spread, stands still.
 */
const STILL_PICTURE = 0.2;

/**
 * How much the picture changes about each frame, whatever is in it: the most any of the signals does
 * over the window.
 */
function pictureChange(
  motion: readonly (readonly number[])[],
  reach: number,
  length: number,
): Float64Array {
  return Float64Array.from({ length }, (_, i) => {
    const [a, b] = [Math.max(0, i - reach), Math.min(length - 1, i + reach)];
    return motion.length === 0
      ? Infinity
      : Math.max(
          ...motion.map(
            (signal) => Math.max(...signal.slice(a, b + 1)) - Math.min(...signal.slice(a, b + 1)),
          ),
        );
  });
}

/** 1 for each look at which the performer is there and still. @param speed see `speedOf` */
export function stillFrames(body: Body, speed = speedOf(body)): Uint8Array {
  return Uint8Array.from(speed, (value, i) =>
    body.present[i] === 1 && value < STILL_SPEED ? 1 : 0,
  );
}

export interface StillStretch {
  startMs: number;
  endMs: number;
  /** How much the middle of the body sways meanwhile, in heights of the body. */
  sway: number;
}

const LEAST_MS = 900;

/**
 * The part of a stretch from the first to the last look at which the picture stands; all of it
 * where it mostly does not, as with a camera in the hand.
 */
function trimmed(
  { from, to }: { from: number; to: number },
  stands: (i: number) => boolean,
): { from: number; to: number } {
  const standing = Array.from({ length: to - from }, (_, i) => from + i).filter(stands);
  return standing.length * 2 < to - from
    ? { from, to }
    : { from: standing[0] ?? from, to: (standing.at(-1) ?? to - 1) + 1 };
}

/**
 * Stretches in which the performer stands, sits or lies still, and how steadily: by the body, or
 * where the look at it trembles, as in the dark, by the picture; a slow beginning shows in the
 * picture first.
 * @param motion what moves in the picture, see `motionOf`
 */
export function stillStretches(
  body: Body,
  motion: readonly (readonly number[])[] = [],
): StillStretch[] {
  const still = stillFrames(body);
  const change = pictureChange(
    motion,
    Math.max(1, Math.round(WINDOW_MS / 2 / body.everyMs)),
    body.length,
  );
  const stands = (i: number) => (change[i] as number) < STILL_PICTURE;
  return runsOf(body.length, (i) => body.present[i] === 1 && (still[i] === 1 || stands(i)))
    .map((run) => trimmed(run, stands))
    .filter(({ from, to }) => (to - from) * body.everyMs >= LEAST_MS)
    .map(({ from, to }) => {
      const xs = body.x['left hip']
        .slice(from, to)
        .map((value, i) => (value + (body.x['right hip'][from + i] as number)) / 2);
      return {
        startMs: from * body.everyMs,
        endMs: to * body.everyMs,
        sway: Math.round((quantile(xs, 0.95) - quantile(xs, 0.05)) * 1_000) / 1_000,
      };
    });
}
