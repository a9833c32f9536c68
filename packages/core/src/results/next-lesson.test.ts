import { describe, expect, it } from 'vitest';
import {
  blocksOf,
  lessonSchema,
  makeBlock,
  makeLesson,
  type Block,
  type Lesson,
} from '../lesson/index.ts';
import { nextLesson, stepChanges, type BlockHint } from './index.ts';

let next = 0;
const makeId = () => `i${(next += 1)}`;
function lessonOf(blocks: (Partial<Block> & { kind: Block['kind'] })[]): Lesson {
  const lesson = makeLesson('Rope', makeId);
  lesson.series = { ...lesson.series, name: 'Rope weeks', week: 3 };
  lesson.sections = [
    {
      id: makeId(),
      title: 'S',
      blocks: blocks.map(
        (block) => ({ ...makeBlock(block.kind, makeId), part: 'practice', ...block }) as Block,
      ),
    },
  ];
  return lesson;
}
const hint = (blockId: string, what: BlockHint['hint']): BlockHint => ({
  blockId,
  title: '',
  skipped: {},
  replayed: 0,
  of: 8,
  hint: what,
});

describe('next week’s lesson', () => {
  const lesson = lessonOf([
    { kind: 'intervals', workMs: 30_000 } as Partial<Block> & { kind: 'intervals' },
    { kind: 'reps', reps: 10 } as Partial<Block> & { kind: 'reps' },
    { kind: 'intervals', workMs: 20_000, part: 'warm-up' } as Partial<Block> & {
      kind: 'intervals';
    },
    { kind: 'hold', holdMs: 10_000, locked: ['holdMs'] } as Partial<Block> & { kind: 'hold' },
    { kind: 'talk' },
  ]);
  const [work, reps, warmUp] = blocksOf(lesson);

  it('goes one step by the rule; warm-up and locked figures stay', () => {
    expect(
      stepChanges(lesson, 'harder', []).map(({ label, from, to }) => [label, from, to]),
    ).toEqual([
      ['Work', 30_000, 35_000],
      ['Repetitions', 10, 12],
    ]);
    expect(stepChanges(lesson, 'easier', []).map(({ to }) => to)).toEqual([25_000, 8]);
    for (const step of ['same', 'not known'] as const)
      expect(stepChanges(lesson, step, [])).toEqual([]);
  });

  it('hears what students said of single blocks first', () => {
    const changes = stepChanges(lesson, 'harder', [
      hint(reps?.id ?? '', 'too hard'),
      hint(warmUp?.id ?? '', 'it hurts'),
    ]);
    expect(changes.map(({ blockId, to }) => [blockId, to])).toEqual([
      [work?.id, 35_000],
      [reps?.id, 8],
      [warmUp?.id, 15_000],
    ]);
  });

  it('counts breaths where a hold lasts so many', () => {
    const breathing = lessonOf([
      { kind: 'hold', by: 'breaths', breaths: 4 } as Partial<Block> & { kind: 'hold' },
    ]);
    expect(stepChanges(breathing, 'harder', []).map(({ label, to }) => [label, to])).toEqual([
      ['Breaths', 5],
    ]);
    expect(
      blocksOf(nextLesson(breathing, stepChanges(breathing, 'harder', []), makeId))[0],
    ).toMatchObject({ breaths: 5 });
  });

  it('stays within bounds, never halving at once', () => {
    const small = lessonOf([
      { kind: 'reps', reps: 1 } as Partial<Block> & { kind: 'reps' },
      { kind: 'reps', reps: 3 } as Partial<Block> & { kind: 'reps' },
      { kind: 'reps', reps: 500 } as Partial<Block> & { kind: 'reps' },
    ]);
    expect(stepChanges(small, 'easier', []).map(({ to }) => to)).toEqual([2, 498]);
    expect(stepChanges(small, 'harder', []).map(({ from, to }) => [from, to])).toEqual([[3, 4]]);
  });

  it('is a whole lesson of the next week with the changes in it and nothing filmed', () => {
    const made = nextLesson(lesson, stepChanges(lesson, 'harder', []), makeId);
    expect(lessonSchema.safeParse(made).success).toBe(true);
    expect([made.title, made.series.week]).toEqual(['Rope weeks, week 4', 4]);
    expect(blocksOf(made)[0]).toMatchObject({ workMs: 35_000, footage: null });
    expect(blocksOf(made).some(({ id }) => blocksOf(lesson).some((old) => old.id === id))).toBe(
      false,
    );
  });
});
