import { makeLesson, repMs, type Block, type Lesson, type Movement } from '@zest/core/lesson';
import { cue, exercise, kit, level, planned } from './blocks.ts';

/** A clip of the drawn performer that ships with the demo. */
export interface DemoClip {
  /** File below `demo/clips`. */
  file: string;
  name: string;
  blockId: string;
  /** Footage before the block's first moment, as when somebody walks in and says "ready". */
  headMs: number;
  lengthMs: number;
  /** What the performer does when, counted from the block's first moment. */
  moves: { fromMs: number; movement: Movement; periodS?: number }[];
}

const HEAD_MS = 2_000;
/** So slow that the performer holds still. */
const STILL_S = 4_000;

const welcome = planned('talk', 'welcome', {
  part: 'kit',
  title: 'Hello from Juniper Quay',
  effort: 1,
  fixedMs: null,
  shownBy: 'Your coach',
  script:
    'Hello and welcome to Juniper Quay Movement Club. Today we skip, throw and balance. ' +
    'You need a rope, a flying disc and a chair that stands still.',
  cues: [
    cue('w1', 'Two big steps of free floor', 'throughout'),
    cue('w2', 'Shoes on, laces tied', 'throughout'),
  ],
  kit: [
    kit('k1', 'Skipping rope', 'skip without a rope'),
    kit('k2', 'Flying disc', 'a paper plate'),
    kit('k3', 'Elastic band', 'a long towel'),
    kit('k4', 'Chair without wheels', ''),
  ],
  cautions: ['Clear the floor and look up: no lamp above your head.'],
});

const skipping = planned('intervals', 'skipping', {
  part: 'warm-up',
  title: 'Skip and step',
  skill: 'Rope skipping',
  effort: 4,
  exercises: [
    { ...exercise('e1', 'Rope skipping', 'skip-rope'), sides: 'both' },
    { ...exercise('e2', 'Step and reach', 'step-and-reach'), sides: 'both' },
  ],
  workMs: 12_000,
  restMs: 6_000,
  rounds: 1,
  restBetweenRoundsMs: null,
  leadInMs: 5_000,
  script: 'Twelve seconds of work, six seconds of rest. Land softly and keep your elbows close.',
  cues: [
    cue('s1', 'Rope behind your heels', 'ready'),
    cue('s2', 'Land softly', 'action'),
    cue('s3', 'Elbows close', 'action'),
  ],
  cautions: ['Soft knees. Stop if it hurts.'],
});

const throwing = planned('reps', 'throwing', {
  part: 'skill',
  title: 'Throw the disc',
  skill: 'Disc throw',
  effort: 2,
  exercise: exercise('e3', 'Disc throw', 'disc-throw'),
  reps: 6,
  sides: 'both',
  startSide: 'right',
  tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 500 },
  sets: 1,
  restBetweenSetsMs: 10_000,
  sideChangeMs: 5_000,
  leadInMs: 4_000,
  script: 'Stand side-on, keep the disc level, then snap and stop.',
  cues: [
    {
      ...cue('t1', 'Stand side-on', 'ready'),
      right: 'Throwing hand behind you',
      wrong: 'Facing the target',
    },
    cue('t2', 'Disc level', 'action'),
    cue('t3', 'Snap and stop', 'action'),
    cue('t4', 'Point after it', 'finish'),
  ],
  cautions: ['Nobody stands in front of you. Keep away from windows and lamps.'],
  pauseAfter: {
    practiceMs: 180_000,
    signMs: 5_000,
    prompt: 'Throw into a hoop from three, four and five steps.',
  },
});

const band = planned('reps', 'band-pull', {
  part: 'practice',
  title: 'Seated band pull',
  effort: 2,
  exercise: exercise('e4', 'Band pull', 'seated-pull'),
  reps: 6,
  sides: 'both',
  startSide: 'right',
  tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
  sets: 1,
  restBetweenSetsMs: 10_000,
  sideChangeMs: 4_000,
  leadInMs: 4_000,
  script: 'Sit tall at the front of the chair. Pull the band apart and let it come back slowly.',
  cues: [
    cue('b1', 'Sit tall', 'ready'),
    cue('b2', 'Pull apart', 'action'),
    cue('b3', 'Slowly back', 'action'),
  ],
  cautions: ['Look at the band for tears before you pull.'],
});

const balance = planned('reps', 'balance', {
  part: 'cool-down',
  title: 'Stand like a heron',
  skill: 'Balance',
  effort: 2,
  exercise: exercise('e5', 'One-leg balance', 'one-leg-balance'),
  reps: 2,
  sides: 'each',
  startSide: 'right',
  tempo: { downMs: 1_000, holdMs: 3_000, upMs: 1_000, topHoldMs: 1_000 },
  sets: 1,
  restBetweenSetsMs: 10_000,
  sideChangeMs: 4_000,
  leadInMs: 4_000,
  script: 'Stand on one leg, look at one point, and breathe.',
  cues: [cue('h1', 'Chair beside you', 'ready'), cue('h2', 'Look at one point', 'action')],
  levels: [
    level('hl1', 'easier', 'Toes of the other foot down', 'You wobble'),
    level('hl2', 'harder', 'Arms up', 'You stand still for three breaths'),
  ],
  cautions: ['Keep one hand near the chair or the wall.'],
});

const goodbye = planned('talk', 'goodbye', {
  part: 'sign-off',
  title: 'Well done',
  effort: 1,
  fixedMs: null,
  script:
    'Well done. Shake out your legs and drink some water. Write down how many throws ' +
    'landed in the hoop. See you next week.',
});

/** What is written of it in a second language so far. */
const inSpanish: Lesson['second'] = {
  language: 'es',
  texts: [
    ['Skip, throw, balance', 'Saltar, lanzar, equilibrio'],
    ['Arrive and warm up', 'Llegar y calentar'],
    ['Two big steps of free floor', 'Dos pasos libres'],
    ['Shoes on, laces tied', 'Zapatos y cordones atados'],
    [
      'Clear the floor and look up: no lamp above your head.',
      'Despeja el suelo: ninguna lámpara encima.',
    ],
    ['Skip and step', 'Saltar y dar pasos'],
    ['Rope skipping', 'Saltar a la cuerda'],
    ['Step and reach', 'Paso y alcance'],
    ['Rope behind your heels', 'Cuerda detrás de los talones'],
    ['Land softly', 'Cae suave'],
    ['Elbows close', 'Codos cerca'],
    ['Soft knees. Stop if it hurts.', 'Rodillas sueltas. Para si duele.'],
    ['Throw and pull', 'Lanzar y tirar'],
    ['Disc throw', 'Lanzar el disco'],
    ['Stand side-on', 'Ponte de lado'],
    ['Disc level', 'Disco plano'],
    ['Snap and stop', 'Golpe y para'],
    ['Point after it', 'Señala detrás'],
    ['Balance and close', 'Equilibrio y cierre'],
    ['One-leg balance', 'Equilibrio a una pierna'],
    ['Look at one point', 'Mira un punto fijo'],
  ].map(([text = '', other = '']) => ({ text, other })),
};

/** The demo lesson, with the take of each filmed block. */
export function demoLesson(takes: ReadonlyMap<string, string>): Lesson {
  const withFootage = (block: Block): Block => {
    const takeId = takes.get(block.id);
    return takeId ? { ...block, footage: { takeId, startsAtMs: HEAD_MS } } : block;
  };
  return {
    ...makeLesson('Skip, throw, balance', () => 'made'),
    series: {
      name: 'Quayside autumn',
      week: 3,
      level: 'standard',
      recap: 'Last week we skipped with two feet.',
      teaser: 'Next week we throw while we walk.',
    },
    outcome: 'The disc flies flat and lands in the hoop from five steps away.',
    targets: {
      video: { ms: 135_000, toleranceMs: 10_000 },
      session: { ms: 300_000, toleranceMs: 30_000 },
    },
    room: { widthCm: 300, depthCm: 350, heightCm: 240 },
    second: inSpanish,
    sections: [
      { id: 'sec-warm', title: 'Arrive and warm up', blocks: [welcome, skipping].map(withFootage) },
      { id: 'sec-skill', title: 'Throw and pull', blocks: [throwing, band].map(withFootage) },
      { id: 'sec-calm', title: 'Balance and close', blocks: [balance, goodbye].map(withFootage) },
    ],
  };
}

const clip = (
  blockId: string,
  name: string,
  lengthMs: number,
  moves: DemoClip['moves'],
): DemoClip => ({
  file: `${blockId}.mp4`,
  name,
  blockId,
  headMs: HEAD_MS,
  lengthMs: HEAD_MS + lengthMs,
  moves,
});

function repsS(block: Block): number {
  return block.kind === 'reps' ? repMs(block.tempo) / 1000 : 1;
}

/** The clips the generator draws, one a block. */
export const demoClips: DemoClip[] = [
  clip('welcome', 'Welcome, take 1', 14_000, [{ fromMs: 0, movement: 'other' }]),
  clip('skipping', 'Skip and step, take 2', 36_000, [
    { fromMs: 0, movement: 'other' },
    { fromMs: 5_000, movement: 'skip-rope' },
    { fromMs: 17_000, movement: 'other' },
    { fromMs: 23_000, movement: 'step-and-reach' },
    { fromMs: 35_000, movement: 'other' },
  ]),
  clip('throwing', 'Disc throw, take 1', 20_000, [
    { fromMs: 0, movement: 'other' },
    { fromMs: 4_000, movement: 'disc-throw', periodS: repsS(throwing) },
    { fromMs: 19_000, movement: 'other' },
  ]),
  clip('band-pull', 'Band pull, take 1', 17_000, [
    { fromMs: 0, movement: 'seated-pull', periodS: STILL_S },
    { fromMs: 4_000, movement: 'seated-pull', periodS: repsS(band) },
    { fromMs: 16_000, movement: 'seated-pull', periodS: STILL_S },
  ]),
  clip('balance', 'Heron, take 3', 33_000, [
    { fromMs: 0, movement: 'other' },
    { fromMs: 4_000, movement: 'one-leg-balance', periodS: repsS(balance) },
    { fromMs: 16_000, movement: 'other' },
    { fromMs: 20_000, movement: 'one-leg-balance', periodS: repsS(balance) },
    { fromMs: 32_000, movement: 'other' },
  ]),
  clip('goodbye', 'Well done, take 1', 14_000, [{ fromMs: 0, movement: 'other' }]),
];
