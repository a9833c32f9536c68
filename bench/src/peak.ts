import { spawn } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
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

/** Resident memory of this process and of all it has started, in kB; 0 for one that just ended. */
function treeKb(): number {
  const processes = readdirSync('/proc')
    .filter((name) => /^\d+$/.test(name))
    .flatMap((name) => {
      try {
        const status = readFileSync(`/proc/${name}/status`, 'utf8');
        const field = (key: string) =>
          Number(new RegExp(`^${key}:\\s+(\\d+)`, 'm').exec(status)?.[1] ?? 0);
        return [{ pid: Number(name), parent: field('PPid'), kb: field('VmRSS') }];
      } catch {
        return [];
      }
    });
  const ours = new Set([process.pid]);
  // A child's number may be the smaller one: until none is added.
  for (let before = 0; before < ours.size;) {
    before = ours.size;
    for (const { pid, parent } of processes) if (ours.has(parent)) ours.add(pid);
  }
  return processes.reduce((sum, { pid, kb }) => sum + (ours.has(pid) ? kb : 0), 0);
}

/** The greatest all programs of a task are together, this one with them, in MB. */
export async function treePeakOf(task: () => Promise<unknown>): Promise<number> {
  let kb = 0;
  const looking = setInterval(() => (kb = Math.max(kb, treeKb())), 4 * LOOK_EVERY_MS);
  try {
    await task();
  } finally {
    clearInterval(looking);
  }
  if (kb === 0) throw new Error('It ended before it was looked at.');
  return kb / 1_000;
}
