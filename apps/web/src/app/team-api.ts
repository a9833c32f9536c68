import {
  addressSchema,
  auditEntrySchema,
  commentSchema,
  installationSchema,
  madeInviteSchema,
  memberSchema,
  passwordLinkSchema,
  presentSchema,
  routes,
  sessionSchema,
  storedSchema,
  type MakeComment,
  type Role,
} from '@zest/contract';
import { z } from 'zod';
import { api, read } from './api.ts';
import { ask } from './ask.ts';

/** What the pages ask of the people who work together. */
export const teamApi = api
  .enhanceEndpoints({ addTagTypes: ['Team', 'Comments', 'Audit', 'Address'] })
  .injectEndpoints({
    endpoints: (build) => ({
      team: build.query({
        query: (_: void) => ask(routes.team),
        transformResponse: read(z.array(memberSchema)),
        providesTags: ['Team'],
      }),
      makeInvite: build.mutation({
        query: (role: Role) => ask(routes.makeInvite, {}, { role }),
        transformResponse: read(madeInviteSchema),
        invalidatesTags: ['Audit'],
      }),
      acceptInvite: build.mutation({
        query: (body: { code: string; login: string; password: string }) =>
          ask(routes.acceptInvite, {}, body),
        transformResponse: read(memberSchema),
      }),
      changeMember: build.mutation({
        query: ({ memberId, role }: { memberId: string; role: Role }) =>
          ask(routes.changeMember, { memberId }, { role }),
        transformResponse: read(memberSchema),
        invalidatesTags: ['Team', 'Audit'],
      }),
      removeMember: build.mutation({
        query: (memberId: string) => ask(routes.removeMember, { memberId }),
        invalidatesTags: ['Team', 'Audit'],
      }),
      changePassword: build.mutation({
        query: (body: { current: string; next: string }) => ask(routes.changePassword, {}, body),
        invalidatesTags: ['Audit'],
      }),
      makePasswordLink: build.mutation({
        query: (memberId: string) => ask(routes.makePasswordLink, { memberId }),
        transformResponse: read(passwordLinkSchema),
        invalidatesTags: ['Audit'],
      }),
      setNewPassword: build.mutation({
        query: (body: { code: string; password: string }) => ask(routes.setNewPassword, {}, body),
        transformResponse: read(sessionSchema),
      }),
      address: build.query({
        query: (_: void) => ask(routes.address),
        transformResponse: read(addressSchema),
        providesTags: ['Address'],
      }),
      changeAddress: build.mutation({
        query: (address: string | null) => ask(routes.changeAddress, {}, { address }),
        transformResponse: read(addressSchema),
        invalidatesTags: ['Address', 'Audit'],
      }),
      installation: build.query({
        query: (_: void) => ask(routes.installation),
        transformResponse: read(installationSchema),
      }),
      stored: build.query({
        query: (_: void) => ask(routes.stored),
        transformResponse: read(storedSchema),
        providesTags: ['Takes', 'Exports'],
      }),
      deleteExport: build.mutation({
        query: (jobId: string) => ask(routes.deleteExport, { jobId }),
        invalidatesTags: ['Exports', 'Audit'],
      }),
      deleteTake: build.mutation({
        query: (takeId: string) => ask(routes.deleteTake, { takeId }),
        invalidatesTags: ['Takes', 'Storage', 'Audit'],
      }),
      audit: build.query({
        query: (_: void) => ask(routes.audit),
        transformResponse: read(z.array(auditEntrySchema)),
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
        }) => ask(routes.presence, { lessonId }, body),
        transformResponse: read(presentSchema),
      }),
      comments: build.query({
        query: (lessonId: string) => ask(routes.comments, { lessonId }),
        transformResponse: read(z.array(commentSchema)),
        providesTags: ['Comments'],
      }),
      makeComment: build.mutation({
        query: ({ lessonId, ...body }: MakeComment & { lessonId: string }) =>
          ask(routes.makeComment, { lessonId }, body),
        transformResponse: read(commentSchema),
        invalidatesTags: ['Comments'],
      }),
      changeComment: build.mutation({
        query: ({ commentId, done }: { commentId: string; done: boolean }) =>
          ask(routes.changeComment, { commentId }, { done }),
        transformResponse: read(commentSchema),
        invalidatesTags: ['Comments'],
      }),
      deleteComment: build.mutation({
        query: (commentId: string) => ask(routes.deleteComment, { commentId }),
        invalidatesTags: ['Comments'],
      }),
    }),
  });
