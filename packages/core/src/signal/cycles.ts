import type { Body } from './body.ts';
import { wayBetween, type MoveSignal } from './moves.ts';
import { autocorrelation, correlation, median, quantile, runsOf } from './numbers.ts';

/** Topographic prominence of a top, in parts of the amplitude: it came up and back by so much. */
const PROMINENCE = 0.3;
/** A rest level so far from the middle, in parts of the amplitude, tells where the move begins. */
const PLAIN_REST = 0.15;
/** Repetitions have most of the amplitude there is; swaying in a pose has not. */
const WHOLE_AMPLITUDE = 0.55;
/** Nearer to the lowest point than this part of the amplitude is at rest. */
const REST_LEVEL = 0.05;
/** The amplitude lies between these quantiles of the values; what is outside are slips. */
export const AMPLITUDE = { from: 0.06, to: 0.94 } as const;
/** Faster than four a second nobody moves; slower than one in twelve seconds nobody repeats. */
const SHORTEST_MS = 250;
const LONGEST_MS = 12_000;
/** A movement has to be done at least so often to be a repeated one. */
export const LEAST_CYCLES = 3;

/** Up and back once, as frames. */
export interface Cycle {
  from: number;
  top: number;
  to: number;
  rise: number;
}

/**
 * Whether the body rests high in this signal: by where it is while standing still, if that is
 * plain; if not, by whether it goes down while the whole body goes away from rest. Without any rest
 * it stays longer where it rests.
 */
export function restsHigh(
  values: Float64Array,
  still: Uint8Array,
  away: Float64Array | null,
  low: number,
  high: number,
): boolean {
  if (!away) return median(values) - low > high - median(values);
  const level = (median(values.filter((_, i) => still[i] === 1)) - low) / (high - low);
  return Math.abs(level - 0.5) > PLAIN_REST ? level > 0.5 : correlation(values, away) < 0;
}

/** The middle of the stay about a top: who holds there is furthest all the time. */
function middleOf(values: Float64Array, top: number, from: number, to: number, slack: number) {
  const level = (values[top] as number) - slack;
  let [first, last] = [top, top];
  while (first > from && (values[first - 1] as number) >= level) first -= 1;
  while (last < to - 1 && (values[last + 1] as number) >= level) last += 1;
  return Math.round((first + last) / 2);
}

/** Turning points: it has come up, and gone down again, by the prominence asked for. */
function topsIn(values: Float64Array, from: number, to: number, prominence: number): number[] {
  const tops: number[] = [];
  let [low, top] = [from, -1];
  for (let i = from; i < to; i += 1) {
    const value = values[i] as number;
    if (top < 0) {
      if (value < (values[low] as number)) low = i;
      else if (value - (values[low] as number) >= prominence) top = i;
    } else if (value > (values[top] as number)) top = i;
    else if ((values[top] as number) - value >= prominence) {
      tops.push(middleOf(values, top, from, i, REST_LEVEL * (prominence / PROMINENCE)));
      [low, top] = [i, -1];
    }
  }
  return tops;
}

/**
 * From where it leaves the lowest point before the top to where it is back at the lowest after it.
 */
function cyclesIn(values: Float64Array, present: Uint8Array, amplitude: number): Cycle[] {
  return runsOf(values.length, (i) => present[i] === 1).flatMap(({ from, to }) => {
    const tops = topsIn(values, from, to, PROMINENCE * amplitude);
    return tops.map((top, t): Cycle => {
      const [before, after] = [
        values.subarray(tops[t - 1] ?? from, top),
        values.subarray(top, tops[t + 1] ?? to),
      ];
      const [lowBefore, lowAfter] = [Math.min(...before), Math.min(...after)];
      const begins =
        (tops[t - 1] ?? from) +
        before.findLastIndex((value) => value <= lowBefore + REST_LEVEL * amplitude);
      const ends = top + after.findIndex((value) => value <= lowAfter + REST_LEVEL * amplitude);
      return { from: begins, top, to: ends, rise: (values[top] as number) - lowBefore };
    });
  });
}

const spread = (values: readonly number[]) => {
  const usual = median(values);
  return usual === 0 ? 1 : median(values.map((value) => Math.abs(value - usual))) / usual;
};

/** A step so many times the usual one is a break. */
export const IN_BOUT = 1.8;

/** Steps from one top to the next within a bout. */
export function stepsOf(cycles: readonly Cycle[]): number[] {
  const all = cycles.slice(1).map(({ top }, i) => top - (cycles[i] as Cycle).top);
  const usual = median(all);
  return all.filter((step) => step <= IN_BOUT * usual);
}

export interface Reading {
  values: Float64Array;
  cycles: Cycle[];
  /** How alike the signal is to itself a step later where it is being repeated, 0 to 1. */
  periodic: number;
  /** How much it is a movement that is repeated. */
  worth: number;
}

/** Two tops nearer than this part of the usual step are one repetition that wavered. */
const ONE_TOP = 0.5;

function withoutWavering(cycles: readonly Cycle[], values: Float64Array): Cycle[] {
  const usual = median(stepsOf(cycles));
  const out: Cycle[] = [];
  for (const cycle of cycles) {
    const last = out.at(-1);
    if (!last || cycle.top - last.top >= ONE_TOP * usual || cycle.from > last.to + 1)
      out.push(cycle);
    else
      out[out.length - 1] = {
        from: last.from,
        top: (values[cycle.top] as number) > (values[last.top] as number) ? cycle.top : last.top,
        to: cycle.to,
        rise: Math.max(last.rise, cycle.rise),
      };
  }
  return out;
}

/** A signal that rests low, read as cycles. Null when it is none. @param amplitude how far it goes */
export function read(
  values: Float64Array,
  amplitude: number,
  strength: number,
  body: Pick<Body, 'present' | 'everyMs'>,
): Reading | null {
  const cycles = withoutWavering(cyclesIn(values, body.present, amplitude), values).filter(
    ({ from, to }) =>
      (to - from) * body.everyMs >= SHORTEST_MS && (to - from) * body.everyMs <= LONGEST_MS,
  );
  if (
    cycles.length < LEAST_CYCLES ||
    median(cycles.map(({ rise }) => rise)) < WHOLE_AMPLITUDE * amplitude
  )
    return null;
  const steps = stepsOf(cycles);
  const step = Math.round(median(steps));
  const [first, last] = [cycles[0]?.from ?? 0, (cycles.at(-1)?.to ?? 0) + 1];
  const periodic = Math.max(
    0,
    ...[step - 1, step, step + 1]
      .filter((lag) => lag > 0)
      .map((lag) => autocorrelation(values, lag, first, last)),
  );
  const even = 1 / (1 + 2.5 * spread(steps) + 2 * spread(cycles.map(({ rise }) => rise)));
  return {
    values,
    cycles,
    periodic,
    worth: (0.25 + 0.75 * periodic) * Math.sqrt(Math.min(2.5, strength)) * even,
  };
}

/** As far as the tops are, in parts of the usual rise. */
const AS_FAR = { from: 0.7, to: 1.4 } as const;

/**
 * Whether a reading is upside down: it comes from as far as its tops are before the first cycle, and
 * goes there after the last. Who holds at the top is read so.
 */
function isUpsideDown({ values, cycles }: Reading, present: Uint8Array): boolean {
  const [first, last] = [cycles[0], cycles.at(-1)];
  if (!first || !last) return false;
  const rise = median(cycles.map((cycle) => cycle.rise));
  const goesFar = (low: number, by: 1 | -1) => {
    let most = -Infinity;
    for (let i = low; present[i] === 1; i += by) most = Math.max(most, values[i] as number);
    const part = (most - (values[low] as number)) / rise;
    return part >= AS_FAR.from && part <= AS_FAR.to;
  };
  return goesFar(first.from, -1) && goesFar(last.to, 1);
}

/** A reading turned over has to be of this part of the worth it has as it is. */
const TURNED_WORTH = 0.7;

export function readingOf(
  { values, least, seen }: MoveSignal,
  still: Uint8Array,
  away: Float64Array | null,
  body: Body,
): Reading | null {
  const moving = values.filter((_, i) => body.present[i] === 1);
  const [low, high] = [quantile(moving, AMPLITUDE.from), quantile(moving, AMPLITUDE.to)];
  if (high - low < least) return null;
  const readWay = (isHigh: boolean) =>
    read(isHigh ? values.map((value) => -value) : values, high - low, (high - low) / least, body);
  const isHigh = restsHigh(values, still, away, low, high);
  const likely = readWay(isHigh);
  const turned = likely && isUpsideDown(likely, body.present) ? readWay(!isHigh) : null;
  const isTurned =
    likely !== null &&
    turned !== null &&
    turned.worth >= TURNED_WORTH * likely.worth &&
    !isUpsideDown(turned, body.present);
  const reading = isTurned ? turned : likely;
  return reading && { ...reading, worth: reading.worth * (0.3 + 0.7 * seen) };
}

/** Poses so many times as far from the next low's as from the second next's go to and fro. */
const TO_AND_FRO = 1.75;
/** ... where they are apart by this part of how far the tops are from them. */
const APART = 0.5;

/**
 * Whether a reading takes one repetition for two: every other of its lows is the same pose, and the
 * ones between are another, as arms that are widest on the way up and on the way down.
 */
export function isDoubled({ cycles }: Reading, signals: readonly MoveSignal[]): boolean {
  if (cycles.length < 2 * LEAST_CYCLES) return false;
  const apart = (a: number, b: number) => Math.hypot(...wayBetween(signals, a, b));
  const lows = cycles.map(({ from }) => from);
  const apartBy = (count: number) =>
    median(lows.slice(count).map((low, i) => apart(low, lows[i] as number)));
  const gone = median(cycles.map(({ from, top }) => apart(from, top)));
  const next = apartBy(1);
  return next > TO_AND_FRO * apartBy(2) && next > APART * gone;
}
