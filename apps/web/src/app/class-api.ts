import { classLogSchema, classSchema, erasureSchema, studentSchema, type ClassPlan, type HandEntries, type MakeStudents, type StudentPlan } from '@zest/contract';
import { z } from 'zod';
import { api, read } from './api.ts';

/** What the pages ask of classes, their students and their log. */
export const classApi = api.enhanceEndpoints({ addTagTypes: ['Classes', 'Log', 'Erasures'] }).injectEndpoints({
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
    classLog: build.query({
      query: (classId: string) => `/classes/${classId}/log`,
      transformResponse: read(classLogSchema),
      providesTags: ['Log'],
    }),
    addStudents: build.mutation({
      query: ({ classId, ...body }: MakeStudents & { classId: string }) => ({ url: `/classes/${classId}/students`, method: 'POST', body }),
      transformResponse: read(z.array(studentSchema)),
      invalidatesTags: ['Classes', 'Log'],
    }),
    saveStudent: build.mutation({
      query: ({ studentId, ...body }: StudentPlan & { studentId: string }) => ({ url: `/students/${studentId}`, method: 'PUT', body }),
      transformResponse: read(studentSchema),
      invalidatesTags: ['Log'],
    }),
    eraseStudent: build.mutation({
      query: (studentId: string) => ({ url: `/students/${studentId}`, method: 'DELETE' }),
      invalidatesTags: ['Classes', 'Log', 'Erasures'],
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
