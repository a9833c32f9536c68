import type { Side, WeekLevel } from '../lesson/index.ts';
import type { Score } from './entry.ts';
import { beats, type Line } from './figures.ts';

/**
 * One student's exercise, side and form, measured one way, summed up to two figures: the best
 * before an instant, and since.
 */
export interface LineSum extends Pick<Score, 'key' | 'title' | 'measure' | 'better'> {
  studentId: string;
  side: Side | null;
  level: WeekLevel;
  /** Whether the two are by the second. */
  isRate: boolean;
  /** Null where there is none. */
  before: number | null;
  since: number | null;
  /** The best number itself, of all time. */
  best: number;
}

/** A class's numbers, summed up where they lie. */
export interface ClassSums {
  lines: LineSum[];
  /** Students who have done something since the instant. */
  doing: string[];
  signed: { id: string; studentId: string; levelId: string; criterionId: string }[];
}

/** What is worth saying to whom about the last weeks. */
export interface PraiseList {
  /** Did something. */
  tried: string[];
  /** Beat their own best of before. */
  improved: {
    studentId: string;
    line: Pick<Line, 'title' | 'measure' | 'isRate'>;
    from: number;
    to: number;
  }[];
  /** Did nothing for as long; they may need a word, not a reproof. */
  quiet: string[];
}

/** Praises effort and one's own progress; nobody is compared with anybody else. */
export function praiseList(
  students: readonly string[],
  { lines, doing }: Pick<ClassSums, 'lines' | 'doing'>,
): PraiseList {
  const has = new Set(doing);
  const improved = lines.flatMap(({ studentId, before, since, ...line }) =>
    has.has(studentId) && before !== null && since !== null && beats(line.better, since, before)
      ? [{ studentId, line, from: before, to: since }]
      : [],
  );
  const place = new Map(students.map((id, i) => [id, i]));
  return {
    tried: students.filter((id) => has.has(id)),
    improved: improved
      .filter(({ studentId }) => place.has(studentId))
      .sort((a, b) => (place.get(a.studentId) ?? 0) - (place.get(b.studentId) ?? 0)),
    quiet: students.filter((id) => !has.has(id)),
  };
}
