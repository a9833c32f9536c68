import { locale } from './locale.ts';

const format = new Intl.DateTimeFormat(locale, {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  timeZone: 'UTC',
});

/** A day given as year-month-day, in words: "Mon 7 Sep". */
export function dayText(date: string): string {
  return format.format(new Date(`${date}T00:00:00Z`));
}

const relative = new Intl.RelativeTimeFormat(locale, { numeric: 'auto' });
const DAY_MS = 86_400_000;

/** How long ago something was: "today", "12 days ago", "3 months ago". */
export function ageText(at: Date, now: Date): string {
  const days = Math.floor((now.getTime() - at.getTime()) / DAY_MS);
  if (days < 60) return relative.format(-days, 'day');
  return days < 730
    ? relative.format(-Math.floor(days / 30.44), 'month')
    : relative.format(-Math.floor(days / 365.25), 'year');
}
