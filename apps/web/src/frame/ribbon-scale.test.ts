import fc from 'fast-check';
import { expect, it } from 'vitest';
import { ribbonScale } from './ribbon-scale.ts';

const placed = (lengths: readonly number[]) => {
  let at = 0;
  return lengths.map((studentMs) => {
    const block = { studentStartMs: at, studentMs };
    at += studentMs;
    return block;
  });
};

it('is to scale where every block has a length', () => {
  const { lefts, x } = ribbonScale(placed([10_000, 30_000, 20_000]), 60, 600);
  expect(lefts).toEqual([60, 160, 460]);
  expect([0, 5_000, 10_000, 60_000].map(x)).toEqual([60, 110, 160, 660]);
});

it('gives every block a place of its own, in order and inside the ribbon', () => {
  fc.assert(
    fc.property(
      fc.array(fc.constantFrom(0, 0, 5_000, 60_000), { minLength: 1, maxLength: 300 }),
      (lengths) => {
        const { lefts, emptyPx, perMs, x } = ribbonScale(placed(lengths), 62, 1_100);
        const widths = lengths.map((ms) => (ms === 0 ? emptyPx : ms * perMs));
        expect(Math.min(...widths)).toBeGreaterThan(1);
        lefts.forEach((left, i) =>
          expect(left).toBeCloseTo(
            62 + widths.slice(0, i).reduce((sum, width) => sum + width, 0),
            6,
          ),
        );
        expect((lefts.at(-1) ?? 0) + (widths.at(-1) ?? 0)).toBeLessThanOrEqual(1_162 + 1e-6);
        const total = lengths.reduce<number>((sum, ms) => sum + ms, 0);
        expect(x(total)).toBeLessThanOrEqual(1_162 + 1e-6);
      },
    ),
  );
});

it('a few blocks without length leave the others nearly as they are', () => {
  const { lefts, emptyPx } = ribbonScale(placed([0, 60_000, 0]), 0, 1_000);
  expect([emptyPx, ...lefts].map(Math.round)).toEqual([24, 0, 24, 976]);
});
