import { expect, it } from 'vitest';
import { makeBlock, makeLesson, type BlockOf } from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { scorePrompts } from './index.ts';

it('a called-out game with a score asks for the points or the lives that are left', () => {
  const prompts = (score: BlockOf<'called'>['score']) => {
    const block = { ...makeBlock('called', counter()), id: 'g', title: 'Ship ahoy', score };
    return scorePrompts({
      ...makeLesson('A', counter()),
      sections: [{ id: 's', title: 'S', blocks: [block as BlockOf<'called'>] }],
    });
  };
  expect(prompts(undefined)).toEqual([]);
  expect(prompts({ kind: 'points', each: 2 })).toMatchObject([
    {
      ...{ blockId: 'g', title: 'Ship ahoy', measure: 'points', better: 'more', isAsked: true },
      ...{ targets: [{ name: 'Ship ahoy', points: 2 }], seconds: null, tries: 1 },
    },
  ]);
  expect(prompts({ kind: 'lives', lives: 3 })).toMatchObject([
    { measure: 'count', better: 'more', isAsked: true, targets: [] },
  ]);
});
