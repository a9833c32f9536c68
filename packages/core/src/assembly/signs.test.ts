import { expect, it } from 'vitest';
import { makeBlock, makeLesson, type BlockOf } from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { assemble } from './index.ts';

it('a command’s sign stands where its words would, and calls to try first are named so', () => {
  const sign = { by: 'card', shape: 'star', number: 5 } as const;
  const block = {
    ...makeBlock('called', counter()),
    ...{
      id: 'g',
      labels: [
        { id: 'a', text: 'Five', sign },
        { id: 'b', text: 'Go' },
      ],
    },
    ...{ calls: 2, minEach: 1, trial: 2, leadInMs: 3_000, demo: null },
  } as BlockOf<'called'>;
  const { lanes } = assemble(
    {
      ...makeLesson('A', counter()),
      sections: [{ id: 's', title: 'S', blocks: [block] }],
    },
    new Map(),
  );
  expect(lanes.cue.map(({ text, sign: shown }) => [text, shown ?? null]).slice(0, 2)).toEqual([
    ['Five', sign],
    ['Go', null],
  ]);
  expect(lanes.counter.map(({ rep, reps, note }) => `${rep}/${reps} ${note}`)).toEqual([
    '1/2 Trial',
    '2/2 Trial',
    '1/2 ',
    '2/2 ',
  ]);
});
