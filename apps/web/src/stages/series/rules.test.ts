import {
  progressFigures,
  progressRuleSchema,
  weekLevels,
  type ProgressRule,
} from '@zest/core/lesson';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeRule, readValues, valuesText, whats } from './rules.ts';

describe('the values of a progression', () => {
  it.each(whats)('of %s begin with some that are in order', (what) => {
    expect(progressRuleSchema.safeParse(makeRule(what, 'r')).error?.issues).toBeUndefined();
  });

  it('come back as they were from what is shown, whatever they are', () => {
    const rule = fc.constantFrom(...whats).chain(([what]): fc.Arbitrary<ProgressRule> => {
      const made = makeRule(what, 'r');
      if (made.of === 'level')
        return fc
          .array(fc.constantFrom(...weekLevels), { minLength: 1, maxLength: 9 })
          .map((values) => ({ ...made, values }));
      if (made.of === 'sessions')
        return fc
          .array(fc.integer({ min: 1, max: 7 }), { minLength: 1, maxLength: 9 })
          .map((values) => ({ ...made, values }));
      if (made.of === 'kit')
        return fc
          .array(fc.constantFrom('Balloon', 'soft ball', 'ball'), { minLength: 1, maxLength: 9 })
          .map((values) => ({ ...made, values }));
      const { range, unit } = progressFigures[made.figure];
      // Teachers set times by tenths of a second.
      const value =
        unit === 'ms'
          ? fc.integer({ min: range.min / 100, max: range.max / 100 }).map((n) => n * 100)
          : fc.integer(range);
      return fc.array(value, { minLength: 1, maxLength: 9 }).map((values) => ({ ...made, values }));
    });
    fc.assert(
      fc.property(rule, (any) => {
        expect(readValues(any, valuesText(any))).toEqual(any.values);
      }),
    );
  });

  it('are read as teachers write them, and not at all where one is none', () => {
    const work = makeRule('workMs', 'r');
    expect(readValues(work, '30, 1:30; 2 min,')).toEqual([30_000, 90_000, 120_000]);
    expect(readValues(makeRule('level', 'r'), 'standard, Harder')).toEqual(['standard', 'harder']);
    for (const text of ['', ',', '30, forty', '1e3x']) expect(readValues(work, text)).toBeNull();
    expect(readValues(makeRule('rounds', 'r'), '3, 4.5')).toBeNull();
    expect(readValues(makeRule('level', 'r'), 'hardest')).toBeNull();
  });
});
