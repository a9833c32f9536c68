import { rm } from 'node:fs/promises';
import path from 'node:path';
import { FileStore } from '@tus/file-store';
import type { DataStore } from '@tus/server';

/** Uploads that are not finished within so long are removed. */
export const WEEK_MS = 7 * 24 * 3_600_000;

/** Uploads on their way, each named by its take, until they are whole and taken over. */
export interface Arrivals {
  /** What the upload server writes into. */
  uploads: DataStore;
  /** Folder of this machine they come into; null when they go elsewhere. */
  folder: string | null;
  /** Brings one that is whole to this machine, into a folder where it is not here yet. */
  fileOf(takeId: string, folder: string): Promise<string>;
  /** Removes what is left of one that was taken over. */
  drop(takeId: string): Promise<void>;
}

export function diskArrivals(folder: string): Arrivals {
  const fileOf = (takeId: string) => path.join(folder, takeId);
  return {
    uploads: new FileStore({ directory: folder, expirationPeriodInMilliseconds: WEEK_MS }),
    folder,
    fileOf: (takeId) => Promise.resolve(fileOf(takeId)),
    drop: (takeId) => rm(`${fileOf(takeId)}.json`, { force: true }),
  };
}
