import { readFileSync } from 'node:fs';
import { entryOfCue, makeCue, makeSeries, type Lesson } from '@zest/core/lesson';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  lessonOf,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

let server: TestServer;
let teacher: TestClient;
beforeAll(async () => {
  server = await testServer();
  void server.startWorker();
  teacher = server.client();
  await teacher.signUp();
});
afterAll(() => server.stop());

const series = { ...makeSeries('Quayside'), weeks: 4, startsOn: '2026-09-07' };
const inSeries = (name: string, week: number): Lesson => ({
  ...lessonOf([{ kind: 'intervals' }]),
  series: { name, week, level: 'standard', recap: '', teaser: '' },
});

describe('series', () => {
  it('are kept as they are saved, one of a name, and refused when stale or in a circle', async () => {
    const made = await teacher.send('POST', '/api/series', { series });
    expect([made.status, made.body.series]).toEqual([201, series]);
    const url = `/api/series/${made.body.id}`;
    const changed = { ...series, about: '“Ropes” & 🤸' };
    expect((await teacher.send('PUT', url, { baseRevision: 1, series: changed })).body).toEqual({
      id: made.body.id,
      revision: 2,
      series: changed,
    });
    expect((await teacher.send('PUT', url, { baseRevision: 1, series })).body).toMatchObject({
      code: 'stale',
      revision: 2,
    });
    const circle = { ...series, weekPlans: [{ week: 2, focus: '', basis: 3 }] };
    expect(
      (await teacher.send('PUT', url, { baseRevision: 2, series: circle })).body.message,
    ).toContain('circle: 2 ← 3 ← 2');
    expect((await teacher.send('POST', '/api/series', { series: circle })).status).toBe(400);
    expect((await teacher.send('POST', '/api/series', { series })).body).toMatchObject({
      code: 'taken',
      message: expect.stringContaining('another name'),
    });
    expect(
      (await teacher.send('POST', '/api/series', { series: { ...series, name: 'quayside' } }))
        .status,
    ).toBe(201);
    expect(
      (await teacher.send('PUT', url, { baseRevision: 2, series: { ...series, name: 'quayside' } }))
        .body.code,
    ).toBe('taken');
    expect(
      (await teacher.send('POST', '/api/series', { series: { ...series, weeks: 201 } })).body
        .message,
    ).toContain('At most 200');
    expect(
      (await teacher.get('/api/series')).body
        .map((lesson: { series: { name: string } }) => lesson.series.name)
        .sort(),
    ).toEqual(['Quayside', 'quayside']);
  });

  it('take their lessons along when renamed, and leave them when deleted', async () => {
    const { id } = (
      await teacher.send('POST', '/api/series', { series: { ...series, name: 'Old name' } })
    ).body;
    const made = await teacher.makeLesson(inSeries('Old name', 1));
    const other = await teacher.makeLesson(inSeries('Other', 1));
    await teacher.send('PUT', `/api/series/${id}`, {
      baseRevision: 1,
      series: { ...series, name: 'New name' },
    });
    expect((await teacher.get(`/api/lessons/${made.id}`)).body).toMatchObject({
      revision: 2,
      lesson: { series: { name: 'New name', week: 1 } },
    });
    expect((await teacher.get(`/api/lessons/${other.id}`)).body.revision).toBe(1);
    expect((await teacher.send('DELETE', `/api/series/${id}`)).status).toBe(204);
    expect((await teacher.get(`/api/lessons/${made.id}`)).status).toBe(200);
  });
});

describe('the shelf', () => {
  it('knows of each lesson what its series and a search ask for', async () => {
    const lesson = { ...inSeries('Shelf', 2), outcome: 'Ten skips.' };
    Object.assign(lesson.sections[0]?.blocks[0] ?? {}, {
      skill: 'Rope',
      kit: [{ id: 'k', name: 'Rope', quantity: 2, share: 'each', standIn: 'belt' }],
    });
    const { id } = await teacher.makeLesson(lesson);
    const find = async () =>
      (await teacher.get('/api/lessons')).body.find((own: { id: string }) => own.id === id);
    expect(await find()).toMatchObject({
      outcome: 'Ten skips.',
      sections: ['Part'],
      skills: [{ skill: 'Rope', studentMs: 115_000 }],
      kit: ['2 × Rope (or belt)'],
      archived: false,
      template: false,
    });
    expect(
      (await teacher.send('PUT', `/api/lessons/${id}/shelf`, { archived: true, template: true }))
        .status,
    ).toBe(204);
    expect(await find()).toMatchObject({ archived: true, template: true });
    expect(
      (await teacher.send('PUT', `/api/lessons/${id}/shelf`, { archived: 'yes', template: false }))
        .status,
    ).toBe(400);
  });
});

describe('the cue library', () => {
  it('keeps a cue, changes it in one place, and counts where it is used', async () => {
    const { id: _id, ...body } = entryOfCue(
      makeCue('Land softly', () => 'c'),
      'Rope',
      'e',
    );
    const made = await teacher.send('POST', '/api/cues', body);
    expect([made.status, made.body.text, made.body.uses]).toEqual([201, 'Land softly', 0]);
    await teacher.makeLesson(
      lessonOf([
        { kind: 'talk', cues: [{ ...makeCue('Land softly', () => 'c'), entryId: made.body.id }] },
      ]),
    );
    const changed = await teacher.send('PUT', `/api/cues/${made.body.id}`, {
      ...body,
      text: 'Land like a cat',
    });
    expect(changed.status).toBe(200);
    expect((await teacher.get('/api/cues')).body).toEqual([
      { ...body, id: made.body.id, text: 'Land like a cat', uses: 1 },
    ]);
    expect((await teacher.send('POST', '/api/cues', { text: 'x' })).status).toBe(400);
    expect((await teacher.send('DELETE', `/api/cues/${made.body.id}`)).status).toBe(204);
    expect((await teacher.get('/api/cues')).body).toEqual([]);
    // Put back, the cues made from it know it again; it is not there twice.
    expect((await teacher.send('POST', '/api/cues', { ...body, id: made.body.id })).status).toBe(
      201,
    );
    expect((await teacher.get('/api/cues')).body).toMatchObject([{ id: made.body.id, uses: 1 }]);
    expect((await teacher.send('POST', '/api/cues', { ...body, id: made.body.id })).status).toBe(
      409,
    );
  });
});

describe('a lesson made of others', () => {
  it('has takes of its own, of the same content; footage that is nowhere is left out', async () => {
    const first = await teacher.makeLesson(lessonOf([{ kind: 'talk', fixedMs: 3_000 }]));
    const block = first.lesson.sections[0]?.blocks[0];
    const takeId = await teacher.makeTake(first.id, block?.id);
    await teacher.upload(
      takeId,
      readFileSync(new URL('../../../../demo/clips/welcome.mp4', import.meta.url)),
    );
    await until(
      () => teacher.get(`/api/lessons/${first.id}/takes`),
      ({ body }) => body[0].state === 'ready',
    );
    const document = lessonOf([
      { kind: 'talk', id: 'one', footage: { takeId, startsAtMs: 500 } },
      { kind: 'talk', id: 'two', footage: { takeId: 'nowhere', startsAtMs: 0 } },
    ]);
    const made = await teacher.makeLesson(document);
    const [one, two] = made.lesson.sections[0]?.blocks ?? [];
    expect(two?.footage).toBeNull();
    expect(one?.footage?.startsAtMs).toBe(500);
    const [copy] = (await teacher.get(`/api/lessons/${made.id}/takes`)).body;
    expect(copy).toMatchObject({ id: one?.footage?.takeId, blockId: 'one', state: 'ready' });
    await teacher.send('DELETE', `/api/takes/${takeId}`);
    expect((await teacher.get(`/api/takes/${copy.id}/video`)).status).toBe(200);
    const copied = await teacher.send('POST', `/api/lessons/${first.id}/takes/copies`, {
      takes: [
        { takeId: copy.id, blockId: 'b' },
        { takeId: 'nowhere', blockId: 'c' },
      ],
    });
    expect([copied.status, copied.body.length, copied.body[0].from]).toEqual([201, 1, copy.id]);
  });
});
