import { idSchema, LIMITS, lineSchema, sides, titleSchema, weekLevels } from '@zest/core/lesson';
import {
  measures,
  skipReasons,
  type ClassSums,
  type EntryBody,
  type LogEntry,
  MOST_SEEN,
} from '@zest/core/results';
import { z } from 'zod';
import { saying } from '@zest/core/words';

const ms = z
  .int()
  .min(0)
  .max(24 * 3_600_000);
const blockId = idSchema;

const scoreSchema = z.strictObject({
  kind: z.literal('score'),
  blockId,
  key: z.string().min(1).max(400),
  title: titleSchema,
  measure: z.enum(measures),
  better: z.enum(['more', 'less']),
  value: z
    .number('A number, please.')
    .min(0, saying('rule.least', { least: 0 }))
    .max(1_000_000, saying('rule.million')),
  side: z.enum(sides).nullable(),
  level: z.enum(weekLevels),
  seconds: z.number().min(0).max(86_400).nullable(),
});

const studentBodies = [
  z.strictObject({ kind: z.literal('opened') }),
  z.strictObject({
    kind: z.literal('reached'),
    atMs: ms,
    totalMs: ms,
    seen: z
      .array(z.tuple([ms, ms]))
      .max(MOST_SEEN)
      .optional(),
  }),
  scoreSchema,
  z.strictObject({
    kind: z.literal('answer'),
    blockId,
    question: lineSchema,
    text: lineSchema,
    choices: z.array(titleSchema).max(LIMITS.choices.max).optional(),
    isRight: z.boolean().optional(),
  }),
  z.strictObject({ kind: z.literal('effort'), value: z.int().min(1).max(5) }),
  z.strictObject({
    kind: z.literal('skipped'),
    blockId,
    title: titleSchema,
    reason: z.enum(skipReasons),
  }),
  z.strictObject({ kind: z.literal('replayed'), blockId, title: titleSchema }),
  z.strictObject({ kind: z.literal('practised'), blockId, ms }),
] as const;

/** What a student's page may say. */
export const studentBodySchema = z.discriminatedUnion('kind', studentBodies);
/** What can be in the log. */
export const entryBodySchema = z.discriminatedUnion('kind', [
  ...studentBodies,
  z.strictObject({ kind: z.literal('signed'), levelId: idSchema, criterionId: idSchema }),
]) satisfies z.ZodType<EntryBody>;

/** Given by whoever makes the entry, so that one sent twice is kept once. */
const entryIdSchema = z.string().regex(/^[\w-]{16,40}$/, saying('rule.entry-id'));
const DATED = saying('rule.date-range');
/** Milliseconds since 1970. */
const at = z
  .int(DATED)
  .min(0, DATED)
  .max(Date.UTC(2100, 0, 1), DATED);
/** As a device's own clock says, which may be years off. */
const atOnDevice = z
  .int(DATED)
  .min(-8_640_000_000_000_000, DATED)
  .max(8_640_000_000_000_000, DATED);

export const MAX_ENTRIES_AT_ONCE = 200;
/** A student's entries of one lesson in 24 hours; a diligent one makes a fifth of it. */
export const MAX_ENTRIES_A_DAY = 500;
export const MAX_HAND_ENTRIES = 2_000;

export const sendEntriesSchema = z.strictObject({
  /**
   * What the device's clock said when it sent this: tells how far it is off. Pages of before did
   * not say.
   */
  sentAt: atOnDevice.optional(),
  entries: z
    .array(z.strictObject({ id: entryIdSchema, at: atOnDevice, body: studentBodySchema }))
    .min(1, saying('rule.nothing-sent'))
    .max(MAX_ENTRIES_AT_ONCE, saying('rule.most-entries', { most: MAX_ENTRIES_AT_ONCE })),
});
/** What came of sending: entries that will never be taken, and why. */
export interface SentEntries {
  refused: { id: string; code: 'closed' | 'too-many'; message: string }[];
}
/** Entries by the teacher's hand: from paper, from a message, or signed off. */
export const handEntriesSchema = z.strictObject({
  entries: z
    .array(
      z.strictObject({
        id: entryIdSchema,
        at,
        studentId: idSchema,
        lessonId: idSchema.nullable(),
        body: entryBodySchema,
      }),
    )
    .min(1, saying('rule.nothing-sent'))
    .max(MAX_HAND_ENTRIES, saying('rule.most-hand-entries', { most: MAX_HAND_ENTRIES })),
});

/** Entries that are sent at once; more come in pages. */
export const MAX_LOG_PAGE = 5_000;

/**
 * What of a class's log is wanted: one lesson's, one student's or all of it; from where a page
 * ended, or what has changed since an instant in milliseconds.
 */
export const logQuerySchema = z.object({
  lesson: idSchema.optional(),
  student: idSchema.optional(),
  after: z
    .string()
    .regex(/^\d+\.[\w-]+$/, saying('rule.go-on'))
    .optional(),
  changedSince: z.coerce.number().int().optional(),
});
export type LogQuery = z.infer<typeof logQuerySchema>;

/**
 * A page of the log, the oldest first. Its entries were checked when they came in: a year of a class
 * is not looked into again on its way to a chart.
 */
export const logPageSchema = z.object({
  entries: z.array(z.custom<LogEntry>((entry) => typeof entry === 'object' && entry !== null)),
  /** Where the next page goes on; null at the end. */
  next: z.string().nullable(),
  /** What changes after this instant is not in it. */
  asOf: z.number(),
});
export type LogPage = z.infer<typeof logPageSchema>;

const figure = z.number().nullable();
/** What a class has reached, summed up before and since an instant. */
export const classSumsSchema = z.object({
  lines: z.array(
    z.object({
      studentId: z.string(),
      key: z.string(),
      title: z.string(),
      measure: z.enum(measures),
      better: z.enum(['more', 'less']),
      side: z.enum(sides).nullable(),
      level: z.enum(weekLevels),
      isRate: z.boolean(),
      before: figure,
      since: figure,
      best: z.number(),
    }),
  ),
  doing: z.array(z.string()),
  signed: z.array(
    z.object({
      id: z.string(),
      studentId: z.string(),
      levelId: z.string(),
      criterionId: z.string(),
    }),
  ),
}) satisfies z.ZodType<ClassSums>;

/** What a student sees of their own: nothing of anybody else. */
export interface OwnLog {
  nickname: string;
  entries: LogEntry[];
}

export type HandEntries = z.infer<typeof handEntriesSchema>;
