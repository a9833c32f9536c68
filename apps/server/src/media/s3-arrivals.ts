import { createWriteStream } from 'node:fs';
import path from 'node:path';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  DeleteObjectCommand,
  GetObjectCommand,
  type S3Client,
  type S3ClientConfig,
} from '@aws-sdk/client-s3';
import { S3Store } from '@tus/s3-store';
import { WEEK_MS, type Arrivals } from './arrivals.ts';

const PART_BYTES = 8 * 1024 ** 2;

/** Uploads that come into a bucket, whichever server takes their parts. */
export function s3Arrivals(
  client: S3Client,
  settings: S3ClientConfig & { bucket: string },
): Arrivals {
  const uploads = new S3Store({
    partSize: PART_BYTES,
    expirationPeriodInMilliseconds: WEEK_MS,
    s3ClientConfig: settings,
    // Tags are not known to every store; what is old goes by its dates.
    useTags: false,
  });
  return {
    uploads,
    folder: null,
    async fileOf(takeId, folder) {
      const file = path.join(folder, 'upload');
      const { Body } = await client.send(
        new GetObjectCommand({ Bucket: settings.bucket, Key: takeId }),
      );
      await pipeline(Body as Readable, createWriteStream(file, { mode: 0o600 }));
      return file;
    },
    // The store itself gives up uploads that are on their way, and knows no others.
    async drop(takeId) {
      for (const Key of [takeId, `${takeId}.info`])
        await client.send(new DeleteObjectCommand({ Bucket: settings.bucket, Key }));
    },
  };
}
