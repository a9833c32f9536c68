import fc from 'fast-check';
import Papa from 'papaparse';
import { describe, expect, it } from 'vitest';
import { sides, weekLevels } from '../lesson/index.ts';
import { measures, readScores, scoresCsv, type LogEntry } from './index.ts';

const students = [
  { id: 'a', nickname: '@heron' },
  { id: 'b', nickname: 'Kite; "the quick"' },
  { id: 'c', nickname: "'=Tern" },
];
const nicknames = new Map(students.map(({ id, nickname }) => [id, nickname]));
const lessons = new Map([
  ['lesson-1', 'Skip'],
  ['-lesson', '=Throw'],
]);
const known = { students, lessonIds: new Set(lessons.keys()) };
const entry: LogEntry = {
  id: 'e',
  studentId: 'a',
  lessonId: 'lesson-1',
  at: Date.UTC(2026, 10, 2, 8, 30),
  by: 'student',
  body: {
    kind: 'score',
    blockId: 'b',
    key: 'k',
    title: '=SUM(A1), "fast"',
    measure: 'count',
    better: 'more',
    value: 24,
    side: 'left',
    level: 'easier',
    seconds: 30,
  },
};

const text = fc.oneof(
  fc.string({ minLength: 1, maxLength: 30 }),
  fc.constantFrom('=1+1', "'=x", '-5', '@me', 'two\nlines', ' spaced ', '"quoted"', 'a;b,c\td'),
);
const entries = fc.array(
  fc.record({
    id: fc.stringMatching(/^[\w-]{16,20}$/),
    studentId: fc.constantFrom(...nicknames.keys()),
    lessonId: fc.constantFrom(...lessons.keys(), null),
    at: fc.integer({ min: 0, max: Date.UTC(2099, 0, 1) }),
    body: fc.record({
      kind: fc.constant('score' as const),
      blockId: text,
      key: text,
      title: text,
      measure: fc.constantFrom(...measures),
      better: fc.constantFrom('more' as const, 'less' as const),
      value: fc.double({ min: 0.0001, max: 1_000_000, noNaN: true }),
      side: fc.constantFrom(...sides, null),
      level: fc.constantFrom(...weekLevels),
      seconds: fc.option(fc.integer({ min: 1, max: 86_400 })),
    }),
  }),
  { maxLength: 8 },
);

describe('numbers as CSV', () => {
  it('are read by a person and a spreadsheet, with nothing that would run', () => {
    const csv = scoresCsv(
      [entry, { ...entry, id: 'o', body: { kind: 'opened' } }],
      nicknames,
      lessons,
    );
    const { data } = Papa.parse<string[]>(csv);
    expect(data).toHaveLength(2);
    expect(data[1]?.slice(0, 10)).toEqual([
      "'@heron",
      '2026-11-02',
      'Skip',
      '\'=SUM(A1), "fast"',
      'count',
      '24',
      'left',
      'easier',
      '30',
      '0.8',
    ]);
    expect(data.flat().filter((cell) => /^[=+\-@\t\r]/.test(cell))).toEqual([]);
  });

  it('come back as they were', () => {
    fc.assert(
      fc.property(entries, (log) => {
        const csv = scoresCsv(
          log.map((one) => ({ ...one, by: 'student' })),
          nicknames,
          lessons,
        );
        expect(readScores(csv, known)).toEqual({ entries: log, faults: [] });
      }),
    );
  });

  it('come back with semicolons and decimal commas too, and without a lesson that is gone', () => {
    const { data } = Papa.parse<string[]>(
      scoresCsv(
        [{ ...entry, body: { ...entry.body, value: 12.5 } as LogEntry['body'] }],
        nicknames,
        lessons,
      ),
    );
    const csv = Papa.unparse(
      data.map((row, i) => (i === 0 ? row : row.map((cell) => (cell === '12.5' ? '12,5' : cell)))),
      { delimiter: ';' },
    );
    const { entries: back } = readScores(csv, { ...known, lessonIds: new Set() });
    expect(back.map(({ lessonId, body }) => [lessonId, body.value])).toEqual([[null, 12.5]]);
  });

  it('say which line does not fit and why, and refuse another table', () => {
    const lines = scoresCsv([entry, entry, entry], nicknames, lessons).split('\r\n');
    lines[1] = lines[1]?.replace('@heron', 'nobody') ?? '';
    lines[2] = lines[2]?.replace(',24,', ',many,') ?? '';
    const { entries: back, faults } = readScores(lines.join('\n'), known);
    expect(back).toHaveLength(1);
    expect(faults).toEqual([
      { line: 2, say: "nobody in this class is called “'nobody”" },
      { line: 3, say: '“many” cannot stand under “value”' },
    ]);
    expect(() => readScores('nickname,count\nKite,3', known)).toThrow(
      'no column “exercise, measure',
    );
  });
});
