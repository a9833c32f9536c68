import { effortOf, type Block } from '../lesson/index.ts';
import {
  restKinds,
  waitKinds,
  type Schedule,
  type Span,
  type SpanKind,
} from '../schedule/index.ts';
import { spanLength } from '../time/index.ts';

/**
 * Usual energy cost by perceived effort 1 to 5, in METs: standing quietly, then calisthenics light,
 * moderate and vigorous, then rope skipping at 100 to 120 a minute (2011 Compendium of Physical
 * Activities, from memory).
 */
const METS_BY_EFFORT: readonly number[] = [1.3, 2.8, 3.8, 8.0, 11.8];
const RESTING_METS = METS_BY_EFFORT[0] ?? 1.3;

/** Spans in which nobody moves hard, whatever the block's effort. */
const AT_REST: ReadonlySet<SpanKind> = new Set<SpanKind>([
  'talk',
  'card',
  'explain',
  'show',
  ...waitKinds,
  'score',
  'ask',
  'think',
  'answer',
  'pause-sign',
]);

/** Effort from which work counts as hard. */
export const HARD_FROM = 4;
/** A rest shorter than this does not end a hard stretch: the pulse stays up (common practice). */
const STRETCH_GAP_MS = 120_000;

/**
 * The block's energy cost while it is being done, in METs: the teacher's own figure or the usual
 * one of its effort.
 */
export function metsOf(block: Pick<Block, 'mets' | 'effort'>): number {
  return block.mets ?? METS_BY_EFFORT[block.effort - 1] ?? RESTING_METS;
}

/** A stretch of the student's time at one effort. */
interface Load {
  startMs: number;
  endMs: number;
  mets: number;
  effort: number;
  block: Block;
}

interface Stretch {
  ms: number;
  isRest: boolean;
  exercise: number | undefined;
}

/**
 * What a student does in practice off the video: the block's work and rest over again. Without
 * either, work throughout.
 */
function practised(block: Block, spans: readonly Span[], practiceMs: number): Stretch[] {
  const once = spans.flatMap(({ kind, startMs, endMs, offMs, exercise }): Stretch[] =>
    restKinds.has(kind) || !AT_REST.has(kind)
      ? [{ ms: endMs - startMs + offMs, isRest: restKinds.has(kind), exercise }]
      : [],
  );
  const rest = once.find(({ isRest }) => isRest);
  // The last rest may be left out of the plan; before beginning anew there is one.
  const round = rest && !once.at(-1)?.isRest ? [...once, rest] : once;
  const works = block.kind === 'talk' || !round.some(({ ms, isRest }) => !isRest && ms > 0);
  if (works) return [{ ms: practiceMs, isRest: false, exercise: undefined }];
  const done: Stretch[] = [];
  for (let leftMs = practiceMs, i = 0; leftMs > 0; i += 1) {
    const next = round[i % round.length];
    if (!next) break;
    done.push({ ...next, ms: Math.min(next.ms, leftMs) });
    leftMs -= next.ms;
  }
  return done;
}

/**
 * The lesson as stretches of load on the student clock; practice off the video has the work and
 * rest of its block.
 */
function loadsOf(schedule: Schedule): Load[] {
  return schedule.blocks.flatMap(({ block, spans, studentStartMs, durationMs }) => {
    const load = (startMs: number, endMs: number, isRest: boolean, exercise?: number): Load => {
      const effort = effortOf(block, exercise);
      // The teacher's own figure is for what has the block's effort.
      const mets = metsOf({ effort, mets: effort === block.effort ? block.mets : null });
      return {
        startMs: studentStartMs + startMs,
        endMs: studentStartMs + endMs,
        mets: isRest ? Math.min(RESTING_METS, mets) : mets,
        effort: isRest ? 1 : effort,
        block,
      };
    };
    let waited = 0;
    const loads = spans.map(({ kind, startMs, endMs, offMs, exercise }) => {
      const from = startMs + waited;
      waited += offMs;
      // A talk is as hard as its teacher says: people warm up while they are talked through it.
      return load(from, endMs + waited, block.kind !== 'talk' && AT_REST.has(kind), exercise);
    });
    let atMs = durationMs + waited;
    const practiceMs = block.pauseAfter?.practiceMs ?? 0;
    for (const { ms, isRest, exercise } of practised(block, spans, practiceMs)) {
      if (ms > 0) loads.push(load(atMs, atMs + ms, isRest, exercise));
      atMs += ms;
    }
    return loads;
  });
}

export interface EffortMinute {
  /** Minute of the student's time, from 0. */
  minute: number;
  /** Averages over the minute, or over what is left of the last one. */
  mets: number;
  effort: number;
}

export interface EffortCurve {
  minutes: EffortMinute[];
  /**
   * Energy of the whole session in MET-minutes; times the weight in kg and 1/60 it is kilocalories.
   */
  metMinutes: number;
  /**
   * Preparation before the first hard work: all that comes earlier and is a warm-up or at least of
   * effort 2. Null without hard work.
   */
  warmUpMs: number | null;
  /** Longest time of hard work with no rest of two minutes in it. */
  longestHardMs: number;
  /** What comes after the last hard work at effort 2 or as a cool-down. Null without hard work. */
  coolDownMs: number | null;
}

const length = (load: Load) => spanLength(load);
const total = (loads: readonly Load[]) => loads.reduce((sum, load) => sum + length(load), 0);

const MINUTE_MS = 60_000;

function minutesOf(loads: readonly Load[], studentMs: number): EffortMinute[] {
  const minutes = Array.from(
    { length: Math.ceil(studentMs / MINUTE_MS) },
    (_, minute): EffortMinute => ({ minute, mets: 0, effort: 0 }),
  );
  // Each load is spread over the minutes it touches: one pass, however long the lesson.
  for (const load of loads) {
    for (
      let minute = Math.floor(load.startMs / MINUTE_MS);
      minute * MINUTE_MS < load.endMs;
      minute += 1
    ) {
      const known = minutes[minute];
      if (!known) break;
      const from = minute * MINUTE_MS;
      const share =
        (Math.min(from + MINUTE_MS, load.endMs) - Math.max(from, load.startMs)) /
        (Math.min(from + MINUTE_MS, studentMs) - from);
      known.mets += load.mets * share;
      known.effort += load.effort * share;
    }
  }
  return minutes;
}

function longestHard(hard: readonly Load[]): number {
  let longest = 0;
  let startMs = 0;
  let endMs = -Infinity;
  for (const load of hard) {
    if (load.startMs - endMs >= STRETCH_GAP_MS) startMs = load.startMs;
    endMs = load.endMs;
    longest = Math.max(longest, endMs - startMs);
  }
  return longest;
}

/** How hard the lesson is, minute by minute of the student's time, and how it begins and ends. */
export function effortCurve(schedule: Schedule): EffortCurve {
  const loads = loadsOf(schedule);
  // A warm-up may be lively: it prepares, whatever its effort.
  const hard = loads.filter(({ effort, block }) => effort >= HARD_FROM && block.part !== 'warm-up');
  const firstMs = hard[0]?.startMs;
  const lastMs = hard.at(-1)?.endMs;
  return {
    minutes: minutesOf(loads, schedule.studentMs),
    metMinutes: loads.reduce((sum, load) => sum + (length(load) * load.mets) / 60_000, 0),
    warmUpMs:
      firstMs === undefined
        ? null
        : total(
            loads.filter(
              (l) => l.endMs <= firstMs && (l.block.part === 'warm-up' || l.effort >= 2),
            ),
          ),
    longestHardMs: longestHard(hard),
    coolDownMs:
      lastMs === undefined
        ? null
        : total(
            loads.filter(
              (l) => l.startMs >= lastMs && (l.block.part === 'cool-down' || l.effort === 2),
            ),
          ),
  };
}
