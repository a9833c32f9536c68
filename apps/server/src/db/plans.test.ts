import { routes, STUDENT_HEADER, type Route } from '@zest/contract';
import { nanoid } from 'nanoid';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { eraseOld } from './classes.ts';
import { ClassRow } from './log-models.ts';
import { lessonOf, testServer, type TestClient, type TestServer } from '../testing/server.ts';

/** Rows of others in each table that grows with teachers, students, or time. */
const MANY = 20_000;
/** What an installation with so many has besides: of one lesson, class or team there are few. */
const OF_ONE = 20;
/** Reading more rows than this without being led to them is reading the whole table. */
const FEW = 1_000;

let server: TestServer;
let teacher: TestClient;
let ids: Record<string, string>;
let studentToken: string;
/** Queries as they were sent, by the route that did. */
const sent = new Map<string, string>();
let route = '';

interface Column {
  name: string;
  type: string;
  most: number | null;
}

/**
 * What may be read whole, for it grows with teachers and not with students, and is read seldom: each
 * class, to erase what it has kept long enough, and what other takes and exports name, once a lesson
 * was erased.
 */
const MAY = [
  'what was kept long enough reads ClassRow',
  'DELETE /api/lessons/:lessonId reads takes',
  'DELETE /api/lessons/:lessonId reads jobs',
];

/** Fills a table with rows that mean nothing, as many as a large installation has. */
async function grow(table: string, document: string): Promise<void> {
  const columns = await server.sequelize.query<Column>(
    `SELECT column_name AS name, data_type AS type, character_maximum_length AS most
     FROM information_schema.columns
     WHERE table_schema = DATABASE() AND table_name = :table AND extra NOT LIKE '%auto_increment%'
       AND generation_expression IS NULL`,
    { type: QueryTypes.SELECT, replacements: { table } },
  );
  const value = ({ name, type, most }: Column): string => {
    if (/char|text/.test(type)) {
      if (/document|body|input|result|data$/.test(name)) return ':document';
      if (/(owner|team|lesson|class|student|person|subject|author|block|user)_id$/.test(name))
        return `CONCAT('x', seq DIV ${OF_ONE})`;
      return `LEFT(CONCAT('x', seq), ${most ?? 40})`;
    }
    if (/date/.test(type)) return 'NOW() - INTERVAL seq SECOND';
    return `seq MOD ${OF_ONE}`;
  };
  await server.sequelize.transaction(async (transaction) => {
    await server.sequelize.query('SET FOREIGN_KEY_CHECKS = 0', { transaction });
    await server.sequelize.query(
      `INSERT INTO ${table} (${columns.map(({ name }) => name).join(', ')})
       SELECT ${columns.map(value).join(', ')} FROM seq_1_to_${table === 'classes' ? MANY / 10 : MANY}`,
      { transaction, replacements: { document } },
    );
    await server.sequelize.query('SET FOREIGN_KEY_CHECKS = 1', { transaction });
  });
  await server.sequelize.query(`ANALYZE TABLE ${table}`);
}

interface Plan {
  table: string | null;
  type: string | null;
  rows: string | number | null;
}

/** Tables a query reads whole. */
async function readWhole(sql: string): Promise<string[]> {
  const plan = await server.sequelize.query<Plan>(`EXPLAIN ${sql}`, { type: QueryTypes.SELECT });
  return plan.flatMap(({ table, type, rows }) =>
    table !== null && (type === 'ALL' || type === 'index') && Number(rows) > FEW ? [table] : [],
  );
}

/** Of which there is one, or as many as the program has. */
const SMALL = ['settings', 'migrations'];

beforeAll(async () => {
  server = await testServer();
  teacher = server.client();
  await teacher.signUp();
  const lesson = await teacher.makeLesson(lessonOf([{ kind: 'talk', script: 'Hello.' }]));
  const takeId = await teacher.makeTake(lesson.id);
  const made = async (path: string, body: unknown) =>
    (await teacher.send('POST', path, body)).body as Record<string, string>;
  const { id: classId, students } = await teacher.makeClass('Quay', OF_ONE);
  const share = await teacher.shareWith(lesson.id, classId);
  const job = await made(`/api/lessons/${lesson.id}/exports`, {});
  const remote = await made(`/api/lessons/${lesson.id}/remotes`, {});
  const comment = await made(`/api/lessons/${lesson.id}/comments`, {
    ...{ text: 'Look', atMs: null, blockId: null },
  });
  const joined = await made(`/api/follow/${share.code}/students`, { code: students[0]?.code });
  studentToken = joined['token'] ?? '';
  ids = {
    ...{ lessonId: lesson.id, takeId, classId, studentId: students[0]?.id ?? '' },
    ...{ code: share.code, jobId: job['id'] ?? '', remote: remote['remote'] ?? '' },
    ...{ commentId: comment['id'] ?? '', revision: '1', print: 'plan', kind: 'folder' },
  };
  // Of classes it is read how long they keep what comes in.
  const plan = (await ClassRow.findByPk(classId))?.document ?? '';
  const tables = await server.sequelize.query<{ name: string }>(
    'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE()',
    { type: QueryTypes.SELECT },
  );
  const growing = tables.map(({ name }) => name).filter((name) => !SMALL.includes(name));
  for (const table of growing) await grow(table, table === 'classes' ? plan : '{}');
  // The types do not know of it.
  const { options } = server.sequelize as unknown as {
    options: { logging: (line: string) => void };
  };
  options.logging = (line) => {
    const sql = line.replace(/^Executing \([^)]*\): /, '');
    if (/^(SELECT|UPDATE|DELETE)\b/.test(sql)) sent.set(sql.replace(/\?/g, "'x'"), route);
  };
});
afterAll(() => server.stop());

const fill = (path: string) => path.replace(/:(\w+)/g, (_, name: string) => ids[name] ?? name);
const all = Object.values<Route>(routes);

it('notices a query that reads a whole table', async () => {
  expect(await readWhole("SELECT id FROM log_entries WHERE body LIKE '%a%'")).toEqual([
    'log_entries',
  ]);
  expect(await readWhole("SELECT id FROM log_entries WHERE id = 'x7'")).toEqual([]);
});

it('no query of a route reads a table whole that grows', async () => {
  const ask = async ({ method, path }: Route, body?: unknown): Promise<number> => {
    route = `${method} ${path}`;
    const answer = await fetch(server.origin + fill(path), {
      method,
      headers: {
        ...{ origin: server.origin, cookie: teacher.cookie(), [STUDENT_HEADER]: studentToken },
        ...(body !== undefined && { 'content-type': 'application/json' }),
      },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
    // Streams of events do not end.
    await answer.body?.cancel();
    return answer.status;
  };
  for (const one of all.filter(({ method }) => method === 'GET'))
    expect(await ask(one), `${one.path} failed`).not.toBe(500);
  const entries = [{ id: nanoid(), at: Date.now(), body: { kind: 'opened' } }];
  expect(await ask(routes.sendEntries, { entries })).toBe(204);
  const { body: now } = await teacher.get(`/api/lessons/${ids['lessonId']}`);
  const { lesson, revision } = now as { lesson: object; revision: number };
  expect(await ask(routes.saveLesson, { baseRevision: revision, lesson })).toBe(200);
  const changing = all.filter(
    ({ method, path }) => !['GET', 'DELETE'].includes(method) && path !== routes.signIn.path,
  );
  // What lacks something is refused, but after it was looked for.
  for (const one of changing) expect(await ask(one, {}), `${one.path} failed`).not.toBe(500);
  route = 'what was kept long enough';
  expect(await eraseOld()).toBe(0);
  // From the leaves to the root, and last of all out.
  const removing = all
    .filter(({ method }) => method === 'DELETE')
    .sort((a, b) => b.path.length - a.path.length);
  for (const one of removing) expect(await ask(one), `${one.path} failed`).not.toBe(500);

  expect(sent.size).toBeGreaterThan(100);
  expect([...sent.values()]).toContain('what was kept long enough');
  const whole: string[] = [];
  for (const [sql, by] of sent)
    for (const table of await readWhole(sql)) whole.push(`${by} reads ${table}: ${sql}`);
  expect(whole.filter((one) => !MAY.some((may) => one.startsWith(`${may}:`)))).toEqual([]);
});
