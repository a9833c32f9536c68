import fc from 'fast-check';
import {
  blockKinds,
  cueMoments,
  figuresOf,
  growths,
  LIMITS,
  makeBlock,
  makeCue,
  makeLesson,
  movements,
  moveSides,
  restLengths,
  restTasks,
  sidesPlans,
  slowShowings,
  workSides,
  writeFigure,
  type Amount,
  type Block,
  type BlockKind,
  type BlockOf,
  type Exercise,
  type Lesson,
} from '../lesson/index.ts';

/** Ids counted up, so that lessons made here never clash. */
export function counter(): () => string {
  let next = 0;
  return () => `id-${(next += 1)}`;
}

const text = fc.string({ unit: 'grapheme', maxLength: 40 });
/** Everyday sizes, so that lessons stay short enough to look through. */
const MOST = { ms: 60_000, count: 5, cm: 500 } as const;

const amount: fc.Arbitrary<Amount> = fc.oneof(
  fc.record({
    kind: fc.constant('reps' as const),
    reps: fc.integer({ min: 1, max: 4 }),
    oneMs: fc.constant(1_000),
  }),
  fc.record({ kind: fc.constant('hold' as const), holdMs: fc.constant(3_000) }),
);

/**
 * What a block is made from: choices and numbers; `figures` gives its figures their values in turn.
 */
const rawBlock = fc.record({
  kind: fc.constantFrom(...blockKinds),
  title: text,
  script: fc.lorem({ maxCount: 40 }),
  cautions: fc.array(text, { maxLength: 3 }),
  cues: fc.array(fc.record({ text, moment: fc.constantFrom(...cueMoments) }), { maxLength: 5 }),
  effort: fc.integer({ min: 1, max: 5 }),
  figures: fc.array(fc.nat(1_000_000), { minLength: 12, maxLength: 12 }),
  exercises: fc.array(
    fc.record({
      title: text,
      movement: fc.constantFrom(...movements),
      sides: fc.constantFrom(...workSides),
      amount: fc.option(amount, { nil: undefined }),
      side: fc.option(fc.constantFrom(...moveSides), { nil: undefined }),
      beats: fc.option(fc.array(fc.integer({ min: 1, max: 9 }), { minLength: 1, maxLength: 3 }), {
        nil: undefined,
      }),
      effort: fc.option(fc.integer({ min: 1, max: 5 })),
    }),
    { minLength: 1, maxLength: 4 },
  ),
  sides: fc.constantFrom(...sidesPlans),
  startSide: fc.constantFrom('left', 'right' as const),
  grow: fc.constantFrom(...growths),
  by: fc.constantFrom('seconds', 'breaths' as const),
  /** Which of the things that may be null are there. */
  withPause: fc.boolean(),
  withDemo: fc.boolean(),
  withParts: fc.boolean(),
  isFixed: fc.boolean(),
  longBetween: fc.boolean(),
  rungs: fc.nat(2),
  stem: fc.option(fc.integer({ min: 1, max: 4 }), { nil: undefined }),
  bar: fc.option(fc.integer({ min: 1, max: 6 }), { nil: undefined }),
  combination: fc.option(
    fc.record({
      ...{
        sides: fc.constantFrom('both', 'each' as const),
        startSide: fc.constant('left' as const),
      },
      ...{ sideChangeMs: fc.constant(1_000), scoreMs: fc.constant(1_000) },
      slow: fc.record({ percent: fc.constant(50), when: fc.constantFrom(...slowShowings) }),
    }),
    { nil: undefined },
  ),
  ways: fc.option(
    fc.array(
      fc.record({
        ...{ id: fc.uuid(), players: fc.integer({ min: 1, max: 4 }), rules: text },
        rotate: fc.constantFrom(
          { by: 'event' as const, after: 'miss' as const },
          { by: 'time' as const, everyMs: 2_000 },
        ),
        distanceCm: fc.integer({ min: 100, max: 500 }),
      }),
      { minLength: 1, maxLength: 3 },
    ),
    { nil: undefined },
  ),
  rests: fc.option(
    fc.record({ by: fc.constantFrom(...restLengths), does: fc.constantFrom(...restTasks) }),
    { nil: undefined },
  ),
});
/** An optional part where there is one. */
const some = <K extends string, V>(key: K, value: V | undefined) =>
  // Of its own: what is drawn once may be tried in several lessons.
  (value === undefined ? {} : { [key]: structuredClone(value) }) as Partial<Record<K, V>>;
type Raw = typeof rawBlock extends fc.Arbitrary<infer T> ? T : never;

type Shape = {
  [K in BlockKind]?: (
    block: BlockOf<K>,
    raw: Raw,
    exercises: readonly Exercise[],
    makeId: () => string,
  ) => void;
};
/** What the raw values make of each kind. */
const shapes: Shape = {
  talk: (block, raw) => {
    block.fixedMs = raw.isFixed ? 1_000 : null;
  },
  card: (block, raw) => {
    block.fixedMs = raw.isFixed ? 1_000 : null;
  },
  intervals: (block, raw, _exercises, makeId) => {
    block.exercises = raw.exercises.map(({ title, movement, sides, amount, effort }) => ({
      ...{ id: makeId(), title, movement, sides },
      ...some('amount', amount),
      ...(effort !== null && {
        details: { cues: [], levels: [], effort, demo: null, cautions: [], kit: [] },
      }),
    }));
    if (raw.rests)
      block.rests = {
        ...{ ...raw.rests, task: raw.title },
        ...{ breaths: 2, breathInMs: 1_000, breathOutMs: 1_000 },
      };
    block.ladder = Array.from({ length: raw.rungs }, () => ({ workMs: 1_000, restMs: 0 }));
    block.restBetweenRoundsMs = raw.longBetween ? 0 : null;
  },
  reps: (block, raw) => {
    block.parts = raw.withParts
      ? {
          ...{ names: ['1', '2', '3'], timesEach: 1, partMs: 500, joinedTimes: 1, joinedMs: 500 },
          ...some('sides', raw.isFixed ? ('each' as const) : undefined),
          ...some('join', raw.longBetween ? ('step by step' as const) : undefined),
        }
      : null;
    Object.assign(block, some('restBy', raw.rests?.by === 'ready' ? 'ready' : undefined));
  },
  hold: (block, raw) => {
    block.by = raw.by;
  },
  counts: (block, raw, exercises) => {
    block.moves = exercises.map((exercise, i) => ({
      ...{ ...exercise, eights: 1 },
      ...some('beats', raw.exercises[i]?.beats),
      ...some('side', raw.exercises[i]?.side),
    }));
    Object.assign(block, some('bar', raw.bar));
  },
  routine: (block, raw, exercises) => {
    block.moves = exercises.map((exercise, i) => ({
      ...{ ...exercise, ms: 1_000 },
      ...some('amount', raw.exercises[i]?.amount),
      ...some('side', raw.exercises[i]?.side),
    }));
    block.grow = raw.grow;
    Object.assign(block, some('stem', raw.stem));
    Object.assign(block, some('combination', raw.combination));
    Object.assign(block, some('restBy', raw.rests?.by === 'ready' ? 'ready' : undefined));
  },
  game: (block, raw) => {
    block.explainMs = raw.isFixed ? 1_000 : null;
    Object.assign(block, some('ways', raw.ways));
    block.goal = raw.withParts ? 'target' : 'clock';
  },
  called: (block, raw, _exercises, makeId) => {
    block.labels = block.labels.slice(0, 2 + (raw.rungs % 2)).map((label, i) => ({
      ...label,
      ...some('amount', raw.exercises[i]?.amount),
      ...(raw.withParts && i === 0 && { does: 'nothing' as const }),
    }));
    Object.assign(block, some('trial', raw.stem));
    if (raw.withParts) block.base = { id: makeId(), title: raw.title, movement: 'squat' };
    if (raw.longBetween) block.leader = { words: 'Captain says', without: 0 };
  },
  question: (block, raw) => {
    Object.assign(block, {
      question: raw.script,
      answer: raw.title,
      askMs: raw.isFixed ? 1_000 : null,
    });
  },
};

function shapeAs<K extends BlockKind>(
  block: BlockOf<K>,
  raw: Raw,
  exercises: readonly Exercise[],
  makeId: () => string,
): void {
  shapes[block.kind as K]?.(block, raw, exercises, makeId);
}

function shape(block: Block, raw: Raw, makeId: () => string): void {
  const exercises = raw.exercises.map(({ title, movement }): Exercise => ({
    id: makeId(),
    title,
    movement,
  }));
  if ('demo' in block && raw.withDemo)
    block.demo = { times: 1, speed: raw.isFixed ? 'half' : 'full', onceMs: 500 };
  if ('sides' in block) Object.assign(block, { sides: raw.sides, startSide: raw.startSide });
  shapeAs(block, raw, exercises, makeId);
}

function build(raw: Raw, makeId: () => string, kind: BlockKind = raw.kind): Block {
  const block = makeBlock(kind, makeId);
  const { title, script, cautions, effort } = raw;
  Object.assign(block, { title, script, cautions, effort });
  block.cues = raw.cues.map((cue) => makeCue(cue.text, makeId, cue.moment));
  block.pauseAfter = raw.withPause
    ? { practiceMs: LIMITS.practiceMs.min, signMs: LIMITS.signMs.min, prompt: title }
    : null;
  shape(block, raw, makeId);
  figuresOf(block).forEach(({ key, unit, range }, i) => {
    const span = Math.min(range.max, Math.max(range.min, MOST[unit])) - range.min;
    writeFigure(block, key, range.min + ((raw.figures[i % raw.figures.length] ?? 0) % (span + 1)));
  });
  if (block.kind === 'reps') block.tempo.downMs = Math.max(200, block.tempo.downMs);
  if (block.kind === 'called') {
    [block.gapMinMs, block.gapMaxMs] = [
      Math.min(block.gapMinMs, block.gapMaxMs),
      Math.max(block.gapMinMs, block.gapMaxMs),
    ];
    block.calls = Math.max(block.calls * 3, block.minEach * block.labels.length);
    if (block.leader) block.leader.without = Math.min(block.leader.without, block.calls);
  }
  return block;
}

/** Any block, with figures of everyday size. */
export const arbitraryBlock: fc.Arbitrary<Block> = rawBlock.map((raw) => build(raw, counter()));

/** Any block of one kind. */
export function arbitraryOf<K extends BlockKind>(
  kind: K,
): fc.Arbitrary<Extract<Block, { kind: K }>> {
  return rawBlock.map((raw) => build(raw, counter(), kind) as Extract<Block, { kind: K }>);
}

/** Any lesson of up to three sections. */
export const arbitraryLesson: fc.Arbitrary<Lesson> = fc
  .record({
    sections: fc.array(fc.array(rawBlock, { maxLength: 4 }), { maxLength: 3 }),
    lastRest: fc.constantFrom('counted', 'dropped' as const),
    speechWpm: fc.integer(LIMITS.speechWpm),
  })
  .map(({ sections, lastRest, speechWpm }) => {
    const makeId = counter();
    const lesson = makeLesson('Any lesson', makeId);
    return {
      ...lesson,
      settings: { ...lesson.settings, lastRest, speechWpm },
      sections: sections.map((blocks) => ({
        id: makeId(),
        title: 'Section',
        blocks: blocks.map((raw) => build(raw, makeId)),
      })),
    };
  });
