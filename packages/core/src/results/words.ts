import { teacherLanguage, teacherText } from '../words/index.ts';
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

/** A board has hundreds of numbers, and a format is dear to make. */
const formats = new Map<string, Intl.NumberFormat>();

function places(value: number, digits: number): string {
  const key = `${teacherLanguage()} ${digits}`;
  let format = formats.get(key);
  if (!format) {
    const asWritten = { maximumFractionDigits: digits, useGrouping: false };
    formats.set(key, (format = new Intl.NumberFormat(teacherLanguage(), asWritten)));
  }
  return format.format(value);
}

const numberWords = (measure: Measure, value: number): string =>
  teacherText(`number.${measure}`, { n: value, value: places(value, 1) });

/** A number as it was reached: "24 in 30 s", "12.4 s", "15 points", "7 in a row". */
export function valueWords(
  { measure }: Pick<Line, 'measure'>,
  { value, seconds }: Pick<LinePoint, 'value' | 'seconds'>,
): string {
  const number = numberWords(measure, value);
  return seconds === null || measure === 'time'
    ? number
    : teacherText('number.in', { number, seconds: places(seconds, 1) });
}

/** What is compared over the weeks: "0.8 a second", or the value itself. */
export function compareWords(
  { measure, isRate }: Pick<Line, 'measure' | 'isRate'>,
  compared: number,
): string {
  return isRate
    ? teacherText('number.rate', { value: places(compared, 2) })
    : numberWords(measure, compared);
}
