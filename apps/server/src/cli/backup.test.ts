import { appendFileSync, existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { usualRule } from '@zest/core/results';
import { QueryTypes, Sequelize } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { addStudents, createClass, keepEntries } from '../db/classes.ts';
import { countRows } from '../db/dump.ts';
import { startMariaDb } from '../db/mariadb.ts';
import { diskStore, hashFile } from '../media/store.ts';
import { footageFolder } from '../testing/footage.ts';
import {
  testDatabase,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';
import { backUp, keepNewest, restore } from './backup.ts';
import { secretsOf } from './installation.ts';

const footage = footageFolder();
let server: TestServer;
let teacher: TestClient;
let folder: string;
const to = () => path.join(folder, 'backups');
const run = () => backUp(server.sequelize, testDatabase(), server.store, to());

beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'zest-backup-'));
  server = await testServer();
  teacher = server.client();
  const teamId = await teacher.signUp();
  void server.startWorker();
  footage.make('clip.mp4', 2, ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p'], {
    size: '320x180',
  });
  const { id } = await teacher.makeLesson();
  await teacher.upload(await teacher.makeTake(id), footage.read('clip.mp4'));
  await until(
    async () => (await teacher.get(`/api/lessons/${id}/takes`)).body as { state: string }[],
    (takes) => takes.every(({ state }) => state === 'ready'),
  );
  const schoolClass = await createClass(teamId, {
    name: 'Otters “élan” 🤸',
    keepWeeks: 40,
    rule: usualRule,
    credits: [],
  });
  const [student] = await addStudents(server.sequelize, schoolClass, { count: 3 });
  await keepEntries(schoolClass, 'student', [
    {
      id: 'entry-entry-entry-1',
      studentId: student?.id ?? '',
      lessonId: id,
      at: Date.UTC(2026, 10, 2),
      body: { kind: 'effort', value: 3 },
    },
  ]);
});
afterAll(async () => {
  await server.stop();
  footage.remove();
  rmSync(folder, { recursive: true, force: true });
});

/** All rows of the tables that matter, as they are stored. */
const contents = (database: Sequelize) =>
  Promise.all(
    ['lessons', 'lesson_revisions', 'takes', 'students', 'log_entries'].map(async (table) =>
      (await database.query(`SELECT * FROM ${table}`, { type: QueryTypes.SELECT }))
        .map((row) => JSON.stringify(row))
        .sort(),
    ),
  );

describe('a backup', () => {
  it(
    'restored into an empty folder has every row and every file as they were, ' +
      'whatever was written meanwhile',
    async () => {
      const before = {
        rows: await countRows(server.sequelize),
        contents: await contents(server.sequelize),
      };
      // Somebody works on while it is made; either all of a change is in it or nothing.
      const working = Promise.all(Array.from({ length: 10 }, () => teacher.makeLesson()));
      const made = await run();
      await working;
      const dataDir = path.join(folder, 'restored');
      await restore(made.folder, dataDir, () => undefined);
      const { dbPassword } = secretsOf(dataDir);
      const db = await startMariaDb(path.join(dataDir, 'db'), dbPassword);
      const restored = new Sequelize('zest', 'zest', dbPassword, {
        dialect: 'mysql',
        host: '127.0.0.1',
        port: db.port,
        logging: false,
        timezone: '+00:00',
      });
      try {
        const rows = await countRows(restored);
        for (const table of ['takes', 'students', 'classes', 'log_entries', 'users', 'jobs'])
          expect([table, rows[table]]).toEqual([table, before.rows[table]]);
        expect(rows['lessons']).toBe(rows['lesson_revisions']);
        expect(rows['lessons']).toBeGreaterThanOrEqual(before.rows['lessons'] ?? 0);
        const after = await contents(restored);
        before.contents.forEach((list, i) =>
          expect(after[i]).toEqual(expect.arrayContaining(list)),
        );
        const store = diskStore(path.join(dataDir, 'media'));
        const takes = await restored.query<Record<string, string | null>>(
          'SELECT original_sha, working_sha, thumbs_sha, wave_sha FROM takes',
          { type: QueryTypes.SELECT },
        );
        const shas = takes.flatMap((take) => Object.values(take)).filter((sha) => sha !== null);
        expect(shas.length).toBeGreaterThan(2);
        for (const sha of shas) expect(await hashFile(store.pathOf(sha))).toBe(sha);
      } finally {
        await restored.close();
        await db.stop();
      }
    },
  );

  it('shares its media with the next one, and goes with them when it is too old', async () => {
    const second = await run();
    expect(second.known).toBe(second.files);
    await keepNewest(to(), 1);
    expect(readdirSync(path.join(to(), 'states'))).toEqual([path.basename(second.folder)]);
    await restore(second.folder, path.join(folder, 'again'), () => undefined);
  });

  it('is refused in words when it is damaged, missing or would write over something', async () => {
    const made = await run();
    const fresh = () => path.join(folder, `new-${Math.random()}`);
    await expect(restore(made.folder, path.join(folder, 'again'), () => undefined)).rejects.toThrow(
      'is not empty',
    );
    await expect(restore(folder, fresh(), () => undefined)).rejects.toThrow('is no backup');
    const media = path.join(to(), 'media');
    const [some = ''] = readdirSync(media, { recursive: true, encoding: 'utf8' }).filter(
      (name) => name.length > 60,
    );
    appendFileSync(path.join(media, some), 'x');
    const target = fresh();
    await expect(restore(made.folder, target, () => undefined)).rejects.toThrow('is damaged');
    expect(existsSync(path.join(target, 'db'))).toBe(false);
    appendFileSync(path.join(made.folder, 'database.sql.gz'), 'x');
    await expect(restore(made.folder, fresh(), () => undefined)).rejects.toThrow('database');
  });
});
