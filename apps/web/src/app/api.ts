import {
  answers,
  jobSchema,
  problemSchema,
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
  type EndpointBuilder,
  type FetchArgs,
} from '@reduxjs/toolkit/query/react';
import type { z } from 'zod';
import { teacherText } from '@zest/core/words';
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
      message: teacherText('app.no-answer'),
    },
  };
};

/** Reads an answer as the interface says it is. */
export const read =
  <T>(schema: z.ZodType<T>) =>
  (body: unknown): T =>
    schema.parse(body);

const tags = [
  'Session',
  'Lessons',
  'Takes',
  'Exports',
  'Shares',
  'Revisions',
  'Series',
  'Cues',
  'Storage',
] as const;
type Build = EndpointBuilder<typeof query, (typeof tags)[number], 'api'>;

/** Signing in and out. */
const accountEndpoints = (build: Build) => ({
  session: build.query({
    query: (_: void) => ask('session'),
    transformResponse: read(answers.session),
    providesTags: ['Session'],
  }),
  makeOwner: build.mutation({
    query: (body: MakeOwner) => ask('makeOwner', {}, body),
    transformResponse: read(answers.makeOwner),
    invalidatesTags: ['Session'],
  }),
  signIn: build.mutation({
    query: (body: SignIn) => ask('signIn', {}, body),
    transformResponse: read(answers.signIn),
    invalidatesTags: ['Session'],
  }),
  enterDemo: build.mutation({
    query: (_: void) => ask('enterDemo'),
    transformResponse: read(answers.enterDemo),
    invalidatesTags: ['Session'],
  }),
  signOut: build.mutation({
    query: (_: void) => ask('signOut'),
    invalidatesTags: ['Session', 'Lessons'],
  }),
});

/** Lessons, their revisions and archives. */
const lessonEndpoints = (build: Build) => ({
  lessons: build.query({
    query: (_: void) => ask('lessons'),
    transformResponse: read(answers.lessons),
    providesTags: ['Lessons'],
  }),
  makeLesson: build.mutation({
    query: (body: { title: string } | { document: unknown }) => ask('makeLesson', {}, body),
    transformResponse: read(answers.makeLesson),
    invalidatesTags: ['Lessons'],
  }),
  lesson: build.query({
    query: (lessonId: string) => ask('lesson', { lessonId }),
    transformResponse: read(answers.lesson),
  }),
  saveLesson: build.mutation({
    query: ({ lessonId, ...body }: { lessonId: string; baseRevision: number; lesson: unknown }) =>
      ask('saveLesson', { lessonId }, body),
    // The lesson comes back as it was sent: reading it again would hold up whoever types on.
    transformResponse: read(answers.saveLesson),
    invalidatesTags: ['Revisions', 'Lessons'],
  }),
  deleteLesson: build.mutation({
    query: (lessonId: string) => ask('deleteLesson', { lessonId }),
    transformResponse: read(answers.deleteLesson),
    invalidatesTags: ['Lessons'],
  }),
  putOnShelf: build.mutation({
    query: ({ lessonId, ...body }: Shelf & { lessonId: string }) =>
      ask('shelveLesson', { lessonId }, body),
    invalidatesTags: ['Lessons'],
  }),
  handOver: build.mutation({
    query: ({ lessonId, memberId }: { lessonId: string; memberId: string }) =>
      ask('keepLesson', { lessonId }, { memberId }),
    invalidatesTags: ['Lessons'],
  }),
  openArchive: build.mutation({
    query: (body: Blob) => ({
      ...ask('openArchive', {}, body),
      headers: { 'content-type': 'application/zip' },
    }),
    transformResponse: read(answers.openArchive),
    invalidatesTags: ['Lessons'],
  }),
  revisions: build.query({
    query: (lessonId: string) => ask('revisions', { lessonId }),
    transformResponse: read(answers.revisions),
    providesTags: ['Revisions'],
  }),
  revision: build.query({
    query: ({ lessonId, revision }: { lessonId: string; revision: number }) =>
      ask('revision', { lessonId, revision }),
    transformResponse: read(answers.revision),
  }),
});

/** Series and the cue library. */
const seriesEndpoints = (build: Build) => ({
  series: build.query({
    query: (_: void) => ask('seriesList'),
    transformResponse: read(answers.seriesList),
    providesTags: ['Series'],
  }),
  makeSeries: build.mutation({
    query: (series: Series) => ask('makeSeries', {}, { series }),
    transformResponse: read(answers.makeSeries),
    invalidatesTags: ['Series'],
  }),
  saveSeries: build.mutation({
    // Outlives the page where it is small enough for that.
    query: ({ seriesId, ...body }: { seriesId: string; baseRevision: number; series: Series }) => ({
      ...ask('saveSeries', { seriesId }, body),
      keepalive: JSON.stringify(body).length < MOST_KEPT_ALIVE,
    }),
    transformResponse: read(answers.saveSeries),
    invalidatesTags: ['Series', 'Lessons'],
  }),
  deleteSeries: build.mutation({
    query: (seriesId: string) => ask('deleteSeries', { seriesId }),
    invalidatesTags: ['Series'],
  }),
  cueLibrary: build.query({
    query: (_: void) => ask('cues'),
    transformResponse: read(answers.cues),
    providesTags: ['Cues'],
  }),
  makeCueEntry: build.mutation({
    query: (body: MakeCueEntry) => ask('makeCueEntry', {}, body),
    transformResponse: read(answers.makeCueEntry),
    invalidatesTags: ['Cues'],
  }),
  saveCueEntry: build.mutation({
    query: ({ id, ...body }: MakeCueEntry & { id: string }) =>
      ask('changeCueEntry', { entryId: id }, body),
    transformResponse: read(answers.changeCueEntry),
    invalidatesTags: ['Cues'],
  }),
  deleteCueEntry: build.mutation({
    query: (id: string) => ask('deleteCueEntry', { entryId: id }),
    invalidatesTags: ['Cues'],
  }),
});

/** Takes and the room they take up. */
const takeEndpoints = (build: Build) => ({
  copyTakes: build.mutation({
    query: ({ lessonId, ...body }: CopyTakes & { lessonId: string }) =>
      ask('copyTakes', { lessonId }, body),
    transformResponse: read(answers.copyTakes),
    invalidatesTags: ['Takes'],
  }),
  takes: build.query({
    query: (lessonId: string) => ask('takes', { lessonId }),
    transformResponse: read(answers.takes),
    providesTags: ['Takes'],
  }),
  makeTake: build.mutation({
    query: ({ lessonId, ...body }: MakeTake & { lessonId: string }) =>
      ask('makeTake', { lessonId }, body),
    transformResponse: read(answers.makeTake),
    invalidatesTags: ['Takes'],
  }),
  changeTake: build.mutation({
    query: ({ takeId, ...body }: ChangeTake & { takeId: string }) =>
      ask('changeTake', { takeId }, body),
    transformResponse: read(answers.changeTake),
    invalidatesTags: ['Takes', 'Storage'],
  }),
  watchTake: build.mutation({
    query: (takeId: string) => ask('watchTake', { takeId }),
    invalidatesTags: ['Takes'],
  }),
  renewTake: build.mutation({
    query: (takeId: string) => ask('makeTakeAnew', { takeId }),
    invalidatesTags: ['Takes'],
  }),
  storage: build.query({
    query: (lessonId: string) => ask('storage', { lessonId }),
    transformResponse: read(answers.storage),
    providesTags: ['Storage'],
  }),
  emptyBin: build.mutation({
    query: (lessonId: string) => ask('emptyBin', { lessonId }),
    invalidatesTags: ['Takes', 'Storage'],
  }),
});

/** Exports and links. */
const shareEndpoints = (build: Build) => ({
  exports: build.query({
    query: (lessonId: string) => ask('exports', { lessonId }),
    transformResponse: read(answers.exports),
    providesTags: ['Exports'],
  }),
  startExport: build.mutation({
    query: ({ lessonId, order }: { lessonId: string; order: ExportOrder }) =>
      ask('makeExport', { lessonId }, order),
    transformResponse: read(answers.makeExport),
    invalidatesTags: ['Exports'],
  }),
  changeJob: build.mutation({
    query: ({ jobId, ...body }: ChangeJob & { jobId: string }) => ask('changeJob', { jobId }, body),
    transformResponse: read(answers.changeJob),
    invalidatesTags: ['Exports'],
  }),
  cancelJob: build.mutation({
    query: (jobId: string) => ask('cancelJob', { jobId }),
    transformResponse: read(answers.cancelJob),
    invalidatesTags: ['Exports', 'Takes'],
  }),
  shares: build.query({
    query: (lessonId: string) => ask('shares', { lessonId }),
    transformResponse: read(answers.shares),
    providesTags: ['Shares'],
  }),
  makeShare: build.mutation({
    query: ({ lessonId, ...body }: SharePlan & { lessonId: string }) =>
      ask('makeShare', { lessonId }, body),
    transformResponse: read(answers.makeShare),
    invalidatesTags: ['Shares', 'Lessons'],
  }),
  changeShare: build.mutation({
    query: ({ code, ...body }: ChangeShare & { code: string }) =>
      ask('changeShare', { code }, body),
    transformResponse: read(answers.changeShare),
    invalidatesTags: ['Shares'],
  }),
  revokeShare: build.mutation({
    query: (code: string) => ask('closeShare', { code }),
    transformResponse: read(answers.closeShare),
    invalidatesTags: ['Shares', 'Lessons'],
  }),
});

export const api = createApi({
  reducerPath: 'api',
  baseQuery: query,
  tagTypes: tags,
  endpoints: (build) => ({
    ...accountEndpoints(build),
    ...lessonEndpoints(build),
    ...seriesEndpoints(build),
    ...takeEndpoints(build),
    ...shareEndpoints(build),
  }),
});

/** The words of a failed call, or null. */
export function problemText(error: unknown): string | null {
  const known = problemSchema.safeParse(error);
  if (known.success) return known.data.message;
  return error ? teacherText('app.page-failed') : null;
}

/** A job as it came over the event stream. */
export function readJobEvent(text: string): Job {
  return jobSchema.parse(JSON.parse(text));
}
