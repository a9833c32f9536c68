import { describe, expect, it } from 'vitest';
import { assemble, scoreMoments } from '../assembly/index.ts';
import { sidesLedger } from '../ledger/index.ts';
import { makeBlock, makeLesson, makeSection, type BlockOf } from '../lesson/index.ts';
import { scheduleLesson } from '../schedule/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { scorePrompts } from './index.ts';

const makeId = counter();
const combination = (change: Partial<BlockOf<'routine'>> = {}): BlockOf<'routine'> => ({
  ...(makeBlock('routine', makeId) as BlockOf<'routine'>),
  ...{ id: 'combo', title: 'Throw combination', grow: 'whole', wholeTimes: 3 },
  ...{ leadInMs: 0, restMs: 2_000 },
  moves: ['Backhand', 'Forehand'].map((title) => ({
    ...{ id: makeId(), title, movement: 'disc-throw', ms: 3_000 },
  })),
  combination: {
    ...{ sides: 'each', startSide: 'left', sideChangeMs: 4_000, scoreMs: 5_000 },
    slow: { percent: 50, when: 'once' },
  },
  ...change,
});
const lessonOf = (block: BlockOf<'routine'>) => ({
  ...makeLesson('Throws', makeId),
  sections: [{ ...makeSection('One', makeId), blocks: [block] }],
});

describe('a combination done by sides', () => {
  const lesson = lessonOf(combination());
  const cut = assemble(lesson, new Map());

  it('is counted by run-through and side, whatever its moves', () => {
    // 2 × 6 s shown slowly, then runs of 6 s with breaks of 2 s; 5 s to note, 4 s to change.
    expect(
      cut.lanes.counter.map(({ startMs, endMs, rep, reps, side }) => [
        startMs,
        endMs,
        rep,
        reps,
        side,
      ]),
    ).toEqual([
      [12_000, 18_000, 1, 3, 'left'],
      [20_000, 26_000, 2, 3, 'left'],
      [28_000, 34_000, 3, 3, 'left'],
      [43_000, 49_000, 1, 3, 'right'],
      [51_000, 57_000, 2, 3, 'right'],
      [59_000, 65_000, 3, 3, 'right'],
    ]);
  });

  it('is called by its moves while it is watched, not told twice to watch', () => {
    const watched = cut.lanes.clock.filter(({ phase }) => phase === 'watch');
    expect(watched.map(({ title }) => title)).toEqual(['Backhand', 'Forehand']);
  });

  it('asks how many came off after each side, the first side first', () => {
    expect(scorePrompts(lesson)).toMatchObject([
      { title: 'Throw combination', measure: 'count', sides: ['left', 'right'], target: 3 },
    ]);
    expect(scoreMoments(cut, 'combo').map(({ startMs }) => startMs)).toEqual([34_000, 65_000]);
  });

  it('asks for nothing where no score is wanted', () => {
    const { scoreMs: _score, ...plain } = combination().combination ?? {};
    const quiet = lessonOf(combination({ combination: plain as never }));
    expect(scorePrompts(quiet)).toEqual([]);
  });

  it('works both sides alike; what is only watched is no work', () => {
    const ledger = sidesLedger(scheduleLesson(lesson));
    expect([ledger.left.ms, ledger.right.ms, ledger.uneven]).toEqual([18_000, 18_000, []]);
  });
});
