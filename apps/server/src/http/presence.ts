import type { Hub } from '../hub/hub.ts';

/** Somebody in a lesson, and where. */
interface Present {
  id: string;
  login: string;
  bench: string;
  blockId: string | null;
}

/** Pages say they are there every few seconds; one that has not for this long is gone. */
const GONE_AFTER_MS = 25_000;

/** Notes that somebody is there; gives everybody else who is, by when they came. */
export async function whoElse(
  hub: Hub,
  lessonId: string,
  { id, ...me }: Present,
): Promise<Omit<Present, 'id'>[]> {
  const book = `present:${lessonId}`;
  await hub.keep(book, id, me, GONE_AFTER_MS);
  const there = await hub.list(book);
  return there.flatMap(({ name, value }) => (name === id ? [] : [value as Omit<Present, 'id'>]));
}
