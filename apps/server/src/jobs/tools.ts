import { rm } from 'node:fs/promises';
import type { Folders } from '../config.ts';
import type { Arrivals } from '../media/arrivals.ts';
import type { MediaStore } from '../media/store.ts';
import { workFolder } from '../media/unfinished.ts';
import type { Rendering } from '../publish/rendering.ts';
import type { JobQueue } from './queue.ts';

/** What a job works with. */
export interface JobTools {
  folders: Folders;
  store: MediaStore;
  arrivals: Arrivals;
  rendering: Rendering;
  queue: JobQueue;
  /** Takes are watched as soon as they are ready; if not, when it is asked for. */
  watchesAtOnce: boolean;
  onProgress: (part: number, message: string) => void;
  /** Told how much video was rendered or watched, in milliseconds. */
  onVideo: (ms: number) => void;
  signal: AbortSignal;
}

/** Gives a job a folder of its own for as long as it needs it. */
export async function inFolder<T>(
  folders: Folders,
  use: (folder: string) => Promise<T>,
): Promise<T> {
  const folder = await workFolder(folders, 'job');
  try {
    return await use(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}
