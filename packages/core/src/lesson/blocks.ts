import { z } from 'zod';
import { saying, teacherText } from '../words/index.ts';
import { editSchema } from './edits.ts';
import { LIMITS } from './limits.ts';
import {
  bodyRegions,
  extents,
  shotSchema,
  companySchema,
  cueSchema,
  waySchema,
  demoSchema,
  effortSchema,
  exerciseSchema,
  listedExerciseSchema,
  movements,
  facingSchema,
  floorMarkSchema,
  footageSchema,
  footprintSchema,
  idSchema,
  kitSchema,
  lessonParts,
  levelSchema,
  lineSchema,
  pauseSchema,
  titleSchema,
  whole,
} from './parts.ts';

const base = {
  id: idSchema,
  title: titleSchema,
  part: z.enum(lessonParts),
  /** The skill it trains, as the series and the cue library call it; empty when none. */
  skill: titleSchema,
  /** What the teacher says, in sentences. Captions are made from it. */
  script: z.string().max(LIMITS.script, saying('rule.most-characters', { most: LIMITS.script })),
  cues: z.array(cueSchema).max(LIMITS.cues),
  kit: z.array(kitSchema).max(LIMITS.kit),
  cautions: z.array(lineSchema).max(LIMITS.cautions),
  company: companySchema,
  /** How it is played by one, two, three, or four and more. */
  ways: z.array(waySchema).min(1).max(LIMITS.ways).optional(),
  levels: z.array(levelSchema).max(LIMITS.levels),
  /** Null: no more than standing room. */
  footprint: footprintSchema.nullable(),
  floor: z.array(floorMarkSchema).max(LIMITS.floorMarks),
  facing: facingSchema,
  effort: effortSchema,
  /** Energy cost in METs; null: the usual one of the effort. */
  mets: z.number().min(1, saying('rule.least-mets')).max(20, saying('rule.most-mets')).nullable(),
  regions: z.array(z.enum(bodyRegions)).max(bodyRegions.length),
  /** Keys of figures that fitting to a slot leaves alone. */
  locked: z.array(z.string().max(60)).max(40),
  /** How the move fills the picture; null: as its exercises usually do. */
  extent: z.array(z.enum(extents)).max(extents.length).nullable(),
  /** How it is filmed; empty: one shot, as the performer faces. */
  shots: z.array(shotSchema).max(LIMITS.shots),
  /** First name or role of who shows it; empty when it is not said. */
  shownBy: titleSchema,
  footage: footageSchema.nullable(),
  /** Changes by hand to its first cut, in the order they were made. */
  edits: z.array(editSchema).max(LIMITS.edits, saying('rule.most-edits', { most: LIMITS.edits })),
  pauseAfter: pauseSchema.nullable(),
};

export const sidesPlans = ['both', 'each', 'alternating'] as const;
export const sides = ['left', 'right'] as const;
const side = z.enum(sides);

/** Rests end when the student is ready; their lengths are estimates then. */
const restBy = z.literal('ready').optional();
const leadInMs = whole(LIMITS.leadInMs, 'ms');
const restMs = whole(LIMITS.restMs, 'ms');
/** Null: as long as the words take. */
const spokenOrFixedMs = whole(LIMITS.fixedMs, 'ms').nullable();
const demo = demoSchema.nullable();

export const talkBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('talk'),
  fixedMs: spokenOrFixedMs,
});

/**
 * How an exercise of an intervals block treats sides: together, on one, changing halfway, or by
 * round.
 */
export const workSides = ['both', 'left', 'right', 'halves', 'rounds'] as const;
/**
 * What is done of an exercise in place of the block's work time: repetitions of so long each, or a
 * hold.
 */
export const amountSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('reps'),
    /** On each side, where the exercise changes halfway. */
    reps: whole(LIMITS.reps),
    oneMs: whole(LIMITS.oneRepMs, 'ms'),
  }),
  z.strictObject({ kind: z.literal('hold'), holdMs: whole(LIMITS.holdMs, 'ms') }),
]);

/**
 * How long one rests between exercises: as the block says, as long as was worked, by breaths, or until
 * the student is ready, for which the block's rests are estimates.
 */
export const restLengths = ['time', 'work', 'breaths', 'ready'] as const;
/** What is done meanwhile. */
export const restTasks = ['rest', 'partner', 'task'] as const;
export const restsSchema = z.strictObject({
  by: z.enum(restLengths),
  breaths: whole(LIMITS.breaths),
  breathInMs: whole(LIMITS.breathMs, 'ms'),
  breathOutMs: whole(LIMITS.breathMs, 'ms'),
  does: z.enum(restTasks),
  /** What is to be done, where it is a task. */
  task: titleSchema,
});

export const rungSchema = z.strictObject({ workMs: whole(LIMITS.workMs, 'ms'), restMs });

/** Sets of rounds; a round goes down the ladder, each rung goes through the exercises. */
export const intervalsBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('intervals'),
  demo,
  exercises: z
    .array(
      listedExerciseSchema.extend({ sides: z.enum(workSides), amount: amountSchema.optional() }),
    )
    .min(1, saying('rule.one-exercise'))
    .max(LIMITS.exercises),
  workMs: whole(LIMITS.workMs, 'ms'),
  restMs,
  /** Further rungs after `workMs` and `restMs`; empty: every work is alike. */
  ladder: z.array(rungSchema).max(LIMITS.rungs),
  /** How rests between exercises differ from plain ones of `restMs`. */
  rests: restsSchema.optional(),
  rounds: whole(LIMITS.rounds),
  /** Takes the place of the rest after a round's last exercise; null: the ordinary rest. */
  restBetweenRoundsMs: restMs.nullable(),
  sets: whole(LIMITS.sets),
  /** Takes the place of the rest after a set's last exercise. */
  restBetweenSetsMs: restMs,
  startSide: side,
  leadInMs,
});

/**
 * Taught in parts: each named part `timesEach` over at `partMs`, then joined `joinedTimes` over at
 * `joinedMs`.
 */
export const partsSchema = z.strictObject({
  names: z.array(titleSchema).min(LIMITS.parts.min, saying('rule.two-parts')).max(LIMITS.parts.max),
  timesEach: whole(LIMITS.demoTimes),
  partMs: whole(LIMITS.onceMs, 'ms'),
  joinedTimes: whole(LIMITS.demoTimes),
  joinedMs: whole(LIMITS.onceMs, 'ms'),
  /** Each part on the first side, then on the other; none: sides do not matter. */
  sides: z.literal('each').optional(),
  /** After each new part all so far are joined, as long as they are of the whole; none: at the end. */
  join: z.literal('step by step').optional(),
});

export const repsBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('reps'),
  demo,
  exercise: exerciseSchema,
  parts: partsSchema.nullable(),
  /** Repetitions in a set; per side when `sides` is `each` or `alternating`. */
  reps: whole(LIMITS.reps),
  sides: z.enum(sidesPlans),
  startSide: side,
  /** One repetition: down, hold, up, hold at the top. */
  tempo: z
    .strictObject({
      downMs: whole(LIMITS.tempoPartMs, 'ms'),
      holdMs: whole(LIMITS.tempoPartMs, 'ms'),
      upMs: whole(LIMITS.tempoPartMs, 'ms'),
      topHoldMs: whole(LIMITS.tempoPartMs, 'ms'),
    })
    .refine((t) => t.downMs + t.holdMs + t.upMs + t.topHoldMs >= 200, saying('rule.short-rep')),
  sets: whole(LIMITS.sets),
  restBetweenSetsMs: restMs,
  restBy,
  sideChangeMs: restMs,
  leadInMs,
});

export const holdBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('hold'),
  demo,
  exercise: exerciseSchema,
  /** Whether seconds or slow breaths say how long a hold lasts. */
  by: z.enum(['seconds', 'breaths']),
  holdMs: whole(LIMITS.holdMs, 'ms'),
  breaths: whole(LIMITS.breaths),
  breathInMs: whole(LIMITS.breathMs, 'ms'),
  breathOutMs: whole(LIMITS.breathMs, 'ms'),
  count: z.enum(['down', 'up']),
  /** Holds; per side when `sides` is `each` or `alternating`. */
  holds: whole(LIMITS.holds),
  restMs,
  sides: z.enum(sidesPlans),
  startSide: side,
  sideChangeMs: restMs,
  leadInMs,
});

/** The side of a move, or both in turn, the other one each time it comes. */
export const moveSides = ['left', 'right', 'left-right', 'right-left'] as const;
const moveSide = z.enum(moveSides).optional();
const upTo = whole(LIMITS.upTo).optional();

/** Moves counted in eights at a tempo. */
export const countsBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('counts'),
  demo,
  bpm: whole(LIMITS.bpm),
  moves: z
    .array(
      listedExerciseSchema.extend({
        /** How often it is counted through. */
        eights: whole(LIMITS.eights),
        /** Beats of its counts, one count after the other: 5 and 3; none: counts of eight. */
        beats: z.array(whole(LIMITS.beats)).min(1).max(LIMITS.beatCounts).optional(),
        side: moveSide,
      }),
    )
    .min(1, saying('rule.one-move'))
    .max(LIMITS.moves),
  times: whole(LIMITS.tries),
  /** Beats to a bar, the first of each accented; none: the first of each count. */
  bar: whole(LIMITS.beats).optional(),
  /** Counts of the first move counted in before it. */
  countIn: whole(LIMITS.countIn),
  /** So many first moves are done, the rest in weeks to come; none: all. */
  upTo,
});

/**
 * How a routine grows: each time from the start, only the new move, from the end backwards, or not:
 * the whole at once.
 */
export const growths = ['from-start', 'new-only', 'backwards', 'whole'] as const;

/** Whether the other side is shown as well before it is done. */
export const slowShowings = ['once', 'each side'] as const;
/** What makes a routine a combination: done, counted and scored as one, on a side or on both. */
export const combinationSchema = z.strictObject({
  /** Each: all of it on the first side, then all of it on the other. */
  sides: z.enum(['both', 'each']),
  startSide: side,
  sideChangeMs: restMs,
  /** The whole is shown first at this part of its speed; none: it is not. */
  slow: z
    .strictObject({ percent: whole(LIMITS.slowPercent), when: z.enum(slowShowings) })
    .optional(),
  /** Time to note how many came off, after each side; none: nobody asks. */
  scoreMs: whole(LIMITS.scoreMs, 'ms').optional(),
});
export const routineBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('routine'),
  demo,
  moves: z
    .array(
      listedExerciseSchema.extend({
        ms: whole(LIMITS.moveMs, 'ms'),
        /** Repetitions or a hold in place of its length. */
        amount: amountSchema.optional(),
        side: moveSide,
        /** Its number in combinations, called with its name. */
        number: whole(LIMITS.moveNumber).optional(),
      }),
    )
    .min(1, saying('rule.one-move'))
    .max(LIMITS.moves),
  grow: z.enum(growths),
  /** So many first moves are known already: they stand, the others are added to them. */
  stem: whole(LIMITS.stem).optional(),
  /** How often each step of the growing is rehearsed. */
  timesEach: whole(LIMITS.demoTimes),
  restMs,
  restBy,
  /** Run-throughs of the whole at the end. */
  wholeTimes: z
    .int()
    .min(0)
    .max(LIMITS.demoTimes.max, saying('rule.most', { most: LIMITS.demoTimes.max })),
  leadInMs,
  /** So many first moves are done, the rest in weeks to come; none: all. */
  upTo,
  combination: combinationSchema.optional(),
});

export const lapsBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('laps'),
  demo,
  exercise: exerciseSchema,
  laps: whole(LIMITS.laps),
  /** The teacher's estimate of one lap. */
  lapMs: whole(LIMITS.lapMs, 'ms'),
  /** Tokens laid out; one is taken each lap. 0: none. */
  tokens: whole(LIMITS.tokens),
  restMs,
  leadInMs,
});

export const scorings = ['count', 'time', 'points', 'streak'] as const;
export const gameBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('game'),
  demo,
  exercise: exerciseSchema,
  explainMs: spokenOrFixedMs,
  /** Played for `playMs`, or until `target` is reached, which `playMs` then estimates. */
  goal: z.enum(['clock', 'target']),
  playMs: whole(LIMITS.workMs, 'ms'),
  target: whole(LIMITS.target),
  scoring: z.enum(scorings),
  targets: z
    .array(z.strictObject({ id: idSchema, name: titleSchema, points: whole(LIMITS.points) }))
    .max(LIMITS.targets),
  tries: whole(LIMITS.tries),
  restMs,
  /** Time to write down the score after each try. */
  scoreMs: whole(LIMITS.scoreMs, 'ms'),
  leadInMs,
});

export const signColours = ['red', 'yellow', 'green', 'blue', 'white', 'black'] as const;
export const signShapes = ['circle', 'triangle', 'square', 'star'] as const;
/** What is seen or heard in place of a command's words. */
export const signSchema = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('colour'), colour: z.enum(signColours) }),
  z.strictObject({ by: z.literal('number'), number: whole(LIMITS.signNumber) }),
  z.strictObject({
    by: z.literal('card'),
    shape: z.enum(signShapes),
    number: whole(LIMITS.signShapes),
  }),
  z.strictObject({ by: z.literal('sound'), beeps: whole(LIMITS.signBeeps) }),
]);

export const commandSchema = z.strictObject({
  id: idSchema,
  text: titleSchema,
  /** Called, and nobody moves. */
  does: z.literal('nothing').optional(),
  /** What it asks for, done before the gap to the next call begins. */
  amount: amountSchema.optional(),
  sign: signSchema.optional(),
});

/** How a called-out game is scored, by the students themselves. */
export const calledScoreSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('points'), each: whole(LIMITS.points) }),
  z.strictObject({ kind: z.literal('lives'), lives: whole(LIMITS.lives) }),
]);

/** Commands called in a fair random order that the seed repeats. */
export const calledBlockSchema = z
  .strictObject({
    ...base,
    kind: z.literal('called'),
    demo,
    labels: z
      .array(commandSchema)
      .min(LIMITS.labels.min, saying('rule.two-commands'))
      .max(LIMITS.labels.max),
    calls: whole(LIMITS.calls),
    gapMinMs: whole(LIMITS.gapMs, 'ms'),
    gapMaxMs: whole(LIMITS.gapMs, 'ms'),
    minEach: whole(LIMITS.minEach),
    seed: whole(LIMITS.seed),
    leadInMs,
    /** What one does between the calls. */
    base: exerciseSchema.optional(),
    /** So many calls first that do not count. */
    trial: whole(LIMITS.trialCalls).optional(),
    score: calledScoreSchema.optional(),
    /** A call counts with these words before it only; so many come without them. */
    leader: z.strictObject({ words: titleSchema, without: whole(LIMITS.bareCalls) }).optional(),
  })
  .refine((b) => (b.leader?.without ?? 0) <= b.calls, {
    path: ['leader', 'without'],
    ...saying('rule.bare-calls'),
  })
  .refine((b) => b.gapMinMs <= b.gapMaxMs, {
    path: ['gapMaxMs'],
    ...saying('rule.gaps'),
  })
  .refine((b) => b.minEach * b.labels.length <= b.calls, {
    path: ['calls'],
    error: () => teacherText('rule.few-calls', { figure: teacherText('figure.each-at-least') }),
  });

/** An answer to choose; several may be right. */
export const choiceSchema = z.strictObject({
  id: idSchema,
  text: titleSchema,
  /** What is drawn beside it, or done for it; `other`: nothing. */
  movement: z.enum(movements),
  isRight: z.boolean(),
  /** Why it is right or wrong, for those who chose it; may be empty. */
  why: lineSchema,
});

export const questionBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('question'),
  question: lineSchema,
  answer: lineSchema,
  askMs: spokenOrFixedMs,
  thinkMs: whole(LIMITS.thinkMs, 'ms'),
  answerMs: spokenOrFixedMs,
  choices: z
    .array(choiceSchema)
    .min(LIMITS.choices.min, saying('rule.two-choices'))
    .max(LIMITS.choices.max)
    .optional(),
  /** One answers by doing the move of the choice; none: by pointing or tapping. */
  answeredBy: z.literal('move').optional(),
});

export const cardTopics = ['kit', 'space', 'rules', 'other'] as const;
export const cardBlockSchema = z.strictObject({
  ...base,
  kind: z.literal('card'),
  about: z.enum(cardTopics),
  lines: z.array(lineSchema).max(LIMITS.cardLines),
  /** Null: as long as the youngest of the audience takes to read it. */
  fixedMs: whole(LIMITS.fixedMs, 'ms').nullable(),
});

export const blockSchema = z.discriminatedUnion('kind', [
  talkBlockSchema,
  intervalsBlockSchema,
  repsBlockSchema,
  holdBlockSchema,
  countsBlockSchema,
  routineBlockSchema,
  lapsBlockSchema,
  gameBlockSchema,
  calledBlockSchema,
  questionBlockSchema,
  cardBlockSchema,
]);

export type Block = z.infer<typeof blockSchema>;
export type BlockKind = Block['kind'];

/** Every kind of block, in the order they are offered. */
export const blockKinds = blockSchema.options.map(({ shape }) => shape.kind.value);
export type BlockOf<K extends BlockKind> = Extract<Block, { kind: K }>;
export type IntervalsBlock = BlockOf<'intervals'>;
export type RepsBlock = BlockOf<'reps'>;
export type MoveSide = (typeof moveSides)[number];
export type Combination = z.infer<typeof combinationSchema>;
export type Amount = z.infer<typeof amountSchema>;
export type Rests = z.infer<typeof restsSchema>;
export type Command = z.infer<typeof commandSchema>;
export type Sign = z.infer<typeof signSchema>;
export type CalledScore = z.infer<typeof calledScoreSchema>;
export type Choice = z.infer<typeof choiceSchema>;
export type Parts = z.infer<typeof partsSchema>;
export type Side = (typeof sides)[number];
