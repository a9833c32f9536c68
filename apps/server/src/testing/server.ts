import { createHash } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import http from 'node:http';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { makeBlock, makeLesson, type Block, type Lesson } from '@zest/core/lesson';
import { QueryTypes, type Sequelize } from 'sequelize';
import { inject } from 'vitest';
import { PASSWORD, testClient, type TestClient } from './client.ts';
import { foldersOf, type Config } from '../config.ts';
import { ownDatabase, type DatabaseAddress } from '../db/address.ts';
import { connect } from '../db/connect.ts';
import { migrate } from '../db/migrations.ts';
import { makeApp, type AppTools } from '../http/app.ts';
import { openHub } from '../hub/open.ts';
import { openJobs } from '../jobs/open.ts';
import { work } from '../jobs/worker.ts';
import { answerEachInTheirs } from '../language.ts';
import { jobKinds } from '../db/models.ts';
import type { Log } from '../log.ts';
import { openStore } from '../media/open.ts';
import { diskStore } from '../media/store.ts';
import { WorkerMetrics } from '../metrics.ts';

export { PASSWORD, takeMetadata, testClient, type TestClient } from './client.ts';

/** The database of this worker. */
export function testDatabase(): DatabaseAddress {
  const { names, port, password } = inject('db');
  const name = names[Number(process.env['VITEST_POOL_ID']) - 1];
  if (!name) throw new Error('There is no database for this worker.');
  return ownDatabase(port, password, name);
}

async function empty(sequelize: Sequelize): Promise<void> {
  const tables = await sequelize.query<{ name: string }>(
    'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = DATABASE()',
    { type: QueryTypes.SELECT },
  );
  // One connection, for the setting is the connection's own.
  await sequelize.transaction(async (transaction) => {
    await sequelize.query('SET FOREIGN_KEY_CHECKS = 0', { transaction });
    for (const { name } of tables) await sequelize.query(`DROP TABLE ${name}`, { transaction });
    await sequelize.query('SET FOREIGN_KEY_CHECKS = 1', { transaction });
  });
}

const KEEP_ALIVE_MS = 600_000;

async function listening(app: http.RequestListener) {
  // A test that lets ffmpeg work for long must find its connection as it left it.
  const server = http.createServer({ keepAliveTimeout: KEEP_ALIVE_MS }, app);
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return { server, origin: `http://127.0.0.1:${(server.address() as AddressInfo).port}` };
}

async function ended(server: http.Server): Promise<void> {
  server.closeAllConnections();
  await new Promise((resolve) => server.close(resolve));
}

/**
 * A real server on real MariaDB with an empty data folder; `log` collects what it would tell an
 * operator.
 */
export async function testServer(
  options: Partial<Pick<AppTools, 'freeBytes'>> & { demo?: boolean; config?: Partial<Config> } = {},
) {
  const dataDir = mkdtempSync(path.join(os.tmpdir(), 'zest-test-'));
  const db = testDatabase();
  const config: Config = {
    dataDir,
    db,
    host: '127.0.0.1',
    port: 0,
    sessionSecret: 'a secret for tests only',
    demo: options.demo ?? false,
    watchesAtOnce: false,
    webDir: null,
    address: null,
    trustProxy: [],
    tls: null,
    dbPool: 8,
    dbReplicas: [],
    redis: null,
    s3: null,
    metricsToken: null,
    metricsPort: null,
    kinds: jobKinds,
    logLevel: 'info',
    ...options.config,
  };
  const sequelize = await connect(db, config.dbPool, config.dbReplicas);
  await empty(sequelize);
  await migrate(sequelize);
  const folders = foldersOf(dataDir);
  const kept = await openStore(config.s3, folders);
  const { store, arrivals } = kept;
  const lines: string[] = [];
  const told = (line: string) => void lines.push(line);
  const log: Log = { info: told, error: told };
  const { hub, limits } = await openHub(config.redis, log);
  const jobs = await openJobs(sequelize, config.redis, kept, folders, log);
  const { queue, rendering } = jobs;
  await answerEachInTheirs();
  const tools = {
    ...{ config, sequelize, queue, store, arrivals, folders, log },
    ...(options.freeBytes && { freeBytes: options.freeBytes }),
  };
  const { app, reconcile } = makeApp({ ...tools, hub, limits });
  const { server, origin } = await listening(app);
  const beside: (() => Promise<void>)[] = [];
  const stopWork = new AbortController();
  let working: Promise<void> = Promise.resolve();

  return {
    origin,
    sequelize,
    folders,
    /** What is kept on this machine. */
    store: diskStore(folders.media),
    queue,
    lines,
    reconcile,
    /** Starts a worker in this process. */
    startWorker: () =>
      (working = work(
        {
          queue,
          folders,
          store,
          arrivals,
          rendering,
          log,
          watchesAtOnce: false,
          kinds: jobKinds,
          metrics: new WorkerMetrics(),
        },
        stopWork.signal,
      )),
    client: () => testClient(origin),
    /** Another web server of the same installation; it shares what goes by the hub. */
    async another() {
      const own = await openHub(config.redis, log);
      // With a bucket it is another machine, with files of its own.
      const elsewhere = foldersOf(path.join(dataDir, `machine-${beside.length + 2}`));
      const made = await listening(
        makeApp({
          ...tools,
          ...own,
          ...(config.s3 && {
            ...(await openStore(config.s3, elsewhere)),
            folders: elsewhere,
          }),
        }).app,
      );
      beside.push(async () => {
        await ended(made.server);
        await own.hub.close();
      });
      return { origin: made.origin, client: () => testClient(made.origin) };
    },
    async stop() {
      stopWork.abort();
      await working;
      await Promise.all([ended(server), ...beside.map((end) => end())]);
      await jobs.close();
      await Promise.all([sequelize.close(), hub.close()]);
      rmSync(dataDir, { recursive: true, force: true });
    },
  };
}
export type TestServer = Awaited<ReturnType<typeof testServer>>;

/** Another teacher on the same installation. */
export async function signUpSecond(server: TestServer): Promise<TestClient> {
  const { User } = await import('../db/models.ts');
  const { hash } = await import('@node-rs/argon2');
  await User.create({
    id: 'second',
    login: 'second',
    passwordHash: await hash(PASSWORD),
    teamId: 'second',
    role: 'owner',
  });
  const client = server.client();
  await client.send('POST', '/api/session', { login: 'second', password: PASSWORD });
  return client;
}

/** Asks again until `done` holds. @throws when it does not within the limit */
export async function until<T>(
  ask: () => Promise<T>,
  done: (value: T) => boolean,
  limitMs = 240_000,
): Promise<T> {
  const end = Date.now() + limitMs;
  for (;;) {
    const value = await ask();
    if (done(value)) return value;
    if (Date.now() > end)
      throw new Error(`Still waiting after ${limitMs} ms; last seen: ${JSON.stringify(value)}`);
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
}

/** A lesson of the blocks given, with ids counted up. */
export function lessonOf(blocks: Partial<Block>[]): Lesson {
  let next = 0;
  const makeId = () => `t${(next += 1)}`;
  const lesson = makeLesson('Juniper Quay test', makeId);
  lesson.sections = [
    {
      id: makeId(),
      title: 'Part',
      blocks: blocks.map(
        (block) => ({ ...makeBlock(block.kind ?? 'talk', makeId), ...block }) as Block,
      ),
    },
  ];
  return lesson;
}

export const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex');
