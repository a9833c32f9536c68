import {
  addressSchema,
  auditEntrySchema,
  commentSchema,
  installationSchema,
  madeInviteSchema,
  memberSchema,
  passwordLinkSchema,
  presentSchema,
  sessionSchema,
  storedSchema,
  type MakeComment,
  type Role,
} from '@zest/contract';
import { z } from 'zod';
import { api, read } from './api.ts';

/** What the pages ask of the people who work together. */
export const teamApi = api
  .enhanceEndpoints({ addTagTypes: ['Team', 'Comments', 'Audit', 'Address'] })
  .injectEndpoints({
    endpoints: (build) => ({
      team: build.query({
        query: (_: void) => '/team',
        transformResponse: read(z.array(memberSchema)),
        providesTags: ['Team'],
      }),
      makeInvite: build.mutation({
        query: (role: Role) => ({ url: '/team/invites', method: 'POST', body: { role } }),
        transformResponse: read(madeInviteSchema),
        invalidatesTags: ['Audit'],
      }),
      acceptInvite: build.mutation({
        query: (body: { code: string; login: string; password: string }) => ({
          url: '/invites/accept',
          method: 'POST',
          body,
        }),
        transformResponse: read(memberSchema),
      }),
      changeMember: build.mutation({
        query: ({ memberId, role }: { memberId: string; role: Role }) => ({
          url: `/team/${memberId}`,
          method: 'PUT',
          body: { role },
        }),
        transformResponse: read(memberSchema),
        invalidatesTags: ['Team', 'Audit'],
      }),
      removeMember: build.mutation({
        query: (memberId: string) => ({ url: `/team/${memberId}`, method: 'DELETE' }),
        invalidatesTags: ['Team', 'Audit'],
      }),
      changePassword: build.mutation({
        query: (body: { current: string; next: string }) => ({
          url: '/session/password',
          method: 'PUT',
          body,
        }),
        invalidatesTags: ['Audit'],
      }),
      makePasswordLink: build.mutation({
        query: (memberId: string) => ({ url: `/team/${memberId}/password`, method: 'POST' }),
        transformResponse: read(passwordLinkSchema),
        invalidatesTags: ['Audit'],
      }),
      setNewPassword: build.mutation({
        query: (body: { code: string; password: string }) => ({
          url: '/password',
          method: 'POST',
          body,
        }),
        transformResponse: read(sessionSchema),
      }),
      address: build.query({
        query: (_: void) => '/address',
        transformResponse: read(addressSchema),
        providesTags: ['Address'],
      }),
      changeAddress: build.mutation({
        query: (address: string | null) => ({ url: '/address', method: 'PUT', body: { address } }),
        transformResponse: read(addressSchema),
        invalidatesTags: ['Address', 'Audit'],
      }),
      installation: build.query({
        query: (_: void) => '/installation',
        transformResponse: read(installationSchema),
      }),
      stored: build.query({
        query: (_: void) => '/stored',
        transformResponse: read(storedSchema),
        providesTags: ['Takes', 'Exports'],
      }),
      deleteExport: build.mutation({
        query: (jobId: string) => ({ url: `/jobs/${jobId}/files`, method: 'DELETE' }),
        invalidatesTags: ['Exports', 'Audit'],
      }),
      deleteTake: build.mutation({
        query: (takeId: string) => ({ url: `/takes/${takeId}`, method: 'DELETE' }),
        invalidatesTags: ['Takes', 'Storage', 'Audit'],
      }),
      audit: build.query({
        query: (_: void) => '/audit',
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
        }) => ({ url: `/lessons/${lessonId}/presence`, method: 'POST', body }),
        transformResponse: read(presentSchema),
      }),
      comments: build.query({
        query: (lessonId: string) => `/lessons/${lessonId}/comments`,
        transformResponse: read(z.array(commentSchema)),
        providesTags: ['Comments'],
      }),
      makeComment: build.mutation({
        query: ({ lessonId, ...body }: MakeComment & { lessonId: string }) => ({
          url: `/lessons/${lessonId}/comments`,
          method: 'POST',
          body,
        }),
        transformResponse: read(commentSchema),
        invalidatesTags: ['Comments'],
      }),
      changeComment: build.mutation({
        query: ({ commentId, done }: { commentId: string; done: boolean }) => ({
          url: `/comments/${commentId}`,
          method: 'PUT',
          body: { done },
        }),
        transformResponse: read(commentSchema),
        invalidatesTags: ['Comments'],
      }),
      deleteComment: build.mutation({
        query: (commentId: string) => ({ url: `/comments/${commentId}`, method: 'DELETE' }),
        invalidatesTags: ['Comments'],
      }),
    }),
  });
