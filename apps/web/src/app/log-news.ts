import { z } from 'zod';

const newsSchema = z.object({ classId: z.string(), lessonIds: z.array(z.string().nullable()) });
type News = z.infer<typeof newsSchema>;
/**
 * A class in full swing sends many times a second; what came in is asked for this often at most.
 */
const EVERY_MS = 2_000;

const listeners = new Set<(news: News | null) => void>();

/** The server says that results came in. */
export const hearLogNews = (data: string): void => {
  const news = newsSchema.parse(JSON.parse(data));
  for (const run of listeners) run(news);
};

/** After a time without a connection: whoever shows results looks again. */
export const missedLogNews = (): void => {
  for (const run of listeners) run(null);
};

/**
 * Has a log that is shown catch up after news of its class, and of its lesson where it shows one.
 * Gives what ends it.
 */
export function onLogNews(
  { classId, lesson }: { classId: string; lesson?: string | undefined },
  catchUp: () => Promise<void>,
): () => void {
  let isBusy = false;
  let isStale = false;
  let timer: ReturnType<typeof setTimeout> | undefined;
  const run = () => {
    isBusy = true;
    isStale = false;
    void catchUp().finally(() => {
      timer = setTimeout(() => {
        isBusy = false;
        if (isStale) run();
      }, EVERY_MS);
    });
  };
  const hear = (news: News | null) => {
    if (
      news !== null &&
      (news.classId !== classId || (lesson !== undefined && !news.lessonIds.includes(lesson)))
    )
      return;
    isStale = true;
    if (!isBusy) run();
  };
  listeners.add(hear);
  return () => {
    listeners.delete(hear);
    clearTimeout(timer);
  };
}
