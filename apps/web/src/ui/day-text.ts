const format = new Intl.DateTimeFormat(undefined, { weekday: 'short', day: 'numeric', month: 'short', timeZone: 'UTC' });

/** A day given as year-month-day, in words: "Mon 7 Sep". */
export function dayText(date: string): string {
  return format.format(new Date(`${date}T00:00:00Z`));
}
