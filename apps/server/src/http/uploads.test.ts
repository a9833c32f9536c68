import { existsSync } from 'node:fs';
import path from 'node:path';
import { UPLOADS_PATH, type Take } from '@zest/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { TakeRow } from '../db/models.ts';
import { WORKING_BY } from '../media/ingest.ts';
import { footageFolder } from '../testing/footage.ts';
import {
  lessonOf,
  sha256,
  takeMetadata,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

const footage = footageFolder();
let free = Infinity;
let server: TestServer;
let teacher: TestClient;
let lessonId: string;
let clip: Buffer;

beforeAll(async () => {
  server = await testServer({ freeBytes: () => Promise.resolve(free) });
  teacher = server.client();
  await teacher.signUp();
  lessonId = (await teacher.makeLesson()).id;
  footage.make('clip.mp4', 2, ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p']);
  clip = footage.read('clip.mp4');
  void server.startWorker();
});
afterAll(async () => {
  await server.stop();
  footage.remove();
});

const take = async (id: string): Promise<Take | undefined> =>
  ((await teacher.get(`/api/lessons/${lessonId}/takes`)).body as Take[]).find((t) => t.id === id);
const ended = (id: string) =>
  until(
    () => take(id),
    (t) => t?.state === 'ready' || t?.state === 'failed',
  );
const patch = (id: string, offset: number, bytes: Uint8Array, more: Record<string, string> = {}) =>
  teacher.tus(
    'PATCH',
    `${UPLOADS_PATH}/${id}`,
    { 'upload-offset': String(offset), 'content-type': 'application/offset+octet-stream', ...more },
    bytes,
  );
const create = (id: string, headers: Record<string, string>) =>
  teacher.tus('POST', UPLOADS_PATH, { 'upload-metadata': takeMetadata(id), ...headers });

describe('uploads', () => {
  it('become takes with a working copy, pictures and waveform, byte for byte kept', async () => {
    const id = await teacher.makeTake(lessonId);
    expect((await take(id))?.state).toBe('uploading');
    expect((await teacher.upload(id, clip)).status).toBe(204);
    expect(await ended(id)).toMatchObject({
      state: 'ready',
      frames: 60,
      hasSound: true,
      fault: null,
    });
    expect((await TakeRow.findByPk(id))?.originalSha).toBe(sha256(clip));
    const video = await fetch(`${server.origin}/api/takes/${id}/video`);
    expect(video.status).toBe(401);
    for (const [part, type] of [
      ['video', 'video/mp4'],
      ['thumbs', 'image/jpeg'],
      ['wave', 'application/octet-stream'],
    ] as const) {
      const answer = await teacher.get(`/api/takes/${id}/${part}`);
      expect([answer.status, answer.headers.get('content-type')]).toEqual([200, type]);
    }
  });

  it('made in an older way are made anew when asked for, and what was there before is gone', async () => {
    const [id, other] = [await teacher.makeTake(lessonId), await teacher.makeTake(lessonId)];
    for (const takeId of [id, other]) {
      await teacher.upload(takeId, clip);
      expect(await ended(takeId)).toMatchObject({ state: 'ready', renewal: 'none' });
    }
    const right = (await TakeRow.findByPk(id))?.workingSha ?? '';
    // As one of before lies there, watched and made smaller.
    const old = await server.store.take(footage.write('old.mp4', 'an older working copy'));
    const smaller = await server.store.take(
      footage.write('smaller.mp4', 'a smaller version of it'),
    );
    const before = {
      workingSha: old,
      workingBy: null,
      renditions: JSON.stringify([{ lines: 360, sha: smaller, bytes: 23 }]),
      analyserVersion: 1,
    };
    await TakeRow.update(before, { where: { id: [id, other] } });
    expect((await take(id))?.renewal).toBe('offered');
    expect((await teacher.send('POST', `/api/takes/${id}/anew`)).status).toBe(202);
    await until(
      () => take(id),
      (one) => one?.renewal === 'none',
    );
    for (const takeId of [id, other])
      expect(await TakeRow.findByPk(takeId)).toMatchObject({
        workingSha: right,
        workingBy: WORKING_BY,
        analyserVersion: null,
      });
    await until(
      async () =>
        (await Promise.all([old, smaller].map((sha) => server.store.has(sha)))).includes(true),
      (isThere) => !isThere,
    );
    const empty = await teacher.makeTake(lessonId);
    expect((await teacher.send('POST', `/api/takes/${empty}/anew`)).body.code).toBe('not-ready');
  });

  it('that are no footage go in the bin, though a block still names them; those in use do not', async () => {
    const { id: ownLesson, lesson } = await teacher.makeLesson(
      lessonOf([{ kind: 'talk', title: 'Hello', script: 'Hello.' }]),
    );
    const block = lesson.sections[0]?.blocks[0];
    const [broken, good] = [await teacher.makeTake(ownLesson), await teacher.makeTake(ownLesson)];
    await teacher.upload(broken, Buffer.from('no video at all'));
    await teacher.upload(good, clip);
    const both = await until(
      async () => (await teacher.get(`/api/lessons/${ownLesson}/takes`)).body as Take[],
      (all) => all.every(({ state }) => state === 'ready' || state === 'failed'),
    );
    expect(both.map(({ id, state }) => [id, state])).toEqual([
      [broken, 'failed'],
      [good, 'ready'],
    ]);
    let revision = 1;
    for (const [takeId, status] of [
      [broken, 200],
      [good, 409],
    ] as const) {
      if (block) block.footage = { takeId, startsAtMs: 0 };
      await teacher.send('PUT', `/api/lessons/${ownLesson}`, { baseRevision: revision++, lesson });
      expect((await teacher.send('PUT', `/api/takes/${takeId}`, { inBin: true })).status).toBe(
        status,
      );
    }
  });

  it('go on where they stopped, and answer for the part that arrived', async () => {
    const id = await teacher.makeTake(lessonId);
    const half = Math.floor(clip.length / 2);
    await create(id, { 'upload-length': String(clip.length) });
    await patch(id, 0, clip.subarray(0, half));
    expect((await patch(id, 3, clip.subarray(3))).status).toBe(409);
    expect(
      (await teacher.tus('HEAD', `${UPLOADS_PATH}/${id}`, {})).headers.get('upload-offset'),
    ).toBe(String(half));
    expect((await create(id, { 'upload-length': String(clip.length) })).body.code).toBe('begun');
    await patch(id, half, clip.subarray(half));
    expect((await ended(id))?.state).toBe('ready');
    expect((await create(id, { 'upload-length': String(clip.length) })).body.code).toBe('arrived');
  });

  it('may have a length that is known only at the end, as recordings do', async () => {
    const id = await teacher.makeTake(lessonId);
    await create(id, { 'upload-defer-length': '1' });
    await patch(id, 0, clip.subarray(0, 1_000));
    await patch(id, 1_000, clip.subarray(1_000), { 'upload-length': String(clip.length) });
    expect((await ended(id))?.state).toBe('ready');
  });

  it('are found again when the server ended between their last byte and its answer', async () => {
    const id = await teacher.makeTake(lessonId);
    await create(id, { 'upload-length': String(clip.length) });
    await patch(id, 0, clip.subarray(0, clip.length - 1));
    const { appendFileSync } = await import('node:fs');
    appendFileSync(path.join(server.folders.uploads, id), clip.subarray(clip.length - 1));
    expect((await take(id))?.state).toBe('uploading');
    await server.reconcile();
    expect((await ended(id))?.state).toBe('ready');
  });

  it('say in words why a file cannot be used, and that nothing came', async () => {
    const id = await teacher.makeTake(lessonId);
    await teacher.upload(id, Buffer.from('not a video at all'));
    expect(await ended(id)).toMatchObject({
      state: 'failed',
      fault: expect.stringContaining('not a video') as string,
    });
    const empty = await create(await teacher.makeTake(lessonId), { 'upload-length': '0' });
    expect([empty.status, empty.body.message]).toEqual([400, expect.stringContaining('empty')]);
  });

  it('are refused before and during a full disk without losing what has arrived', async () => {
    const id = await teacher.makeTake(lessonId);
    await create(id, { 'upload-length': String(clip.length) });
    await patch(id, 0, clip.subarray(0, 500));
    free = 1024;
    const during = await patch(id, 500, clip.subarray(500));
    expect([during.status, during.body.code]).toEqual([507, 'disk-full']);
    expect(during.body.message).toContain('free some space');
    expect((await create(await teacher.makeTake(lessonId), { 'upload-length': '5' })).status).toBe(
      507,
    );
    free = Infinity;
    expect(
      (await teacher.tus('HEAD', `${UPLOADS_PATH}/${id}`, {})).headers.get('upload-offset'),
    ).toBe('500');
    await patch(id, 500, clip.subarray(500));
    expect((await ended(id))?.state).toBe('ready');
  });

  it('never write outside their folder', async () => {
    for (const id of ['../evil', '..%2Fevil', 'a/b', '']) {
      expect((await create(id, { 'upload-length': '5' })).status).toBe(404);
    }
    expect(existsSync(path.join(server.folders.uploads, '..', 'evil'))).toBe(false);
  });
});
