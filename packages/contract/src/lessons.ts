import { blockKinds, idSchema, lessonSchema, movements } from '@zest/core/lesson';
import { benches, benchStages } from '@zest/core/making';
import { z } from 'zod';
import { saying } from '@zest/core/words';

export const makeLessonSchema = z.union([
  z.strictObject({
    title: z
      .string()
      .trim()
      .min(1, saying('rule.lesson-title'))
      .max(120, saying('rule.most-characters', { most: 120 })),
  }),
  /** A lesson document of any known version. */
  z.strictObject({ document: z.unknown() }),
]);

export const lessonSummarySchema = z.object({
  id: z.string(),
  revision: z.number(),
  savedAt: z.string(),
  title: z.string(),
  outcome: z.string(),
  /** The language of its texts, BCP 47. */
  language: z.string(),
  series: z.object({ name: z.string(), week: z.number().nullable() }),
  /** Titles of its sections, in order. */
  sections: z.array(z.string()),
  /** Student time of each skill, in milliseconds. */
  skills: z.array(z.object({ skill: z.string(), studentMs: z.number() })),
  /** Each thing needed, once, as it is written everywhere. */
  kit: z.array(z.string()),
  blocks: z.number(),
  /** Blocks whose footage is chosen. */
  filmed: z.number(),
  videoMs: z.number(),
  studentMs: z.number(),
  /** Blocks with words or cues. */
  scripted: z.number(),
  /** How far each bench is with it. */
  benches: z.record(z.enum(benches), z.enum(benchStages)),
  portrait: z.object({
    takeId: z.string().nullable(),
    movement: z.enum(movements),
    strip: z.array(z.object({ kind: z.enum(blockKinds), effort: z.number(), ms: z.number() })),
  }),
  shared: z.boolean(),
  archived: z.boolean(),
  /** Kept as a pattern for others, not to be filmed itself. */
  template: z.boolean(),
  /** The sign-in name of who of the team sees to it; null when they have left. */
  keeper: z.string().nullable(),
});

/** What has become of a lesson outside of it: whether a link shows it, and results of it came back. */
export const lessonUseSchema = z.object({ shared: z.boolean(), answered: z.boolean() });

/** Somebody else of the team sees to a lesson from here on. */
export const handOverSchema = z.strictObject({ memberId: z.string().min(1).max(40) });

/** What went with a lesson that was deleted for good; bytes of content that nothing else names. */
export const erasedLessonSchema = z.object({
  revisions: z.number(),
  takes: z.number(),
  bytes: z.number(),
});
export type ErasedLesson = z.infer<typeof erasedLessonSchema>;

export const shelfSchema = z.strictObject({ archived: z.boolean(), template: z.boolean() });

/**
 * Takes to be had by another lesson of the same teacher as well, and the block each is for there.
 */
export const copyTakesSchema = z.strictObject({
  takes: z.array(z.strictObject({ takeId: idSchema, blockId: idSchema })).max(300),
});
/** The new take of each old one; one that never arrived whole has none. */
export const copiedTakesSchema = z.array(z.object({ from: z.string(), takeId: z.string() }));

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
  /** Who saved it; null when that was not kept. */
  by: z.string().nullable(),
  savedAt: z.string(),
  title: z.string(),
  blocks: z.number(),
});

export type Shelf = z.infer<typeof shelfSchema>;
export type CopyTakes = z.infer<typeof copyTakesSchema>;
export type LessonSummary = z.infer<typeof lessonSummarySchema>;
export type StoredLesson = z.infer<typeof storedLessonSchema>;
export type Revision = z.infer<typeof revisionSchema>;
