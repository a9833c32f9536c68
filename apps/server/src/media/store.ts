import { createHash } from 'node:crypto';
import { createReadStream } from 'node:fs';
import { copyFile, mkdir, readdir, rename, rm, stat, utimes } from 'node:fs/promises';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';

/** A stretch of content that lies elsewhere. */
export interface Stretch {
  body: Readable;
  bytes: number;
  /** As the header says it; null for all of it. */
  contentRange: string | null;
}

/** Content that lies elsewhere, for those who need not have it on this machine. */
export interface RemoteContent {
  /**
   * An address from which a browser has it by itself for a while; null when it is to come by this
   * server.
   */
  addressOf(sha: string, type: string): Promise<string | null>;
  /**
   * @param range as the header says it
   * @throws with status 416 for a range there is not
   */
  read(sha: string, range?: string): Promise<Stretch>;
}

/** Files by their content. A port: a disk, or an object store that several machines share. */
export interface MediaStore {
  /** Takes over a file; gives its hash. The file is gone from its old place afterwards. */
  take(file: string): Promise<string>;
  /** The content as a file of this machine, for programs that read files; brought when it is not. */
  fileOf(sha: string): Promise<string>;
  /** The same where it is on this machine already; null where it is not. */
  here(sha: string): Promise<string | null>;
  /** null where all content is on this machine. */
  remote: RemoteContent | null;
  has(sha: string): Promise<boolean>;
  /** Size in bytes; 0 when it is not there. */
  sizeOf(sha: string): Promise<number>;
  /** Frees the room of content nobody uses any more. */
  drop(sha: string): Promise<void>;
  /** Content that nobody has brought since an instant. */
  untouchedSince(at: Date): AsyncIterable<string>;
}

/** Rendered parts of exports, by name, where all machines find them. */
export interface PartStore {
  /** Those of these that are there. */
  has(names: readonly string[]): Promise<ReadonlySet<string>>;
  /** Lays a file there; it stays where it is as well. */
  put(name: string, file: string): Promise<void>;
  /** Writes one into a file. */
  get(name: string, file: string): Promise<void>;
}

/** Where the content with a hash lies on this machine, once it is asked for. */
export type TakePath = (sha: string) => string | Promise<string>;

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

/** A store on this machine, which knows where its content lies. */
export interface DiskStore extends MediaStore {
  pathOf(sha: string): string;
}

export function diskStore(root: string): DiskStore {
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
    fileOf: async (sha) => pathOf(sha),
    here: async (sha) => pathOf(sha),
    remote: null,
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
