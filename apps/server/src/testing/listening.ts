import { spawn } from 'node:child_process';
import { setTimeout as sleep } from 'node:timers/promises';
import { accepts } from '../db/mariadb.ts';

const START_LIMIT_MS = 30_000;

/** Starts a server program of Debian's that a test needs; resolves once it listens on the port. */
export async function startListening(program: string, args: readonly string[], port: number) {
  const child = spawn(program, args, {
    stdio: 'ignore',
    // Some are in sbin, which is not on everybody's path.
    env: { ...process.env, PATH: `${process.env['PATH'] ?? ''}:/usr/sbin:/sbin` },
  });
  const ended = new Promise<void>((resolve) => child.once('close', () => resolve()));
  const untilMs = Date.now() + START_LIMIT_MS;
  while (!(await accepts(port))) {
    if (Date.now() > untilMs || child.exitCode !== null)
      throw new Error(`The test's ${program} did not start.`);
    await sleep(20);
  }
  return {
    pid: child.pid ?? 0,
    /** Ends it; resolves when it has gone. */
    async end(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM') {
      child.kill(signal);
      await ended;
    },
  };
}
