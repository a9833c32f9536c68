import { MAX_LOG_PAGE, type LogPage, type LogQuery } from '@zest/contract';
import {
  isDoing,
  type ClassSums,
  type EntryBody,
  type LineSum,
  type LogEntry,
} from '@zest/core/results';
import { QueryTypes, type Sequelize } from 'sequelize';
import { readsReplica } from './replicas.ts';

/** Entries stored while a page is asked for may bear an instant before that. */
const OVERLAP_MS = 5_000;
/** ... and what has not come to a replica yet. */
const REPLICA_OVERLAP_MS = 5 * 60_000;

interface StoredEntry {
  id: string;
  studentId: string;
  lessonId: string | null;
  at: Date;
  by: LogEntry['by'];
  body: string;
}

const COLUMNS = 'id, student_id AS studentId, lesson_id AS lessonId, at, made_by AS `by`, body';
/**
 * Entries were checked when they were stored: a year of a class is read without looking at each
 * again.
 */
const entryOf = ({ at, body, ...entry }: StoredEntry): LogEntry => ({
  ...entry,
  at: at.getTime(),
  body: JSON.parse(body) as EntryBody,
});

/** A page of a class's log, the oldest first. */
export async function logPage(
  sequelize: Sequelize,
  classId: string,
  { lesson, student, after, changedSince }: LogQuery,
  most = MAX_LOG_PAGE,
): Promise<LogPage> {
  const asOf = Date.now() - (readsReplica() ? REPLICA_OVERLAP_MS : OVERLAP_MS);
  const [afterAt, afterId] = after === undefined ? [] : (after.split('.', 2) as [string, string]);
  const wanted: readonly (readonly [string, Record<string, unknown>] | false)[] = [
    ['class_id = :classId', { classId }],
    lesson !== undefined && ['lesson_id = :lesson', { lesson }],
    student !== undefined && ['student_id = :student', { student }],
    changedSince !== undefined && ['changed_at >= :changed', { changed: new Date(changedSince) }],
    afterAt !== undefined && [
      'at >= :afterAt AND (at > :afterAt OR id > :afterId)',
      { afterAt: new Date(Number(afterAt)), afterId },
    ],
  ];
  const parts = wanted.filter((part) => part !== false);
  const rows = await sequelize.query<StoredEntry>(
    `SELECT ${COLUMNS} FROM log_entries WHERE ${parts.map(([sql]) => sql).join(' AND ')} ORDER BY at, id LIMIT :most`,
    {
      type: QueryTypes.SELECT,
      replacements: {
        most: most + 1,
        ...(Object.assign({}, ...parts.map(([, values]) => values)) as Record<string, unknown>),
      },
    },
  );
  const shown = rows.slice(0, most);
  const last = shown.at(-1);
  return {
    entries: shown.map(entryOf),
    next: rows.length > most && last ? `${last.at.getTime()}.${last.id}` : null,
    asOf,
  };
}

interface StoredLine extends Omit<LineSum, 'isRate' | 'before' | 'since' | 'best'> {
  isTimed: number;
  mostBefore: number | null;
  leastBefore: number | null;
  mostSince: number | null;
  leastSince: number | null;
  mostRateBefore: number | null;
  leastRateBefore: number | null;
  mostRateSince: number | null;
  leastRateSince: number | null;
}

/**
 * Columns that sum up what came before an instant and since, the value itself and by the second.
 */
const FIGURES = (['Before', 'Since'] as const)
  .flatMap((span) =>
    [['', 'score_value'] as const, ['Rate', 'score_value / score_seconds'] as const].flatMap(
      ([name, value]) =>
        [['most', 'MAX'] as const, ['least', 'MIN'] as const].map(
          ([end, run]) =>
            `${run}(IF(at ${span === 'Since' ? '>=' : '<'} :since, ${value}, NULL)) AS ${end}${name}${span}`,
        ),
    ),
  )
  .join(', ');

function lineOf({
  isTimed,
  mostBefore,
  leastBefore,
  mostSince,
  leastSince,
  mostRateBefore,
  leastRateBefore,
  mostRateSince,
  leastRateSince,
  ...line
}: StoredLine): LineSum {
  // Only what went on for a time has a rate; one without a time among them would not compare.
  const isRate = isTimed === 1 && (line.measure === 'count' || line.measure === 'points');
  const isMore = line.better === 'more';
  const [before, since] = isRate
    ? isMore
      ? [mostRateBefore, mostRateSince]
      : [leastRateBefore, leastRateSince]
    : isMore
      ? [mostBefore, mostSince]
      : [leastBefore, leastSince];
  const all = (isMore ? [mostBefore, mostSince] : [leastBefore, leastSince]).filter(
    (value) => value !== null,
  );
  return { ...line, isRate, before, since, best: isMore ? Math.max(...all) : Math.min(...all) };
}

/**
 * A class's numbers summed up in the database, before and since an instant; who has done something
 * since; what was signed.
 */
export async function classSums(
  sequelize: Sequelize,
  classId: string,
  sinceMs: number,
): Promise<ClassSums> {
  const since = new Date(sinceMs);
  const select = <T extends object>(sql: string) =>
    sequelize.query<T>(sql, { type: QueryTypes.SELECT, replacements: { classId, since } });
  const [lines, doing, reached, signed] = await Promise.all([
    select<StoredLine>(
      `SELECT student_id AS studentId, score_key AS \`key\`, MIN(score_title) AS title,
       MIN(score_measure) AS measure, MIN(score_better) AS better,
       score_side AS side, score_level AS level,
       MIN(IFNULL(score_seconds, 0) > 0) AS isTimed, ${FIGURES}
       FROM log_entries WHERE class_id = :classId AND kind = 'score'
       GROUP BY student_id, score_key, score_side, score_level
       ORDER BY student_id, score_key, score_side, score_level`,
    ),
    select<{ studentId: string }>(
      'SELECT DISTINCT student_id AS studentId FROM log_entries WHERE class_id = ' +
        ":classId AND kind IN ('score', 'practised', 'answer') AND at >= :since",
    ),
    select<StoredEntry>(
      `SELECT ${COLUMNS} FROM log_entries WHERE class_id = :classId AND kind = 'reached' AND at >= :since`,
    ),
    select<StoredEntry>(
      `SELECT ${COLUMNS} FROM log_entries WHERE class_id = :classId AND kind = 'signed'`,
    ),
  ]);
  return {
    lines: lines.map(lineOf),
    doing: [
      ...new Set([
        ...doing.map(({ studentId }) => studentId),
        ...reached
          .map(entryOf)
          .filter(isDoing)
          .map(({ studentId }) => studentId),
      ]),
    ],
    signed: signed
      .map(entryOf)
      .flatMap(({ id, studentId, body }) =>
        body.kind === 'signed'
          ? [{ id, studentId, levelId: body.levelId, criterionId: body.criterionId }]
          : [],
      ),
  };
}
