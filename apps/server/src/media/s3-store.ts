import { createReadStream, createWriteStream } from 'node:fs';
import { rm, stat } from 'node:fs/promises';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import {
  CopyObjectCommand,
  DeleteObjectCommand,
  GetObjectCommand,
  HeadObjectCommand,
  NotFound,
  S3ServiceException,
  paginateListObjectsV2,
  type S3Client,
} from '@aws-sdk/client-s3';
import { Upload } from '@aws-sdk/lib-storage';
import { getSignedUrl } from '@aws-sdk/s3-request-presigner';
import type { FileCache } from './file-cache.ts';
import { hashFile, type MediaStore, type Stretch } from './store.ts';

const FOLDER = 'media/';
const PART_BYTES = 16 * 1024 ** 2;
/** What a store copies within itself in one go. */
const MOST_COPIED_BYTES = 5 * 1024 ** 3;
/** A student's lesson with its pauses, and some more. */
const SIGNED_FOR_S = 4 * 3_600;

/**
 * Content in a bucket; what programs of this machine read lies in a cache beside them.
 * @param isDirect browsers fetch it from the bucket by themselves
 */
export function s3Store(
  client: S3Client,
  bucket: string,
  cache: FileCache,
  isDirect: boolean,
): MediaStore {
  const place = (sha: string) => {
    if (!/^[0-9a-f]{64}$/.test(sha)) throw new Error('Not a content hash.');
    return { Bucket: bucket, Key: `${FOLDER}${sha.slice(0, 2)}/${sha}` };
  };
  /** Bytes; null when it is not there. */
  const lengthOf = async (sha: string): Promise<number | null> => {
    try {
      return (await client.send(new HeadObjectCommand(place(sha)))).ContentLength ?? 0;
    } catch (error) {
      if (error instanceof NotFound) return null;
      throw error;
    }
  };
  const read = async (sha: string, range?: string): Promise<Stretch> => {
    try {
      const { Body, ContentLength, ContentRange } = await client.send(
        new GetObjectCommand({ ...place(sha), ...(range && { Range: range }) }),
      );
      return {
        body: Body as Readable,
        bytes: ContentLength ?? 0,
        contentRange: ContentRange ?? null,
      };
    } catch (error) {
      const known = error instanceof S3ServiceException && error.$metadata.httpStatusCode === 416;
      throw known ? Object.assign(error, { status: 416 }) : error;
    }
  };
  const bring = (sha: string) => async (file: string) =>
    pipeline((await read(sha)).body, createWriteStream(file, { mode: 0o600 }));

  return {
    async take(file) {
      const sha = await hashFile(file);
      const { size } = await stat(file);
      const there = await lengthOf(sha);
      if (there === size && size <= MOST_COPIED_BYTES) {
        // Brought anew, it counts as new.
        const { Bucket, Key } = place(sha);
        await client.send(
          new CopyObjectCommand({
            ...place(sha),
            CopySource: `${Bucket}/${Key}`,
            MetadataDirective: 'REPLACE',
          }),
        );
        await rm(file, { force: true });
        return sha;
      }
      await new Upload({
        client,
        partSize: PART_BYTES,
        params: { ...place(sha), Body: createReadStream(file) },
      }).done();
      await cache.put(sha, file);
      return sha;
    },
    fileOf: (sha) => cache.get(sha, bring(sha)),
    here: (sha) => cache.find(sha),
    has: async (sha) => (await lengthOf(sha)) !== null,
    sizeOf: async (sha) => (await lengthOf(sha)) ?? 0,
    async drop(sha) {
      await client.send(new DeleteObjectCommand(place(sha)));
      await cache.drop(sha);
    },
    async *untouchedSince(at) {
      const pages = paginateListObjectsV2({ client }, { Bucket: bucket, Prefix: FOLDER });
      for await (const { Contents = [] } of pages)
        for (const { Key = '', LastModified } of Contents) {
          const sha = Key.split('/').at(-1) ?? '';
          if (/^[0-9a-f]{64}$/.test(sha) && LastModified && LastModified < at) yield sha;
        }
    },
    remote: {
      addressOf: async (sha, type) =>
        isDirect
          ? await getSignedUrl(
              client,
              new GetObjectCommand({
                ...place(sha),
                ResponseContentType: type,
              }),
              { expiresIn: SIGNED_FOR_S },
            )
          : null,
      read,
    },
  };
}
