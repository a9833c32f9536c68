import { describe, expect, it } from 'vitest';
import { forOtherHand, makeBlock, makeLesson, type BlockOf, type Parts } from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { labelText } from '../words/index.ts';
import { timeBlock } from './index.ts';

const lesson = makeLesson('A', counter());
const throwing = (more: Partial<Parts>): BlockOf<'reps'> =>
  ({
    ...makeBlock('reps', counter()),
    ...{ id: 't', leadInMs: 0, reps: 1, sets: 1, sides: 'both', startSide: 'right', demo: null },
    tempo: { downMs: 1_000, holdMs: 0, upMs: 0, topHoldMs: 0 },
    parts: {
      ...{ names: ['Grip', 'Wind up', 'Snap'], timesEach: 2, partMs: 3_000 },
      ...{ joinedTimes: 1, joinedMs: 9_000 },
      ...more,
    },
  }) as BlockOf<'reps'>;
/** What is taught, with its side and length in seconds, without the repetitions after it. */
const taught = (block: BlockOf<'reps'>) =>
  timeBlock(block, lesson)
    .spans.filter(({ kind }) => kind === 'part')
    .map(
      ({ label, side, startMs, endMs }) =>
        `${labelText(label, 'en')} ${side ?? '-'} ${(endMs - startMs) / 1_000}`,
    );
const lengthOf = (block: BlockOf<'reps'>) => timeBlock(block, lesson).spans.at(-1)?.endMs;

describe('a move taught in parts', () => {
  it('three parts twice at 3 s, joined once at 9 s: 18 + 9 s, and one repetition of 1 s', () => {
    expect(lengthOf(throwing({}))).toBe(28_000);
  });

  it('on each side: twice as long, the first side first', () => {
    // 2 × (18 + 9) + 1 s.
    const block = throwing({ sides: 'each', timesEach: 1 });
    expect(lengthOf(throwing({ sides: 'each' }))).toBe(55_000);
    expect(taught(block)).toEqual([
      ...['Grip right 3', 'Grip left 3', 'Wind up right 3', 'Wind up left 3'],
      ...['Snap right 3', 'Snap left 3', 'Joined, slowly right 9', 'Joined, slowly left 9'],
    ]);
    const [section] = forOtherHand({
      ...lesson,
      sections: [{ id: 's', title: 'S', blocks: [block] }],
    }).sections;
    expect(taught(section?.blocks[0] as BlockOf<'reps'>)[0]).toBe('Grip left 3');
  });

  it('joined step by step: two of three parts last two thirds of the whole', () => {
    // Grip, wind up, both (6 s), snap, all: 3 + 3 + 6 + 3 + 9 s, and the repetition.
    const block = throwing({ join: 'step by step', timesEach: 1 });
    expect(taught(block)).toEqual([
      ...['Grip - 3', 'Wind up - 3', 'Grip + Wind up - 6', 'Snap - 3', 'Joined, slowly - 9'],
    ]);
    expect(lengthOf(block)).toBe(25_000);
  });
});
