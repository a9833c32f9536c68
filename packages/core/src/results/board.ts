import type { Side, WeekLevel } from '../lesson/index.ts';
import { byStudent } from './class-view.ts';
import { isDoing, type LogEntry } from './entry.ts';
import { beats, DAY_MS, linesOf, type Line, type LinePoint } from './figures.ts';

/** One exercise on one side: a column of the board. */
export interface BoardColumn {
  id: string;
  title: string;
  side: Side | null;
}

/** Where a student stands in one exercise: the newest number, and how it came there. */
export interface BoardCell {
  line: Line;
  latest: LinePoint;
  /** What is compared, against the time before, better being more; null for the first number. */
  change: number | null;
  /** The newest is better than all before it. */
  isBest: boolean;
}

export interface BoardRow {
  studentId: string;
  /** By the column's id. */
  cells: ReadonlyMap<string, BoardCell>;
  /** Has done something before, and nothing for a while. */
  isQuiet: boolean;
  /** Better than ever in something. */
  hasImproved: boolean;
}

/** Who has done nothing for so long has gone quiet (common practice: two weeks). */
export const QUIET_MS = 14 * DAY_MS;

const columnId = ({ key, side }: Pick<Line, 'key' | 'side'>) => `${key} ${side ?? ''}`;

function cellOf(lines: readonly Line[]): BoardCell | null {
  const [line] = [...lines].sort((a, b) => (b.points.at(-1)?.at ?? 0) - (a.points.at(-1)?.at ?? 0));
  const latest = line?.points.at(-1);
  if (!line || !latest) return null;
  const before = line.points.slice(0, -1);
  const last = before.at(-1);
  const way = line.better === 'more' ? 1 : -1;
  return {
    line,
    latest,
    change: last ? way * (latest.compared - last.compared) : null,
    isBest:
      before.length > 0 &&
      before.every(({ compared }) => beats(line.better, latest.compared, compared)),
  };
}

/**
 * Students by exercises, from all entries of a class.
 * @param keys the exercises shown; all of them when null
 * @param level the form that is looked at; whichever was done last when null
 * @param now the instant it is looked at, in milliseconds
 */
export function boardOf(
  studentIds: readonly string[],
  entries: readonly LogEntry[],
  { keys, level, now }: { keys: ReadonlySet<string> | null; level: WeekLevel | null; now: number },
): { columns: BoardColumn[]; rows: BoardRow[] } {
  const columns = new Map<string, BoardColumn>();
  const all = byStudent(entries);
  const rows = studentIds.map((studentId): BoardRow => {
    const mine = all.get(studentId) ?? [];
    const lines = linesOf(mine).filter(
      (line) => (keys === null || keys.has(line.key)) && (level === null || line.level === level),
    );
    const cells = new Map<string, BoardCell>();
    for (const { key, side, title } of lines) {
      const id = columnId({ key, side });
      columns.set(id, { id, title, side });
      const cell = cellOf(lines.filter((one) => columnId(one) === id));
      if (cell) cells.set(id, cell);
    }
    const lastAt = Math.max(-Infinity, ...mine.filter(isDoing).map(({ at }) => at));
    return {
      studentId,
      cells,
      isQuiet: lastAt > -Infinity && now - lastAt > QUIET_MS,
      hasImproved: [...cells.values()].some(({ isBest }) => isBest),
    };
  });
  const inOrder = [...columns.values()].sort(
    (a, b) => a.title.localeCompare(b.title) || (a.side ?? '').localeCompare(b.side ?? ''),
  );
  return { columns: inOrder, rows };
}
