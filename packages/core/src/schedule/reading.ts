import { countWords } from './speech.ts';

/**
 * Words a minute a child of that age reads aloud, 50th percentile in winter, grade 1 taken as age 6
 * (Hasbrouck & Tindal 2017 norms, from memory). The last published pace stands for everyone older.
 */
const WPM_BY_AGE: readonly (readonly [number, number])[] = [
  [6, 29],
  [7, 84],
  [8, 97],
  [9, 120],
  [10, 133],
  [11, 145],
];

/** Time to find the card before reading begins, and the least any card is shown. */
const SETTLE_MS = 1_000;
const LEAST_MS = 3_000;

export function readingWpm(age: number): number {
  return WPM_BY_AGE.findLast(([from]) => from <= age)?.[1] ?? WPM_BY_AGE[0]?.[1] ?? 29;
}

/** Time a reader of `age` years needs for a card, rounded up to whole seconds. In milliseconds. */
export function readingMs(text: string, age: number): number {
  const readMs = (countWords(text) * 60_000) / readingWpm(age);
  return Math.max(LEAST_MS, Math.ceil((readMs + SETTLE_MS) / 1000) * 1000);
}
