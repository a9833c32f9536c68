import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import {
  blocksOf,
  grownParts,
  makeBlock,
  makeLesson,
  partsOf,
  type Block,
  type BlockKind,
} from './index.ts';

const makeId = counter();
const of = (kind: BlockKind, own: Partial<Block> = {}) =>
  ({ ...makeBlock(kind, makeId), ...own }) as Block;
const partsIn = (...blocks: Block[]) => {
  const lesson = makeLesson('Parts', makeId);
  lesson.sections[0]!.blocks = blocks;
  return [...partsOf(lesson).values()].map(({ part }) => part);
};

describe('the part a block is taken for', () => {
  it('goes by its kind, its place and its effort', () => {
    expect(
      partsIn(
        of('talk'),
        of('card', { about: 'kit' } as Partial<Block>),
        of('card', { about: 'space' } as Partial<Block>),
        of('counts', { effort: 2 }),
        of('reps', { demo: { times: 1, speed: 'half', onceMs: 3_000 } } as Partial<Block>),
        of('intervals', { effort: 4 }),
        of('game'),
        of('question'),
        of('hold', { effort: 1 }),
        of('talk'),
      ),
    ).toEqual([
      ...['greeting', 'kit', 'space', 'warm-up', 'skill', 'practice', 'game', 'other'],
      ...['cool-down', 'sign-off'],
    ]);
  });

  it('never goes against what the teacher says, and says so where it is a guess', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        const parts = partsOf(lesson);
        for (const { id, part } of blocksOf(lesson)) {
          const taken = parts.get(id);
          expect(taken?.isGuess).toBe(part === 'other');
          if (part !== 'other') expect(taken?.part).toBe(part);
        }
      }),
    );
  });

  it('leaves what warms up and cools down out of what grows', () => {
    const lesson = makeLesson('Grows', makeId);
    const blocks = [
      of('hold', { effort: 2 }),
      of('intervals', { effort: 4 }),
      of('hold', { effort: 1 }),
    ];
    lesson.sections[0]!.blocks = blocks;
    expect(blocks.map(grownParts(lesson))).toEqual(['warm-up', 'practice', 'cool-down']);
  });
});
