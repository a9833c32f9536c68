import { joints } from './pose.ts';

/**
 * What the pose model's layers say of a square of `side` x `side` places, plane after plane, each by
 * row (MoveNet: a body's centre, from there about where each joint is, and the joint itself near it).
 */
interface PoseHeads {
  side: number;
  /** One plane: how likely the body's centre is there, weighted by how near the middle. */
  centre: Float32Array;
  /** Two planes a joint: how far down and to the right it is from a centre there, in places. */
  fromCentre: Float32Array;
  /** A plane a joint: how likely it is there, 0 to 1. */
  score: Float32Array;
  /** Two planes a joint: how far down and to the right of the place it is, in places. */
  offset: Float32Array;
}

/** So much is added to how far a place is from where the joint is expected (the model's own number). */
const NEAR = 1.8;

/** The place at which `value` is greatest; the first of equal ones. */
function greatest(count: number, value: (place: number) => number): number {
  let best = 0;
  let most = -Infinity;
  for (let place = 0; place < count; place += 1) {
    const one = value(place);
    if (one > most) [best, most] = [place, one];
  }
  return best;
}

/** The joints of the body nearest the middle: 17 times y, x, score, within the square. */
export function readPose({ side, centre, fromCentre, score, offset }: PoseHeads): Float32Array {
  const plane = side * side;
  const middle = greatest(plane, (place) => centre[place] as number);
  const at = (values: Float32Array, which: number, place: number) =>
    values[which * plane + place] as number;
  return Float32Array.from(
    joints.flatMap((_, joint) => {
      const [down, right] = [2 * joint, 2 * joint + 1];
      const [y, x] = [
        Math.floor(middle / side) + at(fromCentre, down, middle),
        (middle % side) + at(fromCentre, right, middle),
      ];
      const place = greatest(plane, (one) => {
        const [above, left] = [Math.floor(one / side) - y, (one % side) - x];
        return at(score, joint, one) / (Math.sqrt(above * above + left * left) + NEAR);
      });
      return [
        (Math.floor(place / side) + at(offset, down, place)) / side,
        ((place % side) + at(offset, right, place)) / side,
        at(score, joint, place),
      ];
    }),
  );
}
