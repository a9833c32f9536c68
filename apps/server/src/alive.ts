import { existsSync, readFileSync } from 'node:fs';

/** Ended, but not yet asked after by the process that started it. */
function isDefunct(pid: number): boolean {
  const stat = `/proc/${pid}/stat`;
  return existsSync(stat) && /\) Z /.test(readFileSync(stat, 'utf8'));
}

export function alive(pid: number): boolean {
  try {
    process.kill(pid, 0);
    return !isDefunct(pid);
  } catch (error) {
    return (error as NodeJS.ErrnoException).code === 'EPERM';
  }
}
