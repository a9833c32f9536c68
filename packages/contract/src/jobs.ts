import { z } from 'zod';

/** What was measured of a finished export. */
export const exportResultSchema = z.object({
  revision: z.number(),
  frames: z.number(),
  durationMs: z.number(),
  bytes: z.number(),
  loudnessLufs: z.number().nullable(),
  truePeakDb: z.number().nullable(),
});

export const jobSchema = z.object({
  id: z.string(),
  kind: z.enum(['ingest', 'export']),
  /** The take of an ingest, the lesson of an export. */
  subjectId: z.string(),
  state: z.enum(['queued', 'running', 'done', 'failed', 'cancelled']),
  /** 0 to 1. */
  progress: z.number(),
  /** Milliseconds to go at the present pace; null while it cannot be told. */
  leftMs: z.number().nullable(),
  /** What is being done, or what went wrong and what to do. */
  message: z.string(),
  createdAt: z.string(),
  /** For a finished export. */
  result: exportResultSchema.nullable(),
});
export type Job = z.infer<typeof jobSchema>;
