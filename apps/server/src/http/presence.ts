/** Somebody in a lesson, and where. */
interface Present {
  id: string;
  login: string;
  bench: string;
  blockId: string | null;
}

/** Pages say they are there every few seconds; one that has not for this long is gone. */
const GONE_AFTER_MS = 25_000;

const lessons = new Map<string, Map<string, Present & { seen: number }>>();

/** Notes that somebody is there; gives everybody else who is, by when they came. */
export function whoElse(lessonId: string, me: Present, now = Date.now()): Omit<Present, 'id'>[] {
  const there = lessons.get(lessonId) ?? new Map<string, Present & { seen: number }>();
  lessons.set(lessonId, there);
  there.set(me.id, { ...me, seen: now });
  for (const [id, { seen }] of there) if (now - seen > GONE_AFTER_MS) there.delete(id);
  // Lessons nobody is in any more are forgotten as well.
  for (const [id, all] of lessons)
    if ([...all.values()].every(({ seen }) => now - seen > GONE_AFTER_MS)) lessons.delete(id);
  return [...there.values()]
    .filter(({ id }) => id !== me.id)
    .map(({ login, bench, blockId }) => ({ login, bench, blockId }));
}
