import fc from 'fast-check';
import { expect, it } from 'vitest';
import {
  joinSeen,
  MOST_SEEN,
  seenMs,
  seenPart,
  standingOf,
  type LogEntry,
  type SeenStretch,
} from './index.ts';

const stretch = fc
  .tuple(fc.nat(200_000), fc.nat(60_000))
  .map(([from, length]): SeenStretch => [from, from + length]);

it('stretches cover what they cover, however they overlap and in whatever order', () => {
  fc.assert(
    fc.property(fc.array(stretch, { maxLength: 20 }), (stretches) => {
      const joined = joinSeen(stretches);
      joined.forEach(([from, to], i) => {
        expect(to).toBeGreaterThanOrEqual(from);
        // More than a stall lies between two.
        if (i > 0) expect(from - (joined[i - 1]?.[1] ?? 0)).toBeGreaterThan(1_000);
      });
      for (const [from, to] of stretches)
        expect(joined.some(([a, b]) => a <= from && to <= b)).toBe(true);
      expect(joinSeen([...joined, ...stretches])).toEqual(joined);
      expect(seenMs(stretches)).toBeLessThanOrEqual(260_000);
    }),
  );
});

it('keeps the longest of very many', () => {
  const many = Array.from({ length: MOST_SEEN + 50 }, (_, i): SeenStretch => [
    i * 10_000,
    i * 10_000 + (i % 3 === 0 ? 500 : 4_000),
  ]);
  const joined = joinSeen(many);
  expect(joined).toHaveLength(MOST_SEEN);
  expect(joined.filter(([from, to]) => to - from === 500)).toHaveLength(0);
});

const visit = (id: string, atMs: number, seen?: SeenStretch[], totalMs = 100_000): LogEntry => ({
  id,
  studentId: 's',
  lessonId: 'l',
  at: 0,
  by: 'student',
  body: { kind: 'reached', atMs, totalMs, ...(seen && { seen }) },
});

it('a jump to the end is not having seen it; two halves are', () => {
  expect(standingOf([visit('a', 99_000, [[97_000, 99_000]])]).reached).toBeCloseTo(0.02);
  expect(
    standingOf([visit('a', 50_000, [[0, 50_000]]), visit('b', 100_000, [[50_000, 100_000]])])
      .reached,
  ).toBe(1);
  // The lesson got longer meanwhile: what was seen of one state says nothing of the other.
  expect(
    standingOf([visit('a', 50_000, [[0, 50_000]]), visit('b', 60_000, [[0, 60_000]], 200_000)])
      .reached,
  ).toBe(0.5);
  // Pages of before told only how far they came.
  expect(standingOf([visit('a', 80_000)]).reached).toBe(0.8);
  expect(seenPart({ atMs: 5, totalMs: 0, seen: [] })).toBe(0);
});
