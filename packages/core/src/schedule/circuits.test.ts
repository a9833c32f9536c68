import { describe, expect, it } from 'vitest';
import {
  figuresOf,
  forOtherHand,
  makeBlock,
  makeLesson,
  readLesson,
  type Amount,
  type BlockOf,
  type Rests,
} from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { labelText } from '../words/index.ts';
import { blockSummary, measureBlock, scheduleLesson, timeBlock } from './index.ts';

const lesson = makeLesson('A', counter());
type Station = BlockOf<'intervals'>['exercises'][number];
const station = (title: string, amount?: Amount, sides: Station['sides'] = 'both'): Station => ({
  ...{ id: title.replace(' ', '-'), title, movement: 'other', sides },
  ...(amount && { amount }),
});
const reps = (n: number, oneMs: number): Amount => ({ kind: 'reps', reps: n, oneMs });
const circuit = (exercises: Station[], more: Partial<BlockOf<'intervals'>> = {}) =>
  ({
    ...makeBlock('intervals', counter()),
    ...{ id: 'c', leadInMs: 0, workMs: 30_000, restMs: 20_000, rounds: 2, sets: 1, exercises },
    ...more,
  }) as BlockOf<'intervals'>;
const lengthOf = (block: BlockOf<'intervals'>) => measureBlock(block, lesson);
/** Kinds, lengths in seconds and labels of the spans that are not works of the clock. */
const rests = (block: BlockOf<'intervals'>) =>
  timeBlock(block, lesson)
    .spans.filter(({ kind }) => kind === 'rest')
    .map(({ startMs, endMs, label }) => `${(endMs - startMs) / 1_000} ${labelText(label, 'en')}`);

const squats = station('Squats', reps(10, 2_000));
const lunges = station('Side lunges', reps(8, 3_000), 'halves');
const pulls = station('Pull-ups', reps(6, 4_000));

describe('circuits of repetitions', () => {
  it('twice through 10 squats, 8 side lunges each side, 6 pull-ups, 20 s between: 284 s', () => {
    // A round: 10 × 2 + 2 × 8 × 3 + 6 × 4 = 92 s; five rests of 20 s, none after the last.
    expect(lengthOf(circuit([squats, lunges, pulls]))).toBe(2 * 92_000 + 5 * 20_000);
  });

  it('count each repetition, on its side, with its round', () => {
    const { spans, calls } = timeBlock(circuit([lunges], { rounds: 1, startSide: 'left' }), lesson);
    expect(spans.map(({ side, rep, reps: of }) => `${side} ${rep}/${of}`)).toEqual([
      ...Array.from({ length: 8 }, (_, i) => `left ${i + 1}/8`),
      ...Array.from({ length: 8 }, (_, i) => `right ${i + 1}/8`),
    ]);
    expect(calls.map(({ kind, atMs }) => [kind, atMs])).toEqual([
      ['start', 0],
      ['change-sides', 24_000],
      ['stop', 48_000],
    ]);
  });

  it('mix time, repetitions and holds: 30 + 20 + 15 s, rests of 20 s, 105 s a round', () => {
    const mixed = circuit(
      [station('Skip'), squats, station('Plank', { kind: 'hold', holdMs: 15_000 })],
      { rounds: 1 },
    );
    expect(lengthOf(mixed)).toBe(105_000);
    expect(
      timeBlock(mixed, lesson)
        .spans.map(({ kind }) => kind)
        .filter((kind, i, all) => kind !== all[i - 1]),
    ).toEqual(['work', 'rest', 'rep', 'rest', 'hold']);
    expect(blockSummary(mixed, 'en')).toBe('1 × (30 s Skip, 10 Squats, 15 s Plank)');
    expect(blockSummary(circuit([squats, lunges]), 'en')).toBe(
      '2 × (10 Squats, 8 Side lunges each side)',
    );
  });

  it('change the side by round, and hold on each side', () => {
    const held = station('Side plank', { kind: 'hold', holdMs: 10_000 }, 'halves');
    expect(lengthOf(circuit([held], { rounds: 1 }))).toBe(20_000);
    const byRound = timeBlock(
      circuit([station('Step', reps(2, 1_000), 'rounds')], { startSide: 'right', restMs: 0 }),
      lesson,
    ).spans;
    expect(byRound.map(({ side }) => side)).toEqual(['right', 'right', 'left', 'left']);
  });

  it('are fitted by their own figures: repetitions, and the work time only where it is used', () => {
    const keys = (block: BlockOf<'intervals'>) => figuresOf(block).map(({ key }) => key);
    expect(keys(circuit([squats]))).toContain('exercises.0.amount.reps');
    expect(keys(circuit([squats]))).not.toContain('workMs');
    expect(keys(circuit([squats, station('Skip')]))).toContain('workMs');
  });

  it('are read back as they were', () => {
    const whole = { ...lesson, sections: [{ id: 's', title: '', blocks: [circuit([lunges])] }] };
    expect(readLesson(JSON.parse(JSON.stringify(whole)))).toEqual(whole);
    expect(scheduleLesson(whole).videoMs).toBe(2 * 48_000 + 20_000);
  });
});

describe('rests between exercises', () => {
  const plain: Rests = {
    ...{ by: 'time', does: 'rest', task: '' },
    ...{ breaths: 4, breathInMs: 3_000, breathOutMs: 5_000 },
  };
  const of = (part: Partial<Rests>) =>
    circuit([squats, lunges, pulls], { rounds: 1, rests: { ...plain, ...part } });

  it('last as long as the work took: 20 + 20 + 48 + 48 + 24 = 160 s', () => {
    expect(rests(of({ by: 'work' }))).toEqual(['20 Rest', '48 Rest']);
    expect(lengthOf(of({ by: 'work' }))).toBe(160_000);
    // One of two goes, the other rests: counted, the last rest lasts as its work did.
    const counted = { ...lesson, settings: { ...lesson.settings, lastRest: 'counted' as const } };
    expect(measureBlock(of({ by: 'work' }), counted)).toBe(184_000);
  });

  it('last four breaths of 3 and 5 s: 92 + 2 × 32 = 156 s, and breathe on the clock', () => {
    const block = of({ by: 'breaths' });
    expect(lengthOf(block)).toBe(156_000);
    expect(timeBlock(block, lesson).spans.find(({ kind }) => kind === 'rest')?.pace).toEqual({
      kind: 'breaths',
      inMs: 3_000,
      outMs: 5_000,
    });
  });

  it('say what is done meanwhile', () => {
    expect(rests(of({ does: 'partner' }))).toEqual([
      '20 Your partner’s turn',
      '20 Your partner’s turn',
    ]);
    expect(rests(of({ does: 'task', task: 'Walk to the wall' }))[0]).toBe('20 Walk to the wall');
    expect(rests(of({ does: 'task', task: ' ' }))[0]).toBe('20 Rest');
  });

  it('have the figures they are made of, and no others', () => {
    const keys = (part: Partial<Rests>) =>
      figuresOf(of(part))
        .map(({ key }) => key)
        .filter((key) => /^rest/.test(key));
    expect(keys({})).toEqual(['restMs']);
    expect(keys({ by: 'work' })).toEqual([]);
    expect(keys({ by: 'breaths' })).toEqual([
      'rests.breaths',
      'rests.breathInMs',
      'rests.breathOutMs',
    ]);
  });
});

describe('counts of any beats', () => {
  type Move = BlockOf<'counts'>['moves'][number];
  const move = (title: string, more: Partial<Move> = {}): Move => ({
    ...{ id: title, title, movement: 'other', eights: 1 },
    ...more,
  });
  const counts = (moves: Move[], more: Partial<BlockOf<'counts'>> = {}) =>
    ({
      ...makeBlock('counts', counter()),
      bpm: 120,
      times: 1,
      countIn: 0,
      moves,
      ...more,
    }) as BlockOf<'counts'>;

  it('5 and 3 twice at 120: 16 beats of half a second are 8 s, in four counts', () => {
    const block = counts([move('March', { eights: 2, beats: [5, 3] })]);
    expect(measureBlock(block, lesson)).toBe(8_000);
    expect(
      timeBlock(block, lesson).spans.map(
        ({ startMs, endMs, rep, reps: of, pace }) =>
          `${startMs}-${endMs} ${rep}/${of} ${pace?.kind === 'beats' ? pace.beats : ''}`,
      ),
    ).toEqual(['0-2500 1/4 5', '2500-4000 2/4 3', '4000-6500 3/4 5', '6500-8000 4/4 3']);
    expect(blockSummary(block, 'en')).toBe('(2 × 5 + 3 March) at 120 beats a minute');
  });

  it('6 and 8 at 90, counted in once by the first: (6 + 6 + 8) × 2/3 s = 13.333 s, never drifting', () => {
    const block = counts([move('A', { beats: [6, 8] })], { bpm: 90, countIn: 1 });
    expect(timeBlock(block, lesson).spans.map(({ endMs }) => endMs)).toEqual([
      4_000, 8_000, 13_333,
    ]);
  });

  it('triple time: four bars of three at 90 are 8 s, each bar’s first beat accented', () => {
    const block = counts([move('Sway', { beats: [6], eights: 2 })], { bpm: 90, bar: 3 });
    expect(measureBlock(block, lesson)).toBe(8_000);
    const [first] = timeBlock(block, lesson).spans;
    expect(first?.pace).toEqual({ kind: 'beats', beats: 6, bar: 3 });
  });

  it('change the side each time, and are told for the other hand', () => {
    const block = counts([
      move('Step', { eights: 4, side: 'left-right' }),
      move('Turn', { side: 'right' }),
    ]);
    const sides = (one: BlockOf<'counts'>) =>
      timeBlock(one, lesson).spans.map(({ side }) => side?.[0]);
    expect(sides(block)).toEqual(['l', 'r', 'l', 'r', 'r']);
    const [turned] =
      forOtherHand({ ...lesson, sections: [{ id: 's', title: '', blocks: [block] }] }).sections[0]
        ?.blocks ?? [];
    expect(sides(turned as BlockOf<'counts'>)).toEqual(['r', 'l', 'r', 'l', 'l']);
  });

  it('without beats of their own are counts of eight, as ever', () => {
    const block = counts([move('A', { eights: 2 })]);
    expect(measureBlock(block, lesson)).toBe(8_000);
    expect(blockSummary(block, 'en')).toBe('counts of 8, 2 eights at 120 beats a minute');
  });
});

describe('routines', () => {
  type Move = BlockOf<'routine'>['moves'][number];
  const move = (title: string, more: Partial<Move> = {}): Move => ({
    ...{ id: title, title, movement: 'other', ms: 4_000 },
    ...more,
  });
  const routine = (moves: Move[], more: Partial<BlockOf<'routine'>> = {}) =>
    ({
      ...makeBlock('routine', counter()),
      ...{ leadInMs: 0, restMs: 0, timesEach: 1, wholeTimes: 0, grow: 'from-start', moves },
      ...more,
    }) as BlockOf<'routine'>;
  const done = (block: BlockOf<'routine'>) =>
    timeBlock(block, lesson)
      .spans.map(({ label }) => labelText(label, 'en'))
      .join('');
  const five = ['A', 'B', 'C', 'D', 'E'].map((title) => move(title));

  it('grow from what is known: A and B stand, C, D and E are added', () => {
    expect(done(routine(five, { stem: 2 }))).toBe('ABABCABCDABCDE');
    // 2 + 3 + 4 + 5 moves of 4 s.
    expect(measureBlock(routine(five, { stem: 2 }), lesson)).toBe(56_000);
    expect(done(routine(five, { stem: 2, grow: 'new-only' }))).toBe('ABCDE');
    expect(done(routine(five, { stem: 2, grow: 'backwards', wholeTimes: 1 }))).toBe(
      'ABEDECDEABCDE',
    );
    // At least one move is new.
    expect(done(routine(five.slice(0, 2), { stem: 9 }))).toBe('AAB');
    expect(done(routine(five.slice(0, 3)))).toBe('AABABC');
  });

  it('have moves of repetitions and holds: 3 × 2 + 5 + 4 = 15 s', () => {
    const block = routine(
      [
        move('Squats', { amount: { kind: 'reps', reps: 3, oneMs: 2_000 } }),
        move('Plank', { amount: { kind: 'hold', holdMs: 5_000 } }),
        move('Turn'),
      ],
      { grow: 'new-only' },
    );
    expect(measureBlock(block, lesson)).toBe(15_000);
    expect(timeBlock(block, lesson).spans.map(({ kind }) => kind)).toEqual([
      ...['rep', 'rep', 'rep', 'hold', 'move'],
    ]);
    expect(figuresOf(block).map(({ key }) => key)).toEqual(
      expect.arrayContaining(['moves.0.amount.reps', 'moves.1.amount.holdMs', 'moves.2.ms']),
    );
  });

  it('take the other side each time a move comes', () => {
    const block = routine([move('Lunge', { side: 'left-right' }), move('Clap')], { timesEach: 2 });
    expect(
      timeBlock(block, lesson).spans.map(
        ({ label, side }) => `${labelText(label, 'en')}${side?.[0] ?? ''}`,
      ),
    ).toEqual(['Lungel', 'Lunger', 'Lungel', 'Clap', 'Lunger', 'Clap']);
  });
});
