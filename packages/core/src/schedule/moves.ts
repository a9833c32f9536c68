import {
  demoOf,
  movesDone,
  otherSide,
  repMs,
  type Amount,
  type BlockOf,
  type Demo,
  type Exercise,
  type IntervalsBlock,
  type ListedExercise,
  type Movement,
  type MoveSide,
  type Parts,
  type RepsBlock,
  type Rests,
  type Side,
} from '../lesson/index.ts';
import type { Label } from '../words/index.ts';
import type { More, Pace, SpanKind, TimelineBuilder } from './timeline-builder.ts';

const READY: Label = { own: 'phase.lead-in' };
const REST: Label = { own: 'phase.rest' };
const ROUND_REST: Label = { own: 'span.round-rest' };
const SET_REST: Label = { own: 'span.set-rest' };
const CHANGE: Label = { own: 'phase.change' };
const STOP: Label = { own: 'call.stop' };

const textOf = ({ title }: { title: string }): Label => ({ text: title });

type Shown = Pick<Exercise, 'title'> & Partial<ListedExercise>;

/** An exercise shown before it is done. */
export function addShowing(
  timeline: TimelineBuilder,
  demo: Demo | null,
  { title, movement }: Shown,
  exercise?: number,
): void {
  if (!demo) return;
  const onceMs = demo.onceMs * (demo.speed === 'half' ? 2 : 1);
  const label: Label = { own: 'span.watch', values: { title } };
  for (let rep = 1; rep <= demo.times; rep += 1)
    timeline.add('show', onceMs, label, { rep, reps: demo.times, exercise, movement });
}

/** Each exercise of a list shown, as it says itself or as the block says. */
const addShowings = (
  timeline: TimelineBuilder,
  demo: Demo | null,
  exercises: readonly ListedExercise[],
) => exercises.forEach((one, i) => addShowing(timeline, demoOf(demo, one), one, i));

function workSide(
  sides: IntervalsBlock['exercises'][number]['sides'],
  round: number,
  first: Side,
): Side | undefined {
  switch (sides) {
    case 'both':
      return undefined;
    case 'left':
    case 'right':
      return sides;
    case 'halves':
      return first;
    case 'rounds':
      return round % 2 === 1 ? first : otherSide(first);
  }
}

/** Repetitions, each numbered, or a hold. */
function addAmount(timeline: TimelineBuilder, amount: Amount, title: Label, more: More): void {
  if (amount.kind === 'hold') return timeline.add('hold', amount.holdMs, title, more);
  for (let rep = 1; rep <= amount.reps; rep += 1)
    timeline.add('rep', amount.oneMs, title, { ...more, rep, reps: amount.reps });
}

type WorkExercise = IntervalsBlock['exercises'][number];

/** One exercise of a round: its work time, its repetitions or its hold, on its sides. */
function addWork(
  timeline: TimelineBuilder,
  { startSide }: IntervalsBlock,
  { sides, amount, movement }: WorkExercise,
  title: Label,
  place: { round: number; rounds: number; exercise: number },
  workMs: number,
): void {
  const side = workSide(sides, place.round, startSide);
  const more = { ...place, movement };
  if (!amount) {
    timeline.work('work', workMs, title, { ...more, side, halves: sides === 'halves' });
    return;
  }
  timeline.call('start', title);
  addAmount(timeline, amount, title, { ...more, side });
  if (sides === 'halves') {
    timeline.call('change-sides', CHANGE);
    addAmount(timeline, amount, title, { ...more, side: otherSide(startSide) });
  }
  timeline.call('stop', STOP);
}

/** A rest of so long, or until the student is ready. */
function addPause(
  timeline: TimelineBuilder,
  by: Rests['by'] | undefined,
  kind: SpanKind,
  ms: number,
  label: Label,
  place: { round: number; rounds: number },
): void {
  if (by === 'ready') timeline.untilReady(ms, place);
  else timeline.add(kind, ms, label, place);
}

/** A rest between exercises: of its own length, as long as was worked, or so many breaths. */
function addRest(
  timeline: TimelineBuilder,
  rests: Rests | undefined,
  restMs: number,
  workedMs: number,
  place: { round: number; rounds: number },
): void {
  if (!rests) return timeline.add('rest', restMs, REST, place);
  if (rests.by === 'ready') return timeline.untilReady(restMs, place);
  const { by, does, task, breaths, breathInMs: inMs, breathOutMs: outMs } = rests;
  const label: Label =
    does === 'partner'
      ? { own: 'span.partner' }
      : does === 'task' && task.trim() !== ''
        ? { text: task }
        : REST;
  if (by === 'breaths')
    timeline.add('rest', breaths * (inMs + outMs), label, {
      ...place,
      pace: { kind: 'breaths', inMs, outMs },
    });
  else timeline.add('rest', by === 'work' ? workedMs : restMs, label, place);
}

export function timeIntervals(
  timeline: TimelineBuilder,
  block: IntervalsBlock,
  countLastRest: boolean,
): void {
  const rungs = [{ workMs: block.workMs, restMs: block.restMs }, ...block.ladder];
  const rounds = block.rounds * block.sets;
  const by = block.rests?.by;
  const titles = block.exercises.map(textOf);
  const show = (at: number) => {
    const one = block.exercises[at];
    if (one) addShowing(timeline, demoOf(block.demo, one), one, at);
  };
  show(0);
  timeline.add('lead-in', block.leadInMs, READY);
  for (let round = 1; round <= rounds; round += 1) {
    const lastOfSet = round % block.rounds === 0;
    rungs.forEach(({ workMs, restMs }, rung) => {
      block.exercises.forEach((exercise, i) => {
        if (round === 1 && rung === 0 && i > 0) show(i);
        const startedMs = timeline.at;
        addWork(
          timeline,
          block,
          exercise,
          titles[i] ?? READY,
          { round, rounds, exercise: i },
          workMs,
        );
        const place = { round, rounds };
        const rest = () => addRest(timeline, block.rests, restMs, timeline.at - startedMs, place);
        const lastOfRound = rung === rungs.length - 1 && i === block.exercises.length - 1;
        if (lastOfRound && round === rounds) {
          // After the last one there is nothing to be ready for.
          if (countLastRest && by !== 'ready') rest();
        } else if (lastOfRound && lastOfSet) {
          addPause(timeline, by, 'set-rest', block.restBetweenSetsMs, SET_REST, place);
        } else if (lastOfRound && block.restBetweenRoundsMs !== null) {
          addPause(timeline, by, 'round-rest', block.restBetweenRoundsMs, ROUND_REST, place);
        } else rest();
      });
    });
  }
}

/** A move taught in named parts, on its sides, joined at the end or step by step. */
function addParts(
  timeline: TimelineBuilder,
  { names, timesEach, partMs, joinedTimes, joinedMs, sides, join }: Parts,
  first: Side,
  movement: Movement,
): void {
  const inTurn: (Side | undefined)[] = sides ? [first, otherSide(first)] : [undefined];
  const run = (times: number, ms: number, label: Label) => {
    for (const side of inTurn)
      for (let rep = 1; rep <= times; rep += 1)
        timeline.add('part', ms, label, { rep, reps: times, side, movement });
  };
  names.forEach((text, i) => {
    run(timesEach, partMs, { text });
    const soFar = i + 1;
    if (join && soFar > 1 && soFar < names.length)
      run(joinedTimes, Math.round((joinedMs * soFar) / names.length), {
        text: names.slice(0, soFar).join(' + '),
      });
  });
  run(joinedTimes, joinedMs, { own: 'span.joined' });
}

export function timeReps(timeline: TimelineBuilder, block: RepsBlock): void {
  const { exercise, parts } = block;
  const { movement } = exercise;
  const title = textOf(exercise);
  const oneMs = repMs(block.tempo);
  addShowing(timeline, block.demo, exercise);
  timeline.add('lead-in', block.leadInMs, READY);
  if (parts) addParts(timeline, parts, block.startSide, movement);
  for (let set = 1; set <= block.sets; set += 1) {
    const addRep = (rep: number, side?: Side) =>
      timeline.add('rep', oneMs, title, {
        round: set,
        rounds: block.sets,
        rep,
        reps: block.reps,
        side,
        movement,
      });
    timeline.call('start', title);
    overSides(timeline, block, block.reps, addRep);
    timeline.call('stop', STOP);
    const place = { round: set, rounds: block.sets };
    if (set === block.sets) break;
    addPause(timeline, block.restBy, 'set-rest', block.restBetweenSetsMs, SET_REST, place);
  }
}

type Sided = Pick<RepsBlock, 'sides' | 'startSide' | 'sideChangeMs'>;

/**
 * Does `times` on the sides as planned, `restMs` between two that follow each other without a
 * change of sides.
 */
function overSides(
  timeline: TimelineBuilder,
  block: Sided,
  times: number,
  addOne: (rep: number, side?: Side) => void,
  restMs = 0,
): void {
  const run = (side?: Side) => {
    for (let rep = 1; rep <= times; rep += 1) {
      addOne(rep, side);
      if (rep < times) timeline.add('rest', restMs, REST, { side });
    }
  };
  switch (block.sides) {
    case 'both':
      run();
      break;
    case 'each':
      run(block.startSide);
      timeline.call('change-sides', CHANGE);
      timeline.add('side-change', block.sideChangeMs, CHANGE, {
        side: otherSide(block.startSide),
      });
      run(otherSide(block.startSide));
      break;
    case 'alternating':
      for (let rep = 1; rep <= times; rep += 1) {
        addOne(rep, block.startSide);
        timeline.add('rest', restMs, REST);
        addOne(rep, otherSide(block.startSide));
        if (rep < times) timeline.add('rest', restMs, REST);
      }
      break;
  }
}

export function timeHold(timeline: TimelineBuilder, block: BlockOf<'hold'>): void {
  const { exercise } = block;
  const title = textOf(exercise);
  const byBreath = block.by === 'breaths';
  const oneMs = byBreath ? block.breaths * (block.breathInMs + block.breathOutMs) : block.holdMs;
  const pace: Pace | undefined = byBreath
    ? { kind: 'breaths', inMs: block.breathInMs, outMs: block.breathOutMs }
    : undefined;
  addShowing(timeline, block.demo, exercise);
  timeline.add('lead-in', block.leadInMs, READY);
  overSides(
    timeline,
    block,
    block.holds,
    (rep, side) => {
      timeline.call('start', { own: 'phase.hold' });
      timeline.add('hold', oneMs, title, {
        rep,
        reps: block.holds,
        side,
        movement: exercise.movement,
        pace,
        up: block.count === 'up',
      });
      timeline.call('stop', { own: 'call.relax' });
    },
    block.restMs,
  );
}

const COUNT_OF_EIGHT: readonly number[] = [8];

/**
 * The instant after so many beats at `bpm`, in whole milliseconds; rounded once, so that errors never
 * add up.
 */
const afterBeats = (beats: number, bpm: number): number => Math.round((beats * 60_000) / bpm);

/** The side of a move that comes for the `time`th time, from 0. */
function sideOfMove(side: MoveSide | undefined, time: number): Side | undefined {
  if (side !== 'left-right' && side !== 'right-left') return side;
  const first = side === 'left-right' ? 'left' : 'right';
  return time % 2 === 0 ? first : otherSide(first);
}

export function timeCounts(timeline: TimelineBuilder, block: BlockOf<'counts'>): void {
  const moves = movesDone(block);
  addShowings(timeline, block.demo, moves);
  let done = 0;
  const count = (beats: number) => {
    done += beats;
    return afterBeats(done, block.bpm) - afterBeats(done - beats, block.bpm);
  };
  const paceOf = (beats: number): Pace => ({ kind: 'beats', beats, bar: block.bar });
  const [first = 8] = moves[0]?.beats ?? COUNT_OF_EIGHT;
  for (let rep = 1; rep <= block.countIn; rep += 1)
    timeline.add(
      'lead-in',
      count(first),
      { own: 'span.count-in' },
      { rep, reps: block.countIn, pace: paceOf(first) },
    );
  for (let round = 1; round <= block.times; round += 1) {
    for (const [exercise, move] of moves.entries()) {
      const { title, eights, movement, side, beats = COUNT_OF_EIGHT } = move;
      const label: Label = { text: title };
      timeline.call('start', label);
      for (let time = 0; time < eights; time += 1)
        beats.forEach((n, i) =>
          timeline.add('count', count(n), label, {
            round,
            rounds: block.times,
            rep: time * beats.length + i + 1,
            reps: eights * beats.length,
            pace: paceOf(n),
            side: sideOfMove(side, time),
            exercise,
            movement,
          }),
        );
    }
  }
  timeline.call('stop', STOP);
}

type Routine = BlockOf<'routine'>;

/** The run-throughs of a routine, each a list of move numbers: it grows, then it is done as a whole. */
function runsOf(block: Routine): number[][] {
  const { grow, timesEach, wholeTimes, stem = 0 } = block;
  const all = movesDone(block).map((_move, i) => i);
  if (grow === 'whole') return Array.from({ length: Math.max(1, wholeTimes) }, () => all);
  const known = Math.min(stem, all.length - 1);
  const added = all.slice(known);
  const steps = added.map((k, i) =>
    grow === 'from-start'
      ? all.slice(0, k + 1)
      : grow === 'new-only'
        ? [k]
        : all.slice(all.length - 1 - i),
  );
  // What is known is done once before anything is added to it.
  const begun = known > 0 ? [all.slice(0, known), ...steps] : steps;
  return [
    ...begun.flatMap((step) => Array.from({ length: timesEach }, () => step)),
    ...Array.from({ length: wholeTimes }, () => all),
  ];
}

/** A move of a routine as it is called, with its number where it has one. */
const moveText = ({ number, title }: Routine['moves'][number]): string =>
  number === undefined ? title : `${number} ${title}`;

const amountMs = (amount: Amount): number =>
  amount.kind === 'hold' ? amount.holdMs : amount.reps * amount.oneMs;

/**
 * The side of a move where its whole combination is done on one: that side, or, of a move with a side
 * of its own, the one that mirrors it.
 */
const sideWithin = (own: Side | undefined, whole: Side | undefined, first: Side | undefined) =>
  whole === undefined || own === undefined
    ? (own ?? whole)
    : whole === first
      ? own
      : otherSide(own);

/** All moves of a combination in order, slowly, to be watched. */
function showSlowly(timeline: TimelineBuilder, block: Routine, percent: number, on?: Side): void {
  const first = on && block.combination?.startSide;
  movesDone(block).forEach((move, exercise) => {
    const { movement, ms, amount } = move;
    const length = Math.round(((amount ? amountMs(amount) : ms) * 100) / percent);
    const side = sideWithin(sideOfMove(move.side, 0), on, first);
    const label: Label = { own: 'span.watch', values: { title: moveText(move) } };
    timeline.add('show', length, label, { exercise, movement, side });
  });
}

/** All run-throughs of a routine, on a side where it is a combination by sides. */
function addRuns(timeline: TimelineBuilder, block: Routine, on?: Side): void {
  const first = on && block.combination?.startSide;
  const runs = runsOf(block);
  const done = new Map<number, number>();
  runs.forEach((run, r) => {
    run.forEach((at, i) => {
      const move = block.moves[at];
      if (!move) return;
      const { amount, movement } = move;
      const label: Label = { text: moveText(move) };
      const time = done.get(at) ?? 0;
      done.set(at, time + 1);
      const more = {
        round: r + 1,
        rounds: runs.length,
        rep: i + 1,
        reps: run.length,
        side: sideWithin(sideOfMove(move.side, time), on, first),
        exercise: at,
        movement,
      };
      timeline.call('start', label);
      if (amount) addAmount(timeline, amount, label, more);
      else timeline.add('move', move.ms, label, more);
    });
    timeline.call('stop', STOP);
    if (r === runs.length - 1) return;
    const place = { round: r + 1, rounds: runs.length };
    addPause(timeline, block.restBy, 'rest', block.restMs, REST, place);
  });
}

export function timeRoutine(timeline: TimelineBuilder, block: Routine): void {
  const { combination, demo, leadInMs } = block;
  addShowings(timeline, demo, movesDone(block));
  const { sides, startSide, sideChangeMs, slow, scoreMs = 0 } = combination ?? {};
  const inTurn: (Side | undefined)[] =
    sides === 'each' && startSide ? [startSide, otherSide(startSide)] : [undefined];
  inTurn.forEach((side, turn) => {
    const isFirst = turn === 0;
    if (!isFirst) {
      timeline.call('change-sides', CHANGE);
      timeline.add('side-change', sideChangeMs ?? 0, CHANGE, { side });
    }
    if (slow && (isFirst || slow.when === 'each side'))
      showSlowly(timeline, block, slow.percent, side);
    if (isFirst) timeline.add('lead-in', leadInMs, READY);
    addRuns(timeline, block, side);
    timeline.add('score', scoreMs, { own: 'span.score' });
  });
}

export function timeLaps(timeline: TimelineBuilder, block: BlockOf<'laps'>): void {
  const { exercise, laps } = block;
  const title = textOf(exercise);
  addShowing(timeline, block.demo, exercise);
  timeline.add('lead-in', block.leadInMs, READY);
  for (let rep = 1; rep <= laps; rep += 1) {
    timeline.call('start', laps > 1 ? { own: 'call.lap', values: { n: rep } } : title);
    timeline.add('lap', block.lapMs, title, { rep, reps: laps, movement: exercise.movement });
    if (rep < laps) timeline.add('rest', block.restMs, REST);
  }
  timeline.call('stop', STOP);
}
