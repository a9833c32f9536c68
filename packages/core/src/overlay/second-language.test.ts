import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assemble } from '../assembly/index.ts';
import { sceneAt } from './index.ts';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import {
  inSecondLanguage,
  makeBlock,
  makeCue,
  makeLesson,
  textsOf,
  type IntervalsBlock,
  type Lesson,
} from '../lesson/index.ts';

const work: IntervalsBlock = {
  ...(makeBlock('intervals', counter()) as IntervalsBlock),
  title: 'Skip',
  workMs: 10_000,
  leadInMs: 0,
  rounds: 1,
  cues: [makeCue('Land softly', () => 'c', 'throughout')],
  exercises: [{ id: 'e', title: 'Rope skipping', movement: 'skip-rope', sides: 'both' }],
};
const plain = makeLesson('Skip', counter());
const lesson: Lesson = {
  ...plain,
  second: {
    language: 'de',
    texts: [
      { text: 'Land softly', other: 'Weich landen' },
      { text: 'Rope skipping', other: 'Seilspringen' },
      { text: 'Skip', other: '' },
    ],
  },
  sections: [{ id: 's', title: 'Warm-up', blocks: [work] }],
};

describe('a second language', () => {
  it('takes the place of the first wherever there are words for it, the program’s own words too', () => {
    const items = sceneAt(assemble(inSecondLanguage(lesson), new Map()), 1_000).items;
    expect(items.find(({ slot }) => slot === 'clock')).toMatchObject({
      title: 'Seilspringen',
      word: 'Los',
      next: 'Zum letzten Mal',
    });
    expect(items.find(({ slot }) => slot === 'cue')).toMatchObject({
      text: 'Weich landen',
      word: 'Die ganze Zeit',
    });
    // What has no other words stays.
    expect(inSecondLanguage(lesson).title).toBe('Skip');
  });

  it('is read beside the first where both are wanted', () => {
    const both = {
      ...lesson,
      finish: { ...lesson.finish, look: { ...lesson.finish.look, languages: 'both' as const } },
    };
    const items = sceneAt(assemble(both, new Map()), 1_000).items;
    expect(items.find(({ slot }) => slot === 'clock')).toMatchObject({
      title: 'Rope skipping',
      also: 'Seilspringen',
      word: 'Work',
    });
    expect(items.find(({ slot }) => slot === 'cue')).toMatchObject({
      text: 'Land softly',
      also: 'Weich landen',
    });
  });

  it('changes words only: every length, id and figure stays, and there and back is the same lesson', () => {
    fc.assert(
      fc.property(arbitraryLesson, (any) => {
        const texts = textsOf(any).map((text) => ({ text, other: `¡${text}!` }));
        const there = inSecondLanguage({ ...any, second: { language: 'es', texts } });
        const bare = (document: Lesson) =>
          JSON.stringify(document.sections, (key, value: unknown) =>
            typeof value === 'string' && key !== 'id' && key !== 'kind'
              ? ''
              : key === 'anchor'
                ? 0
                : value,
          );
        expect(bare(there)).toBe(bare(any));
        expect(there.settings.language).toBe('es');
        expect(inSecondLanguage(there).sections).toEqual(any.sections);
        expect(inSecondLanguage(any)).toBe(any);
      }),
    );
  });
});
