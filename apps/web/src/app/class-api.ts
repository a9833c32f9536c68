import {
  answers,
  logPageSchema,
  routes,
  urlOf,
  type ClassPlan,
  type HandEntries,
  type LogPage,
  type LogQuery,
  type MakeStudents,
  type StudentPlan,
} from '@zest/contract';
import { api, read } from './api.ts';
import { onLogNews } from './log-news.ts';
import { ask } from './ask.ts';

/** What the log says of one lesson, one student, or a whole class, and up to when. */
type Entries = Omit<LogPage, 'next'>;
type LogArgs = LogQuery & { classId: string };

const logPath = (classId: string, query: LogQuery) => urlOf(routes.log, { classId }, query);
const readPage = read(logPageSchema);

/** All pages of what is asked for; null as soon as `ask` has nothing to give. */
async function allPages(
  { classId, ...wanted }: LogArgs,
  ask: (path: string) => Promise<unknown>,
): Promise<Entries | null> {
  const pages: LogPage[] = [];
  do {
    const answer = await ask(
      logPath(classId, { ...wanted, after: pages.at(-1)?.next ?? undefined }),
    );
    if (answer === null) return null;
    pages.push(readPage(answer));
  } while (pages.at(-1)?.next);
  return { entries: pages.flatMap(({ entries }) => entries), asOf: pages[0]?.asOf ?? 0 };
}

/** Puts what has changed into what is shown. */
function putIn(shown: Entries, { entries, asOf }: Entries): void {
  const places = new Map(shown.entries.map(({ id }, i) => [id, i]));
  for (const entry of entries) {
    const place = places.get(entry.id);
    if (place === undefined) shown.entries.push(entry);
    else shown.entries[place] = entry;
  }
  shown.asOf = asOf;
}

/** What the pages ask of classes, their students and their log. */
export const classApi = api
  .enhanceEndpoints({ addTagTypes: ['Classes', 'Students', 'Log', 'Erasures'] })
  .injectEndpoints({
    endpoints: (build) => ({
      classes: build.query({
        query: (_: void) => ask('classes'),
        transformResponse: read(answers.classes),
        providesTags: ['Classes'],
      }),
      makeClass: build.mutation({
        query: (body: ClassPlan) => ask('makeClass', {}, body),
        transformResponse: read(answers.makeClass),
        invalidatesTags: ['Classes'],
      }),
      saveClass: build.mutation({
        query: ({ classId, ...body }: ClassPlan & { classId: string }) =>
          ask('saveClass', { classId }, body),
        transformResponse: read(answers.saveClass),
        invalidatesTags: ['Classes'],
      }),
      eraseClass: build.mutation({
        query: (classId: string) => ask('eraseClass', { classId }),
        invalidatesTags: ['Classes', 'Shares', 'Erasures'],
      }),
      students: build.query({
        query: (classId: string) => ask('students', { classId }),
        transformResponse: read(answers.students),
        providesTags: ['Students'],
      }),
      lessonUse: build.query({
        query: (lessonId: string) => ask('lessonUse', { lessonId }),
        transformResponse: read(answers.lessonUse),
        providesTags: ['Shares', 'Log'],
      }),
      /** All pages of what is asked for. */
      log: build.query<Entries, LogArgs>({
        queryFn: async (args, _store, _options, ask) => {
          let error: Awaited<ReturnType<typeof ask>>['error'];
          const data = await allPages(args, async (path) => {
            const answer = await ask(path);
            error = answer.error;
            return answer.error ? null : answer.data;
          });
          return data ? { data } : { error: error as NonNullable<typeof error> };
        },
        onCacheEntryAdded: async (
          args,
          { cacheDataLoaded, cacheEntryRemoved, getCacheEntry, updateCachedData },
        ) => {
          await cacheDataLoaded.catch(() => undefined);
          const leave = onLogNews(args, async () => {
            const changedSince = getCacheEntry().data?.asOf;
            if (changedSince === undefined) return;
            // Without an answer the next news, or the connection when it is back, brings it.
            const changed = await allPages({ ...args, changedSince }, async (path) => {
              const answer = await fetch(path).catch(() => null);
              return answer?.ok ? answer.json() : null;
            });
            if (changed) updateCachedData((shown) => putIn(shown, changed));
          });
          await cacheEntryRemoved;
          leave();
        },
        providesTags: ['Log'],
      }),
      classSums: build.query({
        query: ({ classId, since }: { classId: string; since: number }) =>
          ask('classSums', { classId }, undefined, { since }),
        transformResponse: read(answers.classSums),
        providesTags: ['Log'],
      }),
      addStudents: build.mutation({
        query: ({ classId, ...body }: MakeStudents & { classId: string }) =>
          ask('addStudents', { classId }, body),
        transformResponse: read(answers.addStudents),
        invalidatesTags: ['Classes', 'Students'],
      }),
      saveStudent: build.mutation({
        query: ({ studentId, ...body }: StudentPlan & { studentId: string }) =>
          ask('saveStudent', { studentId }, body),
        transformResponse: read(answers.saveStudent),
        invalidatesTags: ['Students'],
      }),
      eraseStudent: build.mutation({
        query: (studentId: string) => ask('eraseStudent', { studentId }),
        invalidatesTags: ['Classes', 'Students', 'Log', 'Erasures'],
      }),
      addEntries: build.mutation({
        query: ({ classId, ...body }: HandEntries & { classId: string }) =>
          ask('addEntries', { classId }, body),
        invalidatesTags: ['Log'],
      }),
      removeEntry: build.mutation({
        query: (logId: string) => ask('removeEntry', { logId }),
        invalidatesTags: ['Log'],
      }),
      erasures: build.query({
        query: (_: void) => ask('erasures'),
        transformResponse: read(answers.erasures),
        providesTags: ['Erasures'],
      }),
    }),
  });
