import fc from 'fast-check';
import { LIMITS, makeLesson, movements, type Block, type Lesson } from '../lesson/index.ts';

/** Ids counted up, so that lessons made here never clash. */
export function counter(): () => string {
  let next = 0;
  return () => `id-${(next += 1)}`;
}

const text = fc.string({ unit: 'grapheme', maxLength: 40 });
const ms = (range: { min: number; max: number }, most = 90_000) => fc.integer({ min: range.min, max: Math.min(range.max, most) });
const cues = fc.array(fc.record({ text, moment: fc.constantFrom('ready', 'action', 'finish', 'throughout' as const) }), { maxLength: 5 });
const exercise = fc.record({ title: text, movement: fc.constantFrom(...movements) });
const base = {
  title: text,
  script: fc.lorem({ maxCount: 40 }),
  cautions: fc.array(text, { maxLength: 3 }),
  effort: fc.integer({ min: 1, max: 5 }),
  pauseAfter: fc.option(fc.record({ practiceMs: ms(LIMITS.practiceMs), signMs: ms(LIMITS.signMs), prompt: text })),
};

type Raw = Record<string, unknown> & { cues: { text: string; moment: string }[] };
const talk = fc.record({ ...base, cues, kind: fc.constant('talk'), fixedMs: fc.option(ms(LIMITS.fixedMs)) });
const intervals = fc.record({
  ...base,
  cues,
  kind: fc.constant('intervals'),
  exercises: fc.array(exercise, { minLength: 1, maxLength: 5 }),
  workMs: ms(LIMITS.workMs),
  restMs: ms(LIMITS.restMs),
  rounds: fc.integer({ min: 1, max: 4 }),
  restBetweenRoundsMs: fc.option(ms(LIMITS.restMs)),
  leadInMs: ms(LIMITS.leadInMs, 10_000),
});
const reps = fc.record({
  ...base,
  cues,
  kind: fc.constant('reps'),
  exercise,
  reps: fc.integer({ min: 1, max: 12 }),
  sides: fc.constantFrom('both', 'each', 'alternating'),
  startSide: fc.constantFrom('left', 'right'),
  tempo: fc.record({ downMs: ms({ min: 200, max: 4_000 }), holdMs: ms({ min: 0, max: 3_000 }), upMs: ms({ min: 0, max: 4_000 }), topHoldMs: ms({ min: 0, max: 1_000 }) }),
  sets: fc.integer({ min: 1, max: 3 }),
  restBetweenSetsMs: ms(LIMITS.restMs),
  sideChangeMs: ms(LIMITS.restMs, 10_000),
  leadInMs: ms(LIMITS.leadInMs, 10_000),
});

/** Gives every part its id. */
function named(raw: Raw, makeId: () => string): Block {
  const withId = (part: object) => ({ id: makeId(), ...part });
  return {
    ...raw,
    id: makeId(),
    kit: [],
    footage: null,
    cues: raw.cues.map(withId),
    ...('exercises' in raw && { exercises: (raw['exercises'] as object[]).map(withId) }),
    ...('exercise' in raw && { exercise: withId(raw['exercise'] as object) }),
  } as unknown as Block;
}

/** Any block, with figures of everyday size. */
export const arbitraryBlock: fc.Arbitrary<Block> = fc.oneof(talk, intervals, reps).map((raw) => named(raw as Raw, counter()));

/** Any lesson of up to three sections. */
export const arbitraryLesson: fc.Arbitrary<Lesson> = fc
  .record({
    sections: fc.array(fc.array(fc.oneof(talk, intervals, reps), { maxLength: 4 }), { maxLength: 3 }),
    lastRest: fc.constantFrom('counted', 'dropped' as const),
    speechWpm: fc.integer(LIMITS.speechWpm),
  })
  .map(({ sections, lastRest, speechWpm }) => {
    const makeId = counter();
    const lesson = makeLesson('Any lesson', makeId);
    return {
      ...lesson,
      settings: { ...lesson.settings, lastRest, speechWpm },
      sections: sections.map((blocks) => ({ id: makeId(), title: 'Section', blocks: blocks.map((raw) => named(raw as Raw, makeId)) })),
    };
  });
