import { setTimeout as sleep } from 'node:timers/promises';
import { alive, runningOn } from './installation.ts';

const PATIENCE_MS = 30_000;

/** Ends the server running on the data folder and waits until it has gone. @returns the exit code */
export async function stop(dataDir: string, say: (line: string) => void): Promise<number> {
  const running = runningOn(dataDir);
  if (!running) {
    say(`Nothing is running on ${dataDir}.`);
    return 0;
  }
  process.kill(running.pid, 'SIGTERM');
  const untilMs = Date.now() + PATIENCE_MS;
  while (alive(running.pid)) {
    if (Date.now() > untilMs) {
      say(`Zest Frame (process ${running.pid}) has not stopped yet; look again in a moment.`);
      return 1;
    }
    await sleep(100);
  }
  say('Stopped.');
  return 0;
}
