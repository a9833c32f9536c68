import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { termOf, type EntryBody, type LogEntry, type Score } from './index.ts';

const WEEK = 7 * 86_400_000;
/** Monday, 2 November 2026. */
const MONDAY = Date.UTC(2026, 10, 2);

let next = 0;
const entry = (body: EntryBody, week: number, studentId = 's'): LogEntry => ({
  ...{ id: `e${(next += 1)}`, studentId, lessonId: `l${week}`, body, by: 'student' },
  at: MONDAY + week * WEEK,
});
const score = (value: number, more: Partial<Score> = {}): EntryBody => ({
  ...{ kind: 'score', blockId: 'b', key: 'skip | count', title: 'Skip', measure: 'count' },
  ...{ better: 'more', seconds: null, side: null, level: 'standard', value },
  ...more,
});
const time = { key: 'run | time', title: 'Run', measure: 'time', better: 'less' } as const;
const skipped = (reason: 'too hard' | 'it hurts' | 'no time', title: string): EntryBody => ({
  ...{ kind: 'skipped', blockId: title, title, reason },
});
const usual = { now: MONDAY + 3 * WEEK };

describe('a term of a class', () => {
  it('tells who came, who only looked and who was away, week by week', () => {
    const { weeks, came } = termOf(
      ['s', 't'],
      [
        entry(score(3), 0),
        entry({ kind: 'opened' }, 1),
        entry({ kind: 'signed', levelId: 'a', criterionId: 'b' }, 2),
        entry(score(3), 3, 't'),
      ],
      usual,
    );
    expect(weeks).toEqual([0, 1, 2, 3].map((week) => MONDAY + week * WEEK));
    expect(came.map(({ byWeek }) => byWeek)).toEqual([
      ['did', 'looked', 'away', 'away'],
      ['away', 'away', 'away', 'did'],
    ]);
  });

  it('measures each against their own beginning, a shorter time as better', () => {
    const { grew } = termOf(
      ['s', 't', 'once'],
      [
        entry(score(10), 0),
        entry(score(15), 2),
        entry(score(20), 0, 't'),
        entry(score(18), 2, 't'),
        entry(score(99), 2, 'once'),
        entry(score(12, time), 0),
        entry(score(8, time), 1),
      ],
      usual,
    );
    // 12 s to 8 s is half as fast again; half more and a tenth less are a fifth more in the middle.
    expect(grew.map(({ title, students, better }) => [title, students, better])).toEqual([
      ['Run', 1, 1],
      ['Skip', 2, 1],
    ]);
    expect(grew.map(({ change }) => change)).toEqual([
      expect.closeTo(0.5, 9),
      expect.closeTo(0.2, 9),
    ]);
    expect(grew[1]?.byWeek).toEqual([1, null, expect.closeTo(1.2, 9), null]);
  });

  it('tells what hurt first, then what was too hard, of those who had opened it', () => {
    const { hard, effort } = termOf(
      ['s', 't', 'u'],
      [
        entry({ kind: 'opened' }, 0, 'u'),
        entry(skipped('too hard', 'Plank'), 0),
        entry(skipped('too hard', 'Plank'), 0),
        entry(skipped('too hard', 'Plank'), 1, 't'),
        entry(skipped('it hurts', 'Jumps'), 0),
        entry(skipped('no time', 'Game'), 0),
        entry({ kind: 'effort', value: 2 }, 1),
        entry({ kind: 'effort', value: 5 }, 1, 't'),
      ],
      usual,
    );
    expect(hard.map(({ title, reason, students, of }) => [title, reason, students, of])).toEqual([
      ['Jumps', 'it hurts', 1, 2],
      ['Plank', 'too hard', 2, 3],
    ]);
    expect(effort).toEqual([null, 3.5, null, null]);
  });

  it('is the same in whatever order entries come, and never counts more than there are', () => {
    const any = fc.record({
      value: fc.integer({ min: 0, max: 99 }),
      week: fc.integer({ min: 0, max: 30 }),
      who: fc.constantFrom('a', 'b', 'c'),
    });
    fc.assert(
      fc.property(fc.array(any), (all) => {
        const entries = all.map(({ value, week, who }) => entry(score(value), week, who));
        const at = { now: MONDAY + 30 * WEEK };
        const term = termOf(['a', 'b', 'c'], entries, at);
        expect(termOf(['a', 'b', 'c'], [...entries].reverse(), at)).toEqual(term);
        expect(term.weeks.length).toBeLessThanOrEqual(20);
        expect(term.came.map(({ byWeek }) => byWeek.length)).toEqual(
          [0, 1, 2].map(() => term.weeks.length),
        );
        for (const { better, students, byWeek } of term.grew) {
          expect(better).toBeLessThanOrEqual(students);
          expect(students).toBeLessThanOrEqual(3);
          expect(byWeek).toHaveLength(term.weeks.length);
        }
      }),
    );
  });
});
