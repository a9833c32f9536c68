import type { LessonSummary } from '@zest/contract';
import { describe, expect, it } from 'vitest';
import { matches, nextThing } from './next-thing.ts';

const lesson: LessonSummary = {
  ...{
    id: 'l',
    revision: 1,
    savedAt: '',
    title: 'Ropes at the quay',
    language: 'en',
    outcome: 'Ten skips.',
    series: { name: 'Autumn', week: 3 },
  },
  ...{
    sections: ['Warm up'],
    skills: [{ skill: 'Rope', studentMs: 60_000 }],
    kit: ['4 × Bottle (or shoes)'],
    blocks: 4,
    benches: {
      ...{ plan: 'begun', script: 'nothing', film: 'nothing', assemble: 'nothing' },
      ...{ check: 'nothing', share: 'nothing', log: 'nothing' },
    },
    portrait: { takeId: null, movement: 'other', strip: [] },
    scripted: 4,
    filmed: 4,
  },
  ...{
    videoMs: 1,
    studentMs: 1,
    shared: true,
    archived: false,
    template: false,
    keeper: 'wren',
  },
};

describe('the next thing', () => {
  it.each([
    [{ blocks: 0 }, 'Plan the first block', 'plan'],
    [{ language: 'en', outcome: '' }, 'Say its outcome', 'plan'],
    [{ filmed: 0, scripted: 1 }, 'Write the script', 'script'],
    [{ filmed: 0, scripted: 2 }, 'Film 4 more blocks', 'film'],
    [{ filmed: 3 }, 'Film 1 more block', 'film'],
    [{ shared: false }, 'Watch and share', 'assemble'],
    [{}, 'Shared', 'share'],
    [{ template: true, blocks: 0 }, 'Template', 'plan'],
  ])('of a lesson with %j is: %s', (facts, text, bench) => {
    expect(nextThing({ ...lesson, ...facts })).toEqual({ text, bench });
  });
});

describe('the search', () => {
  it.each(['', 'quay rope', 'BOTTLE shoes', 'week 3', 'warm autumn', 'ten'])(
    'finds the lesson by “%s”',
    (asked) => expect(matches(lesson, asked)).toBe(true),
  );
  it.each(['disc', 'rope disc', 'week 9'])('does not by “%s”', (asked) =>
    expect(matches(lesson, asked)).toBe(false),
  );
});
