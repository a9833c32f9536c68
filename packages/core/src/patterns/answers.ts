import { parseLength } from '../time/index.ts';

/** What was answered, by question, as it was typed. */
export type Answers = Readonly<Record<string, string>>;

/** As much of an answer as fits into a name together with other words. */
export const shortened = (text: string): string => [...text].slice(0, 60).join('');

/** Things with commas or line ends between them. */
export const listOf = (text: string): string[] =>
  text
    .split(/[,;\n]/)
    .map((part) => shortened(part.trim()))
    .filter((part) => part !== '');

/** A whole number between two others; `usual` where none is written. */
export function countOf(text: string, usual: number, least: number, most: number): number {
  const n = /^\s*\d+\s*$/.test(text) ? Number(text) : usual;
  return Math.min(most, Math.max(least, n));
}

/** A length in milliseconds; `usual` where none is written. */
export function lengthOf(text: string, usual: number, least: number, most: number): number {
  return Math.min(most, Math.max(least, parseLength(text) ?? usual));
}
