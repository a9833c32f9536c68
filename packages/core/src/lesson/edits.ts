import { z } from 'zod';
import { LIMITS } from './limits.ts';
import { cueMoments, idSchema, lineSchema, titleSchema, whole } from './parts.ts';

/**
 * What a teacher changed by hand in the first cut of a block. Moments are of the block's own time,
 * as it is planned and filmed, so that a change stays where it belongs when the lesson around it
 * changes. Places are thousandths of the picture as the camera saw it, on a 16:9 frame, before any
 * mirroring.
 */
const momentMs = whole({ min: 0, max: LIMITS.targetMs.max }, 'ms');
const permille = whole({ min: 0, max: 1_000 });
const base = { id: idSchema };
const stretch = { ...base, fromMs: momentMs, toMs: momentMs };
const lengthMs = whole(LIMITS.extraMs, 'ms');

/** Where the view is closer: the middle at the start and at the end of the stretch. */
export const placeSchema = z.strictObject({ x: permille, y: permille });

export const soundsAgain = ['kept', 'low', 'off'] as const;
export const besideLayouts = ['halves', 'inset left', 'inset right'] as const;
/** What can be moved, hidden or placed on screen. */
export const overlaySlots = ['clock', 'counter', 'cue', 'caution', 'side', 'board'] as const;

/** Joints an arrow can stay at; sides are the performer's. */
export const pointJoints = [
  'nose',
  'left shoulder',
  'right shoulder',
  'left elbow',
  'right elbow',
  'left wrist',
  'right wrist',
  'left hip',
  'right hip',
  'left knee',
  'right knee',
  'left ankle',
  'right ankle',
] as const;

export const editSchema = z.discriminatedUnion('kind', [
  /** Left out of the lesson, with all that happens meanwhile. */
  z.strictObject({ ...stretch, kind: z.literal('leave-out') }),
  /** Shown again when it is over, `times` over, at a percentage of its speed. */
  z.strictObject({
    ...stretch,
    kind: z.literal('again'),
    speed: whole(LIMITS.speedAgain),
    times: whole(LIMITS.timesAgain),
    sound: z.enum(soundsAgain),
  }),
  /** The picture stands still, and something is pointed at. */
  z.strictObject({
    ...base,
    kind: z.literal('freeze'),
    atMs: momentMs,
    lengthMs,
    point: placeSchema.nullable(),
    text: titleSchema,
  }),
  /** A card between two moments: text, or the floor marks of the block drawn to scale. */
  z.strictObject({
    ...base,
    kind: z.literal('card'),
    atMs: momentMs,
    lengthMs,
    heading: titleSchema,
    lines: z.array(lineSchema).max(LIMITS.cardLines),
    court: z.boolean(),
  }),
  /** A still picture of the teacher's own between two moments. */
  z.strictObject({
    ...base,
    kind: z.literal('picture'),
    atMs: momentMs,
    lengthMs,
    takeId: idSchema,
  }),
  /**
   * Part of the picture fills the frame; it may move from one place to another, or along a path of
   * middles.
   */
  z.strictObject({
    ...stretch,
    kind: z.literal('closer'),
    zoom: whole(LIMITS.zoom),
    from: placeSchema,
    to: placeSchema,
    path: z.array(z.strictObject({ atMs: momentMs, x: permille, y: permille })).max(LIMITS.path),
  }),
  z.strictObject({ ...stretch, kind: z.literal('mirror') }),
  /** Turned upright, in quarter turns clockwise. */
  z.strictObject({ ...stretch, kind: z.literal('turn'), quarters: whole({ min: 1, max: 3 }) }),
  /**
   * A second view in step with the first, by the marks of both unless `startsAtMs` says otherwise.
   */
  z.strictObject({
    ...stretch,
    kind: z.literal('beside'),
    takeId: idSchema,
    startsAtMs: momentMs.nullable(),
    layout: z.enum(besideLayouts),
  }),
  /** Picture, sound or both come from another take meanwhile. */
  z.strictObject({
    ...stretch,
    kind: z.literal('instead'),
    takeId: idSchema,
    startsAtMs: momentMs.nullable(),
    picture: z.boolean(),
    sound: z.boolean(),
  }),
  /** A child walking through, a name on a shirt. */
  z.strictObject({
    ...stretch,
    kind: z.literal('blur'),
    x: permille,
    y: permille,
    width: permille,
    height: permille,
  }),
  /** A slip put right in words instead of being filmed again. */
  z.strictObject({ ...stretch, kind: z.literal('note'), text: lineSchema }),
  /** One more cue. */
  z.strictObject({
    ...stretch,
    kind: z.literal('cue'),
    text: lineSchema,
    moment: z.enum(cueMoments),
  }),
  /** What a slot shows is left away. */
  z.strictObject({ ...stretch, kind: z.literal('hide'), slot: z.enum(overlaySlots) }),
  /** What begins in the stretch comes earlier or later. */
  z.strictObject({
    ...stretch,
    kind: z.literal('shift'),
    slot: z.enum(overlaySlots),
    byMs: whole(LIMITS.shiftMs, 'ms'),
  }),
  /**
   * The repetitions as they were tapped; they take the place of the planned ones. One that is
   * missed is not counted.
   */
  z.strictObject({
    ...base,
    kind: z.literal('taps'),
    taps: z
      .array(
        z.strictObject({
          atMs: momentMs,
          side: z.enum(['left', 'right']).nullable(),
          missed: z.boolean(),
        }),
      )
      .max(LIMITS.taps),
  }),
  /** An arrow that stays at a joint while it moves. */
  z.strictObject({
    ...stretch,
    kind: z.literal('point'),
    joint: z.enum(pointJoints),
    text: titleSchema,
  }),
  /** A sentence of the script begins here, whatever was heard. */
  z.strictObject({
    ...base,
    kind: z.literal('said'),
    text: z.string().max(LIMITS.script),
    atMs: momentMs,
  }),
  /** What a slot shows stands at this place in the whole block: its left upper corner. */
  z.strictObject({
    ...base,
    kind: z.literal('place'),
    slot: z.enum(overlaySlots),
    x: permille,
    y: permille,
  }),
  /** The block comes up slowly over the one before. */
  z.strictObject({ ...base, kind: z.literal('fade'), lengthMs: whole(LIMITS.fadeMs, 'ms') }),
]);

export type Edit = z.infer<typeof editSchema>;
export type EditKind = Edit['kind'];
export type EditOf<K extends EditKind> = Extract<Edit, { kind: K }>;
/** Edits of a stretch of the block's own time. */
export type StretchEdit = Extract<Edit, { fromMs: number }>;
