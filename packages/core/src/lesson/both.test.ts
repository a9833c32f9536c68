import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  blocksOf,
  differencesOf,
  lessonSchema,
  makeBlock,
  makeLesson,
  putTogether,
  type Lesson,
} from './index.ts';

let next = 0;
const makeId = () => `b${(next += 1)}`;

function lessonWith(sizes: readonly number[]): Lesson {
  const lesson = makeLesson('Base', makeId);
  lesson.sections = sizes.map((size) => ({
    id: makeId(),
    title: 'S',
    blocks: Array.from({ length: size }, () => makeBlock('talk', makeId)),
  }));
  return lesson;
}

type Step = { kind: 'title' | 'delete' | 'add' | 'lesson'; at: number };
/** A copy of the lesson with changes; ids of new blocks are told apart by `who`. */
function changed(base: Lesson, steps: readonly Step[], who: string): Lesson {
  const lesson = structuredClone(base);
  steps.forEach(({ kind, at }, i) => {
    const all = lesson.sections.flatMap((section) =>
      section.blocks.map((block) => ({ section, block })),
    );
    const one = all[at % Math.max(1, all.length)];
    if (kind === 'lesson') lesson.outcome = `${who} ${i}`;
    else if (kind === 'title' && one) one.block.title = `${who} ${i}`;
    else if (kind === 'delete' && one)
      one.section.blocks = one.section.blocks.filter((block) => block !== one.block);
    else if (kind === 'add' && one)
      one.section.blocks.push({
        ...makeBlock('talk', makeId),
        id: `${who}-${i}`,
        title: `${who} new`,
      });
  });
  return lesson;
}

const steps = fc.array(
  fc.record({
    kind: fc.constantFrom('title' as const, 'delete' as const, 'add' as const, 'lesson' as const),
    at: fc.nat(20),
  }),
  { maxLength: 5 },
);
const sizes = fc.array(fc.integer({ min: 1, max: 4 }), { minLength: 1, maxLength: 3 });

describe('two versions of a lesson put together', () => {
  it('are theirs where I changed nothing, and mine where they did not', () => {
    fc.assert(
      fc.property(sizes, steps, (shape, mySteps) => {
        const base = lessonWith(shape);
        const one = changed(base, mySteps, 'me');
        expect(putTogether(base, base, one, new Map())).toEqual(one);
        expect(
          blocksOf(putTogether(base, one, base, new Map()))
            .map((block) => block)
            .sort((a, b) => a.id.localeCompare(b.id)),
        ).toEqual(blocksOf(one).sort((a, b) => a.id.localeCompare(b.id)));
      }),
    );
  });

  it('hold every change of both, each conflict as it was chosen, and are a lesson in order', () => {
    fc.assert(
      fc.property(
        sizes,
        steps,
        steps,
        fc.constantFrom('mine' as const, 'theirs' as const),
        (shape, mySteps, theirSteps, way) => {
          const base = lessonWith(shape);
          const [mine, theirs] = [changed(base, mySteps, 'me'), changed(base, theirSteps, 'you')];
          const differences = differencesOf(base, mine, theirs);
          const together = putTogether(
            base,
            mine,
            theirs,
            new Map(differences.map(({ blockId }) => [blockId, way])),
          );
          expect(lessonSchema.safeParse(together).success).toBe(true);
          const find = (lesson: Lesson, id: string | null) =>
            blocksOf(lesson).find((block) => block.id === id);
          for (const { blockId, mine: own, isConflict } of differences.filter(
            (difference) => difference.blockId !== null,
          )) {
            const from = isConflict
              ? way === 'mine'
                ? mine
                : theirs
              : own === 'same'
                ? theirs
                : mine;
            expect(find(together, blockId)).toEqual(find(from, blockId));
          }
          const touched = new Set(differences.map(({ blockId }) => blockId));
          for (const block of blocksOf(base))
            if (!touched.has(block.id)) expect(find(together, block.id)).toEqual(block);
        },
      ),
    );
  });

  it('tells who changed what, and where both did', () => {
    const base = lessonWith([3]);
    const mine = changed(
      base,
      [
        { kind: 'title', at: 0 },
        { kind: 'title', at: 1 },
        { kind: 'lesson', at: 0 },
      ],
      'me',
    );
    const theirs = changed(
      base,
      [
        { kind: 'title', at: 1 },
        { kind: 'delete', at: 2 },
      ],
      'you',
    );
    expect(
      differencesOf(base, mine, theirs).map(({ mine: a, theirs: b, isConflict }) => [
        a,
        b,
        isConflict,
      ]),
    ).toEqual([
      ['changed', 'same', false],
      ['changed', 'same', false],
      ['changed', 'changed', true],
      ['same', 'deleted', false],
    ]);
    // The same change by both is no conflict.
    expect(
      differencesOf(base, mine, structuredClone(mine)).some(({ isConflict }) => isConflict),
    ).toBe(false);
  });
});
