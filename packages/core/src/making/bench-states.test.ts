import { makeBlock, makeLesson, type Block, type Lesson } from '../lesson/index.ts';
import { scheduleLesson } from '../schedule/index.ts';
import { describe, expect, it } from 'vitest';
import { benchStates, type Around } from './bench-states.ts';

let next = 0;
const makeId = () => `b${(next += 1)}`;
const footage = { takeId: 't', startsAtMs: null };
const lessonOf = (...blocks: Block[]): Lesson => ({
  ...makeLesson('L', makeId),
  sections: [{ id: 's', title: 'S', blocks }],
});
const around: Around = { findings: null, shared: false, hasResults: false };
const states = (lesson: Lesson, more: Partial<Around> = {}) =>
  benchStates(lesson, scheduleLesson(lesson), { ...around, ...more });

describe('how far a bench is', () => {
  it('is nowhere with an empty lesson', () => {
    expect(new Set(Object.values(states(lessonOf())))).toEqual(new Set(['nothing']));
  });

  it('is begun with the first block, and ready with the last; a card is not filmed', () => {
    const [one, two] = [makeBlock('reps', makeId), makeBlock('hold', makeId)];
    const card = { ...makeBlock('card', makeId), script: 'Bring a rope.' };
    const script = 'Stand tall.';
    expect(states(lessonOf(one, two, card))).toMatchObject({ script: 'begun', film: 'nothing' });
    expect(states(lessonOf({ ...one, footage }, two, card))).toMatchObject({
      ...{ film: 'begun', assemble: 'begun', check: 'begun' },
    });
    const all = lessonOf({ ...one, script, footage }, { ...two, script, footage }, card);
    expect(states(all)).toMatchObject({ script: 'ready', film: 'ready', assemble: 'ready' });
  });

  it('is ready on Plan when every length that is aimed at is met', () => {
    const block = { ...makeBlock('talk', makeId), fixedMs: 60_000 } as Block;
    const aimed = (ms: number) => ({
      ...lessonOf(block),
      targets: { video: { ms, toleranceMs: 5_000 }, session: null },
    });
    expect([55_000, 65_000, 66_000].map((ms) => states(aimed(ms)).plan)).toEqual([
      'ready',
      'ready',
      'begun',
    ]);
    const open = { ...aimed(1), targets: { video: null, session: null } };
    expect(states(open).plan).toBe('ready');
  });

  it('is ready on Check only when somebody looked and nothing is left', () => {
    const filmed = lessonOf({ ...makeBlock('reps', makeId), footage });
    const check = (findings: number | null) => states(filmed, { findings }).check;
    expect([null, 2, 0].map(check)).toEqual(['begun', 'begun', 'ready']);
  });

  it('is told by links and by what came back', () => {
    expect(states(lessonOf(), { shared: true, hasResults: true })).toMatchObject({
      share: 'ready',
      log: 'begun',
    });
  });
});
