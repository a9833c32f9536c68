import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import path from 'node:path';
import { nanoid } from 'nanoid';
import type { Folders } from '../config.ts';
import { alive } from '../alive.ts';

// What is not finished carries the number of the process that makes it: what one that was killed
// left behind is known by that.

/** The name of a file while it is being written. */
export const partOf = (file: string): string => `${file}.${process.pid}-${nanoid(6)}.part`;

/** A list of what an export still needs, for others that help. */
export const wantedName = (): string => `wanted-${process.pid}-${nanoid()}.json`;
export const isWanted = (name: string): boolean => name.startsWith('wanted-');

/** A piece's sign that somebody is at it; in it stands who. */
export const claimOf = (folder: string, { hash }: { hash: string }): string =>
  path.join(folder, `${hash}.claim`);

/** Makes a folder to work in. */
export const workFolder = (folders: Pick<Folders, 'work'>, kind: string): Promise<string> =>
  mkdtemp(path.join(folders.work, `${kind}-${process.pid}-`));

const MAKERS = [
  /\.(\d+)-[\w-]{6}\.part(-\d+\.rgba)?$/,
  /^wanted-(\d+)-/,
  /^[a-z-]+-(\d+)-[\w-]{6}$/,
];

/** The process that makes what has this name; null: it is finished, or nobody's. */
async function makerOf(folder: string, name: string): Promise<number | null> {
  const text = name.endsWith('.claim')
    ? await readFile(path.join(folder, name), 'utf8').catch(() => '')
    : MAKERS.map((maker) => maker.exec(name)?.[1]).find((pid) => pid !== undefined);
  return text ? Number(text) : null;
}

/**
 * Removes what processes that are gone have left unfinished. To be called before this one makes
 * anything.
 * @returns how much there was
 */
export async function sweepUnfinished(
  { work, segments }: Pick<Folders, 'work' | 'segments'>,
  isAlive = (pid: number) => pid !== process.pid && alive(pid),
): Promise<number> {
  let swept = 0;
  for (const folder of [work, segments]) {
    for (const name of await readdir(folder).catch(() => [])) {
      const maker = await makerOf(folder, name);
      if (maker === null || isAlive(maker)) continue;
      await rm(path.join(folder, name), { recursive: true, force: true });
      swept += 1;
    }
  }
  return swept;
}
