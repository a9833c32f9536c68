import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  beginningIn,
  clip,
  contains,
  gaps,
  intersect,
  merge,
  overlaps,
  spanLength,
  subtract,
  totalLength,
  type TimeSpan,
} from './index.ts';

const END = 40;
const spans = fc
  .tuple(fc.nat(END), fc.integer({ min: 1, max: 12 }))
  .map(([startMs, length]): TimeSpan => ({ startMs, endMs: startMs + length }));
const lists = fc.array(spans, { maxLength: 8 });
/** The milliseconds of spans, one by one: what sets of instants say, spans have to say as well. */
const msOf = (list: readonly TimeSpan[]) =>
  new Set(
    list.flatMap(({ startMs, endMs }) =>
      Array.from({ length: endMs - startMs }, (_, i) => startMs + i),
    ),
  );
const sorted = (set: ReadonlySet<number>) => [...set].sort((a, b) => a - b);

describe('spans', () => {
  it('clip, overlap and intersect as sets of milliseconds do', () => {
    fc.assert(
      fc.property(spans, spans, lists, lists, (a, b, some, others) => {
        const [ofA, ofB] = [msOf([a]), msOf([b])];
        const both = new Set([...ofA].filter((ms) => ofB.has(ms)));
        const shared = clip(a, b);
        expect(sorted(msOf(shared ? [shared] : []))).toEqual(sorted(both));
        expect(overlaps(a, b)).toBe(both.size > 0);
        const [left, right] = [msOf(some), msOf(others)];
        expect(sorted(msOf(intersect(some, others)))).toEqual(
          sorted(new Set([...left].filter((ms) => right.has(ms)))),
        );
      }),
    );
  });

  it('merge into fewest spans, in order, and subtract to what is left', () => {
    fc.assert(
      fc.property(spans, lists, (whole, taken) => {
        const merged = merge(taken);
        expect(sorted(msOf(merged))).toEqual(sorted(msOf(taken)));
        expect(totalLength(merged)).toBe(msOf(taken).size);
        merged.slice(1).forEach(({ startMs }, i) => {
          expect(startMs).toBeGreaterThan(merged[i]?.endMs ?? Infinity);
        });
        const free = subtract(whole, taken);
        const used = msOf(taken);
        expect(sorted(msOf(free))).toEqual(
          sorted(new Set([...msOf([whole])].filter((ms) => !used.has(ms)))),
        );
        expect(gaps(whole, taken, 3)).toEqual(free.filter((gap) => spanLength(gap) >= 3));
      }),
    );
  });

  it('merge over a pause of just the length given, and hold their start but not their end', () => {
    const [a, b] = [
      { startMs: 0, endMs: 10 },
      { startMs: 15, endMs: 20 },
    ];
    expect(merge([b, a], 5)).toEqual([{ startMs: 0, endMs: 20 }]);
    expect(merge([b, a], 4)).toEqual([a, b]);
    expect([contains(a, 0), contains(a, 9), contains(a, 10)]).toEqual([true, true, false]);
    expect(beginningIn([a, b], { startMs: 10, endMs: 15 })).toEqual([]);
    expect(beginningIn([a, b], { startMs: 10, endMs: 16 })).toEqual([b]);
  });
});
