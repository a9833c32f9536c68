import {
  erasedLessonSchema,
  jobSchema,
  lessonSummarySchema,
  problemSchema,
  revisionSchema,
  sessionSchema,
  shareSchema,
  copiedTakesSchema,
  storedCueEntrySchema,
  storedLessonSchema,
  storedSeriesSchema,
  storageSchema,
  takeSchema,
  type ChangeTake,
  type CopyTakes,
  type ChangeJob,
  type ChangeShare,
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

/**
 * Browsers keep a request of a closed page alive up to 64 KiB; half of that leaves room for letters
 * of two bytes.
 */
const MOST_KEPT_ALIVE = 32_000;

const raw = fetchBaseQuery({ baseUrl: '/api' });

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
      query: (_: void) => '/session',
      transformResponse: read(sessionSchema),
      providesTags: ['Session'],
    }),
    makeOwner: build.mutation({
      query: (body: MakeOwner) => ({ url: '/owner', method: 'POST', body }),
      transformResponse: read(sessionSchema),
      invalidatesTags: ['Session'],
    }),
    signIn: build.mutation({
      query: (body: SignIn) => ({ url: '/session', method: 'POST', body }),
      transformResponse: read(sessionSchema),
      invalidatesTags: ['Session'],
    }),
    enterDemo: build.mutation({
      query: (_: void) => ({ url: '/session/demo', method: 'POST' }),
      transformResponse: read(sessionSchema),
      invalidatesTags: ['Session'],
    }),
    signOut: build.mutation({
      query: (_: void) => ({ url: '/session', method: 'DELETE' }),
      invalidatesTags: ['Session', 'Lessons'],
    }),
    lessons: build.query({
      query: (_: void) => '/lessons',
      transformResponse: read(z.array(lessonSummarySchema)),
      providesTags: ['Lessons'],
    }),
    makeLesson: build.mutation({
      query: (body: { title: string } | { document: unknown }) => ({
        url: '/lessons',
        method: 'POST',
        body,
      }),
      transformResponse: read(storedLessonSchema),
      invalidatesTags: ['Lessons'],
    }),
    lesson: build.query({
      query: (lessonId: string) => `/lessons/${lessonId}`,
      transformResponse: read(storedLessonSchema),
    }),
    saveLesson: build.mutation({
      query: ({
        lessonId,
        ...body
      }: {
        lessonId: string;
        baseRevision: number;
        lesson: unknown;
      }) => ({
        url: `/lessons/${lessonId}`,
        method: 'PUT',
        body,
      }),
      // The lesson comes back as it was sent: reading it again would hold up whoever types on.
      transformResponse: read(storedLessonSchema.pick({ id: true, revision: true })),
      invalidatesTags: ['Revisions', 'Lessons'],
    }),
    deleteLesson: build.mutation({
      query: (lessonId: string) => ({ url: `/lessons/${lessonId}`, method: 'DELETE' }),
      transformResponse: read(erasedLessonSchema),
      invalidatesTags: ['Lessons'],
    }),
    putOnShelf: build.mutation({
      query: ({ lessonId, ...body }: Shelf & { lessonId: string }) => ({
        url: `/lessons/${lessonId}/shelf`,
        method: 'PUT',
        body,
      }),
      invalidatesTags: ['Lessons'],
    }),
    handOver: build.mutation({
      query: ({ lessonId, memberId }: { lessonId: string; memberId: string }) => ({
        url: `/lessons/${lessonId}/keeper`,
        method: 'PUT',
        body: { memberId },
      }),
      invalidatesTags: ['Lessons'],
    }),
    openArchive: build.mutation({
      query: (body: Blob) => ({
        url: '/archives',
        method: 'POST',
        body,
        headers: { 'content-type': 'application/zip' },
      }),
      transformResponse: read(storedLessonSchema),
      invalidatesTags: ['Lessons'],
    }),
    series: build.query({
      query: (_: void) => '/series',
      transformResponse: read(z.array(storedSeriesSchema)),
      providesTags: ['Series'],
    }),
    makeSeries: build.mutation({
      query: (series: Series) => ({ url: '/series', method: 'POST', body: { series } }),
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
        url: `/series/${seriesId}`,
        method: 'PUT',
        body,
        keepalive: JSON.stringify(body).length < MOST_KEPT_ALIVE,
      }),
      transformResponse: read(storedSeriesSchema),
      invalidatesTags: ['Series', 'Lessons'],
    }),
    deleteSeries: build.mutation({
      query: (seriesId: string) => ({ url: `/series/${seriesId}`, method: 'DELETE' }),
      invalidatesTags: ['Series'],
    }),
    cueLibrary: build.query({
      query: (_: void) => '/cues',
      transformResponse: read(z.array(storedCueEntrySchema)),
      providesTags: ['Cues'],
    }),
    makeCueEntry: build.mutation({
      query: (body: MakeCueEntry) => ({ url: '/cues', method: 'POST', body }),
      transformResponse: read(storedCueEntrySchema),
      invalidatesTags: ['Cues'],
    }),
    saveCueEntry: build.mutation({
      query: ({ id, ...body }: MakeCueEntry & { id: string }) => ({
        url: `/cues/${id}`,
        method: 'PUT',
        body,
      }),
      transformResponse: read(storedCueEntrySchema),
      invalidatesTags: ['Cues'],
    }),
    deleteCueEntry: build.mutation({
      query: (id: string) => ({ url: `/cues/${id}`, method: 'DELETE' }),
      invalidatesTags: ['Cues'],
    }),
    copyTakes: build.mutation({
      query: ({ lessonId, ...body }: CopyTakes & { lessonId: string }) => ({
        url: `/lessons/${lessonId}/takes/copies`,
        method: 'POST',
        body,
      }),
      transformResponse: read(copiedTakesSchema),
      invalidatesTags: ['Takes'],
    }),
    revisions: build.query({
      query: (lessonId: string) => `/lessons/${lessonId}/revisions`,
      transformResponse: read(z.array(revisionSchema)),
      providesTags: ['Revisions'],
    }),
    revision: build.query({
      query: ({ lessonId, revision }: { lessonId: string; revision: number }) =>
        `/lessons/${lessonId}/revisions/${revision}`,
      transformResponse: read(storedLessonSchema),
    }),
    takes: build.query({
      query: (lessonId: string) => `/lessons/${lessonId}/takes`,
      transformResponse: read(z.array(takeSchema)),
      providesTags: ['Takes'],
    }),
    makeTake: build.mutation({
      query: ({ lessonId, ...body }: MakeTake & { lessonId: string }) => ({
        url: `/lessons/${lessonId}/takes`,
        method: 'POST',
        body,
      }),
      transformResponse: read(takeSchema),
      invalidatesTags: ['Takes'],
    }),
    changeTake: build.mutation({
      query: ({ takeId, ...body }: ChangeTake & { takeId: string }) => ({
        url: `/takes/${takeId}`,
        method: 'PUT',
        body,
      }),
      transformResponse: read(takeSchema),
      invalidatesTags: ['Takes', 'Storage'],
    }),
    watchTake: build.mutation({
      query: (takeId: string) => ({ url: `/takes/${takeId}/watching`, method: 'POST' }),
      invalidatesTags: ['Takes'],
    }),
    renewTake: build.mutation({
      query: (takeId: string) => ({ url: `/takes/${takeId}/anew`, method: 'POST' }),
      invalidatesTags: ['Takes'],
    }),
    storage: build.query({
      query: (lessonId: string) => `/lessons/${lessonId}/storage`,
      transformResponse: read(storageSchema),
      providesTags: ['Storage'],
    }),
    emptyBin: build.mutation({
      query: (lessonId: string) => ({ url: `/lessons/${lessonId}/bin`, method: 'DELETE' }),
      invalidatesTags: ['Takes', 'Storage'],
    }),
    exports: build.query({
      query: (lessonId: string) => `/lessons/${lessonId}/exports`,
      transformResponse: read(z.array(jobSchema)),
      providesTags: ['Exports'],
    }),
    startExport: build.mutation({
      query: ({ lessonId, order }: { lessonId: string; order: ExportOrder }) => ({
        url: `/lessons/${lessonId}/exports`,
        method: 'POST',
        body: order,
      }),
      transformResponse: read(jobSchema),
      invalidatesTags: ['Exports'],
    }),
    changeJob: build.mutation({
      query: ({ jobId, ...body }: ChangeJob & { jobId: string }) => ({
        url: `/jobs/${jobId}`,
        method: 'PUT',
        body,
      }),
      transformResponse: read(jobSchema),
      invalidatesTags: ['Exports'],
    }),
    cancelJob: build.mutation({
      query: (jobId: string) => ({ url: `/jobs/${jobId}`, method: 'DELETE' }),
      transformResponse: read(jobSchema),
      invalidatesTags: ['Exports', 'Takes'],
    }),
    shares: build.query({
      query: (lessonId: string) => `/lessons/${lessonId}/shares`,
      transformResponse: read(z.array(shareSchema)),
      providesTags: ['Shares'],
    }),
    makeShare: build.mutation({
      query: ({ lessonId, ...body }: SharePlan & { lessonId: string }) => ({
        url: `/lessons/${lessonId}/shares`,
        method: 'POST',
        body,
      }),
      transformResponse: read(shareSchema),
      invalidatesTags: ['Shares', 'Lessons'],
    }),
    changeShare: build.mutation({
      query: ({ code, ...body }: ChangeShare & { code: string }) => ({
        url: `/shares/${code}`,
        method: 'PUT',
        body,
      }),
      transformResponse: read(shareSchema),
      invalidatesTags: ['Shares'],
    }),
    revokeShare: build.mutation({
      query: (code: string) => ({ url: `/shares/${code}`, method: 'DELETE' }),
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
