import { byStudent } from './class-view.ts';
import { isDoing, isOf, type LogEntry, type SkipReason } from './entry.ts';
import { groupBy } from './group.ts';
import { linesOf, weekOf, weekStart, type Line } from './figures.ts';

/** Whether a student did something in a week, only looked, or was not there. */
export type Came = 'did' | 'looked' | 'away';

/** How a class came on in one exercise, each student against their own beginning. */
export interface TermGrowth extends Pick<Line, 'key' | 'title'> {
  /** Measured more than once, and of them those whose newest number is better than their first. */
  students: number;
  better: number;
  /** The middle one of their changes, as a part of the beginning: 0.2 is a fifth better. */
  change: number;
  /**
   * The middle one in each week, as a part of the own beginning, better upwards; null where nobody
   * was measured.
   */
  byWeek: (number | null)[];
}

/** What students left out because it was too hard or hurt, by its title, whatever the lesson. */
export interface TermHard {
  title: string;
  /** Where it was left out last. */
  blockId: string;
  lessonId: string | null;
  reason: Extract<SkipReason, 'it hurts' | 'too hard'>;
  students: number;
  /** Who had opened one of its lessons. */
  of: number;
}

/** A term of a class at a glance. */
export interface Term {
  /** When each week begins, in milliseconds, the oldest first. */
  weeks: number[];
  came: { studentId: string; byWeek: Came[] }[];
  grew: TermGrowth[];
  hard: TermHard[];
  /** Mean of the efforts felt, 1 to 5; null where nobody said. */
  effort: (number | null)[];
}

/** A term is no longer; what lies before it is history. */
const MOST_WEEKS = 20;

const middle = (values: readonly number[]): number => {
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length / 2;
  const [low = 0, high = 0] = [sorted[Math.ceil(half) - 1], sorted[Math.floor(half)]];
  return (low + high) / 2;
};

/** How much better a number is than the first, as a part of it: 1 is as good. */
const partOf = ({ better }: Line, first: number, compared: number): number | null => {
  const [above, below] = better === 'more' ? [compared, first] : [first, compared];
  return below > 0 ? above / below : null;
};

const countStudents = (of: readonly { studentId: string }[]): number =>
  new Set(of.map(({ studentId }) => studentId)).size;

/** The line of an exercise that says most of a student: the side and form with most numbers. */
const fullest = (lines: readonly Line[]): Line | undefined =>
  lines.reduce<Line | undefined>(
    (most, line) => (!most || line.points.length > most.points.length ? line : most),
    undefined,
  );

function growthOf(
  { key, title }: Line,
  students: readonly Line[],
  placeOf: (at: number) => number,
  weeks: number,
): TermGrowth | null {
  const byWeek: number[][] = Array.from({ length: weeks }, () => []);
  const changes = students.flatMap((line) => {
    const [first, ...later] = line.points;
    if (!first || later.length === 0) return [];
    for (const { at, compared } of line.points) {
      const part = partOf(line, first.compared, compared);
      if (part !== null) byWeek[placeOf(at)]?.push(part);
    }
    const part = partOf(line, first.compared, later.at(-1)?.compared ?? first.compared);
    return part === null ? [] : [part - 1];
  });
  return changes.length === 0
    ? null
    : {
        ...{ key, title, students: changes.length, change: middle(changes) },
        better: changes.filter((change) => change > 0).length,
        byWeek: byWeek.map((parts) => (parts.length > 0 ? middle(parts) : null)),
      };
}

/** Who left what out, as too hard or because it hurt; what hurt first, then by how many. */
function hardOf(entries: readonly LogEntry[]): TermHard[] {
  const openedBy = groupBy(entries, ({ lessonId }) => lessonId);
  const left = entries.filter(isOf('skipped')).flatMap(({ body, ...entry }) => {
    const { reason } = body;
    return reason === 'it hurts' || reason === 'too hard' ? [{ ...entry, ...body, reason }] : [];
  });
  const hard = [...groupBy(left, ({ title, reason }) => `${reason} ${title}`).values()].flatMap(
    (same): TermHard[] => {
      const last = same.reduce((newest, one) => (one.at > newest.at ? one : newest));
      const lessons = [...new Set(same.map(({ lessonId }) => lessonId))];
      const { title, blockId, lessonId, reason } = last;
      const of = lessons.flatMap((lesson) => openedBy.get(lesson) ?? []);
      return [
        { title, blockId, lessonId, reason, students: countStudents(same), of: countStudents(of) },
      ];
    },
  );
  return hard.sort(
    (a, b) =>
      Number(b.reason === 'it hurts') - Number(a.reason === 'it hurts') ||
      b.students - a.students ||
      a.title.localeCompare(b.title),
  );
}

/**
 * A class's term from its entries: who came, what grew, what was too hard. It goes from the first
 * entry's week to this one, and over at most twenty weeks.
 * @param now the instant it is looked at, in milliseconds
 * @param offsetMs what local time is ahead of UTC
 */
export function termOf(
  studentIds: readonly string[],
  entries: readonly LogEntry[],
  { now, offsetMs = 0 }: { now: number; offsetMs?: number },
): Term {
  const thisWeek = weekOf(now, offsetMs);
  const earliest = entries.reduce((least, { at }) => Math.min(least, at), now);
  const first = Math.max(weekOf(earliest, offsetMs), thisWeek - MOST_WEEKS + 1);
  const weeks = Array.from({ length: thisWeek - first + 1 }, (_, i) =>
    weekStart(now, thisWeek - first - i, offsetMs),
  );
  const placeOf = (at: number) => weekOf(at, offsetMs) - first;
  const within = entries.filter(({ at }) => placeOf(at) >= 0 && placeOf(at) < weeks.length);
  const all = byStudent(within);
  const came = studentIds.map((studentId) => {
    const byWeek = weeks.map((): Came => 'away');
    for (const entry of all.get(studentId) ?? []) {
      const place = placeOf(entry.at);
      if (isDoing(entry)) byWeek[place] = 'did';
      else if (entry.body.kind !== 'signed' && byWeek[place] === 'away') byWeek[place] = 'looked';
    }
    return { studentId, byWeek };
  });
  const lines = studentIds.map((id) => linesOf(all.get(id) ?? []));
  const keys = new Map(lines.flat().map((line) => [line.key, line]));
  const grew = [...keys.values()].flatMap((line): TermGrowth[] => {
    const each = lines.flatMap((own) => fullest(own.filter(({ key }) => key === line.key)) ?? []);
    const growth = growthOf(line, each, placeOf, weeks.length);
    return growth ? [growth] : [];
  });
  const efforts: number[][] = weeks.map(() => []);
  for (const { at, body } of within.filter(isOf('effort'))) efforts[placeOf(at)]?.push(body.value);
  return {
    weeks,
    came,
    grew: grew.sort((a, b) => b.change - a.change || a.title.localeCompare(b.title)),
    hard: hardOf(within),
    effort: efforts.map((values) =>
      values.length > 0 ? values.reduce((sum, value) => sum + value, 0) / values.length : null,
    ),
  };
}
