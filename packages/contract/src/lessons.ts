import { lessonSchema } from '@zest/core/lesson';
import { z } from 'zod';

export const makeLessonSchema = z.union([
  z.strictObject({ title: z.string().trim().min(1, 'A lesson needs a title.').max(120, 'At most 120 characters.') }),
  /** A lesson document of any known version. */
  z.strictObject({ document: z.unknown() }),
]);

export const lessonSummarySchema = z.object({
  id: z.string(),
  revision: z.number(),
  savedAt: z.string(),
  title: z.string(),
  series: z.object({ name: z.string(), week: z.number().nullable() }),
  blocks: z.number(),
  /** Blocks whose footage is chosen. */
  filmed: z.number(),
  videoMs: z.number(),
  studentMs: z.number(),
  shared: z.boolean(),
});

export const storedLessonSchema = z.object({
  id: z.string(),
  revision: z.number(),
  savedAt: z.string(),
  lesson: lessonSchema,
});

export const saveLessonSchema = z.strictObject({
  /** The revision the change was made from; refused as stale when the server has a newer one. */
  baseRevision: z.int().min(0),
  lesson: z.unknown(),
});

export const revisionSchema = z.object({
  revision: z.number(),
  savedAt: z.string(),
  title: z.string(),
  blocks: z.number(),
});

export type LessonSummary = z.infer<typeof lessonSummarySchema>;
export type StoredLesson = z.infer<typeof storedLessonSchema>;
export type Revision = z.infer<typeof revisionSchema>;
