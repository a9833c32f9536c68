import type { Series } from '@zest/core/lesson';
import type { SeriesWeek } from '@zest/core/schedule';
import { locale } from '../../../ui/locale.ts';

const utc = (date: string) => new Date(`${date}T00:00:00Z`);
const month = new Intl.DateTimeFormat(locale, { month: 'short', timeZone: 'UTC' });

/** The days of a week in short: "9, 11, 13 Nov"; the month wherever it changes. */
export const daysText = (dates: readonly string[]): string =>
  dates
    .map((date, i) => {
      const day = String(utc(date).getUTCDate());
      const isLast = dates[i + 1]?.slice(0, 7) !== date.slice(0, 7);
      return isLast ? `${day} ${month.format(utc(date))}` : day;
    })
    .join(', ');

/** The breaks before each week: those that begin after the last day of the week before. */
export function breaksBefore(
  { breaks, startsOn }: Series,
  weeks: readonly SeriesWeek[],
): ReadonlyMap<number, string[]> {
  const before = new Map<number, string[]>();
  if (startsOn === null) return before;
  for (const { from, label } of breaks) {
    const next = weeks.find(({ dates }) => (dates[0] ?? '') > from);
    if (next) before.set(next.week, [...(before.get(next.week) ?? []), label]);
  }
  return before;
}
