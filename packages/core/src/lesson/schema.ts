import { z } from 'zod';
import { saying, teacherText } from '../words/index.ts';
import { blockSchema } from './blocks.ts';
import { finishSchema } from './finish.ts';
import { LIMITS } from './limits.ts';
import { footprintSchema, idSchema, lessonParts, lineSchema, titleSchema, whole } from './parts.ts';

/** The version of the lesson document this program writes. */
export const LESSON_VERSION = 11;

/** A BCP 47 tag. */
export const languageSchema = z
  .string()
  .regex(/^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/, saying('rule.language'))
  .max(35);

/**
 * The lesson's texts in a second language, and the program's own words where they are to be others.
 */
export const secondSchema = z.strictObject({
  language: languageSchema,
  texts: z
    .array(
      z.strictObject({
        text: z.string().min(1).max(LIMITS.script),
        other: z.string().max(LIMITS.script),
      }),
    )
    .max(LIMITS.wordings),
});

export const sectionSchema = z.strictObject({
  id: idSchema,
  title: titleSchema,
  blocks: z.array(blockSchema).max(LIMITS.blocksPerSection),
});

/** Two schools of the last rest: it counts (8 x 20/10 = 240 s) or work ends the set (230 s). */
export const lastRestSchools = ['counted', 'dropped'] as const;
/**
 * Two schools of left and right on screen: name the performer's side, or mirror the picture and
 * name the student's.
 */
export const sideSchools = ['performer', 'mirrored'] as const;
export const unitSystems = ['metric', 'imperial'] as const;

export const weekLevels = ['easier', 'standard', 'harder'] as const;

/** Languages the counts can be called in, as BCP 47 tags. */
export const countLanguages = ['en', 'ar', 'de', 'es', 'fr', 'it', 'nl', 'pl', 'pt', 'tr'] as const;

/** A length to meet, give or take the tolerance. */
export const targetSchema = z.strictObject({
  ms: whole(LIMITS.targetMs, 'ms'),
  toleranceMs: whole(LIMITS.toleranceMs, 'ms'),
});

export const termSchema = z.strictObject({ id: idSchema, term: titleSchema, plain: lineSchema });

/**
 * How much of the picture counts as safe: all of it, or what broadcasters keep for action or for
 * graphics.
 */
export const safeAreas = ['whole', 'action', 'graphics'] as const;
export const orientations = ['landscape', 'portrait'] as const;

/** How this teacher films: camera, room, performer, and the order of the shots. */
export const filmingSchema = z.strictObject({
  /** Focal length as on a picture 36 mm wide. */
  lensMm: whole(LIMITS.lensMm),
  orientation: z.enum(orientations),
  safe: z.enum(safeAreas),
  performerCm: whole(LIMITS.performerCm),
  /** Height the camera has to stand at; null: free. */
  cameraCm: whole(LIMITS.cameraCm).nullable(),
  /** How far from the performer it has to stand, the lens following; absent: as the lens needs. */
  awayCm: whole(LIMITS.cameraAwayCm).optional(),
  /** The room it is filmed in; null when not known. */
  room: footprintSchema.nullable(),
  /** Takes a shot usually needs. */
  takesEach: whole(LIMITS.takesEach),
  /** Time to get into place before the count-in. */
  settleMs: whole(LIMITS.settleMs, 'ms'),
  /**
   * Ids of shots in the order they are filmed by hand; empty: the order with the fewest changes.
   */
  order: z.array(z.string().max(81)).max(LIMITS.order),
});

const age = whole(LIMITS.age);

export const lessonSchema = z
  .strictObject({
    format: z.literal('zest-lesson'),
    version: z.literal(LESSON_VERSION),
    title: titleSchema.min(1, saying('rule.lesson-title')),
    series: z.strictObject({
      name: titleSchema,
      week: whole({ min: 1, max: LIMITS.weeks }).nullable(),
      /** The form of every exercise this lesson asks for. */
      level: z.enum(weekLevels),
      /** What was learnt last time, and what comes next. */
      recap: lineSchema,
      teaser: lineSchema,
    }),
    outcome: lineSchema,
    audience: z
      .strictObject({ ageFrom: age, ageTo: age })
      .refine((a) => a.ageFrom <= a.ageTo, saying('rule.audience')),
    /** The length of the video and of the whole session with its pauses; null when open. */
    targets: z.strictObject({ video: targetSchema.nullable(), session: targetSchema.nullable() }),
    /** The student's room; null when not known. */
    room: footprintSchema.nullable(),
    settings: z.strictObject({
      lastRest: z.enum(lastRestSchools),
      sides: z.enum(sideSchools),
      /** The language its texts are written in. */
      language: languageSchema,
      speechWpm: whole(LIMITS.speechWpm),
      units: z.enum(unitSystems),
      /** The parts this teacher's lessons have; a lesson without one is told so, never stopped. */
      parts: z.array(z.enum(lessonParts)).max(lessonParts.length),
      /**
       * How numbers are called out: the language, and the teacher's own word for a number where
       * there is one.
       */
      counts: z.strictObject({
        language: z.enum(countLanguages),
        own: z.array(titleSchema).max(LIMITS.ownCounts),
      }),
    }),
    filming: filmingSchema,
    finish: finishSchema,
    second: secondSchema.nullable(),
    /** Findings of the check that are ignored, each with the reason. */
    waived: z
      .array(z.strictObject({ key: z.string().min(1).max(200), word: lineSchema }))
      .max(LIMITS.waived),
    /** Terms with a plain explanation. */
    glossary: z.array(termSchema).max(LIMITS.glossary),
    sections: z.array(sectionSchema).max(LIMITS.sections),
  })
  .superRefine((lesson, ctx) => {
    const seen = new Set<string>();
    lesson.sections.forEach((section, s) => {
      const named = [{ id: section.id, path: ['sections', s] as (string | number)[] }];
      section.blocks.forEach((block, b) =>
        named.push({ id: block.id, path: ['sections', s, 'blocks', b] }),
      );
      for (const { id: takenId, path } of named) {
        if (seen.has(takenId))
          ctx.addIssue({
            code: 'custom',
            path,
            message: teacherText('rule.id-twice', { id: takenId }),
          });
        seen.add(takenId);
      }
    });
  });

export type Lesson = z.infer<typeof lessonSchema>;
export type Section = z.infer<typeof sectionSchema>;
export type Filming = z.infer<typeof filmingSchema>;
export type Term = z.infer<typeof termSchema>;
export type WeekLevel = (typeof weekLevels)[number];
export type CountLanguage = (typeof countLanguages)[number];
export type SecondLanguage = z.infer<typeof secondSchema>;
export type Target = z.infer<typeof targetSchema>;
