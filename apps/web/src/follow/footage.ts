import type { FollowRendition, FollowTake } from '@zest/contract';

/** Lines of the picture footage is shown at; `AS_FILMED` for the take itself. */
export const AS_FILMED = Infinity;
/** Half of a line is left to whoever else is on it. */
const PART_OF_LINE = 0.5;

/**
 * The version of a take for so many lines: the largest that has no more, or the smallest there is;
 * null: the take itself.
 */
export function versionAt({ renditions }: FollowTake, lines: number): FollowRendition | null {
  if (lines === AS_FILMED) return null;
  return renditions.findLast((one) => one.lines <= lines) ?? renditions[0] ?? null;
}

/** Sizes the takes of a lesson can be had at, the smallest first. */
export const sizesOf = (takes: readonly FollowTake[]): number[] =>
  [...new Set(takes.flatMap(({ renditions }) => renditions.map(({ lines }) => lines)))]
    .sort((a, b) => a - b)
    .concat(AS_FILMED);

/** Bytes of all takes at a size. */
export const bytesAt = (takes: readonly FollowTake[], lines: number): number =>
  takes.reduce((sum, take) => sum + (versionAt(take, lines) ?? take).bytes, 0);

/** Bytes as whole megabytes, at least one. */
export const megabytes = (bytes: number): number => Math.max(1, Math.round(bytes / 1e6));

/** Kilobits a second of the take that takes most. */
const kbitAt = (takes: readonly FollowTake[], lines: number) =>
  Math.max(
    0,
    ...takes.map(
      (take) => ((versionAt(take, lines) ?? take).bytes * 8) / Math.max(1, take.durationMs),
    ),
  );

/**
 * The largest size that runs without waiting.
 * @param lineKbit what the line was measured to carry, in kilobits a second; null when it was not:
 * then the smallest
 */
export function sizeFor(takes: readonly FollowTake[], lineKbit: number | null): number {
  const sizes = sizesOf(takes);
  return (
    sizes.findLast(
      (lines) => lineKbit !== null && kbitAt(takes, lines) <= lineKbit * PART_OF_LINE,
    ) ??
    sizes[0] ??
    AS_FILMED
  );
}

/** The next smaller size; the same at the smallest. */
export function smallerThan(takes: readonly FollowTake[], lines: number): number {
  const sizes = sizesOf(takes);
  return sizes.findLast((size) => size < lines) ?? sizes[0] ?? lines;
}
