import { readFileSync } from 'node:fs';
import path from 'node:path';
import { UPLOADS_PATH } from '@zest/contract';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { foldersOf } from '../config.ts';
import { JobRow } from '../db/models.ts';
import { openStore } from '../media/open.ts';
import { footageFolder } from '../testing/footage.ts';
import { startRedis, type TestRedis } from '../testing/redis.ts';
import { startS3, type TestS3 } from '../testing/s3.ts';
import {
  lessonOf,
  sha256,
  takeMetadata,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

/** Two web servers and a worker that share a bucket and nothing of a disk. */
let redis: TestRedis;
let s3: TestS3;
let server: TestServer;
let first: TestClient;
let second: TestClient;
const footage = footageFolder();
let clip: Buffer;
let lessonId: string;
let takeId: string;

beforeAll(async () => {
  [redis, s3] = [await startRedis(), await startS3()];
  server = await testServer({ config: { redis: redis.address, s3: s3.settings } });
  first = server.client();
  await first.signUp();
  second = (await server.another()).client();
  second.takeCookie(first.cookie());
  // Larger than the least a store takes as a part of several.
  clip = readFileSync(
    footage.make('clip.mp4', 4, ['-c:v', 'mpeg4', '-q:v', '1', '-b:v', '40M', '-minrate', '40M'], {
      size: '1280x720',
    }),
  );
  const lesson = lessonOf([{ kind: 'talk', script: 'Hello.' }]);
  lessonId = (await first.makeLesson(lesson)).id;
  takeId = await first.makeTake(lessonId, lesson.sections[0]?.blocks[0]?.id);
});
afterAll(async () => {
  await server.stop();
  await Promise.all([redis.stop(), s3.stop()]);
  footage.remove();
});

const exported = (id: string) =>
  until(
    async () => (await JobRow.findByPk(id))?.state,
    (state) => state === 'done' || state === 'failed',
  );

it('an upload goes on at the other server, and its take is made ready by a worker', async () => {
  const send = (client: TestClient, from: number, to: number) =>
    client.tus(
      'PATCH',
      `${UPLOADS_PATH}/${takeId}`,
      { 'upload-offset': String(from), 'content-type': 'application/offset+octet-stream' },
      clip.subarray(from, to),
    );
  const made = await first.tus('POST', UPLOADS_PATH, {
    'upload-length': String(clip.length),
    'upload-metadata': takeMetadata(takeId),
  });
  expect([made.status, made.body]).toEqual([201, '']);
  const half = Math.floor(clip.length / 2);
  const sent = await send(first, 0, half);
  expect([sent.status, sent.body]).toEqual([204, '']);
  expect(
    (await second.tus('HEAD', `${UPLOADS_PATH}/${takeId}`, {})).headers.get('upload-offset'),
  ).toBe(String(half));
  expect((await send(second, half, clip.length)).status).toBe(204);
  void server.startWorker();
  const take = await until(
    async () =>
      ((await second.get(`/api/lessons/${lessonId}/takes`)).body as { state: string }[])[0],
    (one) => one?.state === 'ready' || one?.state === 'failed',
  );
  expect([take?.state, server.lines]).toEqual(['ready', []]);
  expect(sha256(await second.bytes(`/api/takes/${takeId}/original`))).toBe(sha256(clip));
});

it('a server that does not have it near gives any stretch of it', async () => {
  const url = `/api/takes/${takeId}/video`;
  const whole = await first.bytes(url);
  const part = await second.raw(url, { range: 'bytes=100-299' });
  expect([part.status, part.headers.get('content-range')]).toEqual([
    206,
    `bytes 100-299/${whole.length}`,
  ]);
  expect(new Uint8Array(await part.arrayBuffer())).toEqual(whole.subarray(100, 300));
  const tag = part.headers.get('etag') ?? '';
  // Said, or this client asks for a fresh one.
  const known = { 'if-none-match': tag, 'cache-control': 'max-age=0' };
  expect((await second.raw(url, known)).status).toBe(304);
  expect((await second.raw(url, { range: `bytes=${whole.length + 9}-` })).status).toBe(416);
});

it('an export is made where the worker is, and had from every server', async () => {
  const ordered = await second.send('POST', `/api/lessons/${lessonId}/exports`, { size: '480' });
  expect(ordered.status).toBe(202);
  const { id } = ordered.body as { id: string };
  expect(await exported(id)).toBe('done');
  const video = await second.bytes(`/api/jobs/${id}/video`);
  expect(video.length).toBeGreaterThan(10_000);
  expect(sha256(await first.bytes(`/api/jobs/${id}/video`))).toBe(sha256(video));
});

it('where it may, a browser fetches content from the bucket itself', async () => {
  const direct = await openStore(
    { ...s3.settings, isDirect: true },
    foldersOf(path.join(footage.at('direct'))),
  );
  const whole = await first.bytes(`/api/takes/${takeId}/video`);
  const address = await direct.store.remote?.addressOf(sha256(whole), 'video/mp4');
  expect(address).toContain(s3.settings.endpoint);
  const part = await fetch(address ?? '', { headers: { range: 'bytes=0-99' } });
  expect([part.status, part.headers.get('content-type')]).toEqual([206, 'video/mp4']);
  expect(new Uint8Array(await part.arrayBuffer())).toEqual(whole.subarray(0, 100));
});
