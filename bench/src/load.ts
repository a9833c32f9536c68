import { execFileSync } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import { STUDENT_HEADER } from '@zest/contract';
import { weekStart, type EntryBody } from '@zest/core/results';
import { nanoid } from 'nanoid';
import { discard, openBrowser, startZest, type Zest } from '../../e2e/zest.ts';
import { caller } from './calls.ts';
import { everyFew, footageReady, numberOf, openRoom, untilTaken, watching } from './crowd.ts';
import { mean, timed, type Result } from './result.ts';

const STUDENTS = 200;
/** Ten minutes unless said otherwise. */
const MINUTES = Number(process.env['ZEST_LOAD_MINUTES'] ?? 10);
/** A player asks for a piece of video this often: about 1 Mbit/s. */
const PIECE_MS = 2_000;
const FIRST_FRAME_MS = 1_000;
const VIEWERS = 30;
const POSTS = 500;
/** Teachers who plan, save and look at results meanwhile, and what one does how often. */
const TEACHERS = 30;
const SAVE_EVERY_MS = 4_000;
const LOOK_EVERY_MS = 15_000;
/** What a class of so many brings home in a school year. */
const WEEKS = 40;
const SAVED_MS = 1_000;
const SHOWN_MS = 1_000;
/** Memory may rise by so much over the second half: what a run-time breathes. */
const MOST_GROWTH_MB = 30;

const percentile = (values: readonly number[], part: number) =>
  [...values].sort((a, b) => a - b)[
    Math.min(values.length - 1, Math.floor(values.length * part))
  ] ?? 0;

/** The process that answers HTTP. @throws when there is not exactly one */
function httpPid({ dataDir }: Zest): number {
  const all = execFileSync('ps', ['-eo', 'pid=,args='], { encoding: 'utf8' }).split('\n');
  const parts = all
    .flatMap((line) => /^\s*(\d+) .*dist\/http\.js/.exec(line)?.[1] ?? [])
    .filter((pid) => readFileSync(`/proc/${pid}/environ`, 'utf8').includes(dataDir));
  if (parts.length !== 1) throw new Error('The process that answers HTTP was not found.');
  return Number(parts[0]);
}

/** Its resident memory, in MB. */
function memoryOf(zest: Zest): number {
  return (
    Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${httpPid(zest)}/status`, 'utf8'))?.[1]) / 1024
  );
}

/** The demo, entered, with a link for a class of as many students as follow. */
async function prepared(zest: Zest) {
  const teacher = caller(zest.url);
  await teacher.call('POST', '/api/session/demo');
  const lessons = await teacher.call<{ id: string; filmed: number }[]>('GET', '/api/lessons');
  const [lesson] = lessons.sort((a, b) => b.filmed - a.filmed);
  if (!lesson) throw new Error('The demo has no lesson.');
  await footageReady(teacher, lesson.id);
  return { teacher, room: await openRoom(teacher, lesson.id, 'Load', STUDENTS) };
}
type Ready = Awaited<ReturnType<typeof prepared>>;

/** How long real browsers take from pressing start to a picture, while the others watch. */
async function firstFrames(zest: Zest, code: string): Promise<number[]> {
  const browser = await openBrowser();
  try {
    const times: number[] = [];
    for (let i = 0; i < VIEWERS; i += 1) {
      const context = await browser.newContext({
        viewport: { width: 390, height: 844 },
        serviceWorkers: 'block',
      });
      const page = await context.newPage();
      await page.goto(`${zest.url}/follow/${code}`);
      await page.getByRole('button', { name: 'I am ready: start' }).click();
      times.push(
        await page.evaluate(async () => {
          const began = performance.now();
          for (;;) {
            const video = [...document.querySelectorAll('video')].find(
              (element) => element.readyState >= 2 && element.currentTime > 0,
            );
            if (video || performance.now() - began > 30_000) return performance.now() - began;
            await new Promise((resolve) => requestAnimationFrame(resolve));
          }
        }),
      );
      await context.close();
    }
    return times;
  } finally {
    await browser.close();
  }
}

/** A school year of numbers, efforts and visits of every student in that class, a lesson a week. */
async function aYear({
  teacher: { call },
  room: { classId, students, lesson },
}: Ready): Promise<number> {
  const now = Date.now();
  const entries = students.flatMap(({ id: studentId }, n) =>
    Array.from({ length: WEEKS }, (_, week) => {
      const at = now - week * 7 * 86_400_000 - n * 60_000;
      const lessonId = week === 0 ? lesson.lessonId : null;
      const bodies: EntryBody[] = [
        { kind: 'opened' },
        { kind: 'reached', atMs: 110_000, totalMs: 120_000, seen: [[0, 110_000]] },
        ...['skip', 'throw', 'balance'].map((key) => numberOf(20 + ((n + week) % 17), key)),
        { kind: 'effort', value: 1 + ((n + week) % 5) },
      ];
      return bodies.map((body) => ({ id: nanoid(), at, studentId, lessonId, body }));
    }).flat(),
  );
  for (let from = 0; from < entries.length; from += 2_000)
    await call('POST', `/api/classes/${classId}/entries`, {
      entries: entries.slice(from, from + 2_000),
    });
  return entries.length;
}

/**
 * Teachers who save their own lessons and look at the class's results until the time is over; how
 * long each took.
 */
async function teaching(
  { teacher: { call }, room: { classId, lesson } }: Ready,
  untilMs: number,
): Promise<{ saves: number[]; looks: number[] }> {
  const [saves, looks]: [number[], number[]] = [[], []];
  const { lesson: document } = await call<{ lesson: object }>(
    'GET',
    `/api/lessons/${lesson.lessonId}`,
  );
  const own = await Promise.all(
    Array.from({ length: TEACHERS }, async (_, i) => ({
      revision: 1,
      ...(await call<{ id: string }>('POST', '/api/lessons', {
        document: { ...document, title: `Load ${i}` },
      })),
    })),
  );
  await everyFew(TEACHERS, SAVE_EVERY_MS, untilMs, async (i, n) => {
    const mine = own[i];
    if (!mine) return;
    const save = async () =>
      ({ revision: mine.revision } = await call<{ revision: number }>(
        'PUT',
        `/api/lessons/${mine.id}`,
        { baseRevision: mine.revision, lesson: { ...document, title: `Load ${i}, ${n}` } },
      ));
    saves.push(await timed(save));
    // Nobody looks when the others do.
    if ((n * SAVE_EVERY_MS + (i * LOOK_EVERY_MS) / TEACHERS) % LOOK_EVERY_MS < SAVE_EVERY_MS)
      for (const look of [`log?lesson=${lesson.lessonId}`, `sums?since=${weekStart(Date.now())}`])
        looks.push(await timed(() => call('GET', `/api/classes/${classId}/${look}`)));
  });
  return { saves, looks };
}

/**
 * Entries sent over a minute, each until it is taken, while the server is killed in between; how
 * many are kept in the end.
 */
async function posts(
  zest: Zest,
  { teacher: { call }, room: { classId, students, share } }: Ready,
): Promise<{ kept: number; again: number }> {
  const [student] = students;
  const own = caller(zest.url);
  const { token } = await own.call<{ token: string }>(
    'POST',
    `/api/follow/${share.code}/students`,
    { code: student?.code },
  );
  let again = 0;
  const one = async (i: number) => {
    await sleep((i * 60_000) / POSTS);
    const entries = [{ id: nanoid(), at: Date.now(), body: numberOf(1) }];
    const asked = await untilTaken(async () => {
      const sent = await own.send(
        'POST',
        `/api/follow/${share.code}/entries`,
        { entries },
        { [STUDENT_HEADER]: token },
      );
      return sent.status === 204;
    });
    again += asked ?? 0;
  };
  const killing = sleep(25_000).then(() => process.kill(httpPid(zest), 'SIGKILL'));
  await Promise.all([killing, ...Array.from({ length: POSTS }, (_, i) => one(i))]);
  const { entries } = await call<{ entries: { body: { kind: string; key?: string } }[] }>(
    'GET',
    `/api/classes/${classId}/log?student=${student?.id}`,
  );
  return {
    kept: entries.filter(({ body }) => body.kind === 'score' && body.key === 'k').length,
    again,
  };
}

/**
 * A class of 200 following one lesson from this machine, and its numbers coming in, also across a
 * killed server. Minutes by ZEST_LOAD_MINUTES.
 */
export async function load(): Promise<Result[]> {
  const zest = await startZest('demo');
  try {
    const ready = await prepared(zest);
    const year = await aYear(ready);
    const memory: { at: number; mb: number }[] = [];
    const began = Date.now();
    const untilMs = began + MINUTES * 60_000;
    const looking = setInterval(
      () => memory.push({ at: Date.now() - began, mb: memoryOf(zest) }),
      5_000,
    );
    const watched = { asked: 0, failed: 0 };
    const [, taught, frames] = await Promise.all([
      watching(
        zest.url,
        ready.room,
        { many: STUDENTS, everyMs: PIECE_MS, untilMs },
        async (ask) => {
          watched.asked += 1;
          if (!(await ask())) watched.failed += 1;
        },
      ),
      teaching(ready, untilMs),
      sleep(15_000).then(() => firstFrames(zest, ready.room.share.code)),
    ]);
    clearInterval(looking);
    const quarterMs = (MINUTES * 60_000) / 4;
    const meanOf = (quarter: number) =>
      mean(memory.filter(({ at }) => Math.floor(at / quarterMs) === quarter).map(({ mb }) => mb));
    const [second, last] = [meanOf(1), meanOf(3)];
    const first = percentile(frames, 0.95);
    const sent = await posts(zest, ready);
    return [
      {
        what: `${STUDENTS} students for ${MINUTES} min`,
        value: `${watched.asked} ranges, ${watched.failed} failed`,
        limit: 'none failed',
        holds: watched.asked > STUDENTS && watched.failed === 0,
      },
      {
        what: `${taught.saves.length} saves of ${TEACHERS} teachers meanwhile`,
        value:
          `median ${percentile(taught.saves, 0.5).toFixed(0)} ms, 95th percentile ` +
          `${percentile(taught.saves, 0.95).toFixed(0)} ms`,
        limit: `95th percentile under ${SAVED_MS} ms`,
        holds: taught.saves.length > TEACHERS && percentile(taught.saves, 0.95) < SAVED_MS,
      },
      {
        what: `${taught.looks.length} looks at a class with ${year} entries`,
        value:
          `median ${percentile(taught.looks, 0.5).toFixed(0)} ms, 95th percentile ` +
          `${percentile(taught.looks, 0.95).toFixed(0)} ms`,
        limit: `95th percentile under ${SHOWN_MS} ms`,
        holds: taught.looks.length > TEACHERS && percentile(taught.looks, 0.95) < SHOWN_MS,
      },
      {
        what: `first picture of ${frames.length} browsers meanwhile`,
        value: `median ${percentile(frames, 0.5).toFixed(0)} ms, 95th percentile ${first.toFixed(0)} ms`,
        limit: `95th percentile under ${FIRST_FRAME_MS} ms`,
        holds: frames.length === VIEWERS && first < FIRST_FRAME_MS,
      },
      {
        what: 'memory of the server meanwhile',
        value:
          `${second.toFixed(0)} MB in the second quarter, ` +
          `${last.toFixed(0)} MB in the last, ` +
          `${Math.max(...memory.map(({ mb }) => mb)).toFixed(0)} MB at most`,
        limit: `rises by at most ${MOST_GROWTH_MB} MB`,
        holds: last - second <= MOST_GROWTH_MB,
      },
      {
        what: `${POSTS} numbers in a minute, the server killed in between`,
        value: `${sent.kept} kept, ${sent.again} sent again`,
        limit: `all kept, each once; at least one sent again`,
        holds: sent.kept === POSTS && sent.again > 0,
      },
    ];
  } finally {
    await discard(zest);
  }
}
