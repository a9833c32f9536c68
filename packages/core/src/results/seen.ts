/** A stretch of the video that was played, in milliseconds, from first to last. */
export type SeenStretch = [number, number];

/** Stretches this near to each other are one: a short stall is no gap. */
const NEAR_MS = 1_000;
/** Most stretches that are kept; of more the shortest go. */
export const MOST_SEEN = 100;

const lengthOf = ([from, to]: SeenStretch) => to - from;

/** Stretches in order, those that touch or overlap as one. */
export function joinSeen(stretches: readonly SeenStretch[]): SeenStretch[] {
  const joined: SeenStretch[] = [];
  for (const [from, to] of [...stretches].sort(([a], [b]) => a - b)) {
    const last = joined.at(-1);
    if (last && from - last[1] <= NEAR_MS) last[1] = Math.max(last[1], to);
    else joined.push([from, to]);
  }
  if (joined.length <= MOST_SEEN) return joined;
  const kept = new Set([...joined].sort((a, b) => lengthOf(b) - lengthOf(a)).slice(0, MOST_SEEN));
  return joined.filter((stretch) => kept.has(stretch));
}

/** How much of the video stretches cover, in milliseconds. */
export const seenMs = (stretches: readonly SeenStretch[]): number =>
  joinSeen(stretches).reduce((sum, stretch) => sum + lengthOf(stretch), 0);

/** How much of a video was seen, 0 to 1. Pages of before told only how far they came. */
export function seenPart({
  atMs,
  totalMs,
  seen,
}: {
  atMs: number;
  totalMs: number;
  seen?: readonly SeenStretch[] | undefined;
}): number {
  return totalMs > 0 ? Math.min(1, (seen ? seenMs(seen) : atMs) / totalMs) : 0;
}
