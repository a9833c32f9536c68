import path from 'node:path';
import { GetObjectCommand, NoSuchKey, S3Client } from '@aws-sdk/client-s3';
import type { Folders, S3Settings } from '../config.ts';
import { FileCache } from './file-cache.ts';
import { s3Arrivals } from './s3-arrivals.ts';
import { s3Parts } from './s3-parts.ts';
import { patientRetries } from './s3-retries.ts';
import { s3Store } from './s3-store.ts';

/** Says now, not with the first take, that the bucket's name or key is wrong. */
async function tryBucket(client: S3Client, bucket: string): Promise<void> {
  const nothing = new GetObjectCommand({ Bucket: bucket, Key: 'nothing' });
  await client.send(nothing).catch((error: unknown) => {
    if (!(error instanceof NoSuchKey)) throw error;
  });
}

/** @throws when the bucket cannot be read */
export async function openS3(
  { endpoint, region, bucket, key, secret, cacheBytes, checksums, isDirect }: S3Settings,
  folders: Folders,
) {
  const settings = {
    region,
    bucket,
    retryStrategy: patientRetries,
    ...(!checksums && { requestChecksumCalculation: 'WHEN_REQUIRED' as const }),
    ...(endpoint !== null && { endpoint, forcePathStyle: true }),
    ...(key !== null &&
      secret !== null && { credentials: { accessKeyId: key, secretAccessKey: secret } }),
  };
  const client = new S3Client(settings);
  await tryBucket(client, bucket);
  const cache = new FileCache(path.join(folders.media, 'near'), cacheBytes);
  return {
    store: s3Store(client, bucket, cache, isDirect),
    arrivals: s3Arrivals(client, settings),
    parts: s3Parts(client, bucket),
  };
}
