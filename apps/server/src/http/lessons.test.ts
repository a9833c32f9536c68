import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lessonOf, testServer, type TestClient, type TestServer } from '../testing/server.ts';

let server: TestServer;
let teacher: TestClient;
beforeAll(async () => {
  server = await testServer();
  teacher = server.client();
  await teacher.signUp();
});
afterAll(() => server.stop());

it('tells a damaged address from a fault of its own', async () => {
  for (const url of ['/api/lessons/%E0%A4%A', '/api/follow/%', '/api/takes/%ff/original']) {
    const answer = await server.client().get(url);
    expect([answer.status, answer.body.code]).toEqual([400, 'bad-address']);
  }
  expect(server.lines).toEqual([]);
});

describe('lessons', () => {
  it('keeps every saved revision as it was, with quotes and emoji', async () => {
    const { id, lesson } = await teacher.makeLesson();
    const titles = ['“Skip” & <throw> 🤸', "O'Neil; DROP TABLE lessons;--", 'Τρίτη'];
    for (const [i, title] of titles.entries()) {
      const saved = await teacher.send('PUT', `/api/lessons/${id}`, {
        baseRevision: i + 1,
        lesson: { ...lesson, title },
      });
      expect([saved.status, saved.body.revision]).toEqual([200, i + 2]);
    }
    const list = (await teacher.get(`/api/lessons/${id}/revisions`)).body as {
      revision: number;
      title: string;
    }[];
    expect(list.map(({ revision, title }) => [revision, title])).toEqual([
      [4, titles[2]],
      [3, titles[1]],
      [2, titles[0]],
      [1, 'Skip'],
    ]);
    expect((await teacher.get(`/api/lessons/${id}/revisions/2`)).body.lesson.title).toBe(titles[0]);
    expect((await teacher.get(`/api/lessons/${id}/revisions/9`)).status).toBe(404);
  });

  it('lets one of many windows save and tells the others which revision is newest', async () => {
    const { id, lesson } = await teacher.makeLesson();
    const saves = await Promise.all(
      Array.from({ length: 6 }, (_, i) =>
        teacher.send('PUT', `/api/lessons/${id}`, {
          baseRevision: 1,
          lesson: { ...lesson, title: `Window ${i}` },
        }),
      ),
    );
    expect(saves.filter(({ status }) => status === 200)).toHaveLength(1);
    for (const stale of saves.filter(({ status }) => status !== 200)) {
      expect([stale.status, stale.body.code, stale.body.revision]).toEqual([409, 'stale', 2]);
    }
  });

  it.each([0, -1, 1e15, 'soon', null])(
    'refuses a work time of %s with its place, and keeps the lesson',
    async (workMs) => {
      const { id, lesson } = await teacher.makeLesson(
        lessonOf([{ kind: 'intervals', title: 'Circuit' }]),
      );
      const broken = JSON.parse(JSON.stringify(lesson)) as typeof lesson;
      Object.assign(broken.sections[0]?.blocks[0] ?? {}, { workMs });
      const answer = await teacher.send('PUT', `/api/lessons/${id}`, {
        baseRevision: 1,
        lesson: broken,
      });
      expect(answer.status).toBe(400);
      expect(answer.body.faults[0].place).toContain('block 1 “Circuit”, work time');
      expect((await teacher.get(`/api/lessons/${id}`)).body).toMatchObject({ revision: 1, lesson });
    },
  );

  it('refuses what is no lesson, what is no JSON and what is too much, each in words', async () => {
    expect(
      (await teacher.send('POST', '/api/lessons', { document: { a: 1 } })).body.message,
    ).toContain('not a lesson file');
    expect((await teacher.send('POST', '/api/lessons', { title: '  ' })).body.message).toContain(
      'needs a title',
    );
    expect(
      (await teacher.send('POST', '/api/lessons', '{', { 'content-type': 'application/json' })).body
        .code,
    ).toBe('not-json');
    expect(
      (await teacher.send('POST', '/api/lessons', { title: 'x'.repeat(5_000_000) })).status,
    ).toBe(413);
  });

  it('answers in the language of the page, else in what the browser asks for', async () => {
    const message = async (headers: Record<string, string>) =>
      (await server.client().get('/api/lessons', headers)).body.message;
    expect(await message({ cookie: 'zest.language=de', 'accept-language': 'es' })).toContain(
      'Melde dich zuerst an',
    );
    expect(await message({ 'accept-language': 'es-MX,en;q=0.5' })).toContain('Inicia sesión');
    expect(await message({ cookie: 'zest.language=xx', 'accept-language': 'fr' })).toContain(
      'Sign in first',
    );
  });

  it('takes a lesson of no blocks, but neither shares nor exports it', async () => {
    const { id } = await teacher.makeLesson();
    for (const thing of ['shares', 'exports']) {
      const answer = await teacher.send('POST', `/api/lessons/${id}/${thing}`);
      expect([answer.status, answer.body.code]).toEqual([422, 'empty-lesson']);
      expect(answer.body.message).toContain('Add a block');
    }
  });

  it('takes a deleted lesson from the shelf and closes its links', async () => {
    const { id } = await teacher.makeLesson(lessonOf([{ kind: 'intervals' }]));
    const { code } = (await teacher.send('POST', `/api/lessons/${id}/shares`)).body;
    expect((await server.client().get(`/api/follow/${code}`)).status).toBe(200);
    await teacher.send('DELETE', `/api/lessons/${id}`);
    expect((await teacher.get(`/api/lessons/${id}`)).status).toBe(404);
    expect((await server.client().get(`/api/follow/${code}`)).status).toBe(404);
  });
});
