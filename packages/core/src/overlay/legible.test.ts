import { describe, expect, it } from 'vitest';
import { viewingProfiles } from '../lesson/index.ts';
import { REFERENCE } from './layout.ts';
import { arcMinutes, partNeeded } from './legible.ts';

describe('what can be read from where', () => {
  it('20 minutes of arc at 2 m are 11.64 mm, 6.0 % of a 15.6 in laptop’s picture (arithmetic: 2 d tan(a/2))', () => {
    expect(partNeeded(20, 'laptop at 2 m') * 194.3).toBeCloseTo(11.64, 1);
    expect(partNeeded(20, 'laptop at 2 m')).toBeCloseTo(0.06, 3);
  });

  it('is the way back of how large letters look', () => {
    for (const profile of viewingProfiles) {
      const size = 52;
      const arcmin = arcMinutes(size, profile);
      expect(partNeeded(arcmin, profile) * REFERENCE.height).toBeCloseTo(size * 0.67, 6);
      expect(arcMinutes(2 * size, profile)).toBeCloseTo(2 * arcmin, 2);
    }
  });
});
