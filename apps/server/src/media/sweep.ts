import { readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';

/** Longer than any job works on one folder. */
const LEFT_FOR_MS = 24 * 3_600_000;

/** Removes work folders that a kill left behind; gives how many. */
export async function sweepWork(folder: string, now = Date.now()): Promise<number> {
  let swept = 0;
  for (const name of await readdir(folder).catch(() => [])) {
    const file = path.join(folder, name);
    const { mtimeMs } = await stat(file).catch(() => ({ mtimeMs: now }));
    if (now - mtimeMs < LEFT_FOR_MS) continue;
    await rm(file, { recursive: true, force: true });
    swept += 1;
  }
  return swept;
}
