import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';

const root = path.resolve(import.meta.dirname, '../..');
const LOOK_EVERY_MS = 50;

/**
 * Runs the program as a user does, and gives the greatest its process ever was, in MB.
 * @throws when it fails
 */
export async function peakOf(args: readonly string[]): Promise<number> {
  const child = spawn(process.execPath, [path.join(root, 'apps/server/dist/cli.js'), ...args], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  let kb = 0;
  const look = () => {
    try {
      kb = Math.max(
        kb,
        Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1] ?? 0),
      );
    } catch {
      // It has ended.
    }
  };
  const looking = setInterval(look, LOOK_EVERY_MS);
  const code = await new Promise((resolve) => child.once('exit', resolve));
  clearInterval(looking);
  if (code !== 0 || kb === 0) throw new Error(`${args.join(' ')} ended with ${String(code)}.`);
  return kb / 1_000;
}
