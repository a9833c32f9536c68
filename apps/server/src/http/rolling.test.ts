import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { databaseAddressText } from '../db/address.ts';
import { accepts, freePort } from '../db/mariadb.ts';
import { startBalancer, type TestBalancer } from '../testing/balancer.ts';
import { startRedis, type TestRedis } from '../testing/redis.ts';
import {
  lessonOf,
  testClient,
  testDatabase,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

/** Two web servers as processes of their own, behind a balancer. */
let redis: TestRedis;
/** Makes the database and what is in it; answers nobody. */
let made: TestServer;
let folder: string;
let ports: readonly [number, number];
let balancer: TestBalancer;
const servers = new Map<number, ChildProcess>();

const endOf = (child: ChildProcess) =>
  new Promise<number | null>((resolve) => child.once('exit', (code) => resolve(code)));

async function startWeb(port: number): Promise<void> {
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', path.resolve(import.meta.dirname, '../http-process.ts')],
    {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: {
        ...process.env,
        ZEST_DATA: path.join(folder, String(port)),
        ZEST_DATABASE: databaseAddressText(testDatabase()),
        ZEST_REDIS: redis.address,
        ZEST_PORT: String(port),
        ZEST_SECRET: 'one secret for both of them',
        ZEST_TRUST_PROXY: '127.0.0.1',
        ZEST_LOG: 'error',
      },
    },
  );
  servers.set(port, child);
  await until(
    () => accepts(port),
    (does) => does,
    60_000,
  );
}

beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'zest-test-rolling-'));
  redis = await startRedis();
  made = await testServer();
  ports = [await freePort(), await freePort()];
  for (const port of ports) await startWeb(port);
  balancer = await startBalancer(ports);
});
afterAll(async () => {
  await balancer.stop();
  const all = [...servers.values()];
  const ended = all.map(endOf);
  for (const child of all) child.kill('SIGTERM');
  await Promise.all(ended);
  await made.stop();
  await redis.stop();
  rmSync(folder, { recursive: true, force: true });
});

/** Asks over and over until told to stop; gives every answer that was not the one wanted. */
async function keepAsking(
  ask: () => Promise<{ status: number }>,
  wanted: number,
  stop: AbortSignal,
): Promise<{ asked: number; wrong: unknown[] }> {
  const wrong: unknown[] = [];
  let asked = 0;
  while (!stop.aborted) {
    asked += 1;
    const status = await ask().then(
      (answer) => answer.status,
      (error: unknown) => String(error),
    );
    if (status !== wanted) wrong.push(status);
    await sleep(5);
  }
  return { asked, wrong };
}

it('are restarted one after the other without a request that fails, and without signing in again', async () => {
  const teacher: TestClient = testClient(balancer.origin);
  await teacher.signUp();
  const lesson = await teacher.makeLesson(lessonOf([{ kind: 'talk', script: 'Hello.' }]));
  const { code } = (await teacher.send('POST', `/api/lessons/${lesson.id}/shares`)).body as {
    code: string;
  };
  const stop = new AbortController();
  const student = testClient(balancer.origin);
  let { revision } = lesson;
  const asking = [
    keepAsking(() => student.get(`/api/follow/${code}`), 200, stop.signal),
    keepAsking(() => teacher.get('/api/lessons'), 200, stop.signal),
    keepAsking(
      async () => {
        const saved = await teacher.send('PUT', `/api/lessons/${lesson.id}`, {
          baseRevision: revision,
          lesson: { ...lesson.lesson, title: `Saved after ${revision}` },
        });
        revision = (saved.body as { revision: number }).revision;
        return saved;
      },
      200,
      stop.signal,
    ),
  ];
  for (const port of ports) {
    const old = servers.get(port) as ChildProcess;
    const ended = endOf(old);
    old.kill('SIGTERM');
    expect(await ended).toBe(0);
    await startWeb(port);
    await until(
      () => balancer.isUp(port),
      (is) => is,
      60_000,
    );
  }
  stop.abort();
  for (const { asked, wrong } of await Promise.all(asking)) {
    expect(asked).toBeGreaterThan(20);
    expect(wrong).toEqual([]);
  }
  expect((await teacher.get(`/api/lessons/${lesson.id}`)).body).toMatchObject({
    revision,
    lesson: { title: `Saved after ${revision - 1}` },
  });
});
