import type { Target } from './schema.ts';

/** Whether a length is as near to its target as is allowed; one that is not aimed at always is. */
export const meetsTarget = (ms: number, target: Target | null): boolean =>
  target === null || Math.abs(ms - target.ms) <= target.toleranceMs;
