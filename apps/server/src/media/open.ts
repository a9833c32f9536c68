import type { Folders, S3Settings } from '../config.ts';
import { diskArrivals, type Arrivals } from './arrivals.ts';
import { diskStore, type MediaStore, type PartStore } from './store.ts';

/** Where content and uploads are kept. */
export interface Kept {
  store: MediaStore;
  arrivals: Arrivals;
  /** Where workers of several machines leave rendered parts; null: they share no more than a disk. */
  parts: PartStore | null;
}

/**
 * On this machine, or in a bucket that several share.
 * @throws when the bucket cannot be read
 */
export async function openStore(s3: S3Settings | null, folders: Folders): Promise<Kept> {
  if (s3 === null)
    return {
      store: diskStore(folders.media),
      arrivals: diskArrivals(folders.uploads),
      parts: null,
    };
  // Large, and of no use to who has no bucket.
  const { openS3 } = await import('./open-s3.ts');
  return openS3(s3, folders);
}
