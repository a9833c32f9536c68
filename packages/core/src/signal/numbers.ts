/** The value below which a part of the values lies; 0 for no values. @param part 0 to 1 */
export function quantile(values: ArrayLike<number>, part: number): number {
  if (values.length === 0) return 0;
  const sorted = Float64Array.from(values).sort();
  const at = Math.min(sorted.length - 1, Math.max(0, part * (sorted.length - 1)));
  const below = Math.floor(at);
  const [a, b] = [sorted[below] ?? 0, sorted[Math.min(sorted.length - 1, below + 1)] ?? 0];
  return a + (b - a) * (at - below);
}
export const median = (values: ArrayLike<number>): number => quantile(values, 0.5);

/** Weighted mean of neighbours. @param sigma width of the bell, in samples */
export function smoothed(values: ArrayLike<number>, sigma: number): Float64Array {
  const reach = Math.max(1, Math.ceil(sigma * 3));
  const weights = Array.from({ length: reach * 2 + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * sigma * sigma)),
  );
  const out = new Float64Array(values.length);
  for (let at = 0; at < out.length; at += 1) {
    let sum = 0;
    let total = 0;
    for (let i = Math.max(-reach, -at); i <= reach && at + i < out.length; i += 1) {
      const weight = weights[i + reach] as number;
      sum += (values[at + i] as number) * weight;
      total += weight;
    }
    out[at] = sum / total;
  }
  return out;
}

/** Runs of indices for which `holds` is true, from first to after the last. */
export function runsOf(
  length: number,
  holds: (index: number) => boolean,
): { from: number; to: number }[] {
  const runs: { from: number; to: number }[] = [];
  for (let i = 0; i < length; i += 1) {
    if (!holds(i)) continue;
    const last = runs.at(-1);
    if (last?.to === i) last.to = i + 1;
    else runs.push({ from: i, to: i + 1 });
  }
  return runs;
}

/** Correlation of two signals, the second `lag` samples later, -1 to 1. */
export function correlation(
  one: ArrayLike<number>,
  other: ArrayLike<number>,
  lag = 0,
  from = 0,
  to = one.length,
): number {
  const count = to - from - lag;
  if (count < 2) return 0;
  let [meanA, meanB] = [0, 0];
  for (let i = from; i < to - lag; i += 1) {
    meanA += (one[i] as number) / count;
    meanB += (other[i + lag] as number) / count;
  }
  let [ab, aa, bb] = [0, 0, 0];
  for (let i = from; i < to - lag; i += 1) {
    const [a, b] = [(one[i] as number) - meanA, (other[i + lag] as number) - meanB];
    ab += a * b;
    aa += a * a;
    bb += b * b;
  }
  return aa > 0 && bb > 0 ? ab / Math.sqrt(aa * bb) : 0;
}

/** Correlation of a signal with itself `lag` samples later. */
export const autocorrelation = (
  values: ArrayLike<number>,
  lag: number,
  from = 0,
  to = values.length,
): number => correlation(values, values, lag, from, to);

/** A value as a part of a whole, between none and all of it. */
export const asPart = (value: number): number => Math.min(1, Math.max(0, value));

/** Where values cross a level between a frame and the one before it, in frames. */
export function crossedAt(values: ArrayLike<number>, frame: number, level: number): number {
  const [before, after] = [values[frame - 1] as number, values[frame] as number];
  return frame - 1 + (before - level) / (before - after);
}
