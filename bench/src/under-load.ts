import { STUDENT_HEADER } from '@zest/contract';
import type { Lesson } from '@zest/core/lesson';
import { nanoid } from 'nanoid';
import { caller, type Caller } from './calls.ts';
import { everyFew, numberOf, untilTaken, watching, type Room } from './crowd.ts';
import type { Fleet } from './fleet.ts';
import type { Result } from './result.ts';

export const [STUDENTS, TEACHERS] = [200, 30];
/** A player asks for a piece of video this often: half a Mbit a second. */
const PIECE_MS = 4_000;
const SAVE_EVERY_MS = 4_000;
/** Students who also send numbers, and how often. */
export const SENDERS = 40;
const SEND_EVERY_MS = 3_000;

/** A fleet, a teacher on it, and a lesson of theirs. */
export interface Ready {
  fleet: Fleet;
  teacher: Caller;
  lessonId: string;
  revision: number;
  document: Lesson;
}

/** What is answered, asked again while nobody does. */
export async function answered<T>(ask: () => Promise<T>): Promise<T> {
  const answers: T[] = [];
  const again = await untilTaken(async () => answers.push(await ask()) > 0);
  if (again === null) throw new Error('Nobody answered for a minute.');
  return answers[0] as T;
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
      const { status, body } = await teacher.send('PUT', `/api/lessons/${own.id}`, {
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

/** Numbers of students, each sent until it is taken, and kept once. */
async function sending(
  { fleet, teacher }: Ready,
  { share, classId, students }: Room,
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
  const sent = students.map((): string[] => []);
  await everyFew(students.length, SEND_EVERY_MS, untilMs, async (i, n) => {
    const entry = { id: nanoid(), at: Date.now(), body: numberOf(n) };
    const again = await untilTaken(async () => {
      const { status } = await own.send(
        'POST',
        `/api/follow/${share.code}/entries`,
        { entries: [entry] },
        { [STUDENT_HEADER]: tokens[i]?.token ?? '' },
      );
      return status === 204;
    });
    count(tally, again);
    if (again !== null) sent[i]?.push(entry.id);
  });
  for (const [i, { id }] of students.entries()) {
    const { entries } = await answered(() =>
      teacher.call<{ entries: { id: string }[] }>(
        'GET',
        `/api/classes/${classId}/log?student=${id}`,
      ),
    );
    const kept = (one: string) => entries.filter((entry) => entry.id === one).length;
    tally.lost += (sent[i] ?? []).filter((one) => kept(one) !== 1).length;
  }
  return tally;
}

const told = ({ asked, again, lost }: Tally) => `${asked}, ${again} asked again, ${lost} lost`;

/** Everybody at once, while something is done to the fleet. */
export async function underLoad(
  ready: Ready,
  room: Room,
  what: string,
  untilMs: number,
): Promise<Result[]> {
  const ranges = nothing();
  const [, saves, numbers] = await Promise.all([
    watching(
      ready.fleet.origin,
      room,
      { many: STUDENTS, everyMs: PIECE_MS, untilMs },
      async (ask) => count(ranges, await untilTaken(ask)),
    ),
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
