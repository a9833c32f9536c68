import type { Side } from '../lesson/index.ts';
import type { Body } from './body.ts';
import type { Cycle } from './cycles.ts';
import type { Joint } from './pose.ts';

const ARMS: readonly [Joint[], Joint[]] = [
  ['left wrist', 'left elbow'],
  ['right wrist', 'right elbow'],
];
const LEGS: readonly [Joint[], Joint[]] = [
  ['left ankle', 'left knee'],
  ['right ankle', 'right knee'],
];
/** A limb that moves so much more than the other one did it. */
const ONE_SIDED = 1.7;
const LIMB_MOVES = 0.09;

/** A foot that goes down in the picture by so much comes towards the camera. */
const FORWARD = 0.03;
/** The hips go over the leg that bears, by so much. */
const SHIFTED = 0.06;
/** Shoulders nearer to each other are seen from the side. */
const FACING = 0.08;

/** The side one of two figures is plainly for; null when they are too alike or both small. */
function plainer(left: number, right: number, least: number): Side | null {
  if (Math.max(left, right) < least) return null;
  return left > ONE_SIDED * right ? 'left' : right > ONE_SIDED * left ? 'right' : null;
}

type Rule = (body: Body, way: (values: Float64Array) => number, top: number) => Side | null;

const byLimbs =
  ([left, right]: readonly [Joint[], Joint[]]): Rule =>
  ({ x, y }, way) => {
    const gone = (limb: readonly Joint[]) =>
      Math.max(...limb.map((joint) => Math.hypot(way(x[joint]), way(y[joint]))));
    return plainer(gone(left), gone(right), LIMB_MOVES);
  };

/** Over which leg the hips go. Who faces the camera has the left on the picture's right. */
const byHips: Rule = ({ x }, way, top) => {
  const hips = (way(x['left hip']) + way(x['right hip'])) / 2;
  const across = (x['left shoulder'][top] as number) - (x['right shoulder'][top] as number);
  if (Math.abs(hips) < SHIFTED || Math.abs(across) < FACING) return null;
  return hips * across > 0 ? 'left' : 'right';
};

/** Which foot comes towards the camera: below the floor it cannot go. */
const byFeet: Rule = ({ y }, way) =>
  plainer(Math.max(0, -way(y['left ankle'])), Math.max(0, -way(y['right ankle'])), FORWARD);

/** What tells the side, the plainest first; some only where sides go in turn, as anybody sways. */
const RULES: readonly { of: Rule; isInTurn: boolean }[] = [
  { of: byLimbs(LEGS), isInTurn: false },
  { of: byHips, isInTurn: true },
  { of: byFeet, isInTurn: true },
  { of: byLimbs(ARMS), isInTurn: false },
];

/**
 * Sides hold when nearly all repetitions have one, and they go in turn or stay the same; chance
 * does neither.
 */
function holds(sides: readonly (Side | null)[], isInTurn: boolean): boolean {
  const known = sides.filter((side) => side !== null);
  if (known.length < 0.75 * sides.length || known.length < 2) return false;
  const changes = known.slice(1).filter((side, i) => side !== known[i]).length / (known.length - 1);
  return changes >= 0.8 || (!isInTurn && changes <= 0.2);
}

/** The side that does each repetition; null where it cannot be told, or both do. */
export function sidesOf(body: Body, cycles: readonly Cycle[]): (Side | null)[] {
  for (const { of, isInTurn } of RULES) {
    const sides = cycles.map(({ from, top }) =>
      of(body, (values) => (values[top] as number) - (values[from] as number), top),
    );
    if (holds(sides, isInTurn)) return sides;
  }
  return cycles.map(() => null);
}
