import type { FollowLesson, Job } from '@zest/contract';
import type { IntervalsBlock } from '@zest/core/lesson';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { JobRow } from '../db/models.ts';
import { footageFolder } from '../testing/footage.ts';
import {
  lessonOf,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

const footage = footageFolder();
let server: TestServer;
let teacher: TestClient;
let lessonId: string;
let shown: string;
let hidden: string;
let code: string;

beforeAll(async () => {
  server = await testServer();
  teacher = server.client();
  await teacher.signUp();
  void server.startWorker();
  footage.make(
    'clip.mp4',
    4,
    [
      '-vf',
      'noise=alls=40:allf=t',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-pix_fmt',
      'yuv420p',
    ],
    { size: '640x360' },
  );
  const { id, lesson } = await teacher.makeLesson(
    lessonOf([
      {
        kind: 'intervals',
        title: 'Skip',
        workMs: 2_000,
        rounds: 1,
        leadInMs: 0,
        script: 'Go.',
      } as Partial<IntervalsBlock>,
    ]),
  );
  lessonId = id;
  [shown, hidden] = [await teacher.makeTake(id), await teacher.makeTake(id)];
  for (const take of [shown, hidden]) await teacher.upload(take, footage.read('clip.mp4'));
  await until(
    async () => (await teacher.get(`/api/lessons/${id}/takes`)).body as { state: string }[],
    (takes) => takes.every((take) => take.state === 'ready'),
  );
  const block = lesson.sections[0]?.blocks[0];
  if (block) block.footage = { takeId: shown, startsAtMs: 1_000 };
  await teacher.send('PUT', `/api/lessons/${id}`, { baseRevision: 1, lesson });
  code = (await teacher.send('POST', `/api/lessons/${id}/shares`)).body.code as string;
});
afterAll(async () => {
  await server.stop();
  footage.remove();
});

describe('a shared lesson', () => {
  it('is followed without an account, by a code that cannot be guessed', async () => {
    expect(code).toMatch(/^[\w-]{24}$/);
    const lesson = (await server.client().get(`/api/follow/${code}`)).body as FollowLesson;
    expect(lesson.assembly.segments[0]?.source).toMatchObject({
      kind: 'take',
      takeId: shown,
      inFrame: 30,
    });
    const another = code.slice(0, -1) + (code.endsWith('x') ? 'y' : 'x');
    expect((await server.client().get(`/api/follow/${another}`)).status).toBe(404);
    expect((await server.client().get(`/api/follow/${code}/captions`)).body).toContain('WEBVTT');
  });

  it('plays in ranges and opens no other take of the teacher', async () => {
    const student = server.client();
    const whole = await fetch(`${server.origin}/api/follow/${code}/takes/${shown}`);
    const length = Number(whole.headers.get('content-length'));
    const bytes = Buffer.from(await whole.arrayBuffer());
    expect([whole.headers.get('accept-ranges'), bytes.length]).toEqual(['bytes', length]);
    const part = await fetch(`${server.origin}/api/follow/${code}/takes/${shown}`, {
      headers: { range: 'bytes=100-199' },
    });
    expect([part.status, part.headers.get('content-range')]).toEqual([
      206,
      `bytes 100-199/${length}`,
    ]);
    expect(Buffer.from(await part.arrayBuffer()).equals(bytes.subarray(100, 200))).toBe(true);
    expect(
      (await student.get(`/api/follow/${code}/takes/${shown}`, { range: `bytes=${length}-` }))
        .status,
    ).toBe(416);
    expect((await student.get(`/api/follow/${code}/takes/${hidden}`)).status).toBe(404);
    expect((await student.get(`/api/takes/${shown}/video`)).status).toBe(401);
  });

  it('has smaller versions of what is shown, made by the queue once the link is there', async () => {
    const take = await until(
      async () =>
        ((await server.client().get(`/api/follow/${code}`)).body as FollowLesson).takes[0],
      (one) => (one?.renditions.length ?? 0) > 0,
    );
    const [small] = take?.renditions ?? [];
    expect([take?.renditions.length, small?.lines]).toEqual([1, 360]);
    expect(small?.bytes).toBeLessThan((take?.bytes ?? 0) / 2);
    const length = async (query: string) =>
      Number(
        (await fetch(`${server.origin}/api/follow/${code}/takes/${shown}${query}`)).headers.get(
          'content-length',
        ),
      );
    expect([await length('?lines=360'), await length('?lines=999'), await length('')]).toEqual([
      small?.bytes,
      take?.bytes,
      take?.bytes,
    ]);
    const asked = async () =>
      (await JobRow.findAll({ where: { kind: 'renditions' } })).map(({ subjectId }) => subjectId);
    expect(await asked()).toEqual([shown]);
  });

  it('stays as it was shared when the plan changes, and ends when the link is closed', async () => {
    const { lesson, revision } = (await teacher.get(`/api/lessons/${lessonId}`)).body;
    await teacher.send('PUT', `/api/lessons/${lessonId}`, {
      baseRevision: revision,
      lesson: { ...lesson, title: 'Changed' },
    });
    expect((await server.client().get(`/api/follow/${code}`)).body.title).toBe('Juniper Quay test');
    await teacher.send('DELETE', `/api/shares/${code}`);
    const closed = await server.client().get(`/api/follow/${code}`);
    expect([closed.status, closed.body.message]).toEqual([
      404,
      expect.stringContaining('Ask your teacher'),
    ]);
  });
});

describe('an export over the interface', () => {
  it('runs as a job with progress events and is not made twice', async () => {
    const ordered = (await teacher.send('POST', `/api/lessons/${lessonId}/exports`)).body as Job;
    expect((await teacher.send('POST', `/api/lessons/${lessonId}/exports`)).body.id).toBe(
      ordered.id,
    );
    const done = await until(
      async () => ((await teacher.get(`/api/lessons/${lessonId}/exports`)).body as Job[])[0],
      (job) => job?.state !== 'queued' && job?.state !== 'running',
    );
    expect(done).toMatchObject({
      state: 'done',
      progress: 1,
      result: { frames: 60, durationMs: 2_000 },
    });
    const video = await teacher.get(`/api/jobs/${ordered.id}/video`);
    expect(video.headers.get('content-disposition')).toContain('lesson.mp4');
    expect((await teacher.get(`/api/jobs/${ordered.id}/captions`)).body).toContain('WEBVTT');
    expect((await teacher.send('POST', `/api/lessons/${lessonId}/exports`)).body.id).toBe(
      ordered.id,
    );
  });

  it('stops soon after it is cancelled, and says so', async () => {
    const long = {
      kind: 'intervals',
      workMs: 600_000,
      rounds: 1,
      leadInMs: 0,
    } as Partial<IntervalsBlock>;
    const { id } = await teacher.makeLesson(lessonOf([long]));
    const state = async () =>
      ((await teacher.get(`/api/lessons/${id}/exports`)).body as Job[])[0]?.state;
    const { id: jobId } = (await teacher.send('POST', `/api/lessons/${id}/exports`)).body as Job;
    await until(state, (now) => now === 'running');
    await teacher.send('DELETE', `/api/jobs/${jobId}`);
    expect(await until(state, (now) => now !== 'running')).toBe('cancelled');
    expect((await teacher.get(`/api/jobs/${jobId}/video`)).status).toBe(404);
  });

  it('pushes what happens to the page of its owner', async () => {
    const { id } = await teacher.makeLesson(
      lessonOf([
        { kind: 'intervals', workMs: 1_000, rounds: 1, leadInMs: 0 } as Partial<IntervalsBlock>,
      ]),
    );
    const cookie = await signedCookie();
    const stop = new AbortController();
    const stream = await fetch(`${server.origin}/api/events`, {
      headers: { cookie },
      signal: stop.signal,
    });
    const reader = stream.body?.getReader();
    const job = (await teacher.send('POST', `/api/lessons/${id}/exports`)).body as Job;
    let seen = '';
    await until(
      async () => {
        const chunk = await reader?.read();
        seen += Buffer.from(chunk?.value ?? new Uint8Array()).toString('utf8');
        return seen;
      },
      (text) => text.includes(`"id":"${job.id}"`) && text.includes('"state":"done"'),
    );
    stop.abort();
    expect(seen).toContain('"kind":"export"');
  });
});

async function signedCookie(): Promise<string> {
  const { PASSWORD } = await import('../testing/server.ts');
  const answer = await server
    .client()
    .send('POST', '/api/session', { login: 'teacher', password: PASSWORD });
  return answer.headers.get('set-cookie')?.split(';')[0] ?? '';
}
