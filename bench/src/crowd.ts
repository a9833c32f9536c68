import http from 'node:http';
import { setTimeout as sleep } from 'node:timers/promises';
import type { FollowLesson, Share, Student } from '@zest/contract';
import type { EntryBody } from '@zest/core/results';
import { range, type Caller } from './calls.ts';

const PIECE_BYTES = 256 * 1024;
const READY_LIMIT_MS = 300_000;
/** Pages and players try again for so long. */
const PATIENCE_MS = 60_000;
const AGAIN_MS = 500;

/** Waits until everything filmed for a lesson can be used. */
export async function footageReady({ call }: Caller, lessonId: string): Promise<void> {
  const untilMs = Date.now() + READY_LIMIT_MS;
  const takes = () => call<{ state: string }[]>('GET', `/api/lessons/${lessonId}/takes`);
  while ((await takes()).some(({ state }) => state !== 'ready')) {
    if (Date.now() > untilMs) throw new Error('The footage was not ready in five minutes.');
    await sleep(500);
  }
}

/** A class, and the link by which it follows a lesson. */
export interface Room {
  classId: string;
  students: Student[];
  share: Share;
  lesson: FollowLesson;
}

export async function openRoom(
  teacher: Caller,
  lessonId: string,
  name: string,
  count: number,
): Promise<Room> {
  const { id: classId, students } = await teacher.makeClass(name, count);
  const share = await teacher.shareWith(lessonId, classId);
  const lesson = await teacher.call<FollowLesson>('GET', `/api/follow/${share.code}`);
  return { classId, students, share, lesson };
}

/** A number a student counted. */
export const numberOf = (value: number, key = 'k'): EntryBody => ({
  ...{ kind: 'score', blockId: key, key, title: key, measure: 'count', better: 'more' },
  ...{ value, side: null, level: 'standard', seconds: 30 },
});

/** Asks until it is answered well. @returns how often it had to ask again; null when it gave up */
export async function untilTaken(ask: () => Promise<boolean>): Promise<number | null> {
  const untilMs = Date.now() + PATIENCE_MS;
  for (let again = 0; ; again += 1) {
    if (await ask().catch(() => false)) return again;
    if (Date.now() > untilMs) return null;
    await sleep(AGAIN_MS);
  }
}

/** Repeats a task of many people at a steady pace, each beginning at a time of their own. */
export async function everyFew(
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

/**
 * Students who watch until the time is over, each at a place of their own.
 * @param everyMs how often a player asks for a piece of video
 * @param onPiece given what asks for one, and whether it came
 */
export async function watching(
  origin: string,
  { share, lesson }: Room,
  { many, everyMs, untilMs }: { many: number; everyMs: number; untilMs: number },
  onPiece: (ask: () => Promise<boolean>) => Promise<void>,
): Promise<void> {
  const agent = new http.Agent({ keepAlive: true, maxSockets: many * 2 });
  await everyFew(many, everyMs, untilMs, (i, n) => {
    const take = lesson.takes[(i + n) % lesson.takes.length];
    if (!take) throw new Error('The lesson has no footage.');
    const bytes = Math.min(PIECE_BYTES, take.bytes);
    const from = ((i + n) * 7_919) % (take.bytes - bytes + 1);
    const url = `${origin}/api/follow/${share.code}/takes/${take.id}`;
    return onPiece(() => range(agent, url, from, bytes));
  });
  agent.destroy();
}
