import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { accepts, freePort } from '../db/mariadb.ts';

/** A Redis server of its own on loopback, in an empty folder, gone when it is stopped. */
export async function startRedis(wanted?: number) {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-test-redis-'));
  const port = wanted ?? (await freePort());
  const args = [
    ...['--port', String(port), '--bind', '127.0.0.1', '--dir', folder],
    // What was told it is there after it was started again.
    ...['--appendonly', 'yes', '--appendfsync', 'always', '--save', ''],
  ];
  const begin = async () => {
    const child = spawn('redis-server', args, { stdio: 'ignore' });
    const ended = new Promise<void>((resolve) => child.once('close', () => resolve()));
    const untilMs = Date.now() + 30_000;
    while (!(await accepts(port))) {
      if (Date.now() > untilMs || child.exitCode !== null)
        throw new Error('The Redis server of the test did not start.');
      await sleep(20);
    }
    return {
      pid: child.pid ?? 0,
      end: async (signal: 'SIGTERM' | 'SIGKILL') => {
        child.kill(signal);
        await ended;
      },
    };
  };
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
      await running.end('SIGTERM');
      rmSync(folder, { recursive: true, force: true });
    },
  };
}
export type TestRedis = Awaited<ReturnType<typeof startRedis>>;
