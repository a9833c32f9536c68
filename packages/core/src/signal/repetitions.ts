import type { Side } from '../lesson/index.ts';
import type { Body } from './body.ts';
import { awayFromRest, COMPONENTS, moveSignals, wayBetween, type MoveSignal } from './moves.ts';
import {
  AMPLITUDE,
  IN_BOUT,
  isDoubled,
  LEAST_CYCLES,
  read,
  readingOf,
  restsHigh,
  stepsOf,
  type Cycle,
  type Reading,
} from './cycles.ts';
import { asPart, median, quantile } from './numbers.ts';
import { timesOf, type RepetitionTimes } from './repetition-times.ts';
import { distanceFromRest, restsElsewhere } from './rest-distance.ts';
import { sidesOf } from './sides.ts';
import { speedOf, stillFrames, type StillStretch } from './stillness.ts';
import { intersect, spanLength, totalLength, type TimeSpan } from '../time/index.ts';

/** One repetition as it was seen. Times in milliseconds of the footage. */
export interface SeenRepetition extends RepetitionTimes {
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
const hundredths = (value: number) => Math.round(value * 100) / 100;

const dot = (a: readonly number[], b: readonly number[]) =>
  a.reduce((sum, value, i) => sum + value * (b[i] ?? 0), 0);
const lengthOf = (a: readonly number[]) => Math.sqrt(dot(a, a)) || 1;

/** One that takes so many times as long as the usual one may be a gesture in a break. */
const LONGER = 1.8;
/** Nearer to another movement than so many steps, one may be part of it, or that one be one, too. */
const BESIDE = 1.2;
/** Gone for more than this part of its time, nobody knows whether it was done. */
const GONE = 0.3;
/** The whole body at once is taken where it is of so much of the worth of the best signal. */
const WHOLE_BODY = 0.8;
/** A movement of less worth than this may be gestures or a sway. */
const LEAST_WORTH = 0.4;
/** Of this worth there is no doubt. */
const PLAIN_WORTH = 0.85;

/** Readings of less worth than this part of the best have no vote. */
const VOTES = 0.7;
/** So much of the votes for one count is agreement. */
const AGREED = 0.5;

/** A step so near to two of the usual ones may be two of which one was not seen. */
const HOLE = 0.3;

/** Whether one reading has all cycles of the other, and more only where that one leaves one out. */
function fillsHoles(full: Reading, holed: Reading): boolean {
  const step = median(stepsOf(full.cycles));
  const isAt = (tops: readonly Cycle[], frame: number) =>
    tops.some(({ top }) => Math.abs(top - frame) <= HOLE * step);
  const more = full.cycles.filter(({ top }) => !isAt(holed.cycles, top));
  return (
    more.length === full.cycles.length - holed.cycles.length &&
    more.every(({ top }) => isAt(holed.cycles, top - step) || isAt(holed.cycles, top + step))
  );
}

/** The best of the readings whose count has the most worth behind it. */
function voted(readings: readonly Reading[]): { first: Reading | undefined; isAgreed: boolean } {
  const sorted = [...readings].sort((a, b) => b.worth - a.worth);
  const voters = sorted.filter(({ worth }) => worth >= VOTES * (sorted[0]?.worth ?? 0));
  const votes = new Map<number, number>();
  for (const { cycles, worth } of voters)
    votes.set(cycles.length, (votes.get(cycles.length) ?? 0) + worth);
  const most = Math.max(...votes.values());
  const elected = voters.find(({ cycles }) => votes.get(cycles.length) === most);
  const [best] = sorted;
  // Small ones between the others do not show in each signal.
  const isHoled =
    elected !== undefined &&
    best !== undefined &&
    best.cycles.length > elected.cycles.length &&
    fillsHoles(best, elected);
  const first = isHoled ? best : elected;
  const all = voters.reduce((sum, { worth }) => sum + worth, 0);
  return { first, isAgreed: most >= AGREED * all };
}

/**
 * The whole body at once: what all signals do together in the usual cycle, 0 at rest and 1 at its top.
 */
function wholeBody(signals: readonly MoveSignal[], usual: readonly number[], length: number) {
  const scale = dot(usual, usual);
  return Float64Array.from(
    { length },
    (_, i) =>
      signals.reduce(
        (sum, { values, least }, s) => sum + ((values[i] as number) / least) * (usual[s] as number),
        0,
      ) / scale,
  );
}

/** A cycle against the others of its clip. */
interface Judged {
  cycle: Cycle;
  times: ReturnType<typeof timesOf>[number];
  /** How far it goes, the usual one being 1. */
  rise: number;
  /** Whether all parts of the body go the usual way, -1 to 1. */
  alike: number;
  /** How far from when it is due after or before another, in steps. */
  offBeat: number;
}

function isRepetition({ rise, alike, offBeat }: Judged): boolean {
  const isDue = offBeat <= ON_BEAT;
  if (rise >= WHOLE_REPETITION) return alike >= ALIKE || (isDue && alike >= ALIKE_ON_BEAT);
  return rise >= SMALLEST && isDue && alike >= ALIKE_SMALL;
}

/** Seen badly, one that goes so far is one where it is due both after another and before the next. */
const BETWEEN = { off: 0.2, rise: 0.45 } as const;
/** At an end of a bout it goes all the way, or as far as one seen plainly and is more alike. */
const AT_END = { off: 0.15, alike: 0 } as const;

/** Whether one that was seen badly is due where it is, among those seen `plain`. */
function fitsIn({ cycle: { top }, rise, alike }: Judged, plain: readonly Judged[], step: number) {
  const tops = plain.map(({ cycle }) => cycle.top);
  const isWhole = rise >= WHOLE_REPETITION;
  const inBout = (other: number | undefined) =>
    other !== undefined && Math.abs(other - top) <= IN_BOUT * step ? other : null;
  const isDue = (other: number, off: number) =>
    Math.abs(Math.abs(other - top) - step) <= off * step;
  const before = inBout(tops.findLast((one) => one < top));
  const after = inBout(tops.find((one) => one > top));
  if (before !== null && after !== null) {
    const off = isWhole ? ON_BEAT : BETWEEN.off;
    return rise >= BETWEEN.rise && isDue(before, off) && isDue(after, off);
  }
  const beside = before ?? after;
  if (beside === null || !isDue(beside, AT_END.off)) return false;
  const isAsFar = plain.some((one) => one.rise <= rise);
  return isWhole ? alike >= AT_END.alike : isAsFar && alike >= ALIKE_ON_BEAT;
}

const confidenceOf = ({ rise, alike, offBeat }: Judged, { periodic, worth }: Reading): number =>
  Math.max(0, alike) *
  Math.min(1, 0.35 + periodic) *
  asPart((worth - LEAST_WORTH) / (PLAIN_WORTH - LEAST_WORTH)) *
  (1 - 0.4 * Math.min(1, offBeat)) *
  (rise < WHOLE_REPETITION && alike < ALIKE ? 0.5 : 1);

/** The reading of all signals the repetitions are taken from. */
function bestReading(
  body: Body,
  still: Uint8Array,
  signals: readonly MoveSignal[],
): { reading: Reading; usual: number[]; isAgreed: boolean } | null {
  const away = awayFromRest(body, still);
  const jointSignals = signals.slice(0, -COMPONENTS);
  const readings = (away ? [away, ...signals] : signals)
    .flatMap((signal) => readingOf(signal, still, away?.values ?? null, body) ?? [])
    .filter((reading) => !isDoubled(reading, jointSignals));
  const { first, isAgreed } = voted(readings);
  if (!first || first.worth < LEAST_WORTH) return null;
  const directions = first.cycles.map((cycle) => wayBetween(jointSignals, cycle.from, cycle.top));
  const usual = jointSignals.map((_, s) => median(directions.map((one) => one[s] ?? 0)));
  const whole = read(wholeBody(jointSignals, usual, body.length), 1, lengthOf(usual), body);
  const isBetter =
    whole &&
    whole.worth > WHOLE_BODY * first.worth &&
    whole.cycles.length >= first.cycles.length &&
    !isDoubled(whole, jointSignals);
  return { reading: isBetter ? whole : first, usual, isAgreed };
}

/**
 * The repetitions of one exercise in the footage, each with its side, size and confidence. An
 * exercise that is not repeated, such as a balance or a talk with gestures, gives none.
 * @param rests where the performer is still: what begins and tops in one of them is no repetition
 * @param gone where the performer is out of the picture: what is done there is not sure
 */
export function repetitionsIn(
  body: Body,
  rests: readonly StillStretch[] = [],
  gone: readonly TimeSpan[] = [],
): SeenRepetition[] {
  const speed = speedOf(body);
  const still = stillFrames(body, speed);
  const signals = moveSignals(body);
  const best = bestReading(body, still, signals);
  if (!best) return [];
  const { reading, usual, isAgreed } = best;
  const jointSignals = signals.slice(0, -COMPONENTS);
  const step = median(stepsOf(reading.cycles));
  const usualRise = median(reading.cycles.map(({ rise }) => rise));
  const restAt = (frame: number) => {
    const ms = Math.round(frame * body.everyMs);
    return rests.find(({ startMs, endMs }) => ms >= startMs && ms < endMs);
  };
  // From its start to its top hardly anything has moved, unless the whole move is a slow one.
  const isRest = ({ from, top, rise }: Cycle) =>
    rise < WHOLE_REPETITION * usualRise &&
    restAt(top) !== undefined &&
    restAt(top) === restAt(from);
  const cycles = reading.cycles.filter((cycle) => !isRest(cycle));
  const distance = distanceFromRest(body, reading.values, reading.cycles, still);
  const isElsewhere = distance !== null && restsElsewhere(distance, still);
  const times = timesOf(reading.values, distance, cycles, step, body.everyMs, isElsewhere, speed);
  const judged = cycles.map((cycle, i): Judged => {
    const direction = wayBetween(jointSignals, cycle.from, cycle.top);
    const neighbours = [cycles[i - 1], cycles[i + 1]].flatMap((other) => other ?? []);
    return {
      cycle,
      times: times[i] as Judged['times'],
      rise: cycle.rise / usualRise,
      alike: dot(direction, usual) / (lengthOf(usual) * lengthOf(direction)),
      offBeat: Math.min(
        1,
        ...neighbours.map(({ top }) => Math.abs(Math.abs(top - cycle.top) - step) / step),
      ),
    };
  });
  const plain = judged.filter(isRepetition);
  const kept = judged.filter((one) => isRepetition(one) || fitsIn(one, plain, step));
  const others = judged.filter((one) => !kept.includes(one));
  // Who explains in the middle goes from the one into the other.
  const isBesideOther = ({ top }: Cycle) =>
    others.some(({ cycle }) => Math.abs(cycle.top - top) < BESIDE * step);
  if (kept.length < LEAST_CYCLES) return [];
  const sides = sidesOf(
    body,
    kept.map(({ cycle }) => cycle),
  );
  const confidences = kept.map((one) => confidenceOf(one, reading));
  // Where most are doubtful, one that happens to look right is no more sure.
  const common = median(confidences);
  const takes = kept.map(({ times: { startMs, atMs } }) => atMs - startMs);
  const usually = median(takes);
  return kept.map(({ cycle, times: found, rise }, i) => {
    const confidence = confidences[i] as number;
    const span = { startMs: restAt(cycle.from)?.endMs ?? found.startMs, endMs: found.atMs };
    const isDoubtful =
      !isAgreed ||
      isBesideOther(cycle) ||
      common < SURE_REPETITION ||
      confidence < LIKE_THE_OTHERS * common ||
      (takes[i] as number) > LONGER * usually ||
      totalLength(intersect(gone, [span])) > GONE * spanLength(span);
    return {
      ...found,
      startMs: span.startMs,
      side: sides[i] ?? null,
      size: hundredths(rise),
      confidence: hundredths(
        isDoubtful ? Math.min(SURE_REPETITION - 0.01, confidence) : confidence,
      ),
    };
  });
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
  return timesOf(best.values, null, best.cycles, step, everyMs).map((times, i) => ({
    ...times,
    side: null,
    size: hundredths((best.cycles[i]?.rise ?? 0) / usualRise),
    confidence: hundredths(MOTION_MOST * best.periodic),
  }));
}
