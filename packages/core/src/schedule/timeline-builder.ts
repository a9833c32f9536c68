import type { Movement, Side, Sign } from '../lesson/index.ts';
import type { TimeSpan } from '../time/index.ts';
import type { Label } from '../words/index.ts';

/** What happens in a stretch of a block. */
export type SpanKind =
  | 'talk'
  | 'card'
  | 'explain'
  | 'show'
  | 'lead-in'
  | 'work'
  | 'rest'
  | 'round-rest'
  | 'set-rest'
  | 'side-change'
  | 'ready'
  | 'part'
  | 'rep'
  | 'hold'
  | 'count'
  | 'move'
  | 'lap'
  | 'play'
  | 'score'
  | 'prompt'
  | 'ask'
  | 'think'
  | 'answer'
  | 'pause-sign';

/** Rests between what is done. */
export const restKinds: ReadonlySet<SpanKind> = new Set([
  'rest',
  'round-rest',
  'set-rest',
  'side-change',
  'ready',
]);
/** While one waits for what is done next. */
export const waitKinds: ReadonlySet<SpanKind> = new Set<SpanKind>(['lead-in', ...restKinds]);
/** While something is done. */
export const moveKinds: ReadonlySet<SpanKind> = new Set([
  'work',
  'part',
  'rep',
  'hold',
  'count',
  'move',
  'lap',
  'play',
]);

/**
 * An inner beat of a span: so many equal beats, accented by the bar where there is one, or slow
 * breaths of `inMs` and `outMs`.
 */
export type Pace =
  | { kind: 'beats'; beats: number; bar?: number | undefined }
  | { kind: 'breaths'; inMs: number; outMs: number };

/** A stretch of a block; times count from the block's start on the video clock. */
export interface Span extends TimeSpan {
  kind: SpanKind;
  /** What it is: in the teacher's words, or in the program's own. */
  label: Label;
  /** Round, set, try or run-through, from 1. */
  round: number | undefined;
  rounds: number | undefined;
  /** Repetition, hold, lap, eight or move, from 1 out of `reps`, on its side. */
  rep: number | undefined;
  reps: number | undefined;
  side: Side | undefined;
  /** The side changes halfway; `side` is the first one. */
  halves: boolean;
  /** Which exercise of the block's list it is or shows, from 0; undefined where there is no list. */
  exercise: number | undefined;
  /** How the drawn performer moves meanwhile; undefined while nothing is exercised. */
  movement: Movement | undefined;
  /** Which command of the block's list was called, from 0. */
  command: number | undefined;
  pace: Pace | undefined;
  /** Its clock counts up. */
  up: boolean;
  /** How long the video waits for the student at its end, off the video clock. */
  offMs: number;
}

/** A thing the teacher calls out; `atMs` counts from the block's start on the video clock. */
export interface Call {
  kind: 'start' | 'halfway' | 'last-five' | 'stop' | 'change-sides' | 'rotate' | 'command';
  atMs: number;
  label: Label;
  /** What is seen or heard in place of a command's words. */
  sign?: Sign | undefined;
}

/**
 * Halfway is called for works of at least this length; shorter ones are over before the word is out
 * (common practice).
 */
const HALFWAY_FROM_MS = 20_000;
/** The last five seconds are called for works of at least this length (common practice). */
const LAST_FIVE_FROM_MS = 10_000;

/** Long enough to read that the video waits. */
const READY_SIGN_MS = 3_000;
/** Who says that it goes on is counted in: three, two, one. */
const READY_LEAD_IN_MS = 3_000;

/** What a span may have beyond its kind, its label and its time. */
export type More = Partial<Omit<Span, 'kind' | 'label' | 'startMs' | 'endMs'>>;
const NOTHING: More = {};

/**
 * A block being laid out, span after span. As a meter it only adds up, which is what a search over
 * figures needs.
 */
export class TimelineBuilder {
  readonly spans: Span[] = [];
  readonly calls: Call[] = [];
  at = 0;
  /** What all that is laid out takes off the video, while the video waits. */
  offMs = 0;

  constructor(readonly isMeter = false) {}

  /** Adds a stretch; none when it takes no time. */
  add(kind: SpanKind, durationMs: number, label: Label, more: More = NOTHING): void {
    if (durationMs <= 0) return;
    const startMs = this.at;
    this.at += durationMs;
    this.offMs += more.offMs ?? 0;
    if (this.isMeter) return;
    // Written out: spans of one shape keep a long lesson's schedule fast.
    this.spans.push({
      kind,
      startMs,
      endMs: this.at,
      label,
      round: more.round,
      rounds: more.rounds,
      rep: more.rep,
      reps: more.reps,
      side: more.side,
      halves: more.halves ?? false,
      exercise: more.exercise,
      movement: more.movement,
      command: more.command,
      pace: more.pace,
      up: more.up ?? false,
      offMs: more.offMs ?? 0,
    });
  }

  /** A rest that lasts until the student is ready, about `restMs` in all; none where that is 0. */
  untilReady(restMs: number, place: More = NOTHING): void {
    if (restMs <= 0) return;
    const offMs = Math.max(0, restMs - READY_SIGN_MS - READY_LEAD_IN_MS);
    this.add('ready', READY_SIGN_MS, { own: 'phase.ready' }, { ...place, offMs });
    this.add('lead-in', READY_LEAD_IN_MS, { own: 'phase.lead-in' }, place);
  }

  call(kind: Call['kind'], label: Label, atMs = this.at, sign?: Sign): void {
    if (this.isMeter) return;
    this.calls.push(sign ? { kind, atMs, label, sign } : { kind, atMs, label });
  }

  /** A stretch worked to the clock, with its calls: start, halfway, last five, stop. */
  work(kind: SpanKind, durationMs: number, label: Label, more: More = NOTHING): void {
    const startMs = this.at;
    this.call('start', label);
    this.add(kind, durationMs, label, more);
    const middleMs = startMs + Math.floor(durationMs / 2);
    if (more.halves) this.call('change-sides', { own: 'phase.change' }, middleMs);
    else if (durationMs >= HALFWAY_FROM_MS) this.call('halfway', { own: 'call.halfway' }, middleMs);
    if (durationMs >= LAST_FIVE_FROM_MS)
      this.call('last-five', { own: 'call.last-five' }, this.at - 5_000);
    this.call('stop', { own: 'call.stop' });
  }
}
