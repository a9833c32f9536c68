import { classSchema, classSumsSchema, erasureSchema, logPageSchema, studentSchema, type ClassPlan, type HandEntries, type LogPage, type LogQuery, type MakeStudents, type StudentPlan } from '@zest/contract';
import type { LogEntry } from '@zest/core/results';
import { z } from 'zod';
import { api, read } from './api.ts';
import { onLogNews } from './log-news.ts';

/** What the log says of one lesson, one student, or a whole class, and up to when. */
export interface Entries {
  entries: LogEntry[];
  asOf: number;
}

const logPath = (classId: string, query: LogQuery) => `/classes/${classId}/log?${new URLSearchParams(Object.entries(query).flatMap(([name, value]) => (value === undefined ? [] : [[name, String(value)]])))}`;
const readPage = read(logPageSchema);

/** Puts what has changed into what is shown. */
function putIn(shown: Entries, { entries, asOf }: LogPage): void {
  const places = new Map(shown.entries.map(({ id }, i) => [id, i]));
  for (const entry of entries) {
    const place = places.get(entry.id);
    if (place === undefined) shown.entries.push(entry);
    else shown.entries[place] = entry;
  }
  shown.asOf = asOf;
}

/** What the pages ask of classes, their students and their log. */
export const classApi = api.enhanceEndpoints({ addTagTypes: ['Classes', 'Students', 'Log', 'Erasures'] }).injectEndpoints({
  endpoints: (build) => ({
    classes: build.query({
      query: (_: void) => '/classes',
      transformResponse: read(z.array(classSchema)),
      providesTags: ['Classes'],
    }),
    makeClass: build.mutation({
      query: (body: ClassPlan) => ({ url: '/classes', method: 'POST', body }),
      transformResponse: read(classSchema),
      invalidatesTags: ['Classes'],
    }),
    saveClass: build.mutation({
      query: ({ classId, ...body }: ClassPlan & { classId: string }) => ({ url: `/classes/${classId}`, method: 'PUT', body }),
      transformResponse: read(classSchema),
      invalidatesTags: ['Classes'],
    }),
    eraseClass: build.mutation({
      query: (classId: string) => ({ url: `/classes/${classId}`, method: 'DELETE' }),
      invalidatesTags: ['Classes', 'Shares', 'Erasures'],
    }),
    students: build.query({
      query: (classId: string) => `/classes/${classId}/students`,
      transformResponse: read(z.array(studentSchema)),
      providesTags: ['Students'],
    }),
    /** All pages of what is asked for. */
    log: build.query<Entries, LogQuery & { classId: string }>({
      queryFn: async ({ classId, ...wanted }, _store, _options, ask) => {
        const entries: LogEntry[] = [];
        let page: LogPage | null = null;
        do {
          const answer = await ask(logPath(classId, { ...wanted, after: page?.next ?? undefined }));
          if (answer.error) return { error: answer.error };
          const next: LogPage = readPage(answer.data);
          page = page ? { ...next, asOf: page.asOf } : next;
          entries.push(...next.entries);
        } while (page.next !== null);
        return { data: { entries, asOf: page.asOf } };
      },
      onCacheEntryAdded: async (args, { cacheDataLoaded, cacheEntryRemoved, getCacheEntry, updateCachedData }) => {
        await cacheDataLoaded.catch(() => undefined);
        const leave = onLogNews(args, async () => {
          const changedSince = getCacheEntry().data?.asOf;
          if (changedSince === undefined) return;
          const { classId, ...wanted } = args;
          const answer = await fetch(`/api${logPath(classId, { ...wanted, changedSince })}`).catch(() => null);
          // Without an answer the next news, or the connection when it is back, brings it.
          if (!answer?.ok) return;
          const changed = readPage(await answer.json());
          updateCachedData((shown) => putIn(shown, changed));
        });
        await cacheEntryRemoved;
        leave();
      },
      providesTags: ['Log'],
    }),
    classSums: build.query({
      query: ({ classId, since }: { classId: string; since: number }) => `/classes/${classId}/sums?since=${since}`,
      transformResponse: read(classSumsSchema),
      providesTags: ['Log'],
    }),
    addStudents: build.mutation({
      query: ({ classId, ...body }: MakeStudents & { classId: string }) => ({ url: `/classes/${classId}/students`, method: 'POST', body }),
      transformResponse: read(z.array(studentSchema)),
      invalidatesTags: ['Classes', 'Students'],
    }),
    saveStudent: build.mutation({
      query: ({ studentId, ...body }: StudentPlan & { studentId: string }) => ({ url: `/students/${studentId}`, method: 'PUT', body }),
      transformResponse: read(studentSchema),
      invalidatesTags: ['Students'],
    }),
    eraseStudent: build.mutation({
      query: (studentId: string) => ({ url: `/students/${studentId}`, method: 'DELETE' }),
      invalidatesTags: ['Classes', 'Students', 'Log', 'Erasures'],
    }),
    addEntries: build.mutation({
      query: ({ classId, ...body }: HandEntries & { classId: string }) => ({ url: `/classes/${classId}/entries`, method: 'POST', body }),
      invalidatesTags: ['Log'],
    }),
    removeEntry: build.mutation({
      query: (logId: string) => ({ url: `/log/${logId}`, method: 'DELETE' }),
      invalidatesTags: ['Log'],
    }),
    erasures: build.query({
      query: (_: void) => '/erasures',
      transformResponse: read(z.array(erasureSchema)),
      providesTags: ['Erasures'],
    }),
  }),
});
