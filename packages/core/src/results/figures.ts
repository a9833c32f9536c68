import type { Side, WeekLevel } from '../lesson/index.ts';
import { isDoing, isOf, type EntryOf, type LogEntry, type Measure, type Score } from './entry.ts';
import { seenPart } from './seen.ts';

export interface LinePoint {
  at: number;
  lessonId: string | null;
  /** The best of that lesson's tries. */
  value: number;
  seconds: number | null;
  /**
   * What is compared: a count or points by the second where they went on for a time, else the value
   * itself.
   */
  compared: number;
}

/** One exercise, one side, one form of it, measured one way, over the weeks. */
export interface Line extends Pick<Score, 'key' | 'title' | 'measure' | 'better'> {
  side: Side | null;
  level: WeekLevel;
  /** Whether `compared` is by the second. */
  isRate: boolean;
  points: LinePoint[];
  /** The personal best; the first of equals. */
  best: LinePoint;
}

const isCounted = (measure: Measure) => measure === 'count' || measure === 'points';

/** Whether a value beats another, the way the measure runs. */
export const beats = (better: Score['better'], a: number, b: number): boolean =>
  better === 'more' ? a > b : a < b;

/** By the second where it went on for a time, so that 20 s and 30 s compare. */
export function comparedOf({
  measure,
  value,
  seconds,
}: Pick<Score, 'measure' | 'value' | 'seconds'>): number {
  return isCounted(measure) && seconds !== null && seconds > 0 ? value / seconds : value;
}

function lineOf(scores: readonly EntryOf<'score'>[]): Line | null {
  const first = scores[0];
  if (!first) return null;
  const { key, title, measure, better, side, level } = first.body;
  // Only what went on for a time has a rate; one without a time among them would not compare.
  const isRate =
    isCounted(measure) && scores.every(({ body }) => body.seconds !== null && body.seconds > 0);
  const byLesson = new Map<string, LinePoint>();
  for (const { at, lessonId, body } of scores) {
    const point = {
      at,
      lessonId,
      value: body.value,
      seconds: body.seconds,
      compared: isRate ? comparedOf(body) : body.value,
    };
    const place = lessonId ?? String(at);
    const known = byLesson.get(place);
    if (!known || beats(better, point.compared, known.compared)) byLesson.set(place, point);
  }
  const points = [...byLesson.values()].sort((a, b) => a.at - b.at);
  const best = points.reduce((top, point) =>
    beats(better, point.compared, top.compared) ? point : top,
  );
  return { key, title, measure, better, side, level, isRate, points, best };
}

/**
 * The lines of one student's entries, by exercise, side and form; a lesson gives each line its best
 * try.
 */
export function linesOf(entries: readonly LogEntry[]): Line[] {
  const groups = new Map<string, EntryOf<'score'>[]>();
  for (const entry of [...entries].sort((a, b) => a.at - b.at).filter(isOf('score'))) {
    const { key, side, level } = entry.body;
    const group = `${key} ${side ?? ''} ${level}`;
    groups.set(group, [...(groups.get(group) ?? []), entry]);
  }
  return [...groups.values()].flatMap((scores) => lineOf(scores) ?? []);
}

export const DAY_MS = 86_400_000;
/** 1 January 1970 was a Thursday. */
const DAYS_FROM_MONDAY = 3;

/**
 * Number of the week, Monday first, of an instant; `offsetMs` is what local time is ahead of UTC.
 */
export function weekOf(at: number, offsetMs = 0): number {
  return Math.floor((Math.floor((at + offsetMs) / DAY_MS) + DAYS_FROM_MONDAY) / 7);
}

/** When the week of an instant begins, and so many weeks before that. */
export const weekStart = (at: number, weeksBefore = 0, offsetMs = 0): number =>
  ((weekOf(at, offsetMs) - weeksBefore) * 7 - DAYS_FROM_MONDAY) * DAY_MS - offsetMs;

/**
 * Weeks running in which something was done: up to this week or the one before, and the most there
 * have been.
 */
export function doingStreak(
  entries: readonly LogEntry[],
  now: number,
  offsetMs = 0,
): { now: number; longest: number } {
  const weeks = [...new Set(entries.filter(isDoing).map(({ at }) => weekOf(at, offsetMs)))].sort(
    (a, b) => a - b,
  );
  let longest = 0;
  let run = 0;
  weeks.forEach((week, i) => {
    run = weeks[i - 1] === week - 1 ? run + 1 : 1;
    longest = Math.max(longest, run);
  });
  // A week that is not over yet breaks nothing.
  const isOn = weeks.length > 0 && weekOf(now, offsetMs) - (weeks.at(-1) ?? 0) <= 1;
  return { now: isOn ? run : 0, longest };
}

/** How one student stands to one lesson. */
export interface LessonStanding {
  opened: boolean;
  /** Part of the video that was played, 0 to 1, all visits together. */
  reached: number;
  practisedMs: number;
  /** The last one given; null when none was. */
  effort: number | null;
  scores: EntryOf<'score'>[];
  answers: EntryOf<'answer'>[];
}

/** Nearly all of a video counts as all: the last seconds say goodbye. */
export const FINISHED = 0.95;

/** How a student stands to a lesson by their own entries of it. */
export function standingOf(entries: readonly LogEntry[]): LessonStanding {
  const visits = entries.filter(isOf('reached')).map(({ body }) => body);
  // Another length is another state of the lesson: its stretches do not add up with these.
  const together = [...new Set(visits.map(({ totalMs }) => totalMs))].map((totalMs) => ({
    atMs: 0,
    totalMs,
    seen: visits.flatMap((visit) => (visit.totalMs === totalMs ? (visit.seen ?? []) : [])),
  }));
  const reached = [...together, ...visits].map(seenPart);
  return {
    opened: entries.length > 0,
    reached: Math.max(0, ...reached),
    practisedMs: entries.filter(isOf('practised')).reduce((sum, { body }) => sum + body.ms, 0),
    effort:
      entries
        .filter(isOf('effort'))
        .sort((a, b) => a.at - b.at)
        .at(-1)?.body.value ?? null,
    scores: entries.filter(isOf('score')),
    answers: entries.filter(isOf('answer')),
  };
}
