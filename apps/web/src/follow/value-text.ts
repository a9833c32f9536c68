import type { Measure } from '@zest/core/results';
import { say, spokenLanguage } from './words/index.ts';

/** What is asked for, by what is measured. */
export const askWords = (measure: Measure): string => say(`number.${measure}`);
/** What stands behind a number typed; nothing behind a count. */
export const unitWords = (measure: Measure): string =>
  measure === 'count' ? '' : say(`unit.${measure}`);

const number = (value: number, digits: number) =>
  new Intl.NumberFormat(spokenLanguage(), {
    maximumFractionDigits: digits,
    useGrouping: false,
    numberingSystem: 'latn',
  }).format(value);

/** A number as it was reached: "24 in 30 s", "12.4 s", "15 points". */
export function valueText(
  measure: Measure,
  { value, seconds }: { value: number; seconds: number | null },
): string {
  const text =
    measure === 'points'
      ? say('value.points', { n: value })
      : say(`value.${measure}`, { n: number(value, 1) });
  return seconds === null || measure === 'time'
    ? text
    : say('value.in', { value: text, seconds: number(seconds, 1) });
}

/** How many a second: "0.8 a second". */
export const rateText = (perSecond: number): string =>
  say('value.rate', { n: number(perSecond, 2) });
