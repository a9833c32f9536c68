import {
  copiedTakesSchema,
  erasedLessonSchema,
  jobSchema,
  lessonSummarySchema,
  problemSchema,
  revisionSchema,
  routes,
  sessionSchema,
  shareSchema,
  storageSchema,
  storedCueEntrySchema,
  storedLessonSchema,
  storedSeriesSchema,
  takeSchema,
  type ChangeJob,
  type ChangeShare,
  type ChangeTake,
  type CopyTakes,
  type ExportOrder,
  type Job,
  type MakeCueEntry,
  type MakeOwner,
  type MakeTake,
  type Problem,
  type SharePlan,
  type Shelf,
  type SignIn,
} from '@zest/contract';
import type { Series } from '@zest/core/lesson';
import {
  createApi,
  fetchBaseQuery,
  type BaseQueryFn,
  type FetchArgs,
} from '@reduxjs/toolkit/query/react';
import { z } from 'zod';
import { ask } from './ask.ts';

/**
 * Browsers keep a request of a closed page alive up to 64 KiB; half of that leaves room for letters
 * of two bytes.
 */
const MOST_KEPT_ALIVE = 32_000;

const raw = fetchBaseQuery();

/** Every failure as a problem in words; no connection is one of them. */
const query: BaseQueryFn<string | FetchArgs, unknown, Problem> = async (args, api, extra) => {
  const result = await raw(args, api, extra);
  if (!result.error) return { data: result.data };
  const known = problemSchema.safeParse(result.error.data);
  if (known.success) return { error: known.data };
  return {
    error: {
      code: 'no-connection',
      message:
        'The server does not answer. Your work in this window is kept and saved as soon as it does.',
    },
  };
};

/** Reads an answer as the interface says it is. */
export const read =
  <T>(schema: z.ZodType<T>) =>
  (body: unknown): T =>
    schema.parse(body);

export const api = createApi({
  reducerPath: 'api',
  baseQuery: query,
  tagTypes: [
    'Session',
    'Lessons',
    'Takes',
    'Exports',
    'Shares',
    'Revisions',
    'Series',
    'Cues',
    'Storage',
  ],
  endpoints: (build) => ({
    session: build.query({
      query: (_: void) => ask(routes.session),
      transformResponse: read(sessionSchema),
      providesTags: ['Session'],
    }),
    makeOwner: build.mutation({
      query: (body: MakeOwner) => ask(routes.makeOwner, {}, body),
      transformResponse: read(sessionSchema),
      invalidatesTags: ['Session'],
    }),
    signIn: build.mutation({
      query: (body: SignIn) => ask(routes.signIn, {}, body),
      transformResponse: read(sessionSchema),
      invalidatesTags: ['Session'],
    }),
    enterDemo: build.mutation({
      query: (_: void) => ask(routes.enterDemo),
      transformResponse: read(sessionSchema),
      invalidatesTags: ['Session'],
    }),
    signOut: build.mutation({
      query: (_: void) => ask(routes.signOut),
      invalidatesTags: ['Session', 'Lessons'],
    }),
    lessons: build.query({
      query: (_: void) => ask(routes.lessons),
      transformResponse: read(z.array(lessonSummarySchema)),
      providesTags: ['Lessons'],
    }),
    makeLesson: build.mutation({
      query: (body: { title: string } | { document: unknown }) => ask(routes.makeLesson, {}, body),
      transformResponse: read(storedLessonSchema),
      invalidatesTags: ['Lessons'],
    }),
    lesson: build.query({
      query: (lessonId: string) => ask(routes.lesson, { lessonId }),
      transformResponse: read(storedLessonSchema),
    }),
    saveLesson: build.mutation({
      query: ({ lessonId, ...body }: { lessonId: string; baseRevision: number; lesson: unknown }) =>
        ask(routes.saveLesson, { lessonId }, body),
      // The lesson comes back as it was sent: reading it again would hold up whoever types on.
      transformResponse: read(storedLessonSchema.pick({ id: true, revision: true })),
      invalidatesTags: ['Revisions', 'Lessons'],
    }),
    deleteLesson: build.mutation({
      query: (lessonId: string) => ask(routes.deleteLesson, { lessonId }),
      transformResponse: read(erasedLessonSchema),
      invalidatesTags: ['Lessons'],
    }),
    putOnShelf: build.mutation({
      query: ({ lessonId, ...body }: Shelf & { lessonId: string }) =>
        ask(routes.shelveLesson, { lessonId }, body),
      invalidatesTags: ['Lessons'],
    }),
    handOver: build.mutation({
      query: ({ lessonId, memberId }: { lessonId: string; memberId: string }) =>
        ask(routes.keepLesson, { lessonId }, { memberId }),
      invalidatesTags: ['Lessons'],
    }),
    openArchive: build.mutation({
      query: (body: Blob) => ({
        ...ask(routes.openArchive, {}, body),
        headers: { 'content-type': 'application/zip' },
      }),
      transformResponse: read(storedLessonSchema),
      invalidatesTags: ['Lessons'],
    }),
    series: build.query({
      query: (_: void) => ask(routes.seriesList),
      transformResponse: read(z.array(storedSeriesSchema)),
      providesTags: ['Series'],
    }),
    makeSeries: build.mutation({
      query: (series: Series) => ask(routes.makeSeries, {}, { series }),
      transformResponse: read(storedSeriesSchema),
      invalidatesTags: ['Series'],
    }),
    saveSeries: build.mutation({
      // Outlives the page where it is small enough for that.
      query: ({
        seriesId,
        ...body
      }: {
        seriesId: string;
        baseRevision: number;
        series: Series;
      }) => ({
        ...ask(routes.saveSeries, { seriesId }, body),
        keepalive: JSON.stringify(body).length < MOST_KEPT_ALIVE,
      }),
      transformResponse: read(storedSeriesSchema),
      invalidatesTags: ['Series', 'Lessons'],
    }),
    deleteSeries: build.mutation({
      query: (seriesId: string) => ask(routes.deleteSeries, { seriesId }),
      invalidatesTags: ['Series'],
    }),
    cueLibrary: build.query({
      query: (_: void) => ask(routes.cues),
      transformResponse: read(z.array(storedCueEntrySchema)),
      providesTags: ['Cues'],
    }),
    makeCueEntry: build.mutation({
      query: (body: MakeCueEntry) => ask(routes.makeCueEntry, {}, body),
      transformResponse: read(storedCueEntrySchema),
      invalidatesTags: ['Cues'],
    }),
    saveCueEntry: build.mutation({
      query: ({ id, ...body }: MakeCueEntry & { id: string }) =>
        ask(routes.changeCueEntry, { entryId: id }, body),
      transformResponse: read(storedCueEntrySchema),
      invalidatesTags: ['Cues'],
    }),
    deleteCueEntry: build.mutation({
      query: (id: string) => ask(routes.deleteCueEntry, { entryId: id }),
      invalidatesTags: ['Cues'],
    }),
    copyTakes: build.mutation({
      query: ({ lessonId, ...body }: CopyTakes & { lessonId: string }) =>
        ask(routes.copyTakes, { lessonId }, body),
      transformResponse: read(copiedTakesSchema),
      invalidatesTags: ['Takes'],
    }),
    revisions: build.query({
      query: (lessonId: string) => ask(routes.revisions, { lessonId }),
      transformResponse: read(z.array(revisionSchema)),
      providesTags: ['Revisions'],
    }),
    revision: build.query({
      query: ({ lessonId, revision }: { lessonId: string; revision: number }) =>
        ask(routes.revision, { lessonId, revision }),
      transformResponse: read(storedLessonSchema),
    }),
    takes: build.query({
      query: (lessonId: string) => ask(routes.takes, { lessonId }),
      transformResponse: read(z.array(takeSchema)),
      providesTags: ['Takes'],
    }),
    makeTake: build.mutation({
      query: ({ lessonId, ...body }: MakeTake & { lessonId: string }) =>
        ask(routes.makeTake, { lessonId }, body),
      transformResponse: read(takeSchema),
      invalidatesTags: ['Takes'],
    }),
    changeTake: build.mutation({
      query: ({ takeId, ...body }: ChangeTake & { takeId: string }) =>
        ask(routes.changeTake, { takeId }, body),
      transformResponse: read(takeSchema),
      invalidatesTags: ['Takes', 'Storage'],
    }),
    watchTake: build.mutation({
      query: (takeId: string) => ask(routes.watchTake, { takeId }),
      invalidatesTags: ['Takes'],
    }),
    renewTake: build.mutation({
      query: (takeId: string) => ask(routes.makeTakeAnew, { takeId }),
      invalidatesTags: ['Takes'],
    }),
    storage: build.query({
      query: (lessonId: string) => ask(routes.storage, { lessonId }),
      transformResponse: read(storageSchema),
      providesTags: ['Storage'],
    }),
    emptyBin: build.mutation({
      query: (lessonId: string) => ask(routes.emptyBin, { lessonId }),
      invalidatesTags: ['Takes', 'Storage'],
    }),
    exports: build.query({
      query: (lessonId: string) => ask(routes.exports, { lessonId }),
      transformResponse: read(z.array(jobSchema)),
      providesTags: ['Exports'],
    }),
    startExport: build.mutation({
      query: ({ lessonId, order }: { lessonId: string; order: ExportOrder }) =>
        ask(routes.makeExport, { lessonId }, order),
      transformResponse: read(jobSchema),
      invalidatesTags: ['Exports'],
    }),
    changeJob: build.mutation({
      query: ({ jobId, ...body }: ChangeJob & { jobId: string }) =>
        ask(routes.changeJob, { jobId }, body),
      transformResponse: read(jobSchema),
      invalidatesTags: ['Exports'],
    }),
    cancelJob: build.mutation({
      query: (jobId: string) => ask(routes.cancelJob, { jobId }),
      transformResponse: read(jobSchema),
      invalidatesTags: ['Exports', 'Takes'],
    }),
    shares: build.query({
      query: (lessonId: string) => ask(routes.shares, { lessonId }),
      transformResponse: read(z.array(shareSchema)),
      providesTags: ['Shares'],
    }),
    makeShare: build.mutation({
      query: ({ lessonId, ...body }: SharePlan & { lessonId: string }) =>
        ask(routes.makeShare, { lessonId }, body),
      transformResponse: read(shareSchema),
      invalidatesTags: ['Shares', 'Lessons'],
    }),
    changeShare: build.mutation({
      query: ({ code, ...body }: ChangeShare & { code: string }) =>
        ask(routes.changeShare, { code }, body),
      transformResponse: read(shareSchema),
      invalidatesTags: ['Shares'],
    }),
    revokeShare: build.mutation({
      query: (code: string) => ask(routes.closeShare, { code }),
      transformResponse: read(shareSchema),
      invalidatesTags: ['Shares', 'Lessons'],
    }),
  }),
});

/** The words of a failed call, or null. */
export function problemText(error: unknown): string | null {
  const known = problemSchema.safeParse(error);
  if (known.success) return known.data.message;
  return error
    ? 'Something went wrong in this window. Load it again; your last changes are kept.'
    : null;
}

/** A job as it came over the event stream. */
export function readJobEvent(text: string): Job {
  return jobSchema.parse(JSON.parse(text));
}
