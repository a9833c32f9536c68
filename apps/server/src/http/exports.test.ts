import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { JobRow } from '../db/models.ts';
import { lessonOf, testServer, type TestClient, type TestServer } from '../testing/server.ts';

let server: TestServer;
let teacher: TestClient;
let lessonId: string;
beforeAll(async () => {
  server = await testServer();
  teacher = server.client();
  await teacher.signUp();
  lessonId = (
    await teacher.makeLesson(
      lessonOf([{ kind: 'talk', title: 'Hello', script: 'Welcome to the quay. Fetch a rope.' }]),
    )
  ).id;
});
afterAll(() => server.stop());

const file = (name: string) => teacher.get(`/api/lessons/${lessonId}/cut/${name}`);
const text = async (name: string) => String((await file(name)).body);

describe('files of the cut', () => {
  it('are made from the lesson as it is saved', async () => {
    expect(await text('captions.vtt')).toContain('WEBVTT');
    expect(await text('captions.srt')).toMatch(/^1\r\n00:00:00,000 --> /);
    expect(await text('chapters.txt')).toMatch(/^0:00 /);
    expect((await file('cut.otio')).body).toMatchObject({ OTIO_SCHEMA: 'Timeline.1' });
    expect(await text('cut.edl')).toContain('FCM: NON-DROP FRAME');
  });

  it('hold any frame as a picture, and the last one for moments behind the end', async () => {
    for (const ms of [0, 99_999_999]) {
      const answer = await file(`frame.png?ms=${ms}`);
      expect(answer.status).toBe(200);
      expect(String(answer.body).slice(1, 4)).toBe('PNG');
    }
  });

  it('are refused in words when there is no such file or moment', async () => {
    expect(await file('cut.doc')).toMatchObject({
      status: 404,
      body: { message: expect.stringContaining('captions.vtt') },
    });
    expect(await file('frame.png?ms=soon')).toMatchObject({
      status: 422,
      body: { message: expect.stringContaining('milliseconds') },
    });
  });
});

describe('an export in line', () => {
  it('says what it is to be, is held back, made next and cancelled', async () => {
    expect(
      await teacher.send('POST', `/api/lessons/${lessonId}/exports`, { size: '999' }),
    ).toMatchObject({ status: 400 });
    const answer = await teacher.send('POST', `/api/lessons/${lessonId}/exports`, {
      size: '480',
      format: 'webm',
      overlays: false,
      hand: 'other hand',
    });
    expect(answer).toMatchObject({
      status: 202,
      body: {
        state: 'queued',
        order: { size: '480', format: 'webm', overlays: false, hand: 'other hand' },
      },
    });
    const { id } = answer.body as { id: string };
    // Another size is another export; the same one is not made twice.
    expect(
      ((await teacher.send('POST', `/api/lessons/${lessonId}/exports`, {})).body as { id: string })
        .id,
    ).not.toBe(id);
    expect(await teacher.send('PUT', `/api/jobs/${id}`, { held: true })).toMatchObject({
      body: { state: 'held' },
    });
    expect(
      await teacher.send('PUT', `/api/jobs/${id}`, { held: false, first: true }),
    ).toMatchObject({ body: { state: 'queued' } });
    expect((await JobRow.findByPk(id))?.priority).toBeGreaterThan(0);
    expect(await teacher.send('DELETE', `/api/jobs/${id}`)).toMatchObject({
      body: { state: 'cancelled' },
    });
  });
});
