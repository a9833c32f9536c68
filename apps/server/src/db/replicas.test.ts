import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { nanoid } from 'nanoid';
import { Sequelize } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  lessonOf,
  testDatabase,
  testServer,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';
import { ownDatabase } from './address.ts';
import { dumpDatabase, loadDump } from './dump.ts';
import { startMariaDb, type MariaDb } from './mariadb.ts';

const PASSWORD = 'only-for-tests';
let folder: string;
/** A database that followed until it stopped doing so: what it says differs from the main one. */
let replica: MariaDb;
let server: TestServer;
let teacher: TestClient;
let ids: { lessonId: string; code: string; classId: string; studentId: string };

const entry = () => ({
  ...{ id: nanoid(), at: Date.now(), studentId: ids.studentId, lessonId: null },
  body: { kind: 'opened' },
});
const addEntry = () =>
  teacher.send('POST', `/api/classes/${ids.classId}/entries`, { entries: [entry()] });
const titleFor = async (code: string, as = '') =>
  (await server.client().get(`/api/follow/${code}${as}`)).body.title as string;
const entriesSeen = async () =>
  ((await teacher.get(`/api/classes/${ids.classId}/log`)).body.entries as unknown[]).length;

beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'zest-test-replica-'));
  replica = await startMariaDb(path.join(folder, 'db'), PASSWORD, ['copy']);
  const copy = ownDatabase(replica.port, PASSWORD, 'copy');
  server = await testServer({ config: { dbReplicas: [copy] } });
  teacher = server.client();
  await teacher.signUp();
  const lesson = await teacher.makeLesson({
    ...lessonOf([{ kind: 'talk', script: 'Hello.' }]),
    title: 'From the main one',
  });
  const { id: classId, students } = await teacher.makeClass('Quay', 1);
  const { code } = await teacher.shareWith(lesson.id, classId);
  ids = { lessonId: lesson.id, classId, studentId: students[0]?.id ?? '', code };
  await addEntry();
  const file = path.join(folder, 'dump.sql.gz');
  await dumpDatabase(testDatabase(), file);
  await loadDump(copy, file);
  const beside = new Sequelize('copy', 'zest', PASSWORD, {
    ...{ dialect: 'mysql', host: '127.0.0.1', port: replica.port, logging: false },
  });
  await beside.query(
    "UPDATE lesson_revisions SET document = REPLACE(document, 'From the main one', 'From the replica')",
  );
  await beside.close();
  await addEntry();
});
afterAll(async () => {
  await server.stop();
  await replica.stop();
  rmSync(folder, { recursive: true, force: true });
});

describe('with a replica', () => {
  it('students’ lessons and reports are read there, all else from the main one', async () => {
    expect(await titleFor(ids.code)).toBe('From the replica');
    expect(await entriesSeen()).toBe(1);
    const mine = await teacher.get(`/api/lessons/${ids.lessonId}`);
    expect(mine.body.lesson.title).toBe('From the main one');
  });

  it('a page that reads on is given what comes late, too', async () => {
    const { asOf } = (await teacher.get(`/api/classes/${ids.classId}/log`)).body as {
      asOf: number;
    };
    expect(Date.now() - asOf).toBeGreaterThan(60_000);
  });

  it('what it does not have yet is read from the main one', async () => {
    const lesson = await teacher.makeLesson({
      ...lessonOf([{ kind: 'talk', script: 'New.' }]),
      title: 'Made just now',
    });
    const { code } = await teacher.shareWith(lesson.id, ids.classId);
    expect(await titleFor(code)).toBe('Made just now');
  });

  it('while it is away everything is read from the main one', async () => {
    await replica.stop();
    // Told in another way, for it is cut once in each.
    expect(await titleFor(ids.code, '?hand=other')).toBe('From the main one');
    expect(await entriesSeen()).toBe(2);
  });
});
