import { createReadStream, createWriteStream } from 'node:fs';
import type { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { GetObjectCommand, HeadObjectCommand, NotFound, type S3Client } from '@aws-sdk/client-s3';
import { Upload } from '@aws-sdk/lib-storage';
import type { PartStore } from './store.ts';

/** What is older than a lesson is worked on goes by a rule of the bucket for this folder. */
const FOLDER = 'pieces/';

export function s3Parts(client: S3Client, bucket: string): PartStore {
  const place = (name: string) => ({ Bucket: bucket, Key: `${FOLDER}${name}` });
  const isThere = (name: string) =>
    client.send(new HeadObjectCommand(place(name))).then(
      () => true,
      (error: unknown) => {
        if (error instanceof NotFound) return false;
        throw error;
      },
    );
  return {
    async has(names) {
      const each = [...new Set(names)];
      const there = await Promise.all(each.map(isThere));
      return new Set(each.filter((_, i) => there[i]));
    },
    async put(name, file) {
      await new Upload({ client, params: { ...place(name), Body: createReadStream(file) } }).done();
    },
    async get(name, file) {
      const { Body } = await client.send(new GetObjectCommand(place(name)));
      await pipeline(Body as Readable, createWriteStream(file, { mode: 0o600 }));
    },
  };
}
