import type { LessonSummary } from '@zest/contract';
import { makeLesson as emptyLesson } from '@zest/core/lesson';
import { goOnFrom, type SeriesWeek } from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import { useMemo, useRef, useState } from 'react';
import { api, problemText } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { useNotice } from '../../app/notice.tsx';
import type { OpenSeries } from './use-series.ts';

/** The lesson of each week; the first saved where two claim a week. */
export function useLessonsByWeek(name: string): Map<number, LessonSummary> {
  const lessons = api.useLessonsQuery().data;
  return useMemo(() => {
    const byWeek = new Map<number, LessonSummary>();
    for (const lesson of lessons ?? []) {
      const { week } = lesson.series;
      if (lesson.series.name === name && week !== null && !lesson.archived && !lesson.template)
        byWeek.set(week, lesson);
    }
    return byWeek;
  }, [lessons, name]);
}

/** Makes lessons of weeks, each from the week it goes on from, and says how far it is. */
export function useMaking({ series }: OpenSeries, lessons: ReadonlyMap<number, LessonSummary>) {
  const [read] = api.useLazyLessonQuery();
  const [makeLesson] = api.useMakeLessonMutation();
  const [progress, setProgress] = useState<string | null>(null);
  const stop = useRef(false);
  const notice = useNotice();
  const make = async (weeks: readonly SeriesWeek[]) => {
    stop.current = false;
    const idOf = new Map([...lessons].map(([week, { id }]) => [week, id]));
    let made = 0;
    for (const [i, week] of weeks.entries()) {
      if (stop.current) break;
      setProgress(teacherText('series.making', { week: week.week, n: i + 1, all: weeks.length }));
      const basisId = week.basis === null ? undefined : idOf.get(week.basis);
      const basis = basisId === undefined ? undefined : await read(basisId);
      if (basis && !basis.data) {
        notice(problemText(basis.error) ?? teacherText('series.no-basis'));
        break;
      }
      const document = goOnFrom(
        basis?.data?.lesson ?? emptyLesson(series.name, makeId),
        series,
        week,
        makeId,
      );
      const result = await makeLesson({ document });
      if (!result.data) {
        notice(problemText(result.error) ?? teacherText('series.not-made'));
        break;
      }
      idOf.set(week.week, result.data.id);
      made += 1;
    }
    setProgress(null);
    if (made > 1) notice(teacherText('series.made', { n: made }));
  };
  return { progress, make, stop: () => (stop.current = true) };
}
