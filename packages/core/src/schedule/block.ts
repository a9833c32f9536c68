import type { Block, IntervalsBlock, Lesson, RepsBlock, Side, TalkBlock } from '../lesson/index.ts';
import { repMs } from '../lesson/index.ts';
import type { TimeSpan } from '../time/index.ts';
import { speechMs } from './speech.ts';

/** What happens in a stretch of a block. */
export type SpanKind =
  | 'talk'
  | 'lead-in'
  | 'work'
  | 'rest'
  | 'round-rest'
  | 'rep'
  | 'side-change'
  | 'set-rest'
  | 'pause-sign';

/** A stretch of a block; times count from the block's start on the video clock. */
export interface Span extends TimeSpan {
  kind: SpanKind;
  /** What it is, in the teacher's words. */
  label: string;
  /** Round of intervals or set of repetitions, from 1. */
  round?: number | undefined;
  rounds?: number | undefined;
  /** Repetition from 1 out of `reps`, on its side. */
  rep?: number | undefined;
  reps?: number | undefined;
  side?: Side | undefined;
}

/** A thing the teacher calls out; `atMs` counts from the block's start on the video clock. */
export interface Call {
  kind: 'start' | 'halfway' | 'last-five' | 'stop' | 'change-sides';
  atMs: number;
  text: string;
}

/** A block laid out in time: spans that tile it without gap or overlap, and the calls in order. */
export interface BlockTimes {
  spans: Span[];
  calls: Call[];
}

/** Halfway is called for works of at least this length; shorter ones are over before the word is out (common practice). */
const HALFWAY_FROM_MS = 20_000;
/** The last five seconds are called for works of at least this length (common practice). */
const LAST_FIVE_FROM_MS = 10_000;

type Place = Partial<Pick<Span, 'round' | 'rounds' | 'rep' | 'reps' | 'side'>>;
const NOWHERE: Place = {};

class Row {
  readonly spans: Span[] = [];
  readonly calls: Call[] = [];
  at = 0;

  add(kind: SpanKind, durationMs: number, label: string, more: Place = NOWHERE): void {
    if (durationMs <= 0) return;
    const startMs = this.at;
    this.at += durationMs;
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
    });
  }

  call(kind: Call['kind'], text: string, atMs = this.at): void {
    this.calls.push({ kind, atMs, text });
  }
}

/** Lays one block out. Exact whole milliseconds; published interval protocols hold (see the tests). */
export function timeBlock(block: Block, settings: Lesson['settings']): BlockTimes {
  const row = new Row();
  switch (block.kind) {
    case 'talk':
      timeTalk(row, block, settings.speechWpm);
      break;
    case 'intervals':
      timeIntervals(row, block, settings.lastRest === 'counted');
      break;
    case 'reps':
      timeReps(row, block);
      break;
  }
  if (block.pauseAfter) row.add('pause-sign', block.pauseAfter.signMs, block.pauseAfter.prompt || 'Pause and practise');
  return { spans: row.spans, calls: row.calls };
}

function timeTalk(row: Row, block: TalkBlock, wpm: number): void {
  row.add('talk', block.fixedMs ?? speechMs(block.script, wpm), block.title);
}

function timeIntervals(row: Row, block: IntervalsBlock, countLastRest: boolean): void {
  row.add('lead-in', block.leadInMs, 'Get ready');
  for (let round = 1; round <= block.rounds; round += 1) {
    block.exercises.forEach((exercise, i) => {
      const startMs = row.at;
      row.call('start', exercise.title);
      row.add('work', block.workMs, exercise.title, { round, rounds: block.rounds });
      if (block.workMs >= HALFWAY_FROM_MS) row.call('halfway', 'Halfway', startMs + Math.floor(block.workMs / 2));
      if (block.workMs >= LAST_FIVE_FROM_MS) row.call('last-five', 'Last five', row.at - 5_000);
      row.call('stop', 'Stop');
      const lastOfRound = i === block.exercises.length - 1;
      const lastOfAll = lastOfRound && round === block.rounds;
      if (lastOfAll) {
        if (countLastRest) row.add('rest', block.restMs, 'Rest', { round, rounds: block.rounds });
      } else if (lastOfRound && block.restBetweenRoundsMs !== null) {
        row.add('round-rest', block.restBetweenRoundsMs, 'Rest between rounds', { round, rounds: block.rounds });
      } else {
        row.add('rest', block.restMs, 'Rest', { round, rounds: block.rounds });
      }
    });
  }
}

function other(side: Side): Side {
  return side === 'left' ? 'right' : 'left';
}

function timeReps(row: Row, block: RepsBlock): void {
  const oneMs = repMs(block.tempo);
  row.add('lead-in', block.leadInMs, 'Get ready');
  for (let set = 1; set <= block.sets; set += 1) {
    const addRep = (rep: number, side?: Side) =>
      row.add('rep', oneMs, block.exercise.title, {
        round: set,
        rounds: block.sets,
        rep,
        reps: block.reps,
        side,
      });
    row.call('start', block.exercise.title);
    switch (block.sides) {
      case 'both':
        for (let rep = 1; rep <= block.reps; rep += 1) addRep(rep);
        break;
      case 'each':
        for (let rep = 1; rep <= block.reps; rep += 1) addRep(rep, block.startSide);
        row.call('change-sides', 'Change sides');
        row.add('side-change', block.sideChangeMs, 'Change sides', { side: other(block.startSide) });
        for (let rep = 1; rep <= block.reps; rep += 1) addRep(rep, other(block.startSide));
        break;
      case 'alternating':
        for (let rep = 1; rep <= block.reps; rep += 1) {
          addRep(rep, block.startSide);
          addRep(rep, other(block.startSide));
        }
        break;
    }
    row.call('stop', 'Stop');
    if (set < block.sets) {
      row.add('set-rest', block.restBetweenSetsMs, 'Rest between sets', { round: set, rounds: block.sets });
    }
  }
}
