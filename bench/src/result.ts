/** One measured figure against what it should be. */
export interface Result {
  what: string;
  value: string;
  limit: string;
  holds: boolean;
}

export function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  return sorted[Math.floor(sorted.length / 2)] ?? 0;
}

export const mean = (list: readonly number[]): number =>
  list.length === 0 ? 0 : list.reduce((sum, value) => sum + value, 0) / list.length;

/** A part of a whole; all of it where there is none. */
export const share = (part: number, whole: number): number => (whole === 0 ? 1 : part / whole);

/** Wall time of a task in milliseconds. */
export async function timed(task: () => unknown): Promise<number> {
  const began = performance.now();
  await task();
  return performance.now() - began;
}
