import type { Class, Student } from '@zest/contract';
import {
  comparedOf,
  isDoing,
  isOf,
  linesOf,
  usualRule,
  type EntryBody,
  type LogEntry,
} from '@zest/core/results';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lessonOf, testServer, type TestClient, type TestServer } from '../testing/server.ts';
import { classSums, logPage } from './class-log.ts';
import { keepEntries } from './classes.ts';
import { ClassRow, LogEntryRow } from './log-models.ts';

const DAY = 86_400_000;
const FROM = Date.UTC(2026, 8, 7);
const SINCE = FROM + 30 * DAY;

let server: TestServer;
let teacher: TestClient;
let schoolClass: ClassRow;
let students: Student[];
let lessons: string[];

beforeAll(async () => {
  server = await testServer();
  teacher = server.client();
  await teacher.signUp();
  const made = (
    await teacher.send('POST', '/api/classes', {
      name: 'Otters',
      keepWeeks: 40,
      rule: usualRule,
      credits: [],
    })
  ).body as Class;
  schoolClass = await ClassRow.findByPk(made.id, { rejectOnEmpty: true });
  students = (await teacher.send('POST', `/api/classes/${schoolClass.id}/students`, { count: 3 }))
    .body as Student[];
  lessons = await Promise.all(
    [1, 2].map(
      async () =>
        (await teacher.makeLesson(lessonOf([{ kind: 'talk', title: 'Hello', script: 'Hello.' }])))
          .id,
    ),
  );
});
afterAll(() => server.stop());

/** What a key is measured by never changes; keys apart by a capital are apart. */
const exercises = [
  { key: 'skip count', title: 'Skip', measure: 'count', better: 'more' },
  { key: 'Skip count', title: 'Skip!', measure: 'count', better: 'more' },
  { key: 'run', title: 'Läufer “5”', measure: 'time', better: 'less' },
  { key: 'throw', title: 'Throw', measure: 'points', better: 'more' },
] as const;
const score = fc
  .record({
    exercise: fc.constantFrom(...exercises),
    value: fc.integer({ min: 0, max: 400 }).map((n) => n / 4),
    side: fc.constantFrom('left' as const, 'right' as const, null),
    level: fc.constantFrom('easier' as const, 'standard' as const),
    seconds: fc.constantFrom(20, 30, null),
  })
  .map(({ exercise, ...more }): EntryBody => ({
    kind: 'score',
    blockId: 'b',
    ...exercise,
    ...more,
  }));
const other = fc.constantFrom<EntryBody>(
  { kind: 'opened' },
  { kind: 'practised', blockId: 'b', ms: 9_000 },
  { kind: 'effort', value: 3 },
  { kind: 'reached', atMs: 9_000, totalMs: 10_000, seen: [[0, 9_000]] },
  { kind: 'reached', atMs: 9_000, totalMs: 10_000, seen: [[8_000, 9_000]] },
  { kind: 'signed', levelId: 'l', criterionId: 'c' },
);
const logs = fc.array(
  fc.record({
    who: fc.nat(2),
    lesson: fc.nat(2),
    at: fc.integer({ min: 0, max: 60 * 24 }).map((hours) => FROM + hours * 3_600_000),
    body: fc.oneof(score, other),
  }),
  { maxLength: 40 },
);

/** Stores a log in place of the one before. */
async function stored(
  log: { who: number; lesson: number; at: number; body: EntryBody }[],
): Promise<LogEntry[]> {
  await LogEntryRow.destroy({ where: { classId: schoolClass.id } });
  const entries = log.map(({ who, lesson, at, body }, i) => ({
    id: `entry-${String(i).padStart(12, '0')}`,
    studentId: students[who]?.id ?? '',
    lessonId: lessons[lesson] ?? null,
    at,
    body,
  }));
  if (entries.length > 0) await keepEntries(schoolClass, 'student', entries);
  return entries.map((entry) => ({ ...entry, by: 'student' }));
}

describe('the log of a class', () => {
  it('is summed up in the database as the core sums it up', async () => {
    await fc.assert(
      fc.asyncProperty(logs, async (log) => {
        const entries = await stored(log);
        const sums = await classSums(server.sequelize, schoolClass.id, SINCE);
        const wanted = students.flatMap(({ id }) => {
          const mine = entries.filter(({ studentId }) => studentId === id);
          return linesOf(mine).map(({ key, side, level, isRate, better }) => {
            const scores = mine
              .filter(isOf('score'))
              .filter(({ body }) => body.key === key && body.side === side && body.level === level);
            const best = (values: number[]) =>
              values.length === 0
                ? null
                : better === 'more'
                  ? Math.max(...values)
                  : Math.min(...values);
            const figure = (isSince: boolean) =>
              best(
                scores
                  .filter(({ at }) => at >= SINCE === isSince)
                  .map(({ body }) => (isRate ? comparedOf(body) : body.value)),
              );
            return [
              id,
              key,
              side,
              level,
              isRate,
              figure(false),
              figure(true),
              best(scores.map(({ body }) => body.value)),
            ];
          });
        });
        const names = (rows: unknown[][]) => rows.map((row) => JSON.stringify(row)).sort();
        expect(
          names(
            sums.lines.map(({ studentId, key, side, level, isRate, before, since, best }) => [
              studentId,
              key,
              side,
              level,
              isRate,
              before,
              since,
              best,
            ]),
          ),
        ).toEqual(names(wanted));
        expect([...sums.doing].sort()).toEqual(
          [
            ...new Set(
              entries
                .filter((entry) => entry.at >= SINCE && isDoing(entry))
                .map(({ studentId }) => studentId),
            ),
          ].sort(),
        );
        expect(sums.signed).toHaveLength(entries.filter(isOf('signed')).length);
      }),
      { numRuns: 15 },
    );
  });

  it('comes in pages that miss nothing and repeat nothing, of a lesson or a student too', async () => {
    const log = fc.sample(logs, 12).flat();
    const entries = (await stored(log)).sort((a, b) => a.at - b.at || (a.id < b.id ? -1 : 1));
    for (const [wanted, isWanted] of [
      [{}, () => true],
      [{ lesson: lessons[0] }, ({ lessonId }: LogEntry) => lessonId === lessons[0]],
      [{ student: students[1]?.id }, ({ studentId }: LogEntry) => studentId === students[1]?.id],
    ] as const) {
      const seen: LogEntry[] = [];
      let after: string | undefined;
      do {
        const page = await logPage(server.sequelize, schoolClass.id, { ...wanted, after }, 7);
        expect(page.entries.length).toBeLessThanOrEqual(7);
        seen.push(...page.entries);
        after = page.next ?? undefined;
      } while (after !== undefined);
      expect(seen).toEqual(entries.filter(isWanted));
    }
  });

  it('gives what has changed since, what grew among it, and refuses what it cannot read', async () => {
    await stored([{ who: 0, lesson: 0, at: FROM, body: { kind: 'opened' } }]);
    const { asOf } = await logPage(server.sequelize, schoolClass.id, {});
    await server.sequelize.query(
      'UPDATE log_entries SET changed_at = changed_at - INTERVAL 1 HOUR',
    );
    expect(
      (await logPage(server.sequelize, schoolClass.id, { changedSince: asOf })).entries,
    ).toEqual([]);
    const visit = {
      id: 'visit-0000000000',
      studentId: students[0]?.id ?? '',
      lessonId: lessons[0] ?? null,
      at: FROM,
    };
    await keepEntries(schoolClass, 'student', [
      { ...visit, body: { kind: 'reached', atMs: 1_000, totalMs: 10_000 } },
    ]);
    await server.sequelize.query(
      'UPDATE log_entries SET changed_at = changed_at - INTERVAL 1 HOUR',
    );
    await keepEntries(schoolClass, 'student', [
      { ...visit, body: { kind: 'reached', atMs: 5_000, totalMs: 10_000 } },
    ]);
    expect(
      (await logPage(server.sequelize, schoolClass.id, { changedSince: asOf })).entries.map(
        ({ body }) => body,
      ),
    ).toEqual([{ kind: 'reached', atMs: 5_000, totalMs: 10_000 }]);
    expect(
      (await teacher.get(`/api/classes/${schoolClass.id}/log?after=yesterday`)).body.message,
    ).toBe('Go on from what the page before gave.');
    expect((await teacher.get(`/api/classes/${schoolClass.id}/sums`)).body.message).toContain(
      'since when',
    );
  });
});
