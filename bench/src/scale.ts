import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import http from 'node:http';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import {
  STUDENT_HEADER,
  type Class,
  type FollowLesson,
  type Share,
  type Student,
} from '@zest/contract';
import type { Lesson } from '@zest/core/lesson';
import type { EntryBody } from '@zest/core/results';
import { nanoid } from 'nanoid';
import { ffmpeg } from '../../apps/server/src/media/ffmpeg.ts';
import { caller, range, type Caller } from './calls.ts';
import { startFleet, type Fleet } from './fleet.ts';
import { eightPieces } from './lessons.ts';
import type { Result } from './result.ts';

/** Three minutes unless said otherwise. */
const MINUTES = Number(process.env['ZEST_SCALE_MINUTES'] ?? 3);
const [WEBS, WORKERS] = [3, 3];
const [STUDENTS, TEACHERS] = [200, 30];
/** A player asks for a piece of video this often, this large: half a Mbit a second. */
const PIECE_MS = 4_000;
const PIECE_BYTES = 256 * 1024;
const SAVE_EVERY_MS = 4_000;
/** Students who also send numbers, and how often. */
const SENDERS = 40;
const SEND_EVERY_MS = 3_000;
const CALM_MS = 30_000;
const KILL_EVERY_MS = 10_000;
const DOWN_MS = 2_000;
/** Pages and players try again for so long. */
const PATIENCE_MS = 60_000;
const AGAIN_MS = 500;
const EXPORTS = 10;
const EXPORT_LIMIT_MS = 300_000;
const MOST_OVERHEAD = 0.05;
const clip = path.resolve(import.meta.dirname, '../../demo/clips/skipping.mp4');

/** Asks until it is answered well. @returns how often it had to ask again; null when it gave up */
async function untilTaken(ask: () => Promise<boolean>): Promise<number | null> {
  const untilMs = Date.now() + PATIENCE_MS;
  for (let again = 0; ; again += 1) {
    if (await ask().catch(() => false)) return again;
    if (Date.now() > untilMs) return null;
    await sleep(AGAIN_MS);
  }
}

/** Asks until the answer is not one of a server's own fault. */
async function answered<T>(ask: () => Promise<T>): Promise<T> {
  let answer: { given: T } | null = null;
  const again = await untilTaken(async () => {
    answer = { given: await ask() };
    return true;
  });
  if (again === null || answer === null) throw new Error('Nobody answered for a minute.');
  return (answer as { given: T }).given;
}

interface Ready {
  fleet: Fleet;
  teacher: Caller;
  lessonId: string;
  revision: number;
  document: Lesson;
}

/** A lesson of eight pieces, filmed. */
async function prepared(fleet: Fleet): Promise<Ready> {
  const teacher = caller(fleet.origin);
  await teacher.call('POST', '/api/owner', { login: 'scale', password: 'a long enough password' });
  const { id: lessonId } = await teacher.call<{ id: string }>('POST', '/api/lessons', {
    document: eightPieces(null),
  });
  const { id: takeId } = await teacher.call<{ id: string }>(
    'POST',
    `/api/lessons/${lessonId}/takes`,
    { blockId: 'block', name: 'Take', source: 'upload' },
  );
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-bench-'));
  const long = path.join(folder, 'long.mp4');
  await ffmpeg(['-stream_loop', '3', '-i', clip, '-t', '60', '-c', 'copy', long]);
  const bytes = readFileSync(long);
  rmSync(folder, { recursive: true });
  const tus = { 'tus-resumable': '1.0.0' };
  await teacher.ask('POST', '/api/uploads', undefined, {
    ...tus,
    'upload-length': String(bytes.length),
    'upload-metadata': `takeId ${Buffer.from(takeId).toString('base64')}`,
  });
  await teacher.ask('PATCH', `/api/uploads/${takeId}`, bytes, {
    ...{ ...tus, 'upload-offset': '0' },
    'content-type': 'application/offset+octet-stream',
  });
  const untilMs = Date.now() + EXPORT_LIMIT_MS;
  const takes = () => teacher.call<{ state: string }[]>('GET', `/api/lessons/${lessonId}/takes`);
  while ((await takes()).some(({ state }) => state !== 'ready')) {
    if (Date.now() > untilMs) throw new Error('The footage was not ready in five minutes.');
    await sleep(500);
  }
  const document = eightPieces(takeId);
  const { revision } = await teacher.call<{ revision: number }>('PUT', `/api/lessons/${lessonId}`, {
    baseRevision: 1,
    lesson: document,
  });
  return { fleet, teacher, lessonId, revision, document };
}

interface Class200 {
  share: Share;
  lesson: FollowLesson;
  schoolClass: Class;
  students: Student[];
}

async function aClass({ teacher, lessonId }: Ready): Promise<Class200> {
  const schoolClass = await teacher.call<Class>('POST', '/api/classes', {
    name: 'Scale',
    keepWeeks: 10,
    rule: {
      harder: { finishedPercent: 80, effortAtMost: 3 },
      easier: { finishedBelowPercent: 50, effortAtLeast: 4 },
    },
    credits: [],
  });
  const students = await teacher.call<Student[]>(
    'POST',
    `/api/classes/${schoolClass.id}/students`,
    { count: SENDERS },
  );
  const share = await teacher.call<Share>('POST', `/api/lessons/${lessonId}/shares`, {
    ...{ classId: schoolClass.id, opensAt: null, closesAt: null },
  });
  const lesson = await teacher.call<FollowLesson>('GET', `/api/follow/${share.code}`);
  return { share, lesson, schoolClass, students };
}

/** What of a task was asked, asked again, and given up. */
interface Tally {
  asked: number;
  again: number;
  lost: number;
}
const count = (tally: Tally, again: number | null) => {
  tally.asked += 1;
  if (again === null) tally.lost += 1;
  else tally.again += again;
};
const nothing = (): Tally => ({ asked: 0, again: 0, lost: 0 });

/** Repeats a task at a steady pace, each somebody beginning at a time of their own. */
async function everyFew(
  many: number,
  everyMs: number,
  untilMs: number,
  task: (i: number, n: number) => Promise<void>,
): Promise<void> {
  const one = async (i: number) => {
    await sleep((i * everyMs) / many);
    for (let n = 0; Date.now() < untilMs; n += 1) {
      const began = Date.now();
      await task(i, n);
      await sleep(Math.max(0, everyMs - (Date.now() - began)));
    }
  };
  await Promise.all(Array.from({ length: many }, (_, i) => one(i)));
}

async function watching(fleet: Fleet, { share, lesson }: Class200, untilMs: number) {
  const agent = new http.Agent({ keepAlive: true, maxSockets: STUDENTS * 2 });
  const tally = nothing();
  await everyFew(STUDENTS, PIECE_MS, untilMs, async (i, n) => {
    const take = lesson.takes[0];
    if (!take) throw new Error('The lesson has no footage.');
    const bytes = Math.min(PIECE_BYTES, take.bytes);
    const from = ((i + n) * 7_919) % (take.bytes - bytes + 1);
    const url = `${fleet.origin}/api/follow/${share.code}/takes/${take.id}`;
    count(tally, await untilTaken(() => range(agent, url, from, bytes)));
  });
  agent.destroy();
  return tally;
}

/** Each teacher saves a lesson of their own; what is kept in the end is what was saved last. */
async function saving({ teacher, document }: Ready, untilMs: number) {
  const tally = nothing();
  const mine: { id: string; revision: number; title: string }[] = [];
  for (let i = 0; i < TEACHERS; i += 1) {
    const title = `Scale ${i}`;
    const made = await answered(() =>
      teacher.call<{ id: string }>('POST', '/api/lessons', { document: { ...document, title } }),
    );
    mine.push({ id: made.id, revision: 1, title });
  }
  const kept = (id: string) =>
    answered(() => teacher.call<{ revision: number; lesson: Lesson }>('GET', `/api/lessons/${id}`));
  await everyFew(TEACHERS, SAVE_EVERY_MS, untilMs, async (i, n) => {
    const own = mine[i];
    if (!own) return;
    const title = `Scale ${i}, saved ${n}`;
    const again = await untilTaken(async () => {
      const { status, body } = await teacher.ask('PUT', `/api/lessons/${own.id}`, {
        ...{ baseRevision: own.revision, lesson: { ...document, title } },
      });
      if (status === 200) own.revision = (body as { revision: number }).revision;
      if (status !== 409) return status === 200;
      // Saved by a server that died before it could say so?
      const now = await kept(own.id);
      if (now.lesson.title !== title) throw new Error('Somebody else has saved.');
      own.revision = now.revision;
      return true;
    });
    count(tally, again);
    if (again !== null) own.title = title;
  });
  for (const { id, title } of mine) if ((await kept(id)).lesson.title !== title) tally.lost += 1;
  return tally;
}

const numberOf = (value: number): EntryBody => ({
  ...{ kind: 'score', blockId: 'b', key: 'k', title: 'T', measure: 'count', better: 'more' },
  ...{ value, side: null, level: 'standard', seconds: 30 },
});

/** Numbers of students, each sent until it is taken, and kept once. */
async function sending(
  { fleet, teacher }: Ready,
  { share, schoolClass, students }: Class200,
  untilMs: number,
) {
  const tally = nothing();
  const own = caller(fleet.origin);
  const tokens = await Promise.all(
    students.map(({ code }) =>
      answered(() =>
        own.call<{ token: string }>('POST', `/api/follow/${share.code}/students`, { code }),
      ),
    ),
  );
  const sent = students.map(() => 0);
  await everyFew(SENDERS, SEND_EVERY_MS, untilMs, async (i, n) => {
    const entry = { id: nanoid(), at: Date.now(), body: numberOf(n) };
    const again = await untilTaken(async () => {
      const { status } = await own.ask(
        'POST',
        `/api/follow/${share.code}/entries`,
        { entries: [entry] },
        { [STUDENT_HEADER]: tokens[i]?.token ?? '' },
      );
      return status === 204;
    });
    count(tally, again);
    if (again !== null) sent[i] = (sent[i] ?? 0) + 1;
  });
  for (const [i, { id }] of students.entries()) {
    const { entries } = await answered(() =>
      teacher.call<{ entries: { body: { kind: string } }[] }>(
        'GET',
        `/api/classes/${schoolClass.id}/log?student=${id}`,
      ),
    );
    const there = entries.filter(({ body }) => body.kind === 'score').length;
    tally.lost += Math.abs(there - (sent[i] ?? 0));
  }
  return tally;
}

const told = ({ asked, again, lost }: Tally) => `${asked}, ${again} asked again, ${lost} lost`;

/** Everybody at once, while something is done to the fleet. */
async function underLoad(ready: Ready, room: Class200, what: string, untilMs: number) {
  const [ranges, saves, numbers] = await Promise.all([
    watching(ready.fleet, room, untilMs),
    saving(ready, untilMs),
    sending(ready, room, untilMs),
  ]);
  return [
    {
      what: `${what}: ranges of ${STUDENTS} students`,
      value: told(ranges),
      limit: 'none lost after asking again',
      holds: ranges.asked > STUDENTS && ranges.lost === 0,
    },
    {
      what: `${what}: saves of ${TEACHERS} teachers`,
      value: told(saves),
      limit: 'none lost',
      holds: saves.asked > TEACHERS && saves.lost === 0,
    },
    {
      what: `${what}: numbers of ${SENDERS} students`,
      value: told(numbers),
      limit: 'none lost, none kept twice',
      holds: numbers.asked > SENDERS && numbers.lost === 0,
    },
  ];
}

/** What the web servers spend on everybody while nothing dies. */
async function undisturbed(ready: Ready, room: Class200): Promise<Result[]> {
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
async function outages(ready: Ready, room: Class200): Promise<Result[]> {
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
    const room = await aClass(ready);
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
