import { z } from 'zod';

/** The version of the lesson document this program writes. */
export const LESSON_VERSION = 1;

/** Bounds of every figure, so that one place says what a sensible lesson is. Times in milliseconds. */
export const LIMITS = {
  title: 120,
  line: 400,
  script: 12_000,
  sections: 40,
  blocksPerSection: 60,
  exercises: 24,
  cues: 12,
  kit: 20,
  cautions: 8,
  workMs: { min: 1_000, max: 3_600_000 },
  restMs: { min: 0, max: 1_800_000 },
  leadInMs: { min: 0, max: 60_000 },
  fixedMs: { min: 1_000, max: 3_600_000 },
  rounds: { min: 1, max: 50 },
  sets: { min: 1, max: 50 },
  reps: { min: 1, max: 500 },
  tempoPartMs: { min: 0, max: 60_000 },
  speechWpm: { min: 60, max: 260 },
  practiceMs: { min: 10_000, max: 7_200_000 },
  signMs: { min: 2_000, max: 60_000 },
  targetMs: { min: 30_000, max: 14_400_000 },
} as const;

const id = z.string().min(1).max(40).regex(/^[\w-]+$/, 'Ids are letters, digits, - and _.');
const title = z.string().max(LIMITS.title, `At most ${LIMITS.title} characters.`);
const line = z.string().max(LIMITS.line, `At most ${LIMITS.line} characters.`);

/** A whole number within `range`, with messages a teacher can act on. `unit` is 'ms' for times, which are shown in seconds. */
function whole(range: { min: number; max: number }, unit: 'ms' | '' = '') {
  const shown = (value: number) => (unit === 'ms' ? `${value / 1000} s` : String(value));
  return z
    .int(unit === 'ms' ? 'A time is a whole number of milliseconds.' : 'This is a whole number.')
    .min(range.min, `At least ${shown(range.min)}.`)
    .max(range.max, `At most ${shown(range.max)}.`);
}

/** When a cue belongs: before the move, while it runs, at its end, or all through the block. */
export const cueMoments = ['ready', 'action', 'finish', 'throughout'] as const;
export const cueSchema = z.strictObject({ id, text: line, moment: z.enum(cueMoments) });

export const kitSchema = z.strictObject({
  id,
  name: title,
  quantity: z.int().min(1, 'At least 1.').max(99, 'At most 99.'),
  /** The household thing that does as well; empty when there is none. */
  standIn: title,
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
export const exerciseSchema = z.strictObject({ id, title, movement: z.enum(movements) });

/** Which take shows the block: the block's first moment lies at `startsAtMs` of the take's working copy. */
export const footageSchema = z.strictObject({
  takeId: z.string().min(1).max(40),
  startsAtMs: z.int().min(0).max(LIMITS.targetMs.max),
});

/** "Stop the video and practise": `signMs` on the video clock, then `practiceMs` on the student clock only. */
export const pauseSchema = z.strictObject({
  practiceMs: whole(LIMITS.practiceMs, 'ms'),
  signMs: whole(LIMITS.signMs, 'ms'),
  prompt: line,
});

const blockBase = {
  id,
  title,
  /** What the teacher says, in sentences. Captions are made from it. */
  script: z.string().max(LIMITS.script, `At most ${LIMITS.script} characters.`),
  cues: z.array(cueSchema).max(LIMITS.cues),
  kit: z.array(kitSchema).max(LIMITS.kit),
  cautions: z.array(line).max(LIMITS.cautions),
  /** Perceived effort, 1 (at rest) to 5 (hard). */
  effort: z.int().min(1).max(5),
  footage: footageSchema.nullable(),
  pauseAfter: pauseSchema.nullable(),
};

export const talkBlockSchema = z.strictObject({
  ...blockBase,
  kind: z.literal('talk'),
  /** Null: as long as the script takes at the lesson's speech pace. */
  fixedMs: whole(LIMITS.fixedMs, 'ms').nullable(),
});

export const intervalsBlockSchema = z.strictObject({
  ...blockBase,
  kind: z.literal('intervals'),
  exercises: z.array(exerciseSchema).min(1, 'At least one exercise.').max(LIMITS.exercises),
  workMs: whole(LIMITS.workMs, 'ms'),
  restMs: whole(LIMITS.restMs, 'ms'),
  rounds: whole(LIMITS.rounds),
  /** Takes the place of the rest after a round's last exercise; null: the ordinary rest. */
  restBetweenRoundsMs: whole(LIMITS.restMs, 'ms').nullable(),
  leadInMs: whole(LIMITS.leadInMs, 'ms'),
});

export const sidesPlans = ['both', 'each', 'alternating'] as const;
export const sides = ['left', 'right'] as const;

export const repsBlockSchema = z.strictObject({
  ...blockBase,
  kind: z.literal('reps'),
  exercise: exerciseSchema,
  /** Repetitions in a set; per side when `sides` is `each` or `alternating`. */
  reps: whole(LIMITS.reps),
  sides: z.enum(sidesPlans),
  startSide: z.enum(sides),
  /** One repetition: down, hold, up, hold at the top. */
  tempo: z
    .strictObject({
      downMs: whole(LIMITS.tempoPartMs, 'ms'),
      holdMs: whole(LIMITS.tempoPartMs, 'ms'),
      upMs: whole(LIMITS.tempoPartMs, 'ms'),
      topHoldMs: whole(LIMITS.tempoPartMs, 'ms'),
    })
    .refine((t) => t.downMs + t.holdMs + t.upMs + t.topHoldMs >= 200, 'One repetition takes at least 0.2 s.'),
  sets: whole(LIMITS.sets),
  restBetweenSetsMs: whole(LIMITS.restMs, 'ms'),
  sideChangeMs: whole(LIMITS.restMs, 'ms'),
  leadInMs: whole(LIMITS.leadInMs, 'ms'),
});

export const blockSchema = z.discriminatedUnion('kind', [talkBlockSchema, intervalsBlockSchema, repsBlockSchema]);

export const sectionSchema = z.strictObject({
  id,
  title,
  blocks: z.array(blockSchema).max(LIMITS.blocksPerSection),
});

/** Two schools of the last rest: it counts (8 x 20/10 = 240 s) or work ends the set (230 s). */
export const lastRestSchools = ['counted', 'dropped'] as const;
/** Two schools of left and right on screen: name the performer's side, or mirror the picture and name the student's. */
export const sideSchools = ['performer', 'mirrored'] as const;

export const lessonSchema = z
  .strictObject({
    format: z.literal('zest-lesson'),
    version: z.literal(LESSON_VERSION),
    title: title.min(1, 'A lesson needs a title.'),
    series: z.strictObject({ name: title, week: z.int().min(1).max(99).nullable() }),
    outcome: line,
    audience: z
      .strictObject({ ageFrom: z.int().min(3).max(99), ageTo: z.int().min(3).max(99) })
      .refine((a) => a.ageFrom <= a.ageTo, 'The younger age comes first.'),
    /** The length the video should have; null when open. */
    targetMs: whole(LIMITS.targetMs, 'ms').nullable(),
    settings: z.strictObject({
      lastRest: z.enum(lastRestSchools),
      sides: z.enum(sideSchools),
      speechWpm: whole(LIMITS.speechWpm),
    }),
    sections: z.array(sectionSchema).max(LIMITS.sections),
  })
  .superRefine((lesson, ctx) => {
    const seen = new Set<string>();
    lesson.sections.forEach((section, s) => {
      const named = [{ id: section.id, path: ['sections', s] as (string | number)[] }];
      section.blocks.forEach((block, b) => named.push({ id: block.id, path: ['sections', s, 'blocks', b] }));
      for (const { id: own, path } of named) {
        if (seen.has(own)) ctx.addIssue({ code: 'custom', path, message: `The id "${own}" is used twice.` });
        seen.add(own);
      }
    });
  });

export type Lesson = z.infer<typeof lessonSchema>;
export type Section = z.infer<typeof sectionSchema>;
export type Block = z.infer<typeof blockSchema>;
export type TalkBlock = z.infer<typeof talkBlockSchema>;
export type IntervalsBlock = z.infer<typeof intervalsBlockSchema>;
export type RepsBlock = z.infer<typeof repsBlockSchema>;
export type Cue = z.infer<typeof cueSchema>;
export type Exercise = z.infer<typeof exerciseSchema>;
export type Footage = z.infer<typeof footageSchema>;
export type Pause = z.infer<typeof pauseSchema>;
export type Movement = (typeof movements)[number];
export type Side = (typeof sides)[number];
export type BlockKind = Block['kind'];
