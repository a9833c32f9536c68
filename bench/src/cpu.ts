import { readFileSync } from 'node:fs';

/** Clock ticks a second, as Linux counts processor time for its programs. */
const TICKS = 100;

/** Processor time of this process and of all children that have ended, in milliseconds. */
function cpuMs(): number {
  const fields = readFileSync('/proc/self/stat', 'utf8')
    .replace(/^.*\) /, '')
    .split(' ');
  // Own and children's time, in user and in system mode: fields 14 to 17 of the file.
  return ([11, 12, 13, 14].reduce((sum, i) => sum + Number(fields[i] ?? 0), 0) * 1_000) / TICKS;
}

/**
 * Processor time of a task, in milliseconds: what other programs on the machine do does not stretch
 * it.
 */
export async function cpuOf(task: () => Promise<unknown>): Promise<number> {
  const before = cpuMs();
  await task();
  return cpuMs() - before;
}
