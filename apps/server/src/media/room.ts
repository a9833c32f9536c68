import { statfs } from 'node:fs/promises';

/** Room left on the disk after taking something in, for working copies and the database. */
export const RESERVE_BYTES = 512 * 1024 ** 2;

/** Free bytes where a folder lies. */
export async function freeOnDisk(folder: string): Promise<number> {
  const { bavail, bsize } = await statfs(folder);
  return bavail * bsize;
}
