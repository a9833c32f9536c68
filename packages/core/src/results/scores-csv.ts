import Papa from 'papaparse';
import { sides, weekLevels } from '../lesson/index.ts';
import { teacherText } from '../words/index.ts';
import { isOf, measures, type EntryOf, type LogEntry } from './entry.ts';
import { comparedOf } from './figures.ts';
import { readNumber } from './words.ts';

/** What a person reads first; then what it takes to bring a line back as it was. */
const COLUMNS = [
  'nickname',
  'day',
  'lesson',
  'exercise',
  'measure',
  'value',
  'side',
  'level',
  'seconds',
  'a second',
  'at',
  'better',
  'key',
  'block',
  'lesson id',
  'entry',
] as const;
type Column = (typeof COLUMNS)[number];
const NEEDED: readonly Column[] = COLUMNS.filter(
  (name) => name !== 'day' && name !== 'lesson' && name !== 'a second',
);

/** A cell that a spreadsheet would take for a formula is told to be text. */
const guarded = (text: string) => (/^'*[=+\-@\t\r]/.test(text) ? `'${text}` : text);
const unguarded = (cell: string) => (/^'+[=+\-@\t\r]/.test(cell) ? cell.slice(1) : cell);

/**
 * Every number of a class as CSV: who, when, which lesson, what was reached, by the second where
 * that compares, and what `readScores` brings it back by.
 */
export function scoresCsv(
  entries: readonly LogEntry[],
  nicknames: ReadonlyMap<string, string>,
  lessons: ReadonlyMap<string, string>,
): string {
  const rows = entries
    .filter(isOf('score'))
    .map(({ id, studentId, lessonId, at, body }) => [
      ...[
        guarded(nicknames.get(studentId) ?? ''),
        new Date(at).toISOString().slice(0, 10),
        guarded(lessons.get(lessonId ?? '') ?? ''),
        guarded(body.title),
      ],
      ...[body.measure, body.value, body.side ?? '', body.level, body.seconds ?? ''],
      body.seconds === null || body.measure === 'time' || body.measure === 'streak'
        ? ''
        : Number(comparedOf(body).toFixed(3)),
      ...[
        new Date(at).toISOString(),
        body.better,
        guarded(body.key),
        guarded(body.blockId),
        guarded(lessonId ?? ''),
        guarded(id),
      ],
    ]);
  return Papa.unparse({ fields: [...COLUMNS], data: rows });
}

/** Whom and which lessons a saved table may speak of. */
interface Known {
  students: readonly { id: string; nickname: string }[];
  lessonIds: ReadonlySet<string>;
}

/**
 * The numbers of a table saved by `scoresCsv`, as they were: a student is known by the nickname; of
 * a lesson that is gone the number stays. Lines that do not fit are told; the first below the
 * heading is line 2.
 * @throws Error where it is no such table
 */
export function readScores(
  csv: string,
  { students, lessonIds }: Known,
): { entries: Omit<EntryOf<'score'>, 'by'>[]; faults: { line: number; say: string }[] } {
  const { data } = Papa.parse<string[]>(csv.replace(/^\uFEFF/, ''), { skipEmptyLines: true });
  const [header = [], ...rows] = data;
  const places = new Map(header.map((name, i) => [name.trim(), i]));
  const missing = NEEDED.filter((name) => !places.has(name));
  if (missing.length > 0)
    throw new Error(teacherText('table.not-saved', { columns: missing.join(', ') }));
  const byNickname = new Map(students.map(({ id, nickname }) => [nickname.toLowerCase(), id]));
  const entries: Omit<EntryOf<'score'>, 'by'>[] = [];
  const faults: { line: number; say: string }[] = [];
  rows.forEach((row, i) => {
    const cell = (name: Column) => row[places.get(name) ?? -1] ?? '';
    const text = (name: Column) => unguarded(cell(name));
    const one = <T extends string>(name: Column, choices: readonly T[]) =>
      choices.find((choice) => choice === cell(name));
    const [studentId, at, value, seconds] = [
      byNickname.get(text('nickname').toLowerCase()),
      Date.parse(cell('at')),
      readNumber(cell('value')),
      cell('seconds') === '' ? null : readNumber(cell('seconds')),
    ];
    const [measure, level, better, side] = [
      one('measure', measures),
      one('level', weekLevels),
      one('better', ['more', 'less']),
      cell('side') === '' ? null : one('side', sides),
    ];
    const wrong = (
      [
        ['at', !Number.isFinite(at)],
        ['value', value === null],
        ['seconds', seconds === null && cell('seconds') !== ''],
        ['measure', measure === undefined],
        ['level', level === undefined],
        ['better', better === undefined],
        ['side', side === undefined],
      ] as const
    ).find(([, isWrong]) => isWrong)?.[0];
    if (studentId === undefined)
      faults.push({ line: i + 2, say: teacherText('table.nobody', { who: text('nickname') }) });
    else if (
      wrong !== undefined ||
      !measure ||
      !level ||
      !better ||
      side === undefined ||
      value === null
    )
      faults.push({
        line: i + 2,
        say: teacherText('table.cannot-stand', {
          cell: cell(wrong ?? 'value'),
          column: wrong ?? 'value',
        }),
      });
    else {
      const body = {
        kind: 'score',
        blockId: text('block'),
        key: text('key'),
        title: text('exercise'),
        measure,
        better,
        value,
        side,
        level,
        seconds,
      } as const;
      entries.push({
        id: text('entry'),
        studentId,
        lessonId: lessonIds.has(text('lesson id')) ? text('lesson id') : null,
        at,
        body,
      });
    }
  });
  return { entries, faults };
}
