import { answers, type BodyOf, type MakeComment, type Role } from '@zest/contract';
import { api, read } from './api.ts';
import { ask } from './ask.ts';

/** What the pages ask of the people who work together. */
export const teamApi = api
  .enhanceEndpoints({ addTagTypes: ['Team', 'Comments', 'Audit', 'Address'] })
  .injectEndpoints({
    endpoints: (build) => ({
      team: build.query({
        query: (_: void) => ask('team'),
        transformResponse: read(answers.team),
        providesTags: ['Team'],
      }),
      makeInvite: build.mutation({
        query: (role: Role) => ask('makeInvite', {}, { role }),
        transformResponse: read(answers.makeInvite),
        invalidatesTags: ['Audit'],
      }),
      acceptInvite: build.mutation({
        query: (body: { code: string; login: string; password: string }) =>
          ask('acceptInvite', {}, body),
        transformResponse: read(answers.acceptInvite),
      }),
      changeMember: build.mutation({
        query: ({ memberId, role }: { memberId: string; role: BodyOf<'changeMember'>['role'] }) =>
          ask('changeMember', { memberId }, { role }),
        transformResponse: read(answers.changeMember),
        invalidatesTags: ['Team', 'Audit'],
      }),
      removeMember: build.mutation({
        query: (memberId: string) => ask('removeMember', { memberId }),
        invalidatesTags: ['Team', 'Audit'],
      }),
      changePassword: build.mutation({
        query: (body: { current: string; next: string }) => ask('changePassword', {}, body),
        invalidatesTags: ['Audit'],
      }),
      makePasswordLink: build.mutation({
        query: (memberId: string) => ask('makePasswordLink', { memberId }),
        transformResponse: read(answers.makePasswordLink),
        invalidatesTags: ['Audit'],
      }),
      setNewPassword: build.mutation({
        query: (body: { code: string; password: string }) => ask('setNewPassword', {}, body),
        transformResponse: read(answers.setNewPassword),
      }),
      address: build.query({
        query: (_: void) => ask('address'),
        transformResponse: read(answers.address),
        providesTags: ['Address'],
      }),
      changeAddress: build.mutation({
        query: (address: string | null) => ask('changeAddress', {}, { address }),
        transformResponse: read(answers.changeAddress),
        invalidatesTags: ['Address', 'Audit'],
      }),
      installation: build.query({
        query: (_: void) => ask('installation'),
        transformResponse: read(answers.installation),
      }),
      stored: build.query({
        query: (_: void) => ask('stored'),
        transformResponse: read(answers.stored),
        providesTags: ['Takes', 'Exports'],
      }),
      deleteExport: build.mutation({
        query: (jobId: string) => ask('deleteExport', { jobId }),
        invalidatesTags: ['Exports', 'Audit'],
      }),
      deleteTake: build.mutation({
        query: (takeId: string) => ask('deleteTake', { takeId }),
        invalidatesTags: ['Takes', 'Storage', 'Audit'],
      }),
      audit: build.query({
        query: (_: void) => ask('audit'),
        transformResponse: read(answers.audit),
        providesTags: ['Audit'],
      }),
      presence: build.mutation({
        query: ({
          lessonId,
          ...body
        }: {
          lessonId: string;
          bench: string;
          blockId: string | null;
        }) => ask('presence', { lessonId }, body),
        transformResponse: read(answers.presence),
      }),
      comments: build.query({
        query: (lessonId: string) => ask('comments', { lessonId }),
        transformResponse: read(answers.comments),
        providesTags: ['Comments'],
      }),
      makeComment: build.mutation({
        query: ({ lessonId, ...body }: MakeComment & { lessonId: string }) =>
          ask('makeComment', { lessonId }, body),
        transformResponse: read(answers.makeComment),
        invalidatesTags: ['Comments'],
      }),
      changeComment: build.mutation({
        query: ({ commentId, done }: { commentId: string; done: boolean }) =>
          ask('changeComment', { commentId }, { done }),
        transformResponse: read(answers.changeComment),
        invalidatesTags: ['Comments'],
      }),
      deleteComment: build.mutation({
        query: (commentId: string) => ask('deleteComment', { commentId }),
        invalidatesTags: ['Comments'],
      }),
    }),
  });
