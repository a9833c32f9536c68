import { locale } from './locale.ts';

const day = new Intl.DateTimeFormat(locale, { dateStyle: 'medium' });
const moment = new Intl.DateTimeFormat(locale, { dateStyle: 'medium', timeStyle: 'short' });
const soon = new Intl.DateTimeFormat(locale, {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** A day of this device's calendar: "28 Nov 2026". */
export const dateText = (at: number | string): string => day.format(new Date(at));

/** A day and a time of day, in this device's time. */
export const momentText = (at: number | string): string => moment.format(new Date(at));

/** A moment a few days away: "Mon 30 Nov, 08:00". */
export const soonText = (at: number | string): string => soon.format(new Date(at));

const shortDay = new Intl.DateTimeFormat(locale, { day: 'numeric', month: 'short' });

/** A day of this year: "28 Nov". */
export const shortDayText = (at: number | string): string => shortDay.format(new Date(at));

const timeOfDay = new Intl.DateTimeFormat(locale, { timeStyle: 'medium' });

/** A time of day to the second. */
export const timeOfDayText = (at: number): string => timeOfDay.format(new Date(at));
