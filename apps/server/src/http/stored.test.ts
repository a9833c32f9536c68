import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { buffer } from 'node:stream/consumers';
import type { Job, Stored, Take } from '@zest/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import yauzl from 'yauzl';
import { JobRow, TakeRow } from '../db/models.ts';
import { footageFolder } from '../testing/footage.ts';
import {
  lessonOf,
  sha256,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

const footage = footageFolder();
const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-stored-'));
let server: TestServer;
let teacher: TestClient;
let lessonId: string;
let shown: string;
let spare: string;
beforeAll(async () => {
  server = await testServer();
  teacher = server.client();
  await teacher.signUp();
  void server.startWorker();
  lessonId = (
    await teacher.makeLesson(
      lessonOf([{ kind: 'talk', title: 'Hello', script: 'Welcome to the quay.' }]),
    )
  ).id;
  const tone = (hz: number) => ['-f', 'lavfi', '-i', `sine=frequency=${hz}:duration=2`];
  execFileSync('ffmpeg', [
    '-y',
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    'testsrc=size=320x240:rate=30:duration=2',
    ...tone(300),
    ...tone(900),
    '-map',
    '0:v',
    '-map',
    '1:a',
    '-map',
    '2:a',
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    footage.at('two.mp4'),
  ]);
  footage.make('spare.mp4', 1, ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p']);
  [shown, spare] = [await teacher.makeTake(lessonId), await teacher.makeTake(lessonId)];
  await teacher.upload(shown, footage.read('two.mp4'));
  await teacher.upload(spare, footage.read('spare.mp4'));
  for (const id of [shown, spare])
    await until(
      () => take(id),
      (one) => one?.state === 'ready',
    );
  const { lesson, revision } = (await teacher.get(`/api/lessons/${lessonId}`)).body as {
    lesson: ReturnType<typeof lessonOf>;
    revision: number;
  };
  Object.assign(lesson.sections[0]?.blocks[0] ?? {}, {
    footage: { takeId: shown, startsAtMs: 0 },
    fixedMs: 4_000,
  });
  expect(
    (await teacher.send('PUT', `/api/lessons/${lessonId}`, { baseRevision: revision, lesson }))
      .status,
  ).toBe(200);
});
afterAll(async () => {
  await server.stop();
  footage.remove();
  rmSync(folder, { recursive: true, force: true });
});

const take = async (id: string) =>
  ((await teacher.get(`/api/lessons/${lessonId}/takes`)).body as Take[]).find(
    (one) => one.id === id,
  );
const stored = async () => (await teacher.get('/api/stored')).body as Stored;

describe('sound tracks of a take', () => {
  it('are chosen among, and the working copy is made anew with the one chosen, back again as well', async () => {
    expect((await take(shown))?.soundTracks).toHaveLength(2);
    expect((await take(spare))?.soundTracks).toEqual([]);
    expect(await teacher.send('PUT', `/api/takes/${shown}`, { soundTrack: 2 })).toMatchObject({
      status: 422,
      body: { message: expect.stringContaining('1 to 2') },
    });
    expect(await teacher.send('PUT', `/api/takes/${spare}`, { soundTrack: 0 })).toMatchObject({
      status: 422,
    });
    const first = (await take(shown))?.soundTrack ?? 0;
    const made = [(await TakeRow.findByPk(shown))?.workingSha];
    for (const track of [1 - first, first, 1 - first]) {
      expect((await teacher.send('PUT', `/api/takes/${shown}`, { soundTrack: track })).status).toBe(
        200,
      );
      await until(
        () => take(shown),
        (one) => one?.soundTrack === track && one.renewal === 'none',
      );
      made.push((await TakeRow.findByPk(shown))?.workingSha);
    }
    expect([made[0] === made[1], made[1] === made[3], made[0] === made[2]]).toEqual([
      false,
      true,
      true,
    ]);
  });
});

describe('the hand-over of a cut', () => {
  it.each(['takes', 'originals'] as const)(
    'is one archive with all that its files name, with %s',
    async (kind) => {
      const file = path.join(folder, `${kind}.zip`);
      writeFileSync(file, await teacher.bytes(`/api/lessons/${lessonId}/hand-over/${kind}`));
      const zip = await yauzl.openPromise(file);
      const held = new Map<string, Buffer>();
      for await (const entry of zip.eachEntry())
        held.set(entry.fileName, await buffer(await zip.openReadStreamPromise(entry)));
      const otio = held.get('cut.otio')?.toString() ?? '';
      const named = [
        ...new Set([...otio.matchAll(/"target_url": "([^"]+)"/g)].map(([, url]) => url ?? '')),
      ];
      // The talk is twice as long as its footage: its last picture is held.
      expect(named.sort()).toEqual([`${kind}/Take.mp4`, 'stills/Take 59.png'].sort());
      for (const name of named) expect(held.get(name)?.length).toBeGreaterThan(500);
      expect(held.get('READ ME.txt')?.toString()).toContain(
        '00:00:02:00 to 00:00:04:00: the footage has ended',
      );
      expect(held.get('cut.edl')?.toString()).toContain(`* FROM CLIP NAME: ${kind}/Take.mp4`);
      if (kind === 'originals')
        expect(sha256(held.get('originals/Take.mp4') ?? Buffer.alloc(0))).toBe(
          sha256(footage.read('two.mp4')),
        );
    },
  );

  it('is refused in words for footage there is not', async () => {
    expect(await teacher.get(`/api/lessons/${lessonId}/hand-over/tapes`)).toMatchObject({
      status: 404,
      body: { message: expect.stringContaining('originals') },
    });
  });
});

describe('what takes up room', () => {
  it('is listed by size with its age, and deleted: exports at once, footage unless it is seen', async () => {
    const order = (await teacher.send('POST', `/api/lessons/${lessonId}/exports`, { size: '480' }))
      .body as Job;
    expect((await teacher.send('DELETE', `/api/jobs/${order.id}/files`)).status).toBe(409);
    await until(
      () => JobRow.findByPk(order.id),
      (job) => job?.state === 'done',
    );
    const before = await stored();
    expect(before.exports.map(({ jobId, lesson, what }) => [jobId, lesson, what])).toEqual([
      [order.id, 'Juniper Quay test', 'MP4, 480 lines'],
    ]);
    expect(before.footage.map(({ takeId, inBin }) => [takeId, inBin])).toEqual([
      [shown, false],
      [spare, false],
    ]);
    for (const { bytes, at } of [...before.exports, ...before.footage])
      expect([bytes > 10_000, Date.now() - Date.parse(at) < 600_000]).toEqual([true, true]);

    const video = await teacher.get(`/api/jobs/${order.id}/video`);
    expect(video.status).toBe(200);
    expect((await teacher.send('DELETE', `/api/jobs/${order.id}/files`)).status).toBe(204);
    expect((await teacher.get(`/api/jobs/${order.id}/video`)).status).toBe(404);
    expect(await teacher.send('DELETE', `/api/takes/${shown}`)).toMatchObject({
      status: 409,
      body: { code: 'in-use' },
    });
    const content = (await TakeRow.findByPk(spare))?.workingSha ?? '';
    expect((await teacher.send('DELETE', `/api/takes/${spare}`)).status).toBe(204);
    expect(await server.store.sizeOf(content).catch(() => 0)).toBe(0);
    const after = await stored();
    expect([after.exports, after.footage.map(({ takeId }) => takeId)]).toEqual([[], [shown]]);
  });
});
