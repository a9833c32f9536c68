import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { ffmpeg } from '../../apps/server/src/media/ffmpeg.ts';
import { caller } from './calls.ts';
import { footageReady, openRoom, type Room } from './crowd.ts';
import { startFleet, type Fleet } from './fleet.ts';
import { eightPieces } from './lessons.ts';
import type { Result } from './result.ts';
import { answered, SENDERS, STUDENTS, TEACHERS, underLoad, type Ready } from './under-load.ts';

/** Three minutes unless said otherwise. */
const MINUTES = Number(process.env['ZEST_SCALE_MINUTES'] ?? 3);
const [WEBS, WORKERS] = [3, 3];
const CALM_MS = 30_000;
const KILL_EVERY_MS = 10_000;
const DOWN_MS = 2_000;
const EXPORTS = 10;
const EXPORT_LIMIT_MS = 300_000;
const MOST_OVERHEAD = 0.05;
const clip = path.resolve(import.meta.dirname, '../../demo/clips/skipping.mp4');

/** A lesson of eight pieces, filmed. */
async function prepared(fleet: Fleet): Promise<Ready> {
  const teacher = caller(fleet.origin);
  await teacher.signUp();
  const { id: lessonId } = await teacher.makeLesson(eightPieces(null));
  const takeId = await teacher.makeTake(lessonId);
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-bench-'));
  const long = path.join(folder, 'long.mp4');
  await ffmpeg(['-stream_loop', '3', '-i', clip, '-t', '60', '-c', 'copy', long]);
  await teacher.upload(takeId, readFileSync(long));
  rmSync(folder, { recursive: true });
  await footageReady(teacher, lessonId);
  const document = eightPieces(takeId);
  const { revision } = await teacher.call<{ revision: number }>('PUT', `/api/lessons/${lessonId}`, {
    baseRevision: 1,
    lesson: document,
  });
  return { fleet, teacher, lessonId, revision, document };
}

/** What the web servers spend on everybody while nothing dies. */
async function undisturbed(ready: Ready, room: Room): Promise<Result[]> {
  const spent = () => ready.fleet.web.reduce((sum, part) => sum + part.spent().own, 0);
  const [began, before] = [Date.now(), spent()];
  const loaded = await underLoad(ready, room, 'undisturbed', began + CALM_MS);
  const cores = (spent() - before) / (Date.now() - began);
  return [
    ...loaded,
    {
      what: `${WEBS} web servers for ${STUDENTS} students and ${TEACHERS} teachers`,
      value: `${(cores * 100).toFixed(0)} % of a core`,
      limit: 'under two cores, one for a hundred students',
      holds: cores < 2,
    },
  ];
}

async function killingWebs(fleet: Fleet, untilMs: number): Promise<number> {
  let killed = 0;
  while (Date.now() + KILL_EVERY_MS < untilMs) {
    await sleep(KILL_EVERY_MS - DOWN_MS);
    const part = fleet.web[killed % fleet.web.length];
    await part?.kill();
    killed += 1;
    await sleep(DOWN_MS);
    part?.begin();
  }
  return killed;
}

/** Exports the lesson once more; gives the hash of its picture, and how long it took. */
async function exported(ready: Ready, round: string): Promise<{ hash: string; ms: number }> {
  const { teacher, lessonId, document } = ready;
  // A revision of its own, with the same pieces.
  const saved = await answered(() =>
    teacher.call<{ revision: number }>('PUT', `/api/lessons/${lessonId}`, {
      baseRevision: ready.revision,
      lesson: { ...document, title: `Eight pieces, ${round}` },
    }),
  );
  ready.revision = saved.revision;
  const began = performance.now();
  const { id } = await answered(() =>
    teacher.call<{ id: string }>('POST', `/api/lessons/${lessonId}/exports`),
  );
  const job = async () => {
    const jobs = await answered(() =>
      teacher.call<{ id: string; state: string; message: string }[]>(
        'GET',
        `/api/lessons/${lessonId}/exports`,
      ),
    );
    return jobs.find((one) => one.id === id);
  };
  const untilMs = Date.now() + EXPORT_LIMIT_MS;
  for (let now = await job(); now?.state !== 'done'; now = await job()) {
    if (now?.state === 'failed' || Date.now() > untilMs)
      throw new Error(`Export ${round} is ${now?.state ?? 'lost'}: ${now?.message ?? ''}`);
    await sleep(500);
  }
  const ms = performance.now() - began;
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-bench-'));
  const file = path.join(folder, 'lesson.mp4');
  const picture = path.join(folder, 'picture.h264');
  writeFileSync(file, await answered(() => teacher.bytes(`/api/jobs/${id}/video`)));
  await ffmpeg(['-i', file, '-map', '0:v', '-c', 'copy', picture]);
  const hash = createHash('sha256').update(readFileSync(picture)).digest('hex');
  rmSync(folder, { recursive: true });
  return { hash, ms };
}

/** Nobody has rendered anything of the lesson yet. */
function forgetPieces({ s3, work }: Fleet): void {
  s3?.forget('pieces');
  for (const part of work) part.forget('cache/segments');
}

async function killingWorkers(ready: Ready): Promise<Result> {
  const { fleet } = ready;
  const [, ...others] = fleet.work;
  for (const part of others) await part.kill();
  const alone = await exported(ready, 'alone');
  for (const part of others) part.begin();
  let same = 0;
  const times: number[] = [];
  for (let i = 0; i < EXPORTS; i += 1) {
    forgetPieces(fleet);
    const victim = fleet.work[Math.floor(Math.random() * fleet.work.length)];
    const killing = sleep(Math.random() * alone.ms).then(async () => {
      await victim?.kill();
      await sleep(DOWN_MS);
      victim?.begin();
    });
    const made = await exported(ready, String(i));
    await killing;
    times.push(made.ms);
    if (made.hash === alone.hash) same += 1;
  }
  return {
    what:
      `an export in eight pieces over ${fleet.work.length} workers, one killed at a random ` +
      `moment, ${EXPORTS} times; alone ${(alone.ms / 1_000).toFixed(0)} s, then ` +
      `${times.map((ms) => (ms / 1_000).toFixed(0)).join(', ')} s`,
    value: `${same} with the same bytes of picture as one worker by itself`,
    limit: 'all of them',
    holds: same === EXPORTS,
  };
}

/** Redis, bucket and database away one after the other, while all of it is in use. */
async function outages(ready: Ready, room: Room): Promise<Result[]> {
  const { fleet } = ready;
  const wanted = await exported(ready, 'before');
  forgetPieces(fleet);
  const untilMs = Date.now() + 75_000;
  const breaking = async () => {
    await sleep(5_000);
    await fleet.redis?.restart(3_000);
    await sleep(12_000);
    await fleet.s3?.refuse(10_000);
    await sleep(10_000);
    await fleet.restartDatabase(3_000);
  };
  const [loaded, , made] = await Promise.all([
    underLoad(ready, room, 'Redis restarted, bucket refusing, database restarted', untilMs),
    breaking(),
    exported(ready, 'meanwhile'),
  ]);
  return [
    ...loaded,
    {
      what: 'an export meanwhile',
      value: `${(made.ms / 1_000).toFixed(0)} s (${(wanted.ms / 1_000).toFixed(0)} s undisturbed)`,
      limit: 'made, with the same bytes of picture',
      holds: made.hash === wanted.hash,
    },
  ];
}

/** What one worker spends on an export, in ms: the program itself with its queue, and all of it. */
async function costOf(engines: boolean): Promise<{ own: number; all: number }> {
  const fleet = await startFleet({ webs: 1, workers: 1, engines });
  try {
    const ready = await prepared(fleet);
    // What is loaded once is loaded.
    await exported(ready, 'first');
    const spent = () => {
      const { own, children } = fleet.work[0]?.spent() ?? { own: 0, children: 0 };
      return { own: own + fleet.redisMs(), all: own + children + fleet.redisMs() };
    };
    let [own, all] = [0, 0];
    for (let i = 0; i < 3; i += 1) {
      forgetPieces(fleet);
      const before = spent();
      await exported(ready, String(i));
      const after = spent();
      own += after.own - before.own;
      all += after.all - before.all;
    }
    return { own: own / 3, all: all / 3 };
  } finally {
    await fleet.stop();
  }
}

/**
 * Three web servers and three workers on this machine, as on machines of their own, with Redis, a
 * bucket and a balancer between them, while parts of it die. Minutes by ZEST_SCALE_MINUTES.
 */
export async function* scale(): AsyncGenerator<Result> {
  const [embedded, engines] = [await costOf(false), await costOf(true)];
  const more = (engines.own - embedded.own) / embedded.all;
  yield {
    what:
      'processor time of an export, in s: the worker itself and Redis ' +
      `${(engines.own / 1_000).toFixed(1)}, embedded ${(embedded.own / 1_000).toFixed(1)}, ` +
      `all of it ${(embedded.all / 1_000).toFixed(1)}`,
    value: `${(more * 100).toFixed(1)} % more for the engines`,
    limit: `under ${MOST_OVERHEAD * 100} %`,
    holds: more < MOST_OVERHEAD,
  };
  const fleet = await startFleet({ webs: WEBS, workers: WORKERS, engines: true });
  try {
    const ready = await prepared(fleet);
    const room = await openRoom(ready.teacher, ready.lessonId, 'Scale', SENDERS);
    yield* await undisturbed(ready, room);
    const untilMs = Date.now() + MINUTES * 60_000;
    const [loaded, killed] = await Promise.all([
      underLoad(ready, room, `${WEBS} web servers, one killed every ten seconds`, untilMs),
      killingWebs(fleet, untilMs),
    ]);
    yield* loaded;
    yield {
      what: 'web servers killed meanwhile',
      value: String(killed),
      limit: 'at least one',
      holds: killed > 0,
    };
    yield await killingWorkers(ready);
    yield* await outages(ready, room);
  } finally {
    await fleet.stop();
  }
}
