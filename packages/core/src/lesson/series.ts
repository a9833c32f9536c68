import { z } from 'zod';
import { saying, teacherText } from '../words/index.ts';
import { LIMITS } from './limits.ts';
import { progressFigureNames, progressFigures } from './progress.ts';
import { idSchema, lessonParts, lineSchema, titleSchema, whole } from './parts.ts';
import { weekLevels } from './schema.ts';
import { spaceText } from './units.ts';

export const SERIES_VERSION = 1;

export const SERIES_LIMITS = {
  ...{ rules: 12, skills: 40, breaks: 40, values: 60 },
  /** A week. */
  sessions: { min: 1, max: 7 },
} as const;

const rule = {
  id: idSchema,
  /** One value after another, each for `everyWeeks` weeks; the last stays. */
  everyWeeks: whole({ min: 1, max: 12 }),
};
const listOf = <T extends z.ZodType>(value: T) =>
  z
    .array(value)
    .min(1, saying('rule.one-value'))
    .max(SERIES_LIMITS.values, saying('rule.most-values', { most: SERIES_LIMITS.values }));

/** How a figure may grow, in per cent, and lighter weeks: every so many, with so much of the last. */
export const GROWTH_LIMITS = {
  percent: { min: -50, max: 100 },
  lighterEvery: { min: 2, max: 12 },
  /** Half to three quarters is usual (common practice). */
  lighterPercent: { min: 20, max: 95 },
} as const;

const growthSchema = z.discriminatedUnion('by', [
  z.strictObject({
    by: z.literal('step'),
    step: z.int(saying('rule.whole')).refine((n) => n !== 0, saying('rule.step')),
  }),
  z.strictObject({ by: z.literal('percent'), percent: whole(GROWTH_LIMITS.percent) }),
]);

export const progressRuleSchema = z.discriminatedUnion('of', [
  z
    .strictObject({
      ...rule,
      of: z.literal('figure'),
      figure: z.enum(progressFigureNames),
      values: listOf(z.int(saying('rule.whole'))),
      parts: z.array(z.enum(lessonParts)).min(1, saying('rule.parts')),
      /** How it goes on after the last value; none: the last value stays. */
      grows: growthSchema.optional(),
      /** No further than this. */
      until: z.int(saying('rule.whole')).optional(),
      /** Every so many weeks a lighter one, with so much of the week before; it adds nothing. */
      lighter: z
        .strictObject({
          every: whole(GROWTH_LIMITS.lighterEvery),
          percent: whole(GROWTH_LIMITS.lighterPercent),
        })
        .optional(),
      /** Why it grows so, for whoever reads the plan. */
      why: lineSchema.optional(),
    })
    .superRefine(({ figure, values }, ctx) => {
      const { range, unit, word } = progressFigures[figure];
      const shown = (n: number) =>
        unit === 'ms' ? `${n / 1000} s` : unit === 'cm' ? spaceText(n, 'metric') : String(n);
      values.forEach((value, i) => {
        if (value >= range.min && value <= range.max) return;
        ctx.addIssue({
          code: 'custom',
          path: ['values', i],
          message: teacherText('rule.figure-range', {
            figure: teacherText(word),
            least: shown(range.min),
            most: shown(range.max),
          }),
        });
      });
    }),
  /** The kit of these blocks that is one of the values becomes the week's: balloon, soft ball, ball. */
  z.strictObject({
    ...rule,
    of: z.literal('kit'),
    values: listOf(titleSchema.min(1, saying('rule.kit-name'))),
    parts: z.array(z.enum(lessonParts)).min(1, saying('rule.parts')),
  }),
  z.strictObject({ ...rule, of: z.literal('level'), values: listOf(z.enum(weekLevels)) }),
  z.strictObject({
    ...rule,
    of: z.literal('sessions'),
    values: listOf(whole(SERIES_LIMITS.sessions)),
  }),
]);

/**
 * Schools of naming how far a skill is learnt: three stages of motor learning (Fitts and Posner
 * 1967, from memory) or the four steps of a teaching unit (common practice).
 */
export const stageSchools = {
  three: ['finding out', 'refining', 'automatic'],
  four: ['introduce', 'practise', 'apply', 'show'],
} as const;

const dateSchema = z.iso.date(saying('rule.date'));
const weekSchema = whole({ min: 1, max: LIMITS.weeks });

export const seriesSchema = z
  .strictObject({
    format: z.literal('zest-series'),
    version: z.literal(SERIES_VERSION),
    name: titleSchema.min(1, saying('rule.series-name')),
    about: lineSchema,
    weeks: weekSchema,
    /** A day of the first week; null when not dated. */
    startsOn: dateSchema.nullable(),
    /** Days of the week with a session, 1 Monday to 7 Sunday. */
    weekdays: z.array(z.int().min(1).max(7)).max(7),
    /** When sessions begin, in minutes after midnight; null: all day. */
    atMinutes: whole({ min: 0, max: 1_439 }).nullable(),
    /** Days without sessions, both ends included. */
    breaks: z
      .array(
        z
          .strictObject({ id: idSchema, from: dateSchema, to: dateSchema, label: titleSchema })
          .refine(({ from, to }) => from <= to, {
            path: ['to'],
            ...saying('rule.break'),
          }),
      )
      .max(SERIES_LIMITS.breaks),
    progression: z.array(progressRuleSchema).max(SERIES_LIMITS.rules),
    stageSchool: z.enum(['three', 'four']),
    /**
     * For each skill the week from which each stage of the school holds; null: not reached in this
     * series.
     */
    skills: z
      .array(
        z.strictObject({
          id: idSchema,
          name: titleSchema.min(1, saying('rule.skill-name')),
          from: z.array(weekSchema.nullable()).max(4),
        }),
      )
      .max(SERIES_LIMITS.skills),
    /**
     * Weeks that differ from the rest: what they are about, and the week whose lesson they go on
     * from (else the week before).
     */
    weekPlans: z
      .array(z.strictObject({ week: weekSchema, focus: titleSchema, basis: weekSchema.nullable() }))
      .max(LIMITS.weeks),
  })
  .refine(({ weekPlans }) => new Set(weekPlans.map(({ week }) => week)).size === weekPlans.length, {
    path: ['weekPlans'],
    ...saying('rule.week-twice'),
  });

export type Series = z.infer<typeof seriesSchema>;
export type ProgressRule = z.infer<typeof progressRuleSchema>;
export type FigureRule = Extract<ProgressRule, { of: 'figure' }>;

export function makeSeries(name: string): Series {
  return {
    format: 'zest-series',
    version: SERIES_VERSION,
    name,
    about: '',
    weeks: 6,
    startsOn: null,
    weekdays: [1, 3, 5],
    atMinutes: null,
    breaks: [],
    progression: [],
    stageSchool: 'three',
    skills: [],
    weekPlans: [],
  };
}

/**
 * The weeks from which a skill's stages hold, with one of them moved: never past the stages before
 * and after it.
 * @param week null: not reached in this series
 */
export function withStageFrom(
  from: readonly (number | null)[],
  stage: number,
  week: number | null,
): (number | null)[] {
  const all = Array.from({ length: Math.max(from.length, stage + 1) }, (_, i) => from[i] ?? null);
  const before = all.slice(0, stage).findLast((w) => w !== null);
  const after = all.slice(stage + 1).find((w) => w !== null);
  all[stage] =
    week === null
      ? null
      : Math.min(
          LIMITS.weeks,
          Math.max((before ?? 0) + 1, Math.min(week, (after ?? LIMITS.weeks + 1) - 1)),
        );
  return all;
}
