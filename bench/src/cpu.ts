import { readFileSync } from 'node:fs';

/** Clock ticks a second, as Linux counts processor time for its programs. */
const TICKS = 100;

/** Processor time of a process and of its children that have ended, in milliseconds. */
export function ticksOf(pid: number | 'self'): { own: number; children: number } {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8')
    .replace(/^.*\) /, '')
    .split(' ');
  // In user and in system mode, its own and children's: fields 14 to 17 of the file.
  const [user = 0, system = 0, childUser = 0, childSystem = 0] = [11, 12, 13, 14].map(
    (i) => (Number(fields[i] ?? 0) * 1_000) / TICKS,
  );
  return { own: user + system, children: childUser + childSystem };
}

/**
 * Processor time of a task, in milliseconds: what other programs on the machine do does not stretch
 * it.
 */
export async function cpuOf(task: () => Promise<unknown>): Promise<number> {
  const spent = () => {
    const { own, children } = ticksOf('self');
    return own + children;
  };
  const before = spent();
  await task();
  return spent() - before;
}
