import type { Assembly, ChosenForm } from '@zest/core/assembly';
import type { Choice, KitNeed, Level, WayWords } from '@zest/core/lesson';
import { SPOKEN_LENGTH, type ScorePrompt } from '@zest/core/results';
import { z } from 'zod';
import { saying } from '@zest/core/words';

const moment = z.iso.datetime(saying('rule.moment')).nullable();

/** A new link, or other dates for one; null: open at once, or until it is closed. */
export const sharePlanSchema = z
  .strictObject({ classId: z.string().max(40).nullable(), opensAt: moment, closesAt: moment })
  .refine(({ opensAt, closesAt }) => opensAt === null || closesAt === null || opensAt < closesAt, {
    path: ['closesAt'],
    ...saying('rule.link-closes'),
  });
export const changeShareSchema = z.strictObject({
  opensAt: moment.optional(),
  closesAt: moment.optional(),
  /** Shows the lesson as it is now from here on. */
  toNewest: z.boolean().optional(),
});

export const shareSchema = z.object({
  code: z.string(),
  /** The class it is for; null: whoever has the link. */
  classId: z.string().nullable(),
  /** Good only together with the class's code. */
  spoken: z.string().length(SPOKEN_LENGTH).nullable(),
  revision: z.number(),
  /** How many states of the lesson it has shown. */
  version: z.number(),
  createdAt: z.string(),
  opensAt: z.string().nullable(),
  closesAt: z.string().nullable(),
  revokedAt: z.string().nullable(),
  /** What students would see differently if it showed the lesson as it is now. */
  changed: z.array(z.string()),
});
export type Share = z.infer<typeof shareSchema>;
export type SharePlan = z.infer<typeof sharePlanSchema>;
export type ChangeShare = z.infer<typeof changeShareSchema>;

/** A student finds the lesson by two codes read out, or joins a class by the code on their card. */
export const goSchema = z.strictObject({
  classCode: z.string().max(40),
  lessonCode: z.string().max(40),
});
export const joinSchema = z.strictObject({ code: z.string().max(40) });

/**
 * A lesson to take away: a folder that plays from a memory stick, or a SCORM 1.2 package for a
 * learning platform.
 */
export const packageKinds = ['folder', 'scorm'] as const;
export type PackageKind = (typeof packageKinds)[number];

/** How a student wants the lesson cut. */
export interface FollowChoice {
  hand: 'as filmed' | 'other hand';
  language: 'first' | 'second';
  /** Another order of called-out games; null: as filmed. */
  seed: number | null;
}

/**
 * What a package's `lesson.js` leaves behind for its page: the lesson in every way it can be
 * chosen.
 */
export interface PackagedLesson {
  key: string;
  variants: { choice: Omit<FollowChoice, 'seed'>; lesson: FollowLesson }[];
}

/** Another form of a block, or of the exercise of that name in it (null: of all of it). */
export type FollowForm = ChosenForm & Pick<Level, 'target'>;

/** A block as the student's page needs it beside the assembly. */
export interface FollowBlock {
  id: string;
  title: string;
  levels: FollowForm[];
  /** How one, two, three or more play it. */
  ways: WayWords[];
  /** What a question asks, its answer, and what can be chosen; nothing: it is answered in words. */
  question: { question: string; answer: string; choices: Choice[] } | null;
  /** Commands are called out in it. */
  isCalled: boolean;
}

/**
 * A version of some footage for slower lines: lines of its shorter side, size, and what names its
 * content.
 */
export interface FollowRendition {
  lines: number;
  bytes: number;
  version: string;
}

/**
 * Footage a lesson plays: how large and how long it is as filmed, and its smaller versions, the
 * smallest first.
 */
export interface FollowTake {
  id: string;
  bytes: number;
  durationMs: number;
  version: string;
  renditions: FollowRendition[];
}

/**
 * What the follow page gets: the finished cut as data. Types only, so that the page carries no
 * schema library.
 */
export interface FollowLesson {
  title: string;
  series: string;
  outcome: string;
  /** Pages kept on a device before it was told have no share. */
  kit: { name: string; quantity: number; share?: KitNeed['share']; standIn: string }[];
  /** Room it takes, in centimetres; null when standing room does. */
  room: { widthCm: number; depthCm: number; heightCm: number } | null;
  units: 'metric' | 'imperial';
  cautions: string[];
  /** Goes up when the teacher shows a newer state. */
  version: number;
  lessonId: string;
  /**
   * The class the link is for, whose students may join by their own code; null: whoever has the
   * link.
   */
  classId: string | null;
  /** Footage it plays, in the order it is first seen. */
  takes: FollowTake[];
  /** The second language it can be had in. */
  second: string | null;
  blocks: FollowBlock[];
  prompts: ScorePrompt[];
  assembly: Assembly;
}
