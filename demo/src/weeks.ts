import type { Lesson, MakeId } from '@zest/core/lesson';
import { lessonFrom, patterns } from '@zest/core/patterns';
import { goOnFrom, layOutWeeks, progressTo } from '@zest/core/schedule';
import { demoPlan } from './plan.ts';
import { demoSeries } from './series.ts';

/** Weeks that begin anew, each from a pattern and what is answered in it. */
const fromPatterns = [
  {
    week: 1,
    title: 'Rope and disc say hello',
    pattern: 'skill',
    answers: {
      skill: 'Disc throw',
      steps: 'Stand side-on, Disc level, Snap and stop',
      kit: 'Flying disc, Bottle',
      reps: '8',
      minutes: '9',
    },
  },
  {
    week: 2,
    title: 'Six stations on the quay',
    pattern: 'circuit',
    answers: {
      stations: 'Rope skipping, Squats, Band rows, Step and reach, Disc throw, Balance',
      ...{ work: '25 s', rest: '15 s', rounds: '2', minutes: '10' },
    },
  },
  {
    week: 5,
    title: 'The quay cup',
    pattern: 'challenge',
    answers: {
      game: 'Knock the bottles',
      kit: 'Flying disc, Four bottles',
      rule: 'One point for the near bottle, four for the far one.',
      ...{ tries: '3', minutes: '9' },
    },
  },
] as const;
/** Goes on from the week its series says. */
const GOES_ON = 6;

/** The other weeks' lessons, as far as they are planned; the last week's is still to be made. */
export function demoWeeks(makeId: MakeId): Lesson[] {
  const weeks = layOutWeeks(demoSeries);
  const begun = fromPatterns.map(({ week, title, pattern, answers }) => {
    const made = patterns.find(({ id }) => id === pattern);
    if (!made) throw new Error(`There is no pattern ${pattern}.`);
    const lesson = lessonFrom(made, answers, makeId);
    const grown = structuredClone(lesson);
    progressTo(lesson, demoSeries, week)(grown);
    const { level = 'standard' } = weeks[week - 1] ?? {};
    return {
      ...grown,
      title,
      series: { name: demoSeries.name, week, level, recap: '', teaser: '' },
    };
  });
  const at = weeks[GOES_ON - 1];
  return at ? [...begun, goOnFrom(demoPlan(), demoSeries, at, makeId)] : begun;
}
