import { addMilliseconds, addMinutes } from 'date-fns';
import ical, { ICalCalendarMethod } from 'ical-generator';
import type { SeriesWeek } from '../schedule/index.ts';
import type { Series } from '../lesson/index.ts';
import { paperWord, type PaperWord, type Values } from '../words/index.ts';

/** What the calendar says of a week's lesson; null while there is none. */
export interface CalendarLesson {
  title: string;
  outcome: string;
  studentMs: number;
  kit: string[];
}

const SHORTEST_MS = 300_000;

/** On one line: a break or a control character inside a name is none of the calendar's lines. */
const oneLine = (text: string) => text.replace(/[\p{Cc}\u2028\u2029]+/gu, ' ').trim();

/**
 * The series as an iCalendar file (RFC 5545): one event for each session, at the hour where the
 * calendar is read.
 * @param id names the events, so that a second import renews them
 * @param madeAt the moment the file is made
 * @param language of its words, BCP 47
 */
export function seriesCalendar(
  series: Series,
  weeks: readonly SeriesWeek[],
  lessons: ReadonlyMap<number, CalendarLesson>,
  id: string,
  madeAt: Date,
  language: string,
): string {
  const say = (word: PaperWord, values?: Values) => paperWord(language, word, values);
  const calendar = ical({
    name: oneLine(series.name),
    description: oneLine(series.about) || null,
    prodId: '//Zest Frame//Series//EN',
    method: ICalCalendarMethod.PUBLISH,
  });
  for (const { week, focus, dates, level } of weeks) {
    const lesson = lessons.get(week);
    dates.forEach((date, i) => {
      // Times without a zone are read off in UTC.
      const day = new Date(`${date}T00:00:00Z`);
      const start = series.atMinutes === null ? day : addMinutes(day, series.atMinutes);
      const title = lesson?.title || focus || say('calendar.to-come');
      const session = say('calendar.session', { series: series.name, week, title });
      const of = say('page', { n: i + 1, all: dates.length });
      const summary = dates.length > 1 ? `${session} (${of})` : session;
      const lines = [
        lesson?.outcome ?? '',
        lesson && lesson.kit.length > 0
          ? say('calendar.needed', { kit: lesson.kit.join(', ') })
          : '',
        level === 'standard' ? '' : say('calendar.form', { form: say(`form.${level}`) }),
      ];
      calendar.createEvent({
        id: `${id}-w${week}-${i + 1}@zest-frame`,
        stamp: madeAt,
        start,
        ...(series.atMinutes === null
          ? { allDay: true }
          : { end: addMilliseconds(start, Math.max(SHORTEST_MS, lesson?.studentMs ?? 0)) }),
        floating: true,
        summary: oneLine(summary),
        description:
          lines
            .map(oneLine)
            .filter((line) => line !== '')
            .join('\n') || null,
      });
    });
  }
  return calendar.toString();
}
