import { produce } from 'immer';
import {
  applyChanges,
  LIMITS,
  makeCue,
  makeLesson,
  makeSection,
  type Block,
  type Lesson,
  type MakeId,
} from '../lesson/index.ts';
import { fitLesson } from '../schedule/index.ts';
import type { TeacherWord } from '../words/index.ts';
import { countOf, lengthOf, listOf, shortened, type Answers } from './answers.ts';
import { piecesFor, type Pieces } from './pieces.ts';

/** Something a pattern asks before it is a lesson. */
export interface Question {
  id: string;
  ask: TeacherWord;
  /** One thing, several with commas between them, a number, or a length. */
  kind: 'text' | 'list' | 'count' | 'length';
  /** What is meant where nothing else is written. */
  usual: string;
}

export type PatternId =
  'skill' | 'intervals' | 'circuit' | 'dance' | 'growing' | 'challenge' | 'quiz' | 'structured';

/** The sections of a lesson: names, and their blocks. */
type Plan = [name: string, blocks: Block[]][];

export interface Pattern {
  id: PatternId;
  /** At most five, how long the video is among them. */
  questions: readonly Question[];
  /** What the lesson is called. */
  title: (answers: Answers) => string;
  outcome: (answers: Answers) => string;
  /** @param scale how much longer than the usual the lesson is */
  plan: (answers: Answers, pieces: Pieces, scale: number) => Plan;
}

const minutes = (usual: number): Question => ({
  ...{ id: 'minutes', ask: 'ask.minutes', kind: 'count' },
  usual: String(usual),
});
const MINUTES = { least: 3, most: 60 };
const sentence = (things: readonly string[]) =>
  things.length < 2
    ? things.join('')
    : `${things.slice(0, -1).join(', ')} and ${things.at(-1) ?? ''}`;
/** A number made so many times as large, whole, from one to the most a block takes. */
const times = (n: number, scale: number) =>
  Math.min(LIMITS.demoTimes.max, Math.max(1, Math.round(n * scale)));
const first = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** Gentle moves on the beat before anything else. */
const warmUp = ({ block, exercise }: Pieces, names: readonly string[]) =>
  block('counts', 'Warm up on the beat', {
    effort: 2,
    bpm: 100,
    moves: names.map((name) => ({ ...exercise(name), eights: 2 })),
    times: 2,
    part: 'warm-up',
  });

/** Slow breaths on one leg, then the other. */
const coolDown = ({ block, exercise, makeId }: Pieces) =>
  block('hold', 'Balance and breathe', {
    effort: 1,
    exercise: { ...exercise(''), movement: 'one-leg-balance' },
    by: 'breaths',
    breaths: 3,
    cues: [makeCue('Look at one point', makeId)],
    cautions: ['Keep one hand near a wall or a chair.'],
    part: 'cool-down',
  });

const skill: Pattern = {
  id: 'skill',
  questions: [
    { id: 'skill', ask: 'ask.skill', kind: 'text', usual: 'Backhand throw' },
    { id: 'steps', ask: 'ask.steps', kind: 'list', usual: 'Stand side-on, Swing low, Let go' },
    { id: 'kit', ask: 'ask.kit', kind: 'list', usual: 'Flying disc, Bottle' },
    { id: 'reps', ask: 'ask.reps', kind: 'count', usual: '8' },
    minutes(10),
  ],
  title: ({ skill: name = '' }) => `${first(name)}, step by step`,
  outcome: ({ skill: name = '', steps = '' }) =>
    `${first(name)}: ${sentence(listOf(steps).map((step) => step.toLowerCase()))}, in one go.`,
  plan: ({ skill: name = '', steps = '', kit = '', reps = '' }, pieces, scale) => {
    const { block, exercise, makeId } = pieces;
    const names = listOf(steps).slice(0, LIMITS.parts.max);
    const move = { ...exercise(''), movement: exercise(name).movement };
    const n = countOf(reps, 8, 1, 60);
    const once = { downMs: 1_000, holdMs: 500, upMs: 1_000, topHoldMs: 500 };
    return [
      [
        'Arrive',
        [
          pieces.hello(`Hello from the quay. Today we learn the ${name.toLowerCase()}.`),
          ...pieces.kit(listOf(kit)),
          pieces.space('Nothing that breaks in front of you'),
        ],
      ],
      ['Warm up', [warmUp(pieces, ['March', 'Step and reach'])]],
      [
        'Learn it',
        [
          block('reps', `${first(name)} in parts`, {
            exercise: move,
            skill: name,
            parts:
              names.length < LIMITS.parts.min
                ? null
                : { names, timesEach: 2, partMs: 3_000, joinedTimes: 2, joinedMs: 6_000 },
            demo: { times: 2, speed: 'half', onceMs: 3_000 },
            cues: names.map((step) => makeCue(step, makeId)),
            tempo: once,
            reps: 4,
            levels: [
              { id: makeId(), form: 'easier', text: 'Slower, without kit', rule: '', target: null },
            ],
            part: 'skill',
          }),
          block('reps', first(name), {
            exercise: move,
            skill: name,
            reps: n,
            sets: times(2, scale),
            tempo: once,
            part: 'practice',
          }),
        ],
      ],
      [
        'Use it',
        [
          block('game', 'How many of ten?', {
            exercise: move,
            skill: name,
            script: 'Ten tries. Count how many come off, and write it down.',
            playMs: 60_000,
            tries: times(1.5, scale),
            part: 'game',
          }),
          block('question', 'What helped most?', {
            question: `What helped your ${name.toLowerCase()} most?`,
            answer: `Think of ${sentence(names.map((step) => step.toLowerCase()))}.`,
          }),
        ],
      ],
      [
        'Cool down',
        [
          coolDown(pieces),
          pieces.bye('Well done. Put your kit away and tell me how many came off.'),
        ],
      ],
    ];
  },
};

const intervals: Pattern = {
  id: 'intervals',
  questions: [
    {
      ...{ id: 'exercises', ask: 'ask.exercises', kind: 'list' },
      usual: 'Rope skipping, Squats, Step and reach, Plank',
    },
    { id: 'work', ask: 'ask.work', kind: 'length', usual: '30 s' },
    { id: 'rest', ask: 'ask.rest', kind: 'length', usual: '15 s' },
    minutes(10),
  ],
  title: ({ exercises = '' }) => `Work and rest: ${sentence(listOf(exercises).slice(0, 2))}`,
  outcome: () => 'Every work is done to its end at a pace one can talk at.',
  plan: ({ exercises = '', work = '', rest = '' }, pieces, scale) => {
    const { block, exercise } = pieces;
    const names = listOf(exercises).slice(0, 8);
    const workMs = lengthOf(work, 30_000, 5_000, 180_000);
    const restMs = lengthOf(rest, 15_000, 0, 180_000);
    const oneMs = workMs + restMs;
    // About six minutes of work and rest in a lesson of ten, shared among the exercises.
    const rounds = Math.max(1, Math.round((330_000 * scale) / oneMs / Math.max(1, names.length)));
    return [
      [
        'Arrive',
        [pieces.hello('Hello from the quay. Today we work and rest to the clock.'), pieces.space()],
      ],
      ['Warm up', [warmUp(pieces, ['March', 'Step and reach', 'Side step'])]],
      [
        'Work',
        names.map((name) =>
          block('intervals', first(name), {
            exercises: [{ ...exercise(''), movement: exercise(name).movement, sides: 'both' }],
            ...{ workMs, restMs, rounds: Math.min(rounds, LIMITS.rounds.max) },
            leadInMs: 10_000,
            part: 'practice',
          }),
        ),
      ],
      ['Cool down', [coolDown(pieces), pieces.bye('That was it. Drink something, and see you.')]],
    ];
  },
};

const circuit: Pattern = {
  id: 'circuit',
  questions: [
    {
      ...{ id: 'stations', ask: 'ask.stations', kind: 'list' },
      usual: 'Rope skipping, Squats, Band rows, Step and reach, Plank, Balance',
    },
    { id: 'work', ask: 'ask.work', kind: 'length', usual: '30 s' },
    { id: 'rest', ask: 'ask.change', kind: 'length', usual: '15 s' },
    { id: 'rounds', ask: 'ask.rounds', kind: 'count', usual: '2' },
    minutes(10),
  ],
  title: ({ stations = '' }) => `Circuit of ${listOf(stations).length}`,
  outcome: () => 'Every station is done with good form, twice round.',
  plan: ({ stations = '', work = '', rest = '', rounds = '' }, pieces) => {
    const { block, exercise } = pieces;
    const names = listOf(stations).slice(0, LIMITS.exercises);
    return [
      [
        'Arrive',
        [
          pieces.hello(`Hello from the quay. ${names.length} stations wait for you today.`),
          pieces.space('A place for each station'),
        ],
      ],
      ['Warm up', [warmUp(pieces, ['March', 'Step and reach'])]],
      [
        'Stations',
        [
          block('intervals', 'Round the stations', {
            exercises: names.map((name) => ({ ...exercise(name), sides: 'both' as const })),
            workMs: lengthOf(work, 30_000, 5_000, 180_000),
            restMs: lengthOf(rest, 15_000, 0, 180_000),
            rounds: countOf(rounds, 2, 1, 10),
            restBetweenRoundsMs: 60_000,
            leadInMs: 10_000,
            demo: { times: 1, speed: 'full', onceMs: 3_000 },
            part: 'practice',
          }),
        ],
      ],
      [
        'Cool down',
        [coolDown(pieces), pieces.bye('All stations done. Well worked, see you soon.')],
      ],
    ];
  },
};

const dance: Pattern = {
  id: 'dance',
  questions: [
    {
      ...{ id: 'moves', ask: 'ask.moves', kind: 'list' },
      usual: 'March, Side step, Step and reach, Clap and turn',
    },
    { id: 'bpm', ask: 'ask.bpm', kind: 'count', usual: '112' },
    minutes(10),
  ],
  title: ({ moves = '' }) => `Dance of ${listOf(moves).length} moves`,
  outcome: () => 'The whole dance is done on the beat, without looking.',
  plan: ({ moves = '', bpm = '' }, pieces, scale) => {
    const { block, exercise } = pieces;
    const names = listOf(moves).slice(0, 12);
    const beats = countOf(bpm, 112, 50, 200);
    const counted = (title: string, some: readonly string[], own: { bpm: number; times: number }) =>
      block('counts', title, {
        moves: some.map((name) => ({ ...exercise(name), eights: 2 })),
        ...own,
      });
    const half = Math.ceil(names.length / 2);
    const slow = Math.round(beats * 0.8);
    return [
      ['Arrive', [pieces.hello('Hello from the quay. Today we dance.'), pieces.space()]],
      [
        'Warm up',
        [
          block('counts', 'March and reach', {
            ...warmUp(pieces, ['March', 'Step and reach']),
            id: pieces.makeId(),
            title: 'March and reach',
          }),
        ],
      ],
      [
        'Learn it',
        [
          {
            ...counted('First half, slowly', names.slice(0, half), {
              bpm: slow,
              times: times(3, scale),
            }),
            demo: { times: 1, speed: 'half', onceMs: 4_000 },
            part: 'skill',
          },
          ...(names.length > half
            ? [
                {
                  ...counted('Second half, slowly', names.slice(half), {
                    bpm: slow,
                    times: times(3, scale),
                  }),
                  demo: { times: 1, speed: 'half' as const, onceMs: 4_000 },
                  part: 'skill' as const,
                },
              ]
            : []),
          {
            ...counted('All of it', names, { bpm: slow, times: times(2, scale) }),
            part: 'practice',
          },
          {
            ...counted('The dance', names, { bpm: beats, times: times(3, scale) }),
            effort: 4,
            part: 'practice',
          },
        ],
      ],
      ['Cool down', [coolDown(pieces), pieces.bye('Show it to somebody at home. See you.')]],
    ];
  },
};

const growing: Pattern = {
  id: 'growing',
  questions: [
    {
      ...{ id: 'moves', ask: 'ask.moves', kind: 'list' },
      usual: 'Step and reach, Squat, Band row, Balance',
    },
    { id: 'each', ask: 'ask.each-move', kind: 'length', usual: '6 s' },
    minutes(10),
  ],
  title: ({ moves = '' }) => `Growing routine of ${listOf(moves).length}`,
  outcome: () => 'The whole routine is done by heart.',
  plan: ({ moves = '', each = '' }, pieces, scale) => {
    const { block, exercise } = pieces;
    const names = listOf(moves).slice(0, 10);
    const ms = lengthOf(each, 6_000, 2_000, 60_000);
    const routine = (title: string, own: Parameters<typeof block<'routine'>>[2]) =>
      block('routine', title, {
        moves: names.map((name) => ({ ...exercise(name), ms })),
        ...own,
      });
    return [
      ['Arrive', [pieces.hello('Hello from the quay. One move more each time.'), pieces.space()]],
      ['Warm up', [warmUp(pieces, ['March', 'Step and reach'])]],
      [
        'Grow it',
        [
          routine('One more each time', {
            demo: { times: 1, speed: 'full', onceMs: 4_000 },
            timesEach: times(2, scale),
            wholeTimes: 1,
            restMs: 5_000,
            part: 'skill',
          }),
          routine('By heart', {
            grow: 'whole',
            wholeTimes: times(3, scale),
            restMs: 15_000,
            effort: 4,
            part: 'practice',
          }),
          block('question', 'What came after?', {
            question: `What comes after the ${(names[0] ?? 'first move').toLowerCase()}?`,
            answer: first(names[1] ?? 'The first move again'),
          }),
        ],
      ],
      ['Cool down', [coolDown(pieces), pieces.bye('You have it by heart now. See you.')]],
    ];
  },
};

const challenge: Pattern = {
  id: 'challenge',
  questions: [
    { id: 'game', ask: 'ask.game', kind: 'text', usual: 'Knock the bottles' },
    { id: 'kit', ask: 'ask.kit', kind: 'list', usual: 'Flying disc, Four bottles' },
    { id: 'rule', ask: 'ask.rule', kind: 'text', usual: 'One point for each bottle that falls.' },
    { id: 'tries', ask: 'ask.tries', kind: 'count', usual: '3' },
    minutes(10),
  ],
  title: ({ game = '' }) => `${first(game)}, a challenge`,
  outcome: () => 'The last try beats the first one.',
  plan: ({ game = '', kit = '', rule = '', tries = '' }, pieces, scale) => {
    const { block, exercise } = pieces;
    const move = { ...exercise(''), movement: exercise(`${game} ${kit}`).movement };
    const n = countOf(tries, 3, 1, 10);
    return [
      [
        'Arrive',
        [
          pieces.hello(`Hello from the quay. Today: ${game.toLowerCase()}.`),
          ...pieces.kit(listOf(kit)),
          pieces.space('Nobody behind the target'),
        ],
      ],
      ['Warm up', [warmUp(pieces, ['March', 'Step and reach'])]],
      [
        'Challenge',
        [
          block('reps', 'Try it first', {
            exercise: move,
            reps: times(6, scale),
            sides: 'alternating',
            demo: { times: 2, speed: 'full', onceMs: 3_000 },
            part: 'skill',
          }),
          block('game', first(game), {
            exercise: move,
            script: rule,
            playMs: 45_000,
            tries: n,
            restMs: 20_000,
            part: 'game',
          }),
          block('game', `${first(game)}, one step further`, {
            exercise: move,
            script: 'The same again from one big step further away.',
            playMs: 45_000,
            tries: n,
            restMs: 20_000,
            effort: 4,
            part: 'game',
          }),
          block('question', 'Which try was best?', {
            question: 'Which try was your best, and why?',
            answer: 'What you changed is what you can use next time.',
          }),
        ],
      ],
      ['Cool down', [coolDown(pieces), pieces.bye('Note your best and send it. See you.')]],
    ];
  },
};

const quiz: Pattern = {
  id: 'quiz',
  questions: [
    { id: 'topic', ask: 'ask.topic', kind: 'text', usual: 'Warming up' },
    {
      ...{ id: 'right', ask: 'ask.right', kind: 'list' },
      usual: 'It makes muscles warm, It makes the heart beat faster',
    },
    {
      ...{ id: 'wrong', ask: 'ask.wrong', kind: 'list' },
      usual: 'It is done after the lesson, It has to hurt',
    },
    minutes(8),
  ],
  title: ({ topic = '' }) => `${first(topic)}: a quiz with moves`,
  outcome: ({ topic = '' }) => `What is right about ${topic.toLowerCase()} is shown with a move.`,
  plan: ({ topic = '', right = '', wrong = '' }, pieces, scale) => {
    const { block, exercise, makeId } = pieces;
    const [yes, no] = [listOf(right).slice(0, 4), listOf(wrong).slice(0, 4)];
    const asked = Math.max(yes.length, no.length);
    const questions = Array.from({ length: asked }, (_, i) =>
      block('question', `Question ${i + 1}`, {
        question: `What is right about ${topic.toLowerCase()}?`,
        answer: yes[i] ?? yes[0] ?? '',
        choices: [
          { text: yes[i] ?? yes[0] ?? '', isRight: true, movement: 'squat' as const },
          { text: no[i] ?? no[0] ?? '', isRight: false, movement: 'step-and-reach' as const },
        ].map((choice) => ({ ...choice, id: makeId(), why: '' })),
        answeredBy: 'move',
        thinkMs: 10_000,
      }),
    );
    const between = (i: number) =>
      block('intervals', i % 2 === 0 ? 'Squats' : 'Step and reach', {
        exercises: [
          {
            ...exercise(''),
            movement: i % 2 === 0 ? ('squat' as const) : ('step-and-reach' as const),
            sides: 'both',
          },
        ],
        ...{ workMs: 30_000, restMs: 10_000, rounds: times(2, scale) },
        part: 'practice',
      });
    return [
      ['Arrive', [pieces.hello('Hello from the quay. Answer with a move today.'), pieces.space()]],
      ['Warm up', [warmUp(pieces, ['March', 'Step and reach'])]],
      ['Quiz', questions.flatMap((question, i) => [question, between(i)])],
      ['Cool down', [coolDown(pieces), pieces.bye('How many did you have right? See you.')]],
    ];
  },
};

const structured: Pattern = {
  id: 'structured',
  questions: [
    {
      ...{ id: 'activities', ask: 'ask.activities', kind: 'list' },
      usual: 'Band row, Step and reach, Squat',
    },
    { id: 'each', ask: 'ask.each-activity', kind: 'length', usual: '40 s' },
    { id: 'kit', ask: 'ask.kit', kind: 'list', usual: 'Band, Chair without wheels' },
    minutes(10),
  ],
  title: ({ activities = '' }) => `The same order: ${sentence(listOf(activities).slice(0, 3))}`,
  outcome: () => 'Everybody knows what comes now and what comes next.',
  plan: ({ activities = '', each = '', kit = '' }, pieces, scale) => {
    const { block, exercise, makeId } = pieces;
    const names = listOf(activities).slice(0, 6);
    const workMs = lengthOf(each, 40_000, 10_000, 180_000);
    const lesson = names.flatMap((name, i) => {
      const next = names[i + 1] ?? 'Breathe';
      return [
        block('card', `Now ${name.toLowerCase()}`, {
          about: 'other',
          lines: [`Now: ${name}`, `Then: ${next}`],
          fixedMs: 10_000,
        }),
        block('intervals', first(name), {
          effort: 2,
          exercises: [{ ...exercise(''), movement: exercise(name).movement, sides: 'both' }],
          workMs,
          restMs: 20_000,
          rounds: times(2, scale),
          rests: {
            ...{ by: 'ready', does: 'rest', task: '' },
            ...{ breaths: 5, breathInMs: 3_000, breathOutMs: 4_000 },
          },
          demo: { times: 2, speed: 'half', onceMs: 4_000 },
          leadInMs: 10_000,
          company: { kind: 'adult', players: 1, hands: 'beside, not on' },
          levels: [{ id: makeId(), form: 'easier', text: 'Do it seated', rule: '', target: null }],
          part: 'practice',
        }),
      ];
    });
    return [
      [
        'Arrive',
        [
          pieces.hello('Hello. We do the same as every time.'),
          ...pieces.kit(listOf(kit)),
          block('card', 'This is our order', {
            about: 'other',
            lines: [...names, 'Breathe', 'Goodbye'].slice(0, LIMITS.cardLines),
            fixedMs: 15_000,
            part: 'space',
          }),
        ],
      ],
      ['Move', lesson],
      ['Goodbye', [coolDown(pieces), pieces.bye('We are done. Goodbye.')]],
    ];
  },
};

/** Lessons as the trade gives them (common practice), in our own scenario. */
export const patterns: readonly Pattern[] = [
  ...[skill, intervals, circuit, dance],
  ...[growing, challenge, quiz, structured],
];

const USUAL_MINUTES = 10;

/**
 * A pattern as a lesson of its answers, fitted to the minutes asked for as nearly as its figures
 * allow. What is left empty is as usual.
 * @param language BCP 47
 */
export function lessonFrom(
  pattern: Pattern,
  given: Answers,
  makeId: MakeId,
  language = 'en',
): Lesson {
  const answers = Object.fromEntries(
    pattern.questions.map(({ id, kind, usual }) => {
      const text = (given[id] ?? '').trim();
      const isLeft = text === '' || (kind === 'list' && listOf(text).length === 0);
      return [id, isLeft ? usual : kind === 'text' ? shortened(text) : text];
    }),
  );
  const asked = countOf(answers['minutes'] ?? '', USUAL_MINUTES, MINUTES.least, MINUTES.most);
  const plain = makeLesson(pattern.title(answers).slice(0, LIMITS.title), makeId);
  const plan = pattern.plan(answers, piecesFor(makeId, language), asked / USUAL_MINUTES);
  const lesson: Lesson = {
    ...plain,
    outcome: pattern.outcome(answers).slice(0, LIMITS.line),
    targets: { ...plain.targets, video: { ms: asked * 60_000, toleranceMs: 15_000 } },
    settings: { ...plain.settings, language },
    sections: plan.map(([name, blocks]) => ({ ...makeSection(name, makeId), blocks })),
  };
  return produce(lesson, applyChanges(fitLesson(lesson).proposal.changes));
}
