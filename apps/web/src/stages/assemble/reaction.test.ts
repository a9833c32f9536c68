import { describe, expect, it } from 'vitest';
import { bounces, heightAt, reactionOf, TAPS_NEEDED } from './reaction.ts';

describe('how quickly somebody taps', () => {
  const landings = bounces(7);

  it('is the median delay, whatever a few stray taps say', () => {
    const taps = landings
      .slice(0, TAPS_NEEDED + 2)
      .map((landing, i) => landing + 140 + (i % 3) * 5);
    expect(reactionOf(landings, taps)).toBe(145);
    expect(
      reactionOf(landings, [...taps, (landings[3] ?? 0) + 420, (landings[4] ?? 0) - 100]),
    ).toBe(145);
    expect(reactionOf(landings, taps.slice(0, TAPS_NEEDED - 1))).toBeNull();
  });

  it('is measured on landings that keep no beat', () => {
    const gaps = landings.slice(1).map((landing, i) => landing - (landings[i] ?? 0));
    expect(Math.min(...gaps)).toBeGreaterThanOrEqual(850);
    expect(Math.max(...gaps)).toBeLessThan(1_500);
    expect(new Set(gaps).size).toBeGreaterThan(30);
    expect(bounces(7)).toEqual(landings);
    for (const landing of landings.slice(0, 5))
      expect(heightAt(landings, landing - 1e-6)).toBeLessThan(1e-6);
    expect(heightAt(landings, ((landings[0] ?? 0) + (landings[1] ?? 0)) / 2)).toBeCloseTo(1);
  });
});
