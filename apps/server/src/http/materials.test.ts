import { execFileSync } from 'node:child_process';
import type { Take } from '@zest/contract';
import { makeBlock, type Lesson } from '@zest/core/lesson';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { probe } from '../media/probe.ts';
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

beforeAll(async () => {
  server = await testServer();
  teacher = server.client();
  await teacher.signUp();
  lessonId = (
    await teacher.makeLesson(
      lessonOf([
        { id: 'b1', kind: 'talk', title: 'Talk', fixedMs: 70_000 } as Partial<
          Lesson['sections'][number]['blocks'][number]
        >,
      ]),
    )
  ).id;
  for (const [name, ...args] of [
    ['drawing.png', '-f', 'lavfi', '-i', 'color=c=blue:s=300x500', '-frames:v', '1'],
    ['photo.jpg', '-f', 'lavfi', '-i', 'testsrc=size=2000x1000', '-frames:v', '1'],
    ['tune.mp3', '-f', 'lavfi', '-i', 'sine=duration=3'],
    ['silent.mp4', '-f', 'lavfi', '-i', 'testsrc=size=64x64:duration=1', '-pix_fmt', 'yuv420p'],
    [
      'spoken.mp4',
      '-f',
      'lavfi',
      '-i',
      'testsrc=size=64x64:duration=3',
      '-f',
      'lavfi',
      '-i',
      'sine=duration=3',
      '-pix_fmt',
      'yuv420p',
    ],
  ] as const) {
    execFileSync('ffmpeg', ['-y', '-v', 'error', ...args, footage.at(name)]);
  }
  footage.write('notes.txt', 'neither picture nor sound');
  void server.startWorker();
});
afterAll(async () => {
  await server.stop();
  footage.remove();
});

/** Sends a file as what it is said to be, and waits for what becomes of it. */
async function sent(name: string, source: Take['source']): Promise<Take | undefined> {
  const { id } = (
    await teacher.send('POST', `/api/lessons/${lessonId}/takes`, { blockId: '', name, source })
  ).body as { id: string };
  await teacher.upload(id, footage.read(name));
  const current = async () =>
    ((await teacher.get(`/api/lessons/${lessonId}/takes`)).body as Take[]).find(
      (take) => take.id === id,
    );
  return until(current, (take) => take?.state === 'ready' || take?.state === 'failed');
}

describe('pictures and music', () => {
  it.each([
    ['drawing.png', 300, 500],
    ['photo.jpg', 1920, 960],
  ] as const)('%s becomes one frame, no larger than it is shown', async (name, width, height) => {
    const take = await sent(name, 'picture');
    expect(take).toMatchObject({ state: 'ready', frames: 1, hasSound: false });
    footage.write('copy.mp4', await teacher.bytes(`/api/takes/${take?.id ?? ''}/video`));
    expect((await probe(footage.at('copy.mp4'), true)).video).toMatchObject({
      width,
      height,
      packets: 1,
    });
  });

  it('a piece of music becomes sound of its length', async () => {
    const take = await sent('tune.mp3', 'music');
    expect(take).toMatchObject({ state: 'ready', hasSound: true });
    expect(Math.abs((take?.frames ?? 0) - 90)).toBeLessThanOrEqual(2);
  });

  it.each([
    ['notes.txt', 'picture', 'is not a picture that can be read'],
    ['tune.mp3', 'picture', 'is not a picture that can be read'],
    ['notes.txt', 'music', 'There is no sound in this file'],
    ['silent.mp4', 'music', 'There is no sound in this file'],
  ] as const)('%s as %s is refused in words', async (name, source, words) => {
    const take = await sent(name, source);
    expect(take?.state).toBe('failed');
    expect(take?.fault).toContain(words);
  });
});

describe('the finished voice of a take', () => {
  it('is made as asked, and no other way', async () => {
    const spoken = await sent('spoken.mp4', 'upload');
    const at = (id: string | undefined, query: string) =>
      teacher.get(`/api/takes/${id ?? ''}/finished?${query}`);
    const good = await at(spoken?.id, 'lufs=-16&lowCut=true&noise=gently');
    expect([good.status, good.headers.get('content-type')]).toEqual([200, 'audio/mp4']);
    for (const query of [
      '',
      'lufs=3&lowCut=true&noise=gently',
      'lufs=-16&lowCut=maybe&noise=gently',
      'lufs=-16&lowCut=true&noise=away',
    ]) {
      expect((await at(spoken?.id, query)).status).toBe(422);
    }
    const silent = await sent('silent.mp4', 'upload');
    expect((await at(silent?.id, 'lufs=-16&lowCut=true&noise=gently')).status).toBe(404);
  });
});

describe('an export', () => {
  const order = (more: object) => teacher.send('POST', `/api/lessons/${lessonId}/exports`, more);

  it.each([
    [{ format: 'gif' }, 'too-long'],
    [{ format: 'gif', blockId: 'b1' }, 'too-long'],
    [{ language: 'second' }, 'no-second-language'],
    [{ blockId: 'nowhere' }, 'no-block'],
  ])('of %j is refused with what to do', async (more, code) => {
    const answer = await order(more);
    expect([answer.status, answer.body.code]).toEqual([422, code]);
    expect(answer.body.message.length).toBeGreaterThan(20);
    // In words, not as it is kept for later.
    expect(answer.body.message).not.toContain('{');
  });

  it('tells what was changed since it was made', async () => {
    const { id, lesson } = await teacher.makeLesson(
      lessonOf([
        { ...makeBlock('card', () => 'c1'), title: 'Kit', fixedMs: 1_000 } as Partial<
          Lesson['sections'][number]['blocks'][number]
        >,
      ]),
    );
    const listed = async () =>
      (
        (await teacher.get(`/api/lessons/${id}/exports`)).body as {
          state: string;
          changedSince: string[] | null;
        }[]
      )[0];
    await teacher.send('POST', `/api/lessons/${id}/exports`, { size: '480' });
    expect((await until(listed, (job) => job?.state === 'done'))?.changedSince).toEqual([]);
    const next = structuredClone(lesson);
    const [block] = next.sections[0]?.blocks ?? [];
    if (block) block.title = 'What you need';
    next.finish.look.calm = true;
    expect(
      (await teacher.send('PUT', `/api/lessons/${id}`, { baseRevision: 1, lesson: next })).status,
    ).toBe(200);
    expect((await listed())?.changedSince).toEqual(['What you need', 'look']);
  });
});
