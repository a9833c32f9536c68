import type { FollowTake } from '@zest/contract';
import { describe, expect, it } from 'vitest';
import { AS_FILMED, bytesAt, sizeFor, sizesOf, smallerThan, versionAt } from './footage.ts';

const minute = (
  id: string,
  kbit: number,
  ...renditions: (readonly [number, number])[]
): FollowTake => ({
  id,
  bytes: kbit * 7_500,
  durationMs: 60_000,
  version: id,
  renditions: renditions.map(([lines, bytes]) => ({
    lines,
    bytes: bytes * 7_500,
    version: `${id}${lines}`,
  })),
});
const long = minute('long', 2_400, [360, 400], [540, 900], [720, 1_800]);
const plain = minute('plain', 600, [360, 380]);

describe('the size of the picture', () => {
  it('is the largest that takes half of the line at most', () => {
    for (const [line, lines] of [
      [300, 360],
      [1_600, 360],
      [1_900, 540],
      [3_700, 720],
      [4_700, 720],
      [4_800, AS_FILMED],
    ] as const)
      expect([line, sizeFor([long, plain], line)]).toEqual([line, lines]);
  });

  it('is the smallest while nothing is known of the line, and as filmed where there is no other', () => {
    expect(sizeFor([long, plain], null)).toBe(360);
    expect(sizeFor([minute('only', 900)], null)).toBe(AS_FILMED);
    expect(sizeFor([], 1_000)).toBe(AS_FILMED);
  });

  it('goes down by a step, and never below the smallest', () => {
    expect([AS_FILMED, 720, 540, 360].map((lines) => smallerThan([long, plain], lines))).toEqual([
      720, 540, 360, 360,
    ]);
    expect(smallerThan([minute('only', 900)], AS_FILMED)).toBe(AS_FILMED);
  });

  it('is what each take has nearest to it', () => {
    expect(sizesOf([long, plain])).toEqual([360, 540, 720, AS_FILMED]);
    expect(versionAt(plain, 720)?.lines).toBe(360);
    expect(versionAt(long, 100)?.lines).toBe(360);
    expect(versionAt(long, AS_FILMED)).toBeNull();
    expect(bytesAt([long, plain], 540)).toBe((900 + 380) * 7_500);
  });
});
