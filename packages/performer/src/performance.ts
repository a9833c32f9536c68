import type { Movement, Side } from '@zest/core/lesson';
import type { Span } from '@zest/core/schedule';
import { chance } from './chance.ts';
import { PERIOD_S, poseAt, type Point, type Pose } from './pose.ts';

/** How this performer does a block, and what goes wrong; the same seed does the same. */
export interface Habits {
  seed: number;
  /** 0 like a machine, 1 as uneven as a tired child: repetitions begin late and reach less far. */
  unevenness: number;
  /** Repetitions that are left out, counted over the whole block from 0. */
  leftOut: readonly number[];
  /** Stops for good at that moment of the block. */
  stopsAtMs: number | null;
  /** Walks out of the picture and back. */
  away: { fromMs: number; toMs: number } | null;
  /** Where the camera stands. */
  view: 'front' | 'side';
  body: 'standing' | 'seated' | 'one-armed';
}
export const plainHabits: Habits = {
  seed: 1,
  unevenness: 0,
  leftOut: [],
  stopsAtMs: null,
  away: null,
  view: 'front',
  body: 'standing',
};

/** Latest a repetition begins, and the most it falls short, at unevenness 1. */
const MOST_LATE = 0.18;
const MOST_SHORT = 0.25;
/** Body heights to the side that are surely out of the picture, and how long the way takes. */
const AWAY = { x: 2.6, ms: 1_500 } as const;
/** Seen from the side, what goes sideways is nearly hidden. */
const SIDE_ON = 0.3;

/** A repetition as it is really done. */
export interface DoneRep {
  /** Which one of the block, from 0. */
  index: number;
  startMs: number;
  endMs: number;
  side: Side | undefined;
  /** How much of the full move is reached, 0 to 1. */
  size: number;
}

const isRep = ({ kind }: Span) => kind === 'rep' || kind === 'part' || kind === 'move';
/** Moves that are done over and over during a work, at their usual pace. */
const isRepeated = (movement: Movement | undefined): movement is Movement =>
  movement !== undefined && movement !== 'other' && movement !== 'one-leg-balance';

interface PlannedRep {
  startMs: number;
  endMs: number;
  side: Side | undefined;
}

/** Every repetition there is to do: those the plan names, and as many as fit into a work. */
function plannedReps(spans: readonly Span[]): PlannedRep[] {
  return spans.flatMap((span): PlannedRep[] => {
    if (isRep(span)) return [{ startMs: span.startMs, endMs: span.endMs, side: span.side }];
    if (span.kind !== 'work' || !isRepeated(span.movement)) return [];
    const lengthMs = PERIOD_S[span.movement] * 1_000;
    return Array.from({ length: Math.floor((span.endMs - span.startMs) / lengthMs) }, (_, i) => ({
      startMs: span.startMs + i * lengthMs,
      endMs: span.startMs + (i + 1) * lengthMs,
      side: span.side,
    }));
  });
}

// Asked for at every picture of the practice camera.
const known = new WeakMap<readonly Span[], { habits: Habits; done: DoneRep[] }>();

/**
 * The truth: every repetition that is done, when and how far, to test counting and timing against.
 */
export function doneReps(spans: readonly Span[], habits: Habits): DoneRep[] {
  const before = known.get(spans);
  if (before?.habits === habits) return before.done;
  const done = plannedReps(spans).flatMap((span, index): DoneRep[] => {
    if (habits.leftOut.includes(index)) return [];
    const lengthMs = span.endMs - span.startMs;
    const startMs =
      span.startMs + habits.unevenness * MOST_LATE * lengthMs * chance(habits.seed * 7919 + index);
    const size = 1 - habits.unevenness * MOST_SHORT * chance(habits.seed * 104_729 + index);
    const isStopped = habits.stopsAtMs !== null && span.endMs > habits.stopsAtMs;
    return isStopped ? [] : [{ index, startMs, endMs: span.endMs, side: span.side, size }];
  });
  known.set(spans, { habits, done });
  return done;
}

const between = (from: Point, to: Point, part: number): Point => ({
  x: from.x + (to.x - from.x) * part,
  y: from.y + (to.y - from.y) * part,
});
function part(rest: Pose, full: Pose, size: number): Pose {
  const both = (key: 'hands' | 'feet') => ({
    left: between(rest[key].left, full[key].left, size),
    right: between(rest[key].right, full[key].right, size),
  });
  return {
    ...full,
    pelvis: between(rest.pelvis, full.pelvis, size),
    lean: full.lean * size,
    hands: both('hands'),
    feet: both('feet'),
  };
}

function shaped(pose: Pose, { view, body }: Habits, awayX: number): Pose {
  const narrow = view === 'side' ? SIDE_ON : 1;
  const drop = body === 'seated' && !pose.seated ? pose.pelvis.y - 0.3 : 0;
  const hand = ({ x, y }: Point): Point => ({ x: x * narrow + awayX, y: y - drop });
  const foot = ({ x, y }: Point): Point => ({
    x: (body === 'seated' ? Math.sign(x) * 0.13 : x) * narrow + awayX,
    y: body === 'seated' ? 0 : y,
  });
  return {
    ...pose,
    pelvis: { x: pose.pelvis.x * narrow + awayX, y: pose.pelvis.y - drop },
    lean: pose.lean * narrow,
    hands: { left: hand(pose.hands.left), right: hand(pose.hands.right) },
    feet: { left: foot(pose.feet.left), right: foot(pose.feet.right) },
    seated: pose.seated || body === 'seated',
    arms: body === 'one-armed' ? 'left' : 'both',
    width: narrow,
    at: awayX,
  };
}

/** How far to the side the performer is who has gone away, in body heights. */
function awayAt({ away }: Habits, ms: number): number {
  if (!away) return 0;
  const there =
    Math.min(1, Math.max(0, (ms - away.fromMs) / AWAY.ms)) -
    Math.min(1, Math.max(0, (ms - away.toMs) / AWAY.ms));
  return there * AWAY.x;
}

/**
 * The performer's pose at a moment of the block.
 * @param spans the block's spans, in order
 * @param ms from the block's first moment; before it, the performer waits
 * @param speech loudness of the voice, 0 to 1
 */
export function performAt(spans: readonly Span[], habits: Habits, ms: number, speech = 0): Pose {
  const waiting = poseAt('other', ms / 1000, undefined, speech);
  const isOver = habits.stopsAtMs !== null && ms >= habits.stopsAtMs;
  const span = isOver ? undefined : spans.find(({ startMs, endMs }) => ms >= startMs && ms < endMs);
  // Who exercises seated sits before and between as well.
  const sits = spans.some(({ movement }) => movement === 'seated-pull');
  return shaped(
    moved(span, spans, habits, ms, waiting, speech),
    sits ? { ...habits, body: 'seated' } : habits,
    awayAt(habits, ms),
  );
}

function moved(
  span: Span | undefined,
  spans: readonly Span[],
  habits: Habits,
  ms: number,
  waiting: Pose,
  speech: number,
): Pose {
  const movement: Movement | undefined = span?.movement;
  if (!span || movement === undefined) return waiting;
  const isCounted = isRep(span) || (span.kind === 'work' && isRepeated(movement));
  if (!isCounted) return poseAt(movement, (ms - span.startMs) / 1000, undefined, speech);
  const rest = poseAt(movement, 0, 1, speech);
  const done = doneReps(spans, habits).find(({ startMs, endMs }) => ms >= startMs && ms < endMs);
  if (!done) return rest;
  const turn = (ms - done.startMs) / (done.endMs - done.startMs);
  return part(rest, poseAt(movement, turn, 1, speech), done.size);
}
