import { describe, expect, it } from 'vitest';
import { effortCurve, kitLedger } from '../ledger/index.ts';
import {
  changeDetails,
  makeBlock,
  makeCue,
  makeKit,
  makeLesson,
  readLesson,
  type Block,
  type BlockOf,
  type Cue,
  type Details,
  type Lesson,
  type ListedExercise,
  type Movement,
} from '../lesson/index.ts';
import { measureBlock, scheduleLesson, timeBlock } from '../schedule/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { assemble } from './assemble.ts';
import { forStudent } from './for-student.ts';
import type { Assembly, TakeFacts } from './types.ts';

const makeId = counter();
const takes = new Map<string, TakeFacts>([['take', { id: 'take', frames: 9_000, marked: null }]]);
const cue = (text: string, moment: Cue['moment']): Cue => makeCue(text, makeId, moment);
const station = (title: string, movement: Movement, own: Partial<Details> = {}) => {
  const exercise = { id: makeId(), title, movement, sides: 'both' as const } as ListedExercise & {
    sides: 'both';
  };
  changeDetails(exercise, (details) => void Object.assign(details, own));
  return exercise;
};

/**
 * Three stations of 10 s with 5 s between, twice: works from 5, 20, 35 s of the first round and 50,
 * 65, 80 of the second; it ends at 90 s.
 */
const circuit = (own: Partial<BlockOf<'intervals'>> = {}): BlockOf<'intervals'> => ({
  ...(makeBlock('intervals', makeId) as BlockOf<'intervals'>),
  ...{ id: 'c', leadInMs: 5_000, workMs: 10_000, restMs: 5_000, rounds: 2, sets: 1 },
  footage: { takeId: 'take', startsAtMs: 0 },
  cues: [cue('Breathe', 'action')],
  exercises: [
    station('Squat', 'squat', {
      cues: [cue('Feet apart', 'ready'), cue('Knees out', 'action'), cue('Stand tall', 'finish')],
    }),
    station('Skip', 'skip-rope'),
    station('Balance', 'one-leg-balance', { cues: [cue('Look at one spot', 'throughout')] }),
  ],
  ...own,
});
const lessonOf = (block: Block, boards: Lesson['finish']['look']['boards'] = []): Lesson => {
  const lesson = makeLesson('A', makeId);
  return {
    ...lesson,
    finish: { ...lesson.finish, look: { ...lesson.finish.look, boards } },
    sections: [{ id: 's', title: 'Part', blocks: [block] }],
  };
};
const cut = (block: Block, boards?: Lesson['finish']['look']['boards']): Assembly =>
  assemble(lessonOf(block, boards), takes);
const shown = (assembly: Assembly) =>
  assembly.lanes.cue.map(({ text, startMs, endMs }) => [text, startMs / 1_000, endMs / 1_000]);

describe('a circuit whose stations speak for themselves', () => {
  it('lasts as long as any: 5 + 6 × 10 + 5 × 5 = 90 s', () => {
    expect(measureBlock(circuit(), makeLesson('A', makeId))).toBe(90_000);
  });

  it('shows each station’s own cues while it is done, the block’s where it has none', () => {
    const cues = shown(cut(circuit()));
    // Squat, 5 to 15 s: "Knees out" gives its last seconds to "Stand tall".
    expect(cues.filter(([, from]) => Number(from) < 20)).toEqual([
      ['Feet apart', 0, 5],
      ['Knees out', 5, 10],
      ['Stand tall', 10, 15],
    ]);
    expect(cues.filter(([, from]) => Number(from) >= 20 && Number(from) < 50)).toEqual([
      ['Breathe', 20, 30],
      ['Look at one spot', 35, 45],
      ['Feet apart', 45, 50],
    ]);
    expect(cues.filter(([text]) => text === 'Feet apart')).toHaveLength(2);
  });

  it('names what comes next, with its picture, while one rests', () => {
    const boards = cut(circuit(), ['next']).lanes.board.map(({ board, startMs, endMs }) => [
      board.kind === 'next' ? `${board.title}, ${board.movement}` : board.kind,
      startMs / 1_000,
      endMs / 1_000,
    ]);
    expect(boards).toEqual([
      ['Squat, squat', 0, 5],
      ['Skip, skip-rope', 15, 20],
      ['Balance, one-leg-balance', 30, 35],
      ['Squat, squat', 45, 50],
      ['Skip, skip-rope', 60, 65],
      ['Balance, one-leg-balance', 75, 80],
    ]);
    const alone = circuit({ exercises: [station('Squat', 'squat')] as never });
    expect(cut(alone, ['next']).lanes.board).toEqual([]);
  });

  it('shows a station as it says itself: 2 × 3 s, 1 × 4 s at half speed, one not at all', () => {
    const demo = { times: 2, speed: 'full' as const, onceMs: 3_000 };
    const block = circuit({
      demo,
      exercises: [
        station('Squat', 'squat'),
        station('Skip', 'skip-rope', { demo: { times: 1, speed: 'half', onceMs: 2_000 } }),
        station('Balance', 'one-leg-balance', { demo: 'none' }),
      ] as never,
    });
    const lesson = makeLesson('A', makeId);
    // 90 s of circuit, 6 s of squats and 4 s of skipping shown.
    expect(measureBlock(block, lesson)).toBe(100_000);
    expect(
      timeBlock(block, lesson)
        .spans.filter(({ kind }) => kind === 'show')
        .map(({ exercise, startMs, endMs }) => [exercise, endMs - startMs]),
    ).toEqual([
      [0, 3_000],
      [0, 3_000],
      [1, 4_000],
    ]);
  });

  it('tells a station’s caution when it is first waited for', () => {
    const block = circuit({
      cautions: ['Clear the floor'],
      exercises: [
        station('Squat', 'squat'),
        station('Skip', 'skip-rope', { cautions: ['Mind the lamp'] }),
      ] as never,
    });
    expect(cut(block).lanes.caution.map(({ text, startMs }) => [text, startMs / 1_000])).toEqual([
      ['Clear the floor', 0],
      ['Mind the lamp', 15],
    ]);
  });

  it('is as hard as each station: effort 5 for 10 s of each 30, 2 for the rest of the work', () => {
    const of = (effort: number | null) => station('A', 'squat', { effort });
    const block = circuit({
      ...{ effort: 2, leadInMs: 0, restMs: 0, workMs: 10_000, rounds: 2 },
      exercises: [of(5), of(null), of(2)] as never,
    });
    const { minutes } = effortCurve(scheduleLesson(lessonOf(block)));
    // (2 × 5 + 4 × 2) / 6 = 3; METs (2 × 11.8 + 4 × 2.8) / 6 = 5.8.
    expect(minutes[0]?.effort).toBeCloseTo(3);
    expect(minutes[0]?.mets).toBeCloseTo(5.8);
  });

  it('needs what its stations need', () => {
    const kit = [{ ...makeKit('Rope', makeId), quantity: 1 }];
    const block = circuit({
      kit: [makeKit('Mat', makeId)],
      exercises: [station('Skip', 'skip-rope', { kit }), station('Squat', 'squat')] as never,
    });
    expect(kitLedger(scheduleLesson(lessonOf(block)), 'en').map(({ name }) => name)).toEqual([
      'Mat',
      'Rope',
    ]);
  });

  it('shows the form of a station while that station is done, and nowhere else', () => {
    const form = {
      ...{ form: 'easier' as const, text: 'Hold on to a chair', rule: '' },
      exercise: 'Balance',
    };
    const seen = forStudent(cut(circuit()), {
      ...{ larger: false, contrast: false, calm: false },
      levels: new Map([['c', [form]]]),
    });
    expect(seen.lanes.board.map(({ startMs, endMs }) => [startMs / 1_000, endMs / 1_000])).toEqual([
      [35, 45],
      [80, 90],
    ]);
  });

  it('is stored only where something is said, and read back as it was', () => {
    const block = circuit();
    expect(block.exercises.map((exercise) => 'details' in exercise)).toEqual([true, false, true]);
    expect(readLesson(JSON.parse(JSON.stringify(lessonOf(block))))).toEqual(lessonOf(block));
    const silent = structuredClone(block.exercises[0]) as ListedExercise;
    changeDetails(silent, (details) => void (details.cues = []));
    expect('details' in silent).toBe(false);
  });
});
