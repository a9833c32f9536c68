/** Landings a measurement needs, and how many have to be met by a tap. */
const LANDINGS = 40;
export const TAPS_NEEDED = 10;
/** A tap further off than this belongs to no landing. */
const FARTHEST_MS = 400;
const [LEAST_MS, MOST_MS] = [850, 1_500];

/**
 * Moments at which a ball lands, unevenly apart so that they cannot be tapped by rhythm alone. The
 * same for the same seed.
 */
export function bounces(seed: number): number[] {
  let state = seed + 1;
  let atMs = 1_500;
  return Array.from({ length: LANDINGS }, () => {
    const landing = atMs;
    state = (state * 48_271) % 2_147_483_647;
    atMs += LEAST_MS + Math.floor((state / 2_147_483_647) * (MOST_MS - LEAST_MS));
    return landing;
  });
}

/** How high the ball is, 0 to 1: it flies from one landing to the next. */
export function heightAt(landings: readonly number[], ms: number): number {
  const next = landings.findIndex((landing) => landing > ms);
  if (next < 0) return 0;
  const [from, to] = [landings[next - 1] ?? (landings[0] ?? 0) - MOST_MS, landings[next] ?? 0];
  const part = (ms - from) / (to - from);
  return 4 * part * (1 - part);
}

/**
 * The median time by which taps come after the landings, in whole milliseconds; null until enough
 * were met.
 */
export function reactionOf(landings: readonly number[], taps: readonly number[]): number | null {
  const late = taps.flatMap((tap) => {
    const off = landings
      .map((landing) => tap - landing)
      .sort((a, b) => Math.abs(a) - Math.abs(b))[0];
    return off !== undefined && Math.abs(off) <= FARTHEST_MS ? [off] : [];
  });
  if (late.length < TAPS_NEEDED) return null;
  const sorted = late.sort((a, b) => a - b);
  const middle = Math.floor(sorted.length / 2);
  return Math.round(
    sorted.length % 2 === 1
      ? (sorted[middle] ?? 0)
      : ((sorted[middle - 1] ?? 0) + (sorted[middle] ?? 0)) / 2,
  );
}
