import { z } from 'zod';
import { saying } from '../words/index.ts';
import { LIMITS, type Range } from './limits.ts';

export const idSchema = z
  .string()
  .min(1)
  .max(40)
  .regex(/^[\w-]+$/, saying('rule.ids'));
export const titleSchema = z
  .string()
  .max(LIMITS.title, saying('rule.most-characters', { most: LIMITS.title }));
export const lineSchema = z
  .string()
  .max(LIMITS.line, saying('rule.most-characters', { most: LIMITS.line }));

/**
 * A whole number within `range`, with messages a teacher can act on. `unit` is 'ms' for times,
 * which are shown in seconds.
 */
export function whole(range: Range, unit: 'ms' | '' = '') {
  const shown = (value: number) => (unit === 'ms' ? `${value / 1000} s` : String(value));
  return z
    .int(saying(unit === 'ms' ? 'rule.whole-ms' : 'rule.whole'))
    .min(range.min, saying('rule.least', { least: shown(range.min) }))
    .max(range.max, saying('rule.most', { most: shown(range.max) }));
}

/** Perceived effort, 1 (at rest) to 5 (hard). */
export const effortSchema = z.int().min(1).max(5);

/** When a cue belongs: before the move, while it runs, at its end, or all through the block. */
export const cueMoments = ['ready', 'action', 'finish', 'throughout'] as const;
export const cueSchema = z.strictObject({
  id: idSchema,
  /** Key words, two to five. */
  text: lineSchema,
  moment: z.enum(cueMoments),
  /** The body part it names; empty when none. */
  bodyPart: titleSchema,
  reason: lineSchema,
  right: lineSchema,
  /** The usual mistake. */
  wrong: lineSchema,
  /** Where in the script it is spoken, as a character offset; null when it is only shown. */
  anchor: z.int().min(0).max(LIMITS.script).nullable(),
  /** The entry of the teacher's cue library it came from; null when it stands alone. */
  entryId: idSchema.nullable(),
});

export const floorMarkKinds = ['target', 'marker', 'court', 'travel'] as const;
const offsetCm = whole({ min: -LIMITS.sideCm.max, max: LIMITS.sideCm.max });
/**
 * Something on the floor, in centimetres from where the performer starts: its middle lies `rightCm`
 * to the performer's right and `forwardCm` ahead. Of `travel` it is where the performer gets to. A
 * marker has no size.
 */
export const floorMarkSchema = z.strictObject({
  id: idSchema,
  kind: z.enum(floorMarkKinds),
  label: titleSchema,
  rightCm: offsetCm,
  forwardCm: offsetCm,
  widthCm: whole(LIMITS.sideCm),
  depthCm: whole(LIMITS.sideCm),
  /** How far up it is: a hanging target, a rope to go over; none: on the floor. */
  heightCm: whole(LIMITS.heightCm).optional(),
});

/** Whom a quantity of kit is for. */
export const kitShares = ['each', 'pair', 'group'] as const;
export const kitSchema = z.strictObject({
  id: idSchema,
  name: titleSchema,
  quantity: whole({ min: 1, max: 99 }),
  share: z.enum(kitShares),
  /** The household thing that does as well; empty when there is none. */
  standIn: titleSchema,
});

/** How the drawn performer moves for this exercise; `other` when it has no such movement. */
export const movements = [
  'other',
  'skip-rope',
  'disc-throw',
  'seated-pull',
  'one-leg-balance',
  'step-and-reach',
  'squat',
] as const;
export const exerciseSchema = z.strictObject({
  id: idSchema,
  title: titleSchema,
  movement: z.enum(movements),
});

/**
 * Which take shows the block: the block's first moment lies at `startsAtMs` of the take's working
 * copy; null: where the take's sync mark says, or at its beginning when it has none.
 */
export const footageSchema = z.strictObject({
  takeId: z.string().min(1).max(40),
  startsAtMs: z.int().min(0).max(LIMITS.targetMs.max).nullable(),
});

/** What a move does to the room a body takes in the picture. */
export const extents = ['overhead', 'jump', 'lying', 'seated', 'throw'] as const;
/** Where the camera stands, from the performer. */
export const shotAngles = ['front', 'left side', 'right side', 'back'] as const;
export const shotFramings = ['whole body', 'waist up', 'hands', 'feet'] as const;
export const shotSchema = z.strictObject({
  id: idSchema,
  angle: z.enum(shotAngles),
  framing: z.enum(shotFramings),
  /** Where it is filmed; empty: the usual place. */
  place: titleSchema,
  performers: whole(LIMITS.performers),
  /** Filmed while the performer is fresh. */
  fresh: z.boolean(),
  /** To whoever holds the camera. */
  note: lineSchema,
});

/**
 * "Stop the video and practise": `signMs` on the video clock, then `practiceMs` on the student
 * clock only.
 */
export const pauseSchema = z.strictObject({
  practiceMs: whole(LIMITS.practiceMs, 'ms'),
  signMs: whole(LIMITS.signMs, 'ms'),
  prompt: lineSchema,
});

/** What a block is for; the usual parts of a lesson (common practice), none of them forced. */
export const lessonParts = [
  'greeting',
  'kit',
  'space',
  'health',
  'warm-up',
  'skill',
  'practice',
  'game',
  'cool-down',
  'extra',
  'sign-off',
  'other',
] as const;

export const companies = ['alone', 'partner', 'wall', 'adult', 'group'] as const;
export const companySchema = z.strictObject({
  kind: z.enum(companies),
  /** How many play, the student included. */
  players: whole(LIMITS.players),
  /** Where a supporting grown-up's hands go; empty when nobody supports. */
  hands: lineSchema,
});

/** When players change places. */
export const rotations = ['try', 'miss', 'point'] as const;
/**
 * How a block is played by so many, 4 standing for four and more: rules (for one alone, what is done
 * instead), changing places, and the field they need.
 */
export const waySchema = z
  .strictObject({
    id: idSchema,
    players: whole(LIMITS.wayPlayers),
    /** In years, both included; none: for every age. */
    ages: z.strictObject({ from: whole(LIMITS.age), to: whole(LIMITS.age) }).optional(),
    rules: lineSchema,
    /** After each of these, or every so long; none: nobody changes. */
    rotate: z
      .discriminatedUnion('by', [
        z.strictObject({ by: z.literal('event'), after: z.enum(rotations) }),
        z.strictObject({ by: z.literal('time'), everyMs: whole(LIMITS.workMs, 'ms') }),
      ])
      .optional(),
    /** Marked out around the players. */
    field: z
      .strictObject({ widthCm: whole(LIMITS.sideCm), depthCm: whole(LIMITS.sideCm) })
      .optional(),
    /** From one player to the next, or from one alone to the target. */
    distanceCm: whole(LIMITS.sideCm).optional(),
  })
  .refine(({ ages }) => !ages || ages.from <= ages.to, {
    path: ['ages', 'to'],
    ...saying('rule.ages'),
  });

/**
 * Another form of a move, when to choose it, and what it aims at: repetitions, points or seconds;
 * null: what everybody does.
 */
export const levelSchema = z.strictObject({
  id: idSchema,
  form: z.enum(['easier', 'harder']),
  text: lineSchema,
  rule: lineSchema,
  target: whole(LIMITS.target).nullable(),
});

/** Room the move takes, in centimetres: sideways, towards the camera, and up. */
export const footprintSchema = z.strictObject({
  widthCm: whole(LIMITS.sideCm),
  depthCm: whole(LIMITS.sideCm),
  heightCm: whole(LIMITS.sideCm),
});

export const bodyRegions = [
  'neck',
  'shoulders',
  'arms',
  'hands',
  'chest',
  'back',
  'trunk',
  'hips',
  'thighs',
  'lower legs',
  'feet',
  'whole body',
] as const;

export const performerFacings = ['camera', 'left side on', 'right side on', 'away'] as const;
export const viewerFacings = ['screen', 'away', 'side on', 'lying down'] as const;
export const facingSchema = z.strictObject({
  performer: z.enum(performerFacings),
  viewer: z.enum(viewerFacings),
});

/**
 * Shown before it is done, `times` over; one showing lasts `onceMs` at full speed, twice that at
 * half speed.
 */
export const demoSchema = z.strictObject({
  times: whole(LIMITS.demoTimes),
  speed: z.enum(['full', 'half']),
  onceMs: whole(LIMITS.onceMs, 'ms'),
});

/**
 * What an exercise of a list says for itself; where it is silent (an empty list, null), its block's
 * stands.
 */
export const detailsSchema = z.strictObject({
  cues: z.array(cueSchema).max(LIMITS.cues),
  levels: z.array(levelSchema).max(LIMITS.levels),
  /** Perceived effort, 1 (at rest) to 5 (hard). */
  effort: effortSchema.nullable(),
  demo: z.union([demoSchema, z.literal('none')]).nullable(),
  cautions: z.array(lineSchema).max(LIMITS.cautions),
  kit: z.array(kitSchema).max(LIMITS.kit),
});
/** An exercise among others of its block. */
export const listedExerciseSchema = exerciseSchema.extend({ details: detailsSchema.optional() });

export type Cue = z.infer<typeof cueSchema>;
export type Kit = z.infer<typeof kitSchema>;
export type Exercise = z.infer<typeof exerciseSchema>;
export type Details = z.infer<typeof detailsSchema>;
export type ListedExercise = z.infer<typeof listedExerciseSchema>;
export type Movement = (typeof movements)[number];
export type Extent = (typeof extents)[number];
export type ShotAngle = (typeof shotAngles)[number];
export type Shot = z.infer<typeof shotSchema>;
export type Footage = z.infer<typeof footageSchema>;
export type LessonPart = (typeof lessonParts)[number];
export type Company = z.infer<typeof companySchema>;
export type Way = z.infer<typeof waySchema>;
export type Level = z.infer<typeof levelSchema>;
export type Footprint = z.infer<typeof footprintSchema>;
export type BodyRegion = (typeof bodyRegions)[number];
export type FloorMark = z.infer<typeof floorMarkSchema>;
export type Demo = z.infer<typeof demoSchema>;
