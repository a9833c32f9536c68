import fc from 'fast-check';
import { expect, it } from 'vitest';
import { arbitraryLesson } from '../testing/arbitrary.ts';
import { blocksOf, usualFinish, videoChanges, type Lesson } from './index.ts';

const changed = (lesson: Lesson, recipe: (draft: Lesson) => void): Lesson => {
  const draft = structuredClone(lesson);
  recipe(draft);
  return draft;
};

it('names what differs in the finished video, and nothing else', () => {
  fc.assert(
    fc.property(
      arbitraryLesson.filter((lesson) => blocksOf(lesson).length > 0),
      fc.nat(),
      (lesson, n) => {
        expect(videoChanges(lesson, structuredClone(lesson))).toEqual([]);
        const blocks = blocksOf(lesson);
        const at = n % blocks.length;
        const cautioned = changed(
          lesson,
          (draft) => void blocksOf(draft)[at]?.cautions.push('Mind the lamp'),
        );
        const title = blocks[at]?.title.trim() || 'Untitled';
        expect(videoChanges(lesson, cautioned)).toEqual([title]);
        // How hard it is thought to be is not seen.
        expect(
          videoChanges(
            lesson,
            changed(
              lesson,
              (draft) =>
                void Object.assign(blocksOf(draft)[at] ?? {}, {
                  effort: 3,
                  mets: 4,
                  regions: ['back'],
                }),
            ),
          ),
        ).toEqual([]);
        const without = changed(
          lesson,
          (draft) =>
            void draft.sections.forEach(
              (section) =>
                (section.blocks = section.blocks.filter(({ id }) => id !== blocks[at]?.id)),
            ),
        );
        expect(videoChanges(lesson, without)).toEqual([`${title} is gone`]);
        expect(videoChanges(without, lesson)).toEqual([`${title} is new`]);
        const calm = changed(
          lesson,
          (draft) =>
            void (draft.finish = { ...usualFinish, look: { ...usualFinish.look, calm: true } }),
        );
        expect(videoChanges(lesson, calm)).toEqual(['look']);
      },
    ),
  );
});
