import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boardOf, QUIET_MS, type EntryBody, type LogEntry, type Score } from './index.ts';

const DAY = 86_400_000;
/** Monday, 2 November 2026. */
const MONDAY = Date.UTC(2026, 10, 2);

let next = 0;
const entry = (body: EntryBody, week: number, studentId = 's'): LogEntry => ({
  ...{ id: `e${(next += 1)}`, studentId, lessonId: `l${week}`, body, by: 'student' },
  at: MONDAY + week * 7 * DAY,
});
const score = (value: number, more: Partial<Score> = {}): EntryBody => ({
  kind: 'score',
  blockId: 'b',
  key: 'skip | count',
  title: 'Skip',
  measure: 'count',
  better: 'more',
  seconds: 30,
  side: null,
  level: 'standard',
  value,
  ...more,
});
const usual = { keys: null, level: null, now: MONDAY + 3 * 7 * DAY };

describe('the board of a class', () => {
  it('has the newest number, its change with better upwards, and who is better than ever', () => {
    const time = {
      key: 'run | time',
      title: 'Run',
      measure: 'time',
      better: 'less',
      seconds: null,
    } as const;
    const { columns, rows } = boardOf(
      ['s', 't'],
      [
        entry(score(24), 0),
        entry(score(30), 1),
        entry(score(27), 2),
        entry(score(12, time), 1),
        entry(score(11.5, time), 2),
        entry(score(9), 2, 't'),
      ],
      usual,
    );
    expect(columns.map(({ title }) => title)).toEqual(['Run', 'Skip']);
    const [run, skip] = columns.map(({ id }) => rows[0]?.cells.get(id));
    // 27 after 30 in 30 s: a tenth a second less.
    expect(skip).toMatchObject({ latest: { value: 27 }, isBest: false });
    expect(skip?.change).toBeCloseTo(-0.1, 9);
    expect(run).toMatchObject({ latest: { value: 11.5 }, change: 0.5, isBest: true });
    expect(rows.map(({ hasImproved }) => hasImproved)).toEqual([true, false]);
    const first = rows[1]?.cells.get(columns[1]?.id ?? '');
    expect(first).toMatchObject({ change: null, isBest: false });
  });

  it('tells who has gone quiet, and not who never began', () => {
    const at = (now: number) =>
      boardOf(['s', 'never'], [entry(score(1), 0)], { ...usual, now }).rows.map(
        ({ isQuiet }) => isQuiet,
      );
    expect(at(MONDAY + QUIET_MS)).toEqual([false, false]);
    expect(at(MONDAY + QUIET_MS + 1)).toEqual([true, false]);
  });

  it('shows one form, or one lesson’s exercises, when asked', () => {
    const entries = [entry(score(10), 0), entry(score(14, { level: 'easier' }), 1)];
    const valueAt = (level: 'easier' | 'standard' | null) =>
      [...(boardOf(['s'], entries, { ...usual, level }).rows[0]?.cells.values() ?? [])][0]?.latest
        .value;
    expect([valueAt(null), valueAt('standard'), valueAt('easier')]).toEqual([14, 10, 14]);
    expect(boardOf(['s'], entries, { ...usual, keys: new Set() }).columns).toEqual([]);
  });

  it('has a row for everybody and nothing but what was done, whatever that was', () => {
    const any = fc.record({
      value: fc.integer({ min: 0, max: 99 }),
      week: fc.integer({ min: 0, max: 6 }),
      who: fc.constantFrom('a', 'b', 'gone'),
      side: fc.constantFrom('left' as const, 'right' as const, null),
    });
    fc.assert(
      fc.property(fc.array(any), (all) => {
        const entries = all.map(({ value, week, who, side }) =>
          entry(score(value, { side }), week, who),
        );
        const { columns, rows } = boardOf(['a', 'b'], entries, usual);
        expect(rows.map(({ studentId }) => studentId)).toEqual(['a', 'b']);
        for (const { cells, studentId } of rows)
          for (const [id, { latest, line }] of cells) {
            expect(columns.some((column) => column.id === id)).toBe(true);
            const values = all.filter(({ who, side }) => who === studentId && side === line.side);
            expect(values.map(({ value }) => value)).toContain(latest.value);
          }
      }),
    );
  });
});
