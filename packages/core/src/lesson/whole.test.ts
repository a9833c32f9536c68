import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import {
  applyEdit,
  beginEditing,
  blocksOf,
  cueDiffers,
  cueSchema,
  cueOfEntry,
  duplicateLesson,
  entryOfCue,
  entryUses,
  fromEntry,
  LessonError,
  LIMITS,
  makeBlock,
  makeCue,
  makeLesson,
  makeSection,
  mergeLessons,
  moveBlocks,
  packBlocks,
  placeBlocks,
  readLesson,
  splitLesson,
  unpackBlocks,
  type Block,
  type Lesson,
} from './index.ts';

const fresh = () => {
  const next = counter();
  return () => `fresh-${next()}`;
};
const withoutIds = (value: unknown): unknown =>
  JSON.parse(JSON.stringify(value, (key, part: unknown) => (key === 'id' ? undefined : part)));
const idsOf = (lesson: Lesson): string[] => JSON.stringify(lesson).match(/"id":"[^"]*"/g) ?? [];
const saved = (lesson: Lesson) => readLesson(JSON.parse(JSON.stringify(lesson)));
const titles = (lesson: Lesson) =>
  lesson.sections.map(({ blocks }) => blocks.map(({ title }) => title).join(''));
const lettered = (...sections: string[]): Lesson => {
  const makeId = counter();
  return {
    ...makeLesson('Letters', makeId),
    sections: sections.map((letters) => ({
      ...makeSection('S', makeId),
      blocks: [...letters].map((title): Block => ({
        ...makeBlock('talk', makeId),
        id: title,
        title,
      })),
    })),
  };
};

describe('a lesson as a whole', () => {
  it('is copied with ids of its own and nothing else changed', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        const copy = duplicateLesson(lesson, fresh());
        expect(withoutIds({ ...copy, title: '' })).toEqual(withoutIds({ ...lesson, title: '' }));
        expect(idsOf(copy).filter((id) => idsOf(lesson).includes(id))).toEqual([]);
        expect(() => saved(copy)).not.toThrow();
      }),
    );
  });

  it('is split at any block after the first into two that, merged, have the same blocks', () => {
    fc.assert(
      fc.property(arbitraryLesson, fc.nat(), (lesson, pick) => {
        const blocks = blocksOf(lesson);
        fc.pre(blocks.length > 1);
        const at = 1 + (pick % (blocks.length - 1));
        const [first, second] = splitLesson(lesson, blocks[at]?.id ?? '', fresh());
        expect(blocksOf(first)).toEqual(blocks.slice(0, at));
        expect(blocksOf(second)).toEqual(blocks.slice(at));
        const merged = mergeLessons(saved(first), saved(second), fresh());
        expect(withoutIds(blocksOf(merged))).toEqual(withoutIds(blocks));
        expect(() => saved(merged)).not.toThrow();
      }),
    );
  });

  it('is not split at its first block or one that is gone, nor merged to more than a lesson holds', () => {
    const lesson = lettered('ab');
    expect(() => splitLesson(lesson, 'a', fresh())).toThrow('first block');
    expect(() => splitLesson(lesson, 'x', fresh())).toThrow(LessonError);
    const long = lettered(...Array.from({ length: LIMITS.sections }, () => ''));
    expect(() => mergeLessons(long, lesson, fresh())).toThrow('41 sections');
  });

  it('explains a term once when merged, and adds up the targets where both are set', () => {
    const target = (ms: number) => ({ video: { ms, toleranceMs: 5_000 }, session: null });
    const one = {
      ...lettered('a'),
      targets: target(60_000),
      glossary: [{ id: 'g', term: 'Core', plain: 'belly and back' }],
    };
    const two = {
      ...lettered('b'),
      targets: target(30_000),
      glossary: [
        { id: 'g', term: 'core', plain: 'middle' },
        { id: 'h', term: 'Pivot', plain: 'turn on one foot' },
      ],
    };
    const merged = mergeLessons(one, two, fresh());
    expect(merged.targets).toEqual(target(90_000));
    expect(merged.glossary.map(({ term }) => term)).toEqual(['Core', 'Pivot']);
    expect(
      mergeLessons(one, { ...two, targets: { video: null, session: null } }, fresh()).targets.video,
    ).toBeNull();
  });
});

describe('blocks together', () => {
  const after = (lesson: Lesson, edit: ReturnType<typeof moveBlocks>) =>
    titles(applyEdit(beginEditing(lesson), 'Move', edit).lesson);
  it.each([
    ['bd', -1, ['bdac', 'e']],
    ['ab', -1, ['abcd', 'e']],
    ['ac', 1, ['bdac', 'e']],
    ['cd', 1, ['ab', 'cde']],
    ['e', -1, ['abcde', '']],
    ['e', 1, ['abcd', 'e']],
    ['de', -1, ['abdec', '']],
  ] as const)('%s moved by %i', (names, by, expected) => {
    expect(after(lettered('abcd', 'e'), moveBlocks(new Set(names), by))).toEqual(expected);
  });

  it('are put before a block or at the end of a section, in the order they stand', () => {
    const lesson = lettered('abcd', 'ef');
    const second = lesson.sections[1]?.id ?? '';
    expect(after(lesson, placeBlocks(new Set(['d', 'a']), second, 'f'))).toEqual(['bc', 'eadf']);
    expect(after(lesson, placeBlocks(new Set(['e', 'a']), second, null))).toEqual(['bcd', 'fae']);
    expect(after(lesson, placeBlocks(new Set(['a']), second, 'a'))).toEqual(['abcd', 'ef']);
  });

  it('go to another lesson as text, more than a section holds at once too', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        const blocks = blocksOf(lesson);
        const read = unpackBlocks(packBlocks(blocks), fresh());
        expect(withoutIds(read)).toEqual(withoutIds(blocks));
      }),
    );
    const many = Array.from({ length: LIMITS.blocksPerSection + 1 }, (_, i) => ({
      ...makeBlock('talk', fresh()),
      id: `b${i}`,
    }));
    expect(unpackBlocks(packBlocks(many), fresh())).toHaveLength(many.length);
  });

  it.each([
    '',
    '{',
    'null',
    '[]',
    '{"format":"zest-lesson"}',
    '{"format":"zest-blocks","lesson":7}',
    '{"format":"zest-blocks","lesson":{"format":"zest-lesson","version":99}}',
  ])('are not read from %j', (text) => {
    expect(() => unpackBlocks(text, fresh())).toThrow(LessonError);
  });
});

describe('a cue of the library', () => {
  const makeId = counter();
  const cue = { ...makeCue('snap and stop', makeId), reason: 'the disc spins' };

  it('makes an entry, comes back from it, and says when it differs', () => {
    const entry = entryOfCue(cue, 'Disc throw', 'e1');
    const again = cueOfEntry(entry, makeId);
    expect(cueDiffers(again, entry)).toBe(false);
    expect(again).toMatchObject({ text: 'snap and stop', entryId: 'e1', anchor: null });
    const changed = { ...entry, text: 'snap, then stop' };
    expect(cueDiffers(again, changed)).toBe(true);
    expect(cueDiffers({ ...again, ...fromEntry(changed) }, changed)).toBe(false);
    const counted = { ...entry, uses: 3 };
    expect(cueSchema.parse(cueOfEntry(counted, makeId))).toMatchObject({ text: 'snap and stop' });
    expect(Object.keys(fromEntry(counted)).sort()).toEqual([
      'bodyPart',
      'moment',
      'reason',
      'right',
      'text',
      'wrong',
    ]);
  });

  it('is counted where it is used', () => {
    const lesson = lettered('ab');
    const [a, b] = blocksOf(lesson);
    a?.cues.push({ ...cue, entryId: 'e1' }, { ...cue, id: 'c2', entryId: null });
    b?.cues.push({ ...cue, id: 'c3', entryId: 'e1' });
    expect([...entryUses(lesson)]).toEqual([['e1', 2]]);
  });
});
