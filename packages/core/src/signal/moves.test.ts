import { describe, expect, it } from 'vitest';
import type { Body } from './body.ts';
import { COMPONENTS, moveSignals } from './moves.ts';
import { joints, type Joint } from './pose.ts';

const LENGTH = 40;
const wave = Float64Array.from({ length: LENGTH }, (_, i) => Math.sin((i * Math.PI) / 10));
const scaled = (by: number) => wave.map((value) => value * by);
const still = new Float64Array(LENGTH);

/** A body whose joints move up and down as given; all others stand, seen or not. */
function bodyOf(
  moved: Partial<Record<Joint, Float64Array>>,
  seenJoints: readonly Joint[],
  present = new Uint8Array(LENGTH).fill(1),
): Body {
  const record = <T>(of: (joint: Joint) => T) =>
    Object.fromEntries(joints.map((joint) => [joint, of(joint)])) as Record<Joint, T>;
  return {
    ...{ everyMs: 100, length: LENGTH, height: 0.6, present },
    x: record(() => still),
    y: record((joint) => moved[joint] ?? still),
    seen: record((joint) => (seenJoints.includes(joint) ? 1 : 0)),
  };
}
const trunk: Joint[] = ['left shoulder', 'right shoulder', 'left hip', 'right hip'];
const both = (part: 'hip' | 'shoulder' | 'wrist', values: Float64Array) => ({
  [`left ${part}`]: values,
  [`right ${part}`]: values,
});

describe('ways a body moves', () => {
  it('are those of joints that are seen, and what they do together', () => {
    const names = (seen: readonly Joint[]) =>
      moveSignals(bodyOf(both('hip', scaled(0.1)), seen)).map(({ name }) => name);
    expect(names(trunk)).toEqual([
      ...['hip height', 'shoulder height', 'trunk length', 'together 1', 'together 2'],
    ]);
    // One signal is together with itself alone.
    expect(names(['left hip', 'right hip'])).toEqual(['hip height', 'together 1']);
    expect(names([])).toEqual([]);
  });

  it('together add up: two alike, each in its own least movement, are √2 of one', () => {
    const signals = moveSignals(
      bodyOf({ ...both('hip', scaled(0.1)), ...both('shoulder', scaled(0.1)) }, trunk),
    );
    const [first, second] = signals.slice(-COMPONENTS);
    // The trunk keeps its length, so it takes no part; 0.035 is the least movement of both others.
    wave.forEach((value, i) => {
      expect(first?.values[i]).toBeCloseTo((Math.SQRT2 * 0.1 * value) / 0.035, 6);
      expect(second?.values[i]).toBeCloseTo(0, 6);
    });
  });

  it('together count upwards where most go up, whichever way the reckoning turns them', () => {
    const one = moveSignals(bodyOf(both('hip', scaled(-0.2)), ['left hip', 'right hip'])).at(-1);
    wave.forEach((value, i) => expect(one?.values[i]).toBeCloseTo((-0.2 * value) / 0.035, 6));
  });

  it('are nothing while nobody is there, and their middle is of those who are', () => {
    const present = Uint8Array.from({ length: LENGTH }, (_, i) => (i < 20 ? 1 : 0));
    // A whole wave while present; far off while nobody is there.
    const values = wave.map((value, i) => (i < 20 ? value * 0.1 : 9));
    const together = moveSignals(
      bodyOf(both('hip', values), ['left hip', 'right hip'], present),
    ).at(-1);
    wave.forEach((value, i) =>
      expect(together?.values[i]).toBeCloseTo(i < 20 ? (0.1 * value) / 0.035 : 0, 6),
    );
  });
});
