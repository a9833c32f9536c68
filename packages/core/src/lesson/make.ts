import { usualFinish } from './finish.ts';
import type { Block, BlockKind, BlockOf, Side } from './blocks.ts';
import type { Cue, Exercise, Kit, LessonPart } from './parts.ts';
import { lessonWord, teacherLanguage, teacherText } from '../words/index.ts';
import { LESSON_VERSION, type Filming, type Lesson, type Section } from './schema.ts';

/** Makes a fresh id; injected because the core has no source of chance of its own. */
export type MakeId = () => string;

/** The usual parts of a lesson (common practice), as a teacher's own list begins. */
const USUAL_PARTS: LessonPart[] = [
  'greeting',
  'kit',
  'space',
  'health',
  'warm-up',
  'skill',
  'practice',
  'cool-down',
  'sign-off',
];

/** A phone on a chair filming a grown-up, as most begin (common practice). */
const FILMING: Filming = {
  lensMm: 26,
  orientation: 'landscape',
  safe: 'graphics',
  performerCm: 170,
  cameraCm: null,
  room: null,
  takesEach: 2,
  settleMs: 5_000,
  order: [],
};

export function makeLesson(title: string, makeId: MakeId): Lesson {
  return {
    format: 'zest-lesson',
    version: LESSON_VERSION,
    title,
    series: { name: '', week: null, level: 'standard', recap: '', teaser: '' },
    outcome: '',
    audience: { ageFrom: 8, ageTo: 11 },
    targets: { video: { ms: 600_000, toleranceMs: 15_000 }, session: null },
    room: null,
    glossary: [],
    filming: FILMING,
    finish: usualFinish,
    second: null,
    waived: [],
    settings: {
      lastRest: 'dropped',
      sides: 'performer',
      language: teacherLanguage(),
      speechWpm: 130,
      units: 'metric',
      parts: USUAL_PARTS,
      counts: { language: teacherLanguage(), own: [] },
    },
    sections: [makeSection(teacherText('lesson.welcome'), makeId)],
  };
}

export function makeSection(title: string, makeId: MakeId): Section {
  return { id: makeId(), title, blocks: [] };
}

export function makeExercise(title: string, makeId: MakeId): Exercise {
  return { id: makeId(), title, movement: 'other' };
}

export function makeCue(text: string, makeId: MakeId, moment: Cue['moment'] = 'action'): Cue {
  return {
    id: makeId(),
    text,
    moment,
    bodyPart: '',
    reason: '',
    right: '',
    wrong: '',
    anchor: null,
    entryId: null,
  };
}

export function makeKit(name: string, makeId: MakeId): Kit {
  return { id: makeId(), name, quantity: 1, share: 'each', standIn: '' };
}

const active = { demo: null, leadInMs: 5_000 };
const sided = { sides: 'each' as const, startSide: 'right' as const, sideChangeMs: 5_000 };

/** What every block has. */
const baseOf = (kind: BlockKind, makeId: MakeId, language: string) => ({
  id: makeId(),
  title: lessonWord(language, `kind.${kind}`),
  part: 'other' as const,
  skill: '',
  script: '',
  cues: [],
  kit: [],
  cautions: [],
  company: { kind: 'alone' as const, players: 1, hands: '' },
  levels: [],
  footprint: null,
  floor: [],
  facing: { performer: 'camera' as const, viewer: 'screen' as const },
  mets: null,
  regions: [],
  locked: [],
  extent: null,
  shots: [],
  edits: [],
  shownBy: '',
  footage: null,
  pauseAfter: null,
});
type Base = ReturnType<typeof baseOf>;

/**
 * Everyday figures of each kind. An exercise is called as its block until it gets a name of its
 * own.
 */
const usual: {
  [K in BlockKind]: (base: Base, makeId: MakeId, language: string) => BlockOf<K>;
} = {
  talk: (base) => ({ ...base, kind: 'talk', effort: 1, fixedMs: null }),
  intervals: (base, makeId) => ({
    ...base,
    ...active,
    kind: 'intervals',
    effort: 4,
    exercises: [{ ...makeExercise('', makeId), sides: 'both' }],
    workMs: 20_000,
    restMs: 10_000,
    ladder: [],
    rounds: 4,
    restBetweenRoundsMs: null,
    sets: 1,
    restBetweenSetsMs: 60_000,
    startSide: 'right',
  }),
  reps: (base, makeId) => ({
    ...base,
    ...active,
    ...sided,
    kind: 'reps',
    effort: 3,
    exercise: makeExercise('', makeId),
    parts: null,
    reps: 8,
    tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
    sets: 1,
    restBetweenSetsMs: 20_000,
  }),
  hold: (base, makeId) => ({
    ...base,
    ...active,
    ...sided,
    kind: 'hold',
    effort: 2,
    exercise: makeExercise('', makeId),
    by: 'seconds',
    holdMs: 10_000,
    breaths: 3,
    breathInMs: 3_000,
    breathOutMs: 4_000,
    count: 'down',
    holds: 1,
    restMs: 5_000,
  }),
  counts: (base, makeId) => ({
    ...base,
    kind: 'counts',
    demo: null,
    effort: 3,
    bpm: 120,
    moves: [{ ...makeExercise('', makeId), eights: 2 }],
    times: 2,
    countIn: 1,
  }),
  routine: (base, makeId, language) => ({
    ...base,
    ...active,
    kind: 'routine',
    effort: 3,
    moves: ['A', 'B', 'C'].map((name) => ({
      ...makeExercise(lessonWord(language, 'title.move', { n: name }), makeId),
      ms: 4_000,
    })),
    grow: 'from-start',
    timesEach: 1,
    restMs: 3_000,
    wholeTimes: 1,
  }),
  laps: (base, makeId) => ({
    ...base,
    ...active,
    kind: 'laps',
    effort: 4,
    exercise: makeExercise('', makeId),
    laps: 4,
    lapMs: 20_000,
    tokens: 4,
    restMs: 0,
  }),
  game: (base, makeId) => ({
    ...base,
    ...active,
    kind: 'game',
    effort: 3,
    exercise: makeExercise('', makeId),
    explainMs: null,
    goal: 'clock',
    playMs: 30_000,
    target: 10,
    scoring: 'count',
    targets: [],
    tries: 2,
    restMs: 15_000,
    scoreMs: 5_000,
  }),
  called: (base, makeId, language) => ({
    ...base,
    ...active,
    kind: 'called',
    effort: 3,
    labels: (['command.north', 'command.south', 'call.stop'] as const).map((word) => ({
      id: makeId(),
      text: lessonWord(language, word),
    })),
    calls: 12,
    gapMinMs: 2_000,
    gapMaxMs: 4_000,
    minEach: 2,
    seed: 1,
  }),
  question: (base) => ({
    ...base,
    kind: 'question',
    effort: 1,
    question: '',
    answer: '',
    askMs: null,
    thinkMs: 8_000,
    answerMs: null,
  }),
  card: (base) => ({
    ...base,
    kind: 'card',
    effort: 1,
    about: 'kit',
    lines: [],
    fixedMs: null,
  }),
};

/**
 * A block of the kind with everyday figures, ready to be changed.
 * @param language of the lesson it is for, BCP 47
 */
export const makeBlock = (kind: BlockKind, makeId: MakeId, language = 'en'): Block =>
  usual[kind](baseOf(kind, makeId, language), makeId, language);

export function otherSide(side: Side): Side {
  return side === 'left' ? 'right' : 'left';
}

/** Milliseconds of one repetition at the block's tempo. */
export function repMs(tempo: {
  downMs: number;
  holdMs: number;
  upMs: number;
  topHoldMs: number;
}): number {
  return tempo.downMs + tempo.holdMs + tempo.upMs + tempo.topHoldMs;
}
