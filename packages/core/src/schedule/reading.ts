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

/** Published paces begin here: whoever is younger does not read yet. */
export const YOUNGEST_READER = 6;

/** The age whose pace is taken for a child of `age` years. */
export const readerAge = (age: number): number => Math.max(YOUNGEST_READER, age);

/** Time to find the card before reading begins, and the least any card is shown. */
const SETTLE_MS = 1_000;
const LEAST_MS = 3_000;

export function readingWpm(age: number): number {
  return WPM_BY_AGE.findLast(([from]) => from <= readerAge(age))?.[1] ?? 29;
}

/**
 * Time a reader of `age` years (at least that of the youngest readers) needs for a card, rounded up
 * to whole seconds. In milliseconds.
 */
export function readingMs(text: string, age: number): number {
  const readMs = (countWords(text) * 60_000) / readingWpm(age);
  return Math.max(LEAST_MS, Math.ceil((readMs + SETTLE_MS) / 1000) * 1000);
}
