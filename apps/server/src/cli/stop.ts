import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { alive } from '../alive.ts';
import { endLeftover } from '../db/mariadb.ts';
import { forgetRunning, runningOn } from './installation.ts';

const PATIENCE_MS = 30_000;

/**
 * Ends the server running on the data folder, and a database one left behind; waits until all has
 * gone.
 * @returns the exit code
 */
export async function stop(dataDir: string, say: (line: string) => void): Promise<number> {
  const running = runningOn(dataDir);
  if (running) {
    process.kill(running.pid, 'SIGTERM');
    const untilMs = Date.now() + PATIENCE_MS;
    while (alive(running.pid)) {
      if (Date.now() > untilMs) {
        say(`Zest Frame (process ${running.pid}) has not stopped yet; look again in a moment.`);
        return 1;
      }
      await sleep(100);
    }
  }
  // A server that was killed ends nothing of its own.
  const left = await endLeftover(path.join(dataDir, 'db'));
  forgetRunning(dataDir);
  if (running) say('Stopped.');
  else
    say(
      left
        ? `Nothing was serving ${dataDir}; the database left behind there has been stopped.`
        : `Nothing is running on ${dataDir}.`,
    );
  return 0;
}
