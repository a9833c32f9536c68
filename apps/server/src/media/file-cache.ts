import { mkdir, readdir, rename, rm, stat, utimes } from 'node:fs/promises';
import path from 'node:path';
import { hashFile } from './store.ts';
import { partOf } from './unfinished.ts';

/** A job asks for its files again and again; what nobody asked for within so long may go. */
const IN_USE_MS = 3_600_000;

/** Files of this machine that also lie elsewhere, up to a number of bytes. */
export class FileCache {
  readonly #coming = new Map<string, Promise<string>>();

  constructor(
    private readonly folder: string,
    private readonly mostBytes: number,
    private readonly now: () => number = Date.now,
  ) {}

  pathOf(sha: string): string {
    return path.join(this.folder, sha.slice(0, 2), sha);
  }

  /** The file when it lies here; it then stays for a while. */
  async find(sha: string): Promise<string | null> {
    const file = this.pathOf(sha);
    const at = new Date(this.now());
    return utimes(file, at, at).then(
      () => file,
      () => null,
    );
  }

  /**
   * The file, brought first where it is not here; several who ask at a time wait for one.
   * @param bring writes it where it is told to
   * @throws when what came is something else than its hash says
   */
  async get(sha: string, bring: (file: string) => Promise<void>): Promise<string> {
    const here = await this.find(sha);
    if (here) return here;
    const coming = this.#coming.get(sha) ?? this.#bring(sha, bring);
    this.#coming.set(sha, coming);
    try {
      return await coming;
    } finally {
      this.#coming.delete(sha);
    }
  }

  async #bring(sha: string, bring: (file: string) => Promise<void>): Promise<string> {
    const file = this.pathOf(sha);
    await mkdir(path.dirname(file), { recursive: true, mode: 0o700 });
    const part = partOf(file);
    try {
      await bring(part);
      const found = await hashFile(part);
      if (found !== sha) throw new Error(`What came as ${sha} is ${found}. It was not kept.`);
      await rename(part, file);
    } finally {
      await rm(part, { force: true });
    }
    await this.prune();
    return file;
  }

  /** Takes a file over that has been brought elsewhere as well. */
  async put(sha: string, file: string): Promise<void> {
    const target = this.pathOf(sha);
    await mkdir(path.dirname(target), { recursive: true, mode: 0o700 });
    await rename(file, target);
    await this.find(sha);
    await this.prune();
  }

  drop(sha: string): Promise<void> {
    return rm(this.pathOf(sha), { force: true });
  }

  /** Frees room for what is not in use, the longest unused first. */
  async prune(): Promise<void> {
    const names = await readdir(this.folder, { recursive: true }).catch(() => []);
    const known = await Promise.all(
      names.map(async (name) => {
        const file = path.join(this.folder, name);
        const facts = await stat(file).catch(() => null);
        return facts?.isFile() ? { file, size: facts.size, usedMs: facts.mtimeMs } : null;
      }),
    );
    const files = known.flatMap((one) => one ?? []).sort((a, b) => b.usedMs - a.usedMs);
    let kept = 0;
    for (const { file, size, usedMs } of files) {
      kept += size;
      if (kept > this.mostBytes && this.now() - usedMs > IN_USE_MS) await rm(file, { force: true });
    }
  }
}
