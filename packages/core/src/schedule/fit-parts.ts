import {
  blocksOf,
  figuresOf,
  readFigure,
  writeFigure,
  type Block,
  type Figure,
  type Lesson,
} from '../lesson/index.ts';
import { lengthOfBlock, type BlockLength } from './block.ts';
import type { Effort, Option, Window } from './fit-search.ts';

/**
 * A figure's values that fitting may choose: whole steps from half of it to half as much again, at
 * least one step each way.
 */
export interface Knob {
  key: string;
  label: string;
  unit: Figure['unit'];
  from: number;
  /** Values with their cost, cheapest first; the first is the present one. */
  values: { value: number; cost: number }[];
}

/**
 * A block with what fitting may change of it; what is done off the video is reckoned apart from all
 * that is on it.
 */
export interface Part {
  block: Block;
  knobs: Knob[];
  /**
   * Milliseconds the knobs' values, given by their numbers in each knob's list, add to the clock
   * they belong to.
   */
  measure: (picks: readonly number[]) => number;
  /** The least and the most milliseconds that the knobs can add. */
  span: Window;
  /** Every time the knobs can make, each as cheap as it goes, cheapest first; found when asked for. */
  options: Option[] | null;
  /** No length that was summed up was off by its rounding. */
  isExact: boolean;
}

function knobOf(block: Block, figure: Figure): Knob[] {
  const { fit, range, key, label, unit } = figure;
  if (!fit || block.locked.includes(key)) return [];
  const from = readFigure(block, key);
  const most = Math.max(1, Math.floor(from / 2 / fit.step));
  const values = [{ value: from, cost: 0 }];
  for (let steps = 1; steps <= most; steps += 1) {
    for (const value of [from - steps * fit.step, from + steps * fit.step]) {
      if (value >= range.min && value <= range.max)
        values.push({ value, cost: steps * fit.weight });
    }
  }
  return values.length > 1 ? [{ key, label, unit, from, values }] : [];
}

/**
 * The clocks a figure's values change: of the video, and of what is done off it.
 * @param trial a copy of the block, which stays as it was
 */
function clocksChanged(trial: Block, { key, from, values }: Knob, lesson: Lesson) {
  const lengths = values.map(({ value }) => {
    writeFigure(trial, key, value);
    return lengthOfBlock(trial, lesson);
  });
  writeFigure(trial, key, from);
  const changes = (clock: keyof BlockLength) =>
    lengths.some((length) => length[clock] !== lengths[0]?.[clock]);
  return { video: changes('videoMs'), off: changes('offMs') };
}

/** Each knob at its least or most value, by number. */
const extremes = (knobs: readonly Knob[], pick: (...values: number[]) => number) =>
  knobs.map(({ values }) =>
    values.findIndex(({ value }) => value === pick(...values.map((v) => v.value))),
  );

function partOf(block: Block, knobs: Knob[], clock: keyof BlockLength, lesson: Lesson): Part[] {
  if (knobs.length === 0) return [];
  const trial = structuredClone(block);
  const nowMs = lengthOfBlock(block, lesson)[clock];
  const measure = (picks: readonly number[]) => {
    knobs.forEach(({ key, from, values }, i) =>
      writeFigure(trial, key, values[picks[i] ?? 0]?.value ?? from),
    );
    return lengthOfBlock(trial, lesson)[clock] - nowMs;
  };
  // Every figure makes its block longer.
  const span = {
    fromMs: measure(extremes(knobs, Math.min)),
    toMs: measure(extremes(knobs, Math.max)),
  };
  return [{ block, knobs, measure, span, options: null, isExact: true }];
}

/**
 * Figures that change one clock each. Those that change both at once, such as the rounds of a circuit
 * in which the student says when it goes on, stay as they are.
 */
export function partsOf(lesson: Lesson): { video: Part[]; practice: Part[] } {
  const parts: { video: Part[]; practice: Part[] } = { video: [], practice: [] };
  for (const block of blocksOf(lesson)) {
    const trial = structuredClone(block);
    const knobs = figuresOf(block)
      .flatMap((figure) => knobOf(block, figure))
      .map((knob) => ({ knob, changed: clocksChanged(trial, knob, lesson) }));
    const onVideo = knobs.flatMap(({ knob, changed }) => (changed.off ? [] : [knob]));
    const off = knobs.flatMap(({ knob, changed }) => (changed.off && !changed.video ? [knob] : []));
    parts.video.push(...partOf(block, onVideo, 'videoMs', lesson));
    parts.practice.push(...partOf(block, off, 'offMs', lesson));
  }
  return parts;
}

/** A way to set some of a part's knobs: the last one set, and those before it. */
interface Way {
  deltaMs: number;
  cost: number;
  knob: number;
  value: number;
  before: Way | null;
}

function picksOf(way: Way | null, knobs: readonly Knob[]): number[] {
  const picks = knobs.map(() => 0);
  for (let at = way; at; at = at.before) picks[at.knob] = at.value;
  return picks;
}

/** All ways to set the numbered knobs; what they add is not measured yet. */
function* everyWay(
  knobs: readonly Knob[],
  [knob, ...rest]: readonly number[],
  before: Way | null = null,
): Generator<Way | null> {
  if (knob === undefined) {
    yield before;
    return;
  }
  for (const [value, own] of (knobs[knob]?.values ?? []).entries()) {
    const cost = (before?.cost ?? 0) + own.cost;
    yield* everyWay(knobs, rest, { deltaMs: 0, cost, knob, value, before });
  }
}

/** For each time the cheapest way there. */
class Cheapest {
  readonly ways = new Map<number, Way | null>();

  add(deltaMs: number, cost: number, make: () => Way | null): void {
    const known = this.ways.get(deltaMs);
    if (known === undefined || cost < (known?.cost ?? 0)) this.ways.set(deltaMs, make());
  }
}

/** So few ways are all measured. */
const FEW_WAYS = 300;
/** Lengths are whole milliseconds: those of two figures together may be off by this much. */
const ROUNDING_MS = 4;

/**
 * The numbers of the knobs whose effect hangs on another's, as few as it takes: between all others
 * lengths just add up, `isRough` where rounding comes in. Lengths are sums of products of figures,
 * none of which is nothing while all figures are at their most, so each pair is tried there.
 */
function entangled({ knobs, measure, span }: Part): { core: number[]; isRough: boolean } {
  const most = extremes(knobs, Math.max);
  const least = extremes(knobs, Math.min);
  const lowered = (...low: number[]) =>
    measure(most.map((pick, i) => (low.includes(i) ? (least[i] ?? 0) : pick)));
  const all = lowered();
  const alone = knobs.map((_knob, i) => lowered(i));
  let isRough = false;
  let pairs: [number, number][] = [];
  for (let a = 0; a < knobs.length; a += 1)
    for (let b = a + 1; b < knobs.length; b += 1) {
      const offMs = Math.abs(lowered(a, b) - (alone[a] ?? 0) - (alone[b] ?? 0) + all);
      if (offMs > ROUNDING_MS) pairs.push([a, b]);
      else isRough ||= offMs > 0;
    }
  const core: number[] = [];
  while (pairs.length > 0) {
    const times = knobs.map((_knob, i) => pairs.filter((pair) => pair.includes(i)).length);
    const worst = times.indexOf(Math.max(...times));
    core.push(worst);
    pairs = pairs.filter((pair) => !pair.includes(worst));
  }
  // What is nothing for two may be something for all.
  const start = lowered(...core);
  const sum = knobs.reduce(
    (ms, _knob, i) => (core.includes(i) ? ms : ms + lowered(...core, i) - start),
    start,
  );
  return { core, isRough: isRough || sum !== span.fromMs };
}

/** The entangled knobs every way; what the others add to each is summed up. */
function summedWays({ knobs, measure }: Part, core: readonly number[], effort: Effort) {
  const others = knobs.map((_knob, i) => i).filter((i) => !core.includes(i));
  const best = new Cheapest();
  for (const way of everyWay(knobs, core)) {
    const picks = picksOf(way, knobs);
    const baseMs = measure(picks);
    let sums: ReadonlyMap<number, Way | null> = new Map([[baseMs, way]]);
    for (const knob of others) {
      const values = knobs[knob]?.values ?? [];
      effort.spend(values.length * sums.size);
      const next = new Cheapest();
      for (const [value, own] of values.entries()) {
        const addMs = measure(picks.with(knob, value)) - baseMs;
        for (const [sumMs, before] of sums) {
          const deltaMs = sumMs + addMs;
          const cost = (before?.cost ?? 0) + own.cost;
          next.add(deltaMs, cost, () => ({ deltaMs, cost, knob, value, before }));
        }
      }
      sums = next.ways;
    }
    for (const [deltaMs, found] of sums) best.add(deltaMs, found?.cost ?? 0, () => found);
  }
  return best.ways;
}

function measuredWays({ knobs, measure }: Part, effort: Effort) {
  const best = new Cheapest();
  const all = knobs.map((_knob, i) => i);
  for (const way of everyWay(knobs, all)) {
    effort.spend(1);
    best.add(measure(picksOf(way, knobs)), way?.cost ?? 0, () => way);
  }
  return best.ways;
}

/**
 * All knobs at their least, and at their most: where lengths are rounded, a cheaper way of the same
 * sum may have stood for it without being as short or long.
 */
function furthestOptions({ knobs, span }: Part): Option[] {
  const optionOf = (pick: number[], deltaMs: number): Option => ({
    ...{ deltaMs, pick },
    cost: pick.reduce((sum, value, i) => sum + (knobs[i]?.values[value]?.cost ?? 0), 0),
  });
  return [
    optionOf(extremes(knobs, Math.min), span.fromMs),
    optionOf(extremes(knobs, Math.max), span.toMs),
  ];
}

function findOptions(part: Part, effort: Effort): Option[] {
  const { knobs, measure } = part;
  const isFew = knobs.reduce((ways, { values }) => ways * values.length, 1) <= FEW_WAYS;
  const { core, isRough } = isFew ? { core: [], isRough: false } : entangled(part);
  const ways = isFew ? measuredWays(part, effort) : summedWays(part, core, effort);
  part.isExact = !isRough;
  const options = [...ways].map(([sumMs, way]): Option => {
    const pick = picksOf(way, knobs);
    return { deltaMs: isRough ? measure(pick) : sumMs, cost: way?.cost ?? 0, pick };
  });
  if (isRough) options.push(...furthestOptions(part));
  return options.sort((a, b) => a.cost - b.cost);
}

/**
 * The ways to set the part's figures for at most `budget`, for each time only the cheapest,
 * cheapest first.
 * @param gridMs times are rounded to it
 */
export function optionsWithin(
  part: Part,
  budget: number,
  gridMs: number,
  effort: Effort,
): Option[] {
  part.options ??= findOptions(part, effort);
  const best = new Map<number, Option>();
  for (const option of part.options) {
    if (option.cost > budget) break;
    const deltaMs = Math.round(option.deltaMs / gridMs) * gridMs;
    if (!best.has(deltaMs)) best.set(deltaMs, { ...option, deltaMs });
  }
  return [...best.values()];
}

export const mostCost = ({ knobs }: Part): number =>
  knobs.reduce((sum, { values }) => sum + (values.at(-1)?.cost ?? 0), 0);

/** What the parts can add together, the least and the most of each rounded as its options are. */
export const reach = (parts: readonly Part[], gridMs: number): Window => {
  const rounded = (ms: number) => Math.round(ms / gridMs) * gridMs;
  return {
    fromMs: parts.reduce((sum, { span }) => sum + rounded(span.fromMs), 0),
    toMs: parts.reduce((sum, { span }) => sum + rounded(span.toMs), 0),
  };
};
