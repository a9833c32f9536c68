import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { copyFile, mkdir, readdir, rename, rm, stat, utimes } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';

/** Files by their content. A port: disk now, an object store when one machine is not enough. */
export interface MediaStore {
  /** Takes over a file; gives its hash. The file is gone from its old place afterwards. */
  take(file: string): Promise<string>;
  /** Where the content lies on this machine, for programs that read files. */
  pathOf(sha: string): string;
  has(sha: string): Promise<boolean>;
  /** Size in bytes; 0 when it is not there. */
  sizeOf(sha: string): Promise<number>;
  /** Frees the room of content nobody uses any more. */
  drop(sha: string): Promise<void>;
  /** Content that nobody has brought since an instant. */
  untouchedSince(at: Date): AsyncIterable<string>;
}

/** SHA-256 of a file's content, in hex. */
export async function hashFile(file: string): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(createReadStream(file), hash);
  return hash.digest('hex');
}

/** SHA-256 of a value as JSON; for the inputs of jobs and cached pieces. */
export function hashOf(value: unknown): string {
  return createHash('sha256').update(JSON.stringify(value)).digest('hex');
}

export function diskStore(root: string): MediaStore {
  const pathOf = (sha: string) => {
    if (!/^[0-9a-f]{64}$/.test(sha)) throw new Error('Not a content hash.');
    return path.join(root, sha.slice(0, 2), sha);
  };
  const has = async (sha: string) => {
    try {
      await stat(pathOf(sha));
      return true;
    } catch {
      return false;
    }
  };
  return {
    pathOf,
    has,
    sizeOf: async (sha) => (await stat(pathOf(sha)).catch(() => null))?.size ?? 0,
    drop: (sha) => rm(pathOf(sha), { force: true }),
    async *untouchedSince(at) {
      for (const name of await readdir(root, { recursive: true }).catch(() => [])) {
        const sha = path.basename(name);
        if (!/^[0-9a-f]{64}$/.test(sha)) continue;
        const known = await stat(path.join(root, name)).catch(() => null);
        if (known?.isFile() && known.mtimeMs < at.getTime()) yield sha;
      }
    },
    async take(file) {
      const sha = await hashFile(file);
      const target = pathOf(sha);
      if (await has(sha)) {
        // Brought anew, it counts as new.
        await utimes(target, new Date(), new Date());
        await rm(file, { force: true });
        return sha;
      }
      await mkdir(path.dirname(target), { recursive: true, mode: 0o700 });
      await moveFile(file, target);
      return sha;
    },
  };
}

async function moveFile(from: string, to: string): Promise<void> {
  try {
    await rename(from, to);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EXDEV') throw error;
    // Another file system: copy beside the target first, so that a half copy never carries its
    // name.
    await copyFile(from, `${to}.part`);
    await rename(`${to}.part`, to);
    await rm(from);
  }
}
