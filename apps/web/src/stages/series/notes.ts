import type { LessonSummary } from '@zest/contract';
import type { Series } from '@zest/core/lesson';
import { weekNotes, type SeriesWeek } from '@zest/core/schedule';

/** What to look at in a week of the series, in words. */
export const notesOf = (
  { startsOn }: Series,
  at: SeriesWeek,
  lessons: ReadonlyMap<number, LessonSummary>,
): string[] =>
  weekNotes(
    at,
    startsOn !== null,
    lessons.get(at.week),
    at.basis === null ? undefined : lessons.get(at.basis),
  );
