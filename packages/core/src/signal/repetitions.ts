import type { Side } from '../lesson/index.ts';
import type { Body } from './body.ts';
import { awayFromRest, moveSignals, COMPONENTS, type MoveSignal } from './moves.ts';
import { autocorrelation, median, quantile, runsOf, correlation } from './numbers.ts';
import type { Joint } from './pose.ts';
import { stillFrames, type StillStretch } from './stillness.ts';

/** One repetition as it was seen. Times in milliseconds of the footage. */
export interface SeenRepetition {
  startMs: number;
  /** The furthest point of the move. */
  topMs: number;
  /** Back where it began; the moment it counts. */
  atMs: number;
  /**
   * It may be so much earlier or later: half of the time in which nothing is seen to move before
   * the next one begins.
   */
  withinMs: number;
  /** The side that did it; null when both did, or it cannot be told. */
  side: Side | null;
  /** How far it went against the usual one of the footage, 1 as far. */
  size: number;
  /** 0 to 1; see `SURE_REPETITION`. */
  confidence: number;
}

/** Repetitions below this confidence are shown as "not sure". */
export const SURE_REPETITION = 0.5;
/**
 * Repetitions known to less than this, on average, are "not sure" in their times: a counter is seen
 * to be further off.
 */
const SURE_TIME_MS = 150;
/** Whether it is known well enough when each is over. */
export const timesKnown = (repetitions: readonly Pick<SeenRepetition, 'withinMs'>[]): boolean =>
  repetitions.reduce((sum, { withinMs }) => sum + withinMs, 0) <= SURE_TIME_MS * repetitions.length;
/** Repetitions that reach less far than this part of the others may be incomplete. */
export const WHOLE_REPETITION = 0.72;

/** Topographic prominence of a top, in parts of the amplitude: it came up and back by so much. */
const PROMINENCE = 0.3;
/** A rest level so far from the middle, in parts of the amplitude, tells where the move begins. */
const PLAIN_REST = 0.15;
/** Repetitions have most of the amplitude there is; swaying in a pose has not. */
const WHOLE_AMPLITUDE = 0.55;
/** Nearer to the lowest point than this part of the amplitude is at rest. */
const REST_LEVEL = 0.05;
/** The amplitude lies between these quantiles of the values; what is outside are slips. */
const AMPLITUDE = { from: 0.06, to: 0.94 } as const;
/** Faster than four a second nobody moves; slower than one in twelve seconds nobody repeats. */
const SHORTEST_MS = 250;
const LONGEST_MS = 12_000;
/**
 * A cycle less alike the usual one than this, in the directions all parts of the body take, is
 * another movement.
 */
const ALIKE = 0.75;
/**
 * One that goes all the way and comes when it is due, to this part of the usual step, may be seen
 * less well.
 */
const ALIKE_ON_BEAT = 0.3;
/** One that stays small has to come when it is due. */
const ALIKE_SMALL = 0.5;
const ON_BEAT = 0.3;
const SMALLEST = 0.3;
/**
 * One seen so much less surely than the others is not sure, however sure it would be alone: it may
 * be a gesture in a break.
 */
const LIKE_THE_OTHERS = 0.7;
/** A movement has to be done at least so often to be a repeated one. */
const LEAST_CYCLES = 3;

interface Cycle {
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
function restsHigh(
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
      tops.push(top);
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

/** Where a falling signal crosses a level, between two frames. */
function crossing(values: Float64Array, from: number, to: number, level: number): number {
  for (let i = from + 1; i <= to; i += 1) {
    const [before, after] = [values[i - 1] as number, values[i] as number];
    if (before >= level && after < level) return i - 1 + (before - level) / (before - after);
  }
  return to;
}

/**
 * From the 50 and 10 % crossings of a fall on to its end: 1.44 times for a cosine, 0.98 for a move
 * of least jerk, 0.25 for a straight one; between them.
 */
const RUN_OUT = 0.8;

/** The moment a repetition is over, in frames: the fall's own end, drawn on from its lower part. */
function endOf(values: Float64Array, { top, to }: Cycle, next: Cycle | undefined): number {
  const [high, low] = [values[top] as number, values[to] as number];
  const at = (part: number) => crossing(values, top, to, low + part * (high - low));
  const [half, tenth] = [at(0.5), at(0.1)];
  return Math.min(tenth + RUN_OUT * (tenth - half), next ? Math.max(next.from, to) : Infinity);
}

const spread = (values: readonly number[]) => {
  const usual = median(values);
  return usual === 0 ? 1 : median(values.map((value) => Math.abs(value - usual))) / usual;
};

/** A step so many times the usual one is a break. */
const IN_BOUT = 1.8;

/** Steps from one top to the next within a bout. */
function stepsOf(cycles: readonly Cycle[]): number[] {
  const all = cycles.slice(1).map(({ top }, i) => top - (cycles[i] as Cycle).top);
  const usual = median(all);
  return all.filter((step) => step <= IN_BOUT * usual);
}

/**
 * When a cycle begins, is at its top and is over. Nothing tells where in the quiet before the next
 * one of a bout it was over.
 */
function timesOf(
  values: Float64Array,
  cycle: Cycle,
  next: Cycle | undefined,
  step: number,
  everyMs: number,
): Pick<SeenRepetition, 'startMs' | 'topMs' | 'atMs' | 'withinMs'> {
  const ms = (frame: number) => Math.round(frame * everyMs);
  const endAt = endOf(values, cycle, next);
  const quiet = next && next.top - cycle.top <= IN_BOUT * step ? Math.max(0, next.from - endAt) : 0;
  return {
    startMs: ms(cycle.from),
    topMs: ms(cycle.top),
    atMs: ms(endAt),
    withinMs: Math.round((Math.max(1, quiet) * everyMs) / 2),
  };
}

interface Reading {
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
function read(
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

function readingOf(
  { values, least, seen }: MoveSignal,
  still: Uint8Array,
  away: Float64Array | null,
  body: Body,
): Reading | null {
  const moving = values.filter((_, i) => body.present[i] === 1);
  const [low, high] = [quantile(moving, AMPLITUDE.from), quantile(moving, AMPLITUDE.to)];
  if (high - low < least) return null;
  const reading = read(
    restsHigh(values, still, away, low, high) ? values.map((value) => -value) : values,
    high - low,
    (high - low) / least,
    body,
  );
  return reading && { ...reading, worth: reading.worth * (0.3 + 0.7 * seen) };
}

/**
 * What all parts of the body do from the start of a cycle to its top, each in its own least
 * movement.
 */
const directionOf = (signals: readonly MoveSignal[], { from, top }: Cycle) =>
  signals.map(({ values, least }) => ((values[top] as number) - (values[from] as number)) / least);
const dot = (a: readonly number[], b: readonly number[]) =>
  a.reduce((sum, value, i) => sum + value * (b[i] ?? 0), 0);
const lengthOf = (a: readonly number[]) => Math.sqrt(dot(a, a)) || 1;

const ARMS: Joint[][] = [
  ['left wrist', 'left elbow'],
  ['right wrist', 'right elbow'],
];
const LEGS: Joint[][] = [
  ['left ankle', 'left knee'],
  ['right ankle', 'right knee'],
];
/** A limb that moves so much more than the other one did it. */
const ONE_SIDED = 1.7;
const LIMB_MOVES = 0.09;

/** The side whose leg, or if no leg whose arm, goes far and much further than the other one's. */
function sideOf({ x, y }: Body, { from, top }: Cycle): Side | null {
  const gone = (limb: readonly Joint[]) =>
    Math.max(
      ...limb.map((joint) =>
        Math.hypot(
          (x[joint][top] as number) - (x[joint][from] as number),
          (y[joint][top] as number) - (y[joint][from] as number),
        ),
      ),
    );
  for (const [left, right] of [LEGS, ARMS]) {
    const [a, b] = [gone(left ?? []), gone(right ?? [])];
    if (Math.max(a, b) < LIMB_MOVES) continue;
    if (a > ONE_SIDED * b) return 'left';
    if (b > ONE_SIDED * a) return 'right';
  }
  return null;
}

/**
 * Sides hold when nearly all repetitions have one, and they go in turn or stay the same; chance
 * does neither.
 */
function sidesHold(sides: readonly (Side | null)[]): boolean {
  const known = sides.filter((side) => side !== null);
  if (known.length < 0.75 * sides.length || known.length < 2) return false;
  const changes = known.slice(1).filter((side, i) => side !== known[i]).length / (known.length - 1);
  return changes <= 0.2 || changes >= 0.8;
}

/** A movement of less worth than this may be gestures or a sway. */
const LEAST_WORTH = 0.4;
/** Of this worth there is no doubt. */
const PLAIN_WORTH = 0.85;

/**
 * The repetitions of one exercise in the footage, each with its side, size and confidence. An
 * exercise that is not repeated, such as a balance or a talk with gestures, gives none.
 * @param rests where the performer is still: what begins and tops in one of them is no repetition
 */
export function repetitionsIn(body: Body, rests: readonly StillStretch[] = []): SeenRepetition[] {
  const still = stillFrames(body);
  const away = awayFromRest(body, still);
  const signals = moveSignals(body);
  const candidates = away ? [away, ...signals] : signals;
  const first = candidates
    .flatMap((signal) => readingOf(signal, still, away?.values ?? null, body) ?? [])
    .sort((a, b) => b.worth - a.worth)[0];
  if (!first || first.worth < LEAST_WORTH) return [];
  // The whole body at once: what all signals do together in the usual cycle, 0 at rest and 1 at its
  // top.
  const jointSignals = signals.slice(0, -COMPONENTS);
  const usual = jointSignals.map((_, s) =>
    median(first.cycles.map((cycle) => directionOf(jointSignals, cycle)[s] ?? 0)),
  );
  const whole = Float64Array.from(
    { length: body.length },
    (_, i) =>
      jointSignals.reduce(
        (sum, { values, least }, s) => sum + ((values[i] as number) / least) * (usual[s] as number),
        0,
      ) / dot(usual, usual),
  );
  const again = read(whole, 1, lengthOf(usual), body);
  const { cycles, values, periodic, worth } =
    again && again.worth > 0.8 * first.worth ? again : first;
  const step = median(stepsOf(cycles));
  const usualRise = median(cycles.map(({ rise }) => rise));
  const ms = (frame: number) => Math.round(frame * body.everyMs);
  const restAt = (frame: number) =>
    rests.find(({ startMs, endMs }) => ms(frame) >= startMs && ms(frame) < endMs);
  // From its start to its top nothing has moved.
  const isRest = ({ from, top }: Cycle) =>
    restAt(top) !== undefined && restAt(top) === restAt(from);
  const found = cycles
    .filter((cycle) => !isRest(cycle))
    .map((cycle, i, moved) => {
      const direction = directionOf(jointSignals, cycle);
      const alike = dot(direction, usual) / (lengthOf(usual) * lengthOf(direction));
      const nearest = Math.min(
        ...[moved[i - 1], moved[i + 1]].map((other) =>
          other ? Math.abs(Math.abs(other.top - cycle.top) - step) / step : 1,
        ),
      );
      const rise = cycle.rise / usualRise;
      const times = timesOf(values, cycle, moved[i + 1], step, body.everyMs);
      const repetition: SeenRepetition = {
        ...times,
        startMs: restAt(cycle.from)?.endMs ?? times.startMs,
        side: sideOf(body, cycle),
        size: Math.round(rise * 100) / 100,
        confidence:
          Math.round(
            Math.max(0, alike) *
              Math.min(1, 0.35 + periodic) *
              Math.min(1, Math.max(0, (worth - LEAST_WORTH) / (PLAIN_WORTH - LEAST_WORTH))) *
              (1 - 0.4 * Math.min(1, nearest)) *
              (rise < WHOLE_REPETITION && alike < ALIKE ? 0.5 : 1) *
              100,
          ) / 100,
      };
      return { repetition, alike, nearest };
    });
  const kept = found
    .filter(({ alike, nearest, repetition: { size } }) => {
      const isDue = nearest <= ON_BEAT;
      if (size >= WHOLE_REPETITION) return alike >= ALIKE || (isDue && alike >= ALIKE_ON_BEAT);
      return size >= SMALLEST && isDue && alike >= ALIKE_SMALL;
    })
    .map(({ repetition }) => repetition);
  if (kept.length < LEAST_CYCLES) return [];
  const sided = sidesHold(kept.map(({ side }) => side));
  // Where most are doubtful, one that happens to look right is no more sure.
  const common = median(kept.map(({ confidence }) => confidence));
  const isDoubtful = (confidence: number) =>
    common < SURE_REPETITION || confidence < LIKE_THE_OTHERS * common;
  return kept.map((repetition) => ({
    ...repetition,
    side: sided ? repetition.side : null,
    confidence: isDoubtful(repetition.confidence)
      ? Math.min(SURE_REPETITION - 0.01, repetition.confidence)
      : repetition.confidence,
  }));
}

/** Without a body nothing is quite sure. */
const MOTION_MOST = 0.7;
const MOTION_WORTH = 0.55;

/**
 * Repetitions of whatever moves in a picture in which no body is found: when and how many, with
 * less confidence, and nothing about sides. @param motion see `motionOf`
 */
export function repetitionsInMotion(
  motion: readonly (readonly number[])[],
  everyMs: number,
): SeenRepetition[] {
  const readings = motion.flatMap((signal) => {
    const values = Float64Array.from(signal);
    const [low, high] = [quantile(values, AMPLITUDE.from), quantile(values, AMPLITUDE.to)];
    if (high === low) return [];
    const turned = restsHigh(values, new Uint8Array(values.length), null, low, high)
      ? values.map((value) => -value)
      : values;
    const reading = read(turned, high - low, 1, {
      everyMs,
      present: new Uint8Array(values.length).fill(1),
    });
    return reading ? [reading] : [];
  });
  const best = readings.sort((a, b) => b.worth - a.worth)[0];
  if (!best || best.worth < MOTION_WORTH) return [];
  const usualRise = median(best.cycles.map(({ rise }) => rise));
  const step = median(stepsOf(best.cycles));
  return best.cycles.map((cycle, i) => ({
    ...timesOf(best.values, cycle, best.cycles[i + 1], step, everyMs),
    side: null,
    size: Math.round((cycle.rise / usualRise) * 100) / 100,
    confidence: Math.round(MOTION_MOST * best.periodic * 100) / 100,
  }));
}
