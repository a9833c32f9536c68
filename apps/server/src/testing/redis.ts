import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { freePort } from '../db/mariadb.ts';
import { startListening } from './listening.ts';

/** A Redis server of its own on loopback, in an empty folder, gone when it is stopped. */
export async function startRedis(wanted?: number) {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-test-redis-'));
  const port = wanted ?? (await freePort());
  const args = [
    ...['--port', String(port), '--bind', '127.0.0.1', '--dir', folder],
    // What was told it is there after it was started again.
    ...['--appendonly', 'yes', '--appendfsync', 'always', '--save', ''],
  ];
  const begin = () => startListening('redis-server', args, port);
  let running = await begin();
  return {
    address: `redis://127.0.0.1:${port}/0`,
    pid: () => running.pid,
    /** Kills it and starts it again on the same port. */
    async restart(awayMs = 0) {
      await running.end('SIGKILL');
      await sleep(awayMs);
      running = await begin();
    },
    async stop() {
      await running.end();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
export type TestRedis = Awaited<ReturnType<typeof startRedis>>;
