import { routes, UPLOADS_PATH, type Route } from '@zest/contract';
import { nanoid } from 'nanoid';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ClassRow, LogEntryRow, StudentRow } from '../db/log-models.ts';
import { CommentRow } from '../db/team-models.ts';
import { CueEntryRow, JobRow, PerformanceRow, SeriesRow, ShareRow } from '../db/models.ts';
import {
  signUpSecond,
  takeMetadata,
  testServer,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

let server: TestServer;
let owner: TestClient;
let other: TestClient;
let ids: Record<string, string>;

beforeAll(async () => {
  server = await testServer();
  owner = server.client();
  const teamId = await owner.signUp();
  other = await signUpSecond(server);
  const lesson = await owner.makeLesson();
  const takeId = await owner.makeTake(lesson.id);
  const job = await JobRow.create({
    id: nanoid(),
    teamId,
    kind: 'export',
    subjectId: lesson.id,
    inputHash: 'x',
    input: '{}',
    state: 'queued',
  });
  await ShareRow.create({ code: 'a-code', teamId, lessonId: lesson.id, revision: 1 });
  await SeriesRow.create({ id: 'a-series', teamId, name: 'S', revision: 1, document: '{}' });
  await CueEntryRow.create({ id: 'an-entry', teamId, document: '{}' });
  await PerformanceRow.create({
    id: 'a-performance',
    teamId,
    lessonId: lesson.id,
    blockId: 'b',
    shotId: 's',
    number: 1,
    playedMs: null,
  });
  await ClassRow.create({ id: 'a-class', teamId, code: 'AAAAAA', document: '{}' });
  await StudentRow.create({
    id: 'a-student',
    teamId,
    classId: 'a-class',
    code: 'BBBBBB',
    nickname: 'silver heron',
  });
  await LogEntryRow.create({
    id: 'an-entry-of-the-log',
    teamId,
    classId: 'a-class',
    studentId: 'a-student',
    lessonId: null,
    kind: 'opened',
    madeBy: 'student',
    at: new Date(),
    body: '{"kind":"opened"}',
  });
  await CommentRow.create({
    id: 'a-comment',
    teamId,
    lessonId: lesson.id,
    authorId: teamId,
    text: 'Look',
    atMs: null,
    blockId: null,
  });
  const remote = (await owner.send('POST', `/api/lessons/${lesson.id}/remotes`, {})).body
    .remote as string;
  ids = {
    lessonId: lesson.id,
    takeId,
    jobId: job.id,
    code: 'a-code',
    revision: '1',
    print: 'plan',
    kind: 'folder',
    seriesId: 'a-series',
    entryId: 'an-entry',
    performanceId: 'a-performance',
    remote,
    classId: 'a-class',
    studentId: 'a-student',
    logId: 'an-entry-of-the-log',
    commentId: 'a-comment',
  };
});
afterAll(() => server.stop());

const fill = (path: string) => path.replace(/:(\w+)/g, (_, name: string) => ids[name] ?? name);
const all = Object.values<Route>(routes);
const owned = all.filter((route) => route.access === 'owner');

describe('every route of an owner', () => {
  it('is among the routes, and there are many', () => expect(owned.length).toBeGreaterThan(15));

  it.each(owned)(
    '$method $path is not there for somebody else and closed to strangers',
    async ({ method, path }) => {
      const body = method === 'GET' || method === 'DELETE' ? undefined : {};
      expect((await other.send(method, fill(path), body)).status).toBe(404);
      expect((await server.client().send(method, fill(path), body)).status).toBe(401);
    },
  );

  it.each(all.filter((route) => route.access === 'signed-in'))(
    '$method $path is closed to strangers',
    async ({ method, path }) => {
      expect(
        (await server.client().send(method, path, method === 'POST' ? {} : undefined)).status,
      ).toBe(401);
    },
  );

  it('keeps uploads to their owner as well', async () => {
    const metadata = { 'upload-length': '5', 'upload-metadata': takeMetadata(ids['takeId'] ?? '') };
    expect((await other.tus('POST', UPLOADS_PATH, metadata)).status).toBe(404);
    expect((await server.client().tus('POST', UPLOADS_PATH, metadata)).status).toBe(401);
    expect((await owner.tus('POST', UPLOADS_PATH, metadata)).status).toBe(201);
    for (const method of ['HEAD', 'PATCH', 'DELETE', 'GET']) {
      const answer = await other.tus(method, `${UPLOADS_PATH}/${ids['takeId']}`, {
        'upload-offset': '0',
        'content-type': 'application/offset+octet-stream',
      });
      expect(answer.status, method).toBe(404);
    }
  });

  it('still has everything of the owner afterwards, and lists nothing of it to others', async () => {
    expect((await owner.get(`/api/lessons/${ids['lessonId']}`)).status).toBe(200);
    expect((await owner.get(`/api/lessons/${ids['lessonId']}/takes`)).body).toHaveLength(1);
    expect((await other.get('/api/lessons')).body).toEqual([]);
  });
});
