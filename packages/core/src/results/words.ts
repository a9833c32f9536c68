import type { Measure } from './entry.ts';
import type { Line, LinePoint } from './figures.ts';

/**
 * A number typed as it comes, with a comma or a point, a time also as 1:23; null when it is none,
 * or not from 0 to a million.
 */
export function readNumber(typed: string, measure?: Measure): number | null {
  const [, hours = '0', minutes = '0', number] =
    /^(?:(?:(\d+):)?(\d+):(?=[0-5]\d(?!\d)))?(\d+(?:[.,]\d+)?|[.,]\d+)$/.exec(typed.trim()) ?? [];
  if (number === undefined || (typed.includes(':') && measure !== 'time')) return null;
  const value = (Number(hours) * 60 + Number(minutes)) * 60 + Number(number.replace(',', '.'));
  return value <= 1_000_000 ? value : null;
}

const places = (value: number, digits: number) => value.toFixed(digits).replace(/\.?0+$/, '');
const unitOf = { count: '', time: ' s', points: ' points', streak: ' in a row' } as const;

/** A number as it was reached: "24 in 30 s", "12.4 s", "15 points", "7 in a row". */
export function valueWords(
  { measure }: Pick<Line, 'measure'>,
  { value, seconds }: Pick<LinePoint, 'value' | 'seconds'>,
): string {
  return (
    `${places(value, 1)}${unitOf[measure]}` +
    `${seconds !== null && measure !== 'time' ? ` in ${places(seconds, 1)} s` : ''}`
  );
}

/** What is compared over the weeks: "0.8 a second", or the value itself. */
export function compareWords(
  { measure, isRate }: Pick<Line, 'measure' | 'isRate'>,
  compared: number,
): string {
  return isRate ? `${places(compared, 2)} a second` : `${places(compared, 1)}${unitOf[measure]}`;
}
