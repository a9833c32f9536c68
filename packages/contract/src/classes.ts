import { idSchema, languageSchema, lineSchema, sides, titleSchema } from '@zest/core/lesson';
import { SPOKEN_LENGTH, type CreditLevel, type StepRule } from '@zest/core/results';
import { z } from 'zod';
import { saying } from '@zest/core/words';

export const CLASS_LIMITS = {
  classes: 100,
  students: 200,
  levels: 12,
  criteria: 12,
  keepWeeks: { min: 1, max: 104 },
} as const;

const percent = z
  .int(saying('rule.whole-percent'))
  .min(0, saying('rule.least', { least: '0 %' }))
  .max(100, saying('rule.most', { most: '100 %' }));
const effort = z.number().min(1, saying('rule.effort')).max(5, saying('rule.effort'));

const ruleSchema = z.strictObject({
  harder: z.strictObject({ finishedPercent: percent, effortAtMost: effort }),
  easier: z.strictObject({ finishedBelowPercent: percent, effortAtLeast: effort }),
}) satisfies z.ZodType<StepRule>;

const creditSchema = z.strictObject({
  id: idSchema,
  name: titleSchema.min(1, saying('rule.level-name')),
  criteria: z
    .array(
      z.strictObject({
        id: idSchema,
        text: lineSchema.min(1, saying('rule.criterion')),
        measured: z
          .strictObject({
            key: z.string().min(1).max(400),
            atLeast: z.number().min(0).max(1_000_000),
          })
          .nullable(),
      }),
    )
    .max(CLASS_LIMITS.criteria),
}) satisfies z.ZodType<CreditLevel>;

/** What a teacher sets of a class. */
export const classPlanSchema = z.strictObject({
  name: titleSchema.trim().min(1, saying('rule.class-name')),
  /** Entries older than this are erased. */
  keepWeeks: z
    .int(saying('rule.whole-weeks'))
    .min(CLASS_LIMITS.keepWeeks.min, saying('rule.least-week'))
    .max(
      CLASS_LIMITS.keepWeeks.max,
      saying('rule.most-weeks', { most: CLASS_LIMITS.keepWeeks.max }),
    ),
  rule: ruleSchema,
  credits: z.array(creditSchema).max(CLASS_LIMITS.levels),
});

/** Ways of the lesson page that a student's card brings along. */
export const pageSettings = ['calm', 'partByPart', 'strip'] as const;
export type PageSetting = (typeof pageSettings)[number];

/** A student: a made-up name or code, and what the lesson page needs to be theirs. */
export const studentPlanSchema = z.strictObject({
  nickname: z
    .string()
    .trim()
    .min(1, saying('rule.nickname'))
    .max(40, saying('rule.most-characters', { most: 40 })),
  group: z
    .string()
    .trim()
    .max(40, saying('rule.most-characters', { most: 40 })),
  /** The language the family reads; null: the lesson's. */
  language: languageSchema.nullable(),
  hand: z.enum(sides).nullable(),
  page: z.array(z.enum(pageSettings)).default([]),
});

export const classSchema = classPlanSchema.extend({
  id: z.string(),
  /** Read out together with a lesson's code. */
  code: z.string().length(SPOKEN_LENGTH),
  students: z.number(),
});
export const studentSchema = studentPlanSchema.extend({
  id: z.string(),
  /** Typed once on the student's own device; good in its class only. */
  code: z.string().length(SPOKEN_LENGTH),
  createdAt: z.string(),
});

/** New students: so many with made-up names, or with the names given. */
export const makeStudentsSchema = z.union([
  z.strictObject({
    count: z
      .int()
      .min(1, saying('rule.one-student'))
      .max(CLASS_LIMITS.students, saying('rule.most-students', { most: CLASS_LIMITS.students })),
  }),
  z.strictObject({
    nicknames: z
      .array(studentPlanSchema.shape.nickname)
      .min(1, saying('rule.one-nickname'))
      .max(CLASS_LIMITS.students),
  }),
]);

/** What was erased, without saying whose. */
export const erasureSchema = z.object({
  id: z.string(),
  what: z.enum(['student', 'class', 'kept long enough']),
  entries: z.number(),
  at: z.string(),
});

export type ClassPlan = z.infer<typeof classPlanSchema>;
export type Class = z.infer<typeof classSchema>;
export type Student = z.infer<typeof studentSchema>;
export type StudentPlan = z.infer<typeof studentPlanSchema>;
export type MakeStudents = z.infer<typeof makeStudentsSchema>;
export type Erasure = z.infer<typeof erasureSchema>;
