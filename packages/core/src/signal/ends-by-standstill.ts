import { SAME_MS, type End } from './ends-by-level.ts';
import { crossedAt, median } from './numbers.ts';
import { STILL_SPEED } from './stillness.ts';

/** So much slower than the fastest on the way back is still, too, with moves that are slow themselves. */
const STILL_PART = 0.2;
/** Slowing down begins at so many times that speed. */
const SLOWING = 3;
/** From there it creeps on for about this part of the time between them. */
const CREEPS = 0.25;
/** Who stands still after so many of the repetitions rests between them. */
const RESTS = 0.5;
/** Who goes on at once has turned in the middle of the time they are back, to this part of it. */
const TURNS = 0.35;
/** Back for so many times as long as usual, the next one does not follow at once. */
const PAUSE = 1.8;

/** Where a falling value first is below a level, between two frames; null when it never is. */
function firstBelow(values: Float64Array, from: number, to: number, level: number): number | null {
  for (let i = Math.max(1, from); i <= to; i += 1) {
    if ((values[i] as number) < level)
      return (values[i - 1] as number) >= level ? crossedAt(values, i, level) : i;
  }
  return null;
}

/** When the body stands still after a top, and since when it was slowing down, in frames. */
function stopAfter(speed: Float64Array, from: number, to: number, still: number) {
  const at = firstBelow(speed, from, to, still);
  const slow = firstBelow(speed, from, to, SLOWING * still);
  return at === null || slow === null ? null : { at, slowing: at - slow };
}

const middle = ({ stay }: End) => (stay.from + stay.to) / 2;
const lengthOfStay = ({ stay }: End) => stay.to - stay.from;

/** @param turn where it would be if the body did not rest; null when it does */
function stopped({ at, slowing }: { at: number; slowing: number }, turn: number | null) {
  const latest = turn === null ? Infinity : Math.max(at, turn);
  return {
    at: Math.min(latest, at + CREEPS * slowing),
    within: (turn === null ? 0 : (latest - at) / 2) + CREEPS * slowing,
  };
}

function turned(signal: End, body: End, everyMs: number) {
  const [a, b] = [middle(signal), middle(body)];
  const apart = Math.abs(a - b);
  return {
    // A signal may be back long before the whole body goes on.
    at: apart * everyMs <= SAME_MS ? (a + b) / 2 : Math.min(a, b),
    within: Math.max(TURNS * lengthOfStay(body), apart / 2),
  };
}

/**
 * The ends by how fast the body moves: where it comes to a standstill, if it rests between the
 * repetitions, and if not where it turns. How far from rest it is says when to look.
 * @param byLevel the ends by signal and body together
 */
export function byStandstill(
  bySignal: readonly End[],
  byBody: readonly End[],
  byLevel: readonly End[],
  speed: Float64Array,
  everyMs: number,
): End[] {
  const waysBack = bySignal.map(({ half }, i) => {
    const body = byBody[i] as End;
    return {
      from: Math.round(Math.min(half, body.half)),
      to: Math.min(speed.length - 1, Math.ceil(body.stay.to)),
    };
  });
  const fastest = median(waysBack.map(({ from, to }) => Math.max(...speed.subarray(from, to + 1))));
  const still = Math.min(STILL_SPEED, STILL_PART * fastest);
  const stops = waysBack.map(({ from, to }) => stopAfter(speed, from, to, still));
  const rests = stops.filter((stop) => stop !== null).length >= RESTS * stops.length;
  const usualStay = median(byBody.map(lengthOfStay));
  const isLast = byBody.map(
    (body, i) => i === byBody.length - 1 || lengthOfStay(body) > PAUSE * usualStay,
  );
  const found = byLevel.map((end, i): End => {
    const [signal, body, stop] = [bySignal[i] as End, byBody[i] as End, stops[i]];
    const { at, within } =
      stop && (rests || isLast[i])
        ? stopped(stop, isLast[i] ? null : Math.min(middle(signal), middle(body)))
        : isLast[i]
          ? end
          : turned(signal, body, everyMs);
    return {
      ...end,
      at,
      // The two ways to tell are independent of each other.
      within: Math.max(0.5, within, Math.abs(at - end.at), signal.twofold, body.twofold),
    };
  });
  // The last way back takes as long as the others did, wherever the performer goes from there.
  const usual = median(found.flatMap(({ at, half }, i) => (isLast[i] ? [] : [at - half])));
  return found.map((one, i): End => {
    if (!isLast[i]) return one;
    const at = one.half + usual;
    const others = [one.at, (byLevel[i] as End).at].map((other) => Math.abs(other - at));
    return { ...one, at, within: Math.max(one.within / 2, ...others) };
  });
}
