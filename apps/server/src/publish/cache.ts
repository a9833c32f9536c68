import { readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';

/** Rendered pieces are kept up to this many bytes, the oldest go first. */
const MOST_BYTES = 6 * 1024 ** 3;

/** Keeps the cache of rendered pieces within bounds; an unfinished piece counts like any other. */
export async function pruneCache(folder: string, mostBytes = MOST_BYTES): Promise<void> {
  const names = await readdir(folder);
  const files = await Promise.all(
    names.map(async (name) => {
      const file = path.join(folder, name);
      const { size, mtimeMs } = await stat(file);
      return { file, size, mtimeMs };
    }),
  );
  files.sort((a, b) => b.mtimeMs - a.mtimeMs);
  let kept = 0;
  for (const { file, size } of files) {
    kept += size;
    if (kept > mostBytes) await rm(file, { force: true, recursive: true });
  }
}
