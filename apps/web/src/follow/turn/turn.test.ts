import { assemble } from '@zest/core/assembly';
import { makeBlock, makeCue, makeLesson, type IntervalsBlock } from '@zest/core/lesson';
import { describe, expect, it } from 'vitest';
import { keyWordsOf } from './key-words.ts';
import { signalsOf } from './use-time-left.ts';

const idOf = () => {
  let n = 0;
  return () => `i${(n += 1)}`;
};
const work = (texts: readonly string[]): IntervalsBlock => ({
  ...(makeBlock('intervals', idOf()) as IntervalsBlock),
  id: 'a',
  rounds: 2,
  workMs: 30_000,
  cues: texts.map((text, i) => ({
    ...makeCue(text, () => `c${i}`, text.startsWith('Look') ? 'ready' : 'action'),
    ...(text === 'Soft knees' && { right: 'Heels up', wrong: 'Stiff legs' }),
  })),
});
const wordsOf = (texts: readonly string[], blockId = 'a') =>
  keyWordsOf(
    assemble(
      {
        ...makeLesson('A', idOf()),
        sections: [{ id: 's', title: 'Part', blocks: [work(texts)] }],
      },
      new Map(),
    ),
    blockId,
  );

describe('what is kept in mind in one’s own turn', () => {
  it('is each cue once, those for the movement first, three at most', () => {
    expect(
      wordsOf(['Look up', 'Soft knees', 'Elbows in', 'Breathe']).map(({ text }) => text),
    ).toEqual(['Soft knees', 'Elbows in', 'Breathe']);
    expect(wordsOf(['Look up', 'Soft knees']).map(({ text }) => text)).toEqual([
      'Soft knees',
      'Look up',
    ]);
    expect(wordsOf(['Soft knees'])[0]?.pair).toEqual({ right: 'Heels up', wrong: 'Stiff legs' });
    expect(wordsOf([])).toEqual([]);
    expect(wordsOf(['Soft knees'], 'gone')).toEqual([]);
  });
});

describe('the end of one’s own turn', () => {
  it('is heard and felt ten seconds before, three times in the last three, and when it is over', () => {
    expect(signalsOf(60_000).map(({ atMs, tone }) => [atMs, tone])).toEqual([
      [50_000, 'last-five'],
      [57_000, 'tick'],
      [58_000, 'tick'],
      [59_000, 'tick'],
      [60_000, 'stop'],
    ]);
    expect(signalsOf(5_000).map(({ atMs }) => atMs)).toEqual([2_000, 3_000, 4_000, 5_000]);
  });
});
