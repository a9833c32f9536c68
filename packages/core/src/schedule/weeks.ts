import {
  addDays,
  eachDayOfInterval,
  formatISO,
  isWithinInterval,
  parseISO,
  startOfISOWeek,
} from 'date-fns';
import { produce } from 'immer';
import {
  asPlanned,
  LessonError,
  LIMITS,
  stageName,
  stageSchools,
  withFreshIds,
  type Lesson,
  type LessonEdit,
  type MakeId,
  type Series,
  type WeekLevel,
} from '../lesson/index.ts';
import { lessonWord, teacherText } from '../words/index.ts';
import { progressTo, valueInWeek } from './growing.ts';
import type { Schedule } from './schedule.ts';

export interface SeriesWeek {
  week: number;
  /** What the week is about; empty when not said. */
  focus: string;
  /** The week whose lesson this one goes on from; null when it begins anew. */
  basis: number | null;
  /** Days with a session, as year-month-day; empty when the series is not dated. */
  dates: string[];
  /**
   * Sessions the progression asks for: more than `dates` when too few days are named or a break
   * takes some.
   */
  sessions: number;
  level: WeekLevel;
  stages: { skill: string; stage: string }[];
}

const NO_LEVEL: WeekLevel = 'standard';

function weekValue(series: Series, week: number): { level: WeekLevel; sessions: number } {
  let level = NO_LEVEL;
  let sessions = series.weekdays.length;
  for (const rule of series.progression) {
    if (rule.of === 'level') level = valueInWeek(rule, rule.values, week) ?? level;
    if (rule.of === 'sessions') sessions = valueInWeek(rule, rule.values, week) ?? sessions;
  }
  return { level, sessions };
}

const dateText = (day: Date) => formatISO(day, { representation: 'date' });

/**
 * Session days week by week. A calendar week of which a break takes every session day is no week of
 * the series.
 */
function sessionDays(series: Series): string[][] {
  if (series.startsOn === null) return Array.from({ length: series.weeks }, () => []);
  const breaks = series.breaks.map(({ from, to }) => ({
    start: parseISO(from),
    end: parseISO(to),
  }));
  const first = parseISO(series.startsOn);
  const weeks: string[][] = [];
  // Breaks end somewhere, so this does too; the bound only guards against years of breaks.
  for (
    let monday = startOfISOWeek(first), spent = 0;
    weeks.length < series.weeks && spent < series.weeks + 600;
    monday = addDays(monday, 7), spent += 1
  ) {
    const days = eachDayOfInterval({ start: monday, end: addDays(monday, 6) }).filter(
      (day, i) => series.weekdays.includes(i + 1) && day >= first,
    );
    const open = days.filter((day) => !breaks.some((pause) => isWithinInterval(day, pause)));
    if (days.length > 0 && open.length === 0) continue;
    if (days.length === 0 && series.weekdays.length > 0) continue;
    weeks.push(open.map(dateText));
  }
  return weeks;
}

/**
 * The week each week goes on from.
 * @throws LessonError when weeks go on from each other in a circle
 */
function basisOf(series: Series): Map<number, number | null> {
  const basisByWeek = new Map(series.weekPlans.map(({ week, basis }) => [week, basis]));
  const basis = new Map<number, number | null>();
  for (let week = 1; week <= series.weeks; week += 1)
    basis.set(week, basisByWeek.get(week) ?? (week === 1 ? null : week - 1));
  for (const start of basis.keys()) {
    const chain = [start];
    for (let at = basis.get(start) ?? null; at !== null; at = basis.get(at) ?? null) {
      const seen = chain.indexOf(at);
      chain.push(at);
      if (seen >= 0) {
        throw new LessonError(
          teacherText('rule.weeks-circle', { weeks: chain.slice(seen).join(' ← ') }),
        );
      }
    }
  }
  return basis;
}

function stagesAt({ skills, stageSchool }: Series, week: number): SeriesWeek['stages'] {
  return skills.flatMap(({ name, from }) => {
    const reached = stageSchools[stageSchool].findLast((_stage, i) => {
      const start = from[i];
      return typeof start === 'number' && start <= week;
    });
    return reached === undefined ? [] : [{ skill: name, stage: stageName(reached) }];
  });
}

/**
 * Lays a series out, week by week.
 * @throws LessonError when weeks go on from each other in a circle
 */
export function layOutWeeks(series: Series): SeriesWeek[] {
  const basis = basisOf(series);
  const focus = new Map(series.weekPlans.map((plan) => [plan.week, plan.focus]));
  const days = sessionDays(series);
  return Array.from({ length: series.weeks }, (_, i): SeriesWeek => {
    const week = i + 1;
    const { level, sessions } = weekValue(series, week);
    return {
      week,
      focus: focus.get(week) ?? '',
      basis: basis.get(week) ?? null,
      dates: (days[i] ?? []).slice(0, sessions),
      sessions,
      level,
      stages: stagesAt(series, week),
    };
  });
}

/** Weeks in an order in which each comes after the one it goes on from. */
export function makingOrder(weeks: readonly SeriesWeek[]): SeriesWeek[] {
  const byWeek = new Map(weeks.map((week) => [week.week, week]));
  const order = new Set<SeriesWeek>();
  for (const week of weeks) {
    const chain: SeriesWeek[] = [];
    for (
      let at: SeriesWeek | undefined = week;
      at && !order.has(at);
      at = at.basis === null ? undefined : byWeek.get(at.basis)
    )
      chain.push(at);
    for (const next of chain.reverse()) order.add(next);
  }
  return [...order];
}

/** What of a week's lesson is its own and not the plan it goes on from. */
type OfWeek = Pick<Lesson, 'title' | 'outcome' | 'series'>;

/**
 * The lesson of another week, whoever makes it: planned as the one it goes on from, figures
 * changed, nothing filmed, and nothing left of what was done to that one's footage by hand.
 */
export function lessonOfWeek(
  basis: Lesson,
  ofWeek: OfWeek,
  editOf: (planned: Lesson) => LessonEdit,
  makeId: MakeId,
): Lesson {
  const planned = asPlanned(basis);
  const changed = produce(planned, editOf(planned));
  return { ...withFreshIds(changed, makeId), ...ofWeek };
}

/** What a week's lesson is called before somebody gives it a title, in its language. */
export const weekTitle = (name: string, week: number, language: string): string =>
  lessonWord(language, 'week.title', { name: name.slice(0, LIMITS.title - 20), week });

/**
 * The lesson of a week, gone on from another's: the same sections in the same order, nothing
 * filmed, every figure progressed.
 */
export function goOnFrom(
  basis: Lesson,
  series: Series,
  { week, level, focus }: SeriesWeek,
  makeId: MakeId,
): Lesson {
  return lessonOfWeek(
    basis,
    {
      title: focus || weekTitle(series.name, week, basis.settings.language),
      outcome: '',
      series: { name: series.name, week, level, recap: '', teaser: '' },
    },
    (planned) => progressTo(planned, series, week),
    makeId,
  );
}

/** A lesson as its neighbours in the series know it. */
export interface Neighbour {
  week: number | null;
  title: string;
  outcome: string;
}

/** What a week's lesson can say of the lessons before and after it; empty where there is none. */
export function neighbourWords(
  lessons: readonly Neighbour[],
  week: number,
  language: string,
): { recap: string; teaser: string } {
  const dated = lessons.flatMap((lesson) =>
    lesson.week === null ? [] : [{ ...lesson, week: lesson.week }],
  );
  const before = dated.filter((l) => l.week < week).sort((a, b) => b.week - a.week)[0];
  const after = dated.filter((l) => l.week > week).sort((a, b) => a.week - b.week)[0];
  const words = (word: 'week.last-time' | 'week.next-time', lesson: Neighbour | undefined) =>
    lesson ? lessonWord(language, word, { what: lesson.outcome || lesson.title }) : '';
  return { recap: words('week.last-time', before), teaser: words('week.next-time', after) };
}

/** A week's lesson as its series knows it. */
export interface WeekLesson {
  sections: readonly string[];
  skills: readonly { skill: string }[];
}

/**
 * What a teacher may want to look at in a week of the series, in words; a help, never a hindrance.
 */
export function weekNotes(
  week: SeriesWeek,
  isDated: boolean,
  lesson: WeekLesson | undefined,
  basis: WeekLesson | undefined,
): string[] {
  const notes: string[] = [];
  if (isDated && week.dates.length < week.sessions)
    notes.push(teacherText('week.sessions', { n: week.sessions, days: week.dates.length }));
  if (!lesson) return notes;
  const trained = new Set(lesson.skills.map(({ skill }) => skill.toLowerCase()));
  const idle = week.stages.filter(({ skill }) => !trained.has(skill.trim().toLowerCase()));
  const skills = idle.map(({ skill }) => skill).join(', ');
  if (idle.length > 0) notes.push(teacherText('week.untrained', { skills }));
  if (basis && basis.sections.join('\n') !== lesson.sections.join('\n'))
    notes.push(teacherText('week.sections', { week: week.basis ?? 0 }));
  return notes;
}

/** Student time a lesson gives to each skill, in milliseconds. */
export function skillTimes(schedule: Schedule): { skill: string; studentMs: number }[] {
  const times = new Map<string, number>();
  for (const { block, studentMs } of schedule.blocks) {
    const skill = block.skill.trim();
    if (skill !== '') times.set(skill, (times.get(skill) ?? 0) + studentMs);
  }
  return [...times].map(([skill, studentMs]) => ({ skill, studentMs }));
}
