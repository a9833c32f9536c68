import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { databaseAddressText, ownDatabase } from '../../apps/server/src/db/address.ts';
import { accepts, freePort, startMariaDb } from '../../apps/server/src/db/mariadb.ts';
import { startBalancer } from '../../apps/server/src/testing/balancer.ts';
import { startRedis } from '../../apps/server/src/testing/redis.ts';
import { startS3 } from '../../apps/server/src/testing/s3.ts';
import { ticksOf } from './cpu.ts';

const dist = path.resolve(import.meta.dirname, '../../apps/server/dist');
const START_LIMIT_MS = 60_000;
const PASSWORD = 'only-for-measuring';

/** A program of the fleet, in a process group of its own, as on a machine of its own. */
class Part {
  #child: ChildProcess | null = null;

  constructor(
    private readonly file: 'http.js' | 'worker.js',
    private readonly env: Record<string, string>,
    /** What it keeps on its machine. */
    readonly dataDir: string,
  ) {}

  begin(): void {
    this.#child = spawn(process.execPath, [path.join(dist, this.file)], {
      stdio: ['ignore', 'ignore', 'inherit'],
      detached: true,
      env: { ...process.env, NODE_NO_WARNINGS: '1', ...this.env, ZEST_DATA: this.dataDir },
    });
  }

  /** Ends it and all it has started at once, as a power cut does. */
  async kill(): Promise<void> {
    const child = this.#child;
    if (!child?.pid || child.exitCode !== null) return;
    const ended = new Promise((resolve) => child.once('exit', resolve));
    process.kill(-child.pid, 'SIGKILL');
    await ended;
  }

  /** Empties one of its folders. */
  forget(folder: string): void {
    const from = path.join(this.dataDir, folder);
    for (const name of existsSync(from) ? readdirSync(from) : [])
      rmSync(path.join(from, name), { recursive: true, force: true });
  }

  /** Processor time so far, in ms: its own, and of the programs it has run. */
  spent(): { own: number; children: number } {
    return ticksOf(this.#child?.pid ?? 0);
  }
}

/** What a fleet consists of. */
export interface FleetOrder {
  webs: number;
  workers: number;
  /** Redis and a bucket between them; without, they share a folder. */
  engines: boolean;
}

/** Machines in one: own processes, ports and folders, with what they share on loopback. */
export async function startFleet({ webs, workers, engines }: FleetOrder) {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-bench-fleet-'));
  const dbDir = path.join(folder, 'db');
  let db = await startMariaDb(dbDir, PASSWORD);
  const [redis, s3] = engines ? [await startRedis(), await startS3()] : [null, null];
  const shared = {
    ZEST_DATABASE: databaseAddressText(ownDatabase(db.port, PASSWORD)),
    ...(redis && { ZEST_REDIS: redis.address }),
    ...(s3 && {
      ZEST_S3_BUCKET: s3.settings.bucket,
      ZEST_S3_ENDPOINT: s3.settings.endpoint,
      ZEST_S3_REGION: s3.settings.region,
      ZEST_S3_KEY: s3.settings.key,
      ZEST_S3_SECRET: s3.settings.secret,
      ZEST_S3_CHECKSUMS: '0',
    }),
    ZEST_SECRET: 'one secret for all of the fleet',
    ZEST_TRUST_PROXY: '127.0.0.1',
    ZEST_LOG: process.env['ZEST_LOG'] ?? 'silent',
    // Watching is measured by itself.
    ZEST_WATCH: 'when asked',
  };
  const dataOf = (name: string) => path.join(folder, engines ? name : 'data');
  const web: { port: number; part: Part }[] = [];
  for (let i = 0; i < webs; i += 1) {
    const port = await freePort();
    const env = { ...shared, ZEST_PORT: String(port) };
    web.push({ port, part: new Part('http.js', env, dataOf(`web-${i}`)) });
  }
  const work = Array.from(
    { length: workers },
    (_, i) => new Part('worker.js', shared, dataOf(`worker-${i}`)),
  );
  const balancer = await startBalancer(web.map(({ port }) => port));
  // The first one makes the tables; a worker before that finds none.
  for (const { port, part } of web) {
    part.begin();
    const untilMs = Date.now() + START_LIMIT_MS;
    while (!(await balancer.isUp(port))) {
      if (Date.now() > untilMs) throw new Error(`The web server on port ${port} did not start.`);
      await sleep(100);
    }
  }
  for (const part of work) part.begin();
  return {
    origin: balancer.origin,
    web: web.map(({ part }) => part),
    work,
    redis,
    s3,
    /** Processor time of the Redis server, in ms. */
    redisMs: () => (redis ? ticksOf(redis.pid()).own : 0),
    async restartDatabase(awayMs: number) {
      const { port } = db;
      process.kill(db.pid, 'SIGKILL');
      await db.ended;
      await sleep(awayMs);
      db = await startMariaDb(dbDir, PASSWORD, ['zest'], port);
      if (!(await accepts(port))) throw new Error('The database did not come back.');
    },
    async stop() {
      for (const part of [...web.map(({ part: one }) => one), ...work]) await part.kill();
      await balancer.stop();
      await Promise.all([redis?.stop(), s3?.stop(), db.stop()]);
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
export type Fleet = Awaited<ReturnType<typeof startFleet>>;
