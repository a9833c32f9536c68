import { describe, expect, it } from 'vitest';
import {
  figuresOf,
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
