import { makeLesson, type Lesson } from '@zest/core/lesson';
import { cue, exercise, kit, level, mark, planned } from './blocks.ts';

const arrive = planned('talk', 'p-arrive', {
  title: 'Hello again',
  part: 'greeting',
  script:
    'Hello from the quay. Last week we threw standing still. Today we balance, move ' +
    'to the beat and throw while we walk.',
});

const needs = planned('card', 'p-needs', {
  title: 'You need',
  part: 'kit',
  about: 'kit',
  lines: ['A flying disc, or a paper plate', 'A chair without wheels', 'Four bottles'],
  kit: [
    kit('pk1', 'Flying disc', 'a paper plate'),
    kit('pk2', 'Chair without wheels', ''),
    { ...kit('pk3', 'Bottle', 'shoes'), quantity: 4 },
  ],
});

const room = planned('card', 'p-room', {
  title: 'Clear the floor',
  part: 'space',
  about: 'space',
  lines: ['Three big steps each way', 'No lamp above you', 'Shoes on, laces tied'],
});

const rouse = planned('called', 'p-rouse', {
  title: 'North, south, stop',
  part: 'warm-up',
  effort: 3,
  labels: [
    { id: 'pl1', text: 'North' },
    { id: 'pl2', text: 'South' },
    { id: 'pl3', text: 'Jump' },
    { id: 'pl4', text: 'Stop' },
  ],
  calls: 16,
  minEach: 3,
  gapMinMs: 2_500,
  gapMaxMs: 4_500,
  cautions: ['Turn with your feet, not only with your knees.'],
  footprint: { widthCm: 250, depthCm: 250, heightCm: 260 },
  regions: ['whole body'],
});

const steps = planned('counts', 'p-steps', {
  title: 'Step to the beat',
  part: 'warm-up',
  effort: 3,
  bpm: 120,
  moves: [
    { ...exercise('pm1', 'Side step', 'step-and-reach'), eights: 2 },
    { ...exercise('pm2', 'Reach and turn', 'step-and-reach'), eights: 2 },
    { ...exercise('pm3', 'Knees up', 'other'), eights: 1 },
  ],
  times: 3,
  countIn: 1,
  footprint: { widthCm: 250, depthCm: 150, heightCm: 220 },
});

const heron = planned('hold', 'p-heron', {
  title: 'Heron, three breaths',
  skill: 'Balance',
  part: 'skill',
  effort: 2,
  exercise: exercise('pe1', 'One-leg balance', 'one-leg-balance'),
  by: 'breaths',
  breaths: 3,
  holds: 2,
  demo: { times: 1, speed: 'full', onceMs: 4_000 },
  cues: [cue('pc1', 'Chair beside you', 'ready'), cue('pc2', 'Look at one point', 'action')],
  kit: [kit('pk4', 'Chair without wheels', '')],
  cautions: ['Keep one hand near the chair or the wall.'],
  levels: [
    level('pv1', 'easier', 'One finger on the chair', 'When you touch down more than twice'),
    level('pv2', 'harder', 'Eyes closed', 'When ten seconds are easy'),
  ],
  regions: ['lower legs', 'hips'],
});

const choice = (id: string, text: string, isRight: boolean, why: string) => ({
  ...{ id, text, isRight, why },
  movement: 'other' as const,
});

const question = planned('question', 'p-question', {
  title: 'Which foot first?',
  part: 'skill',
  question: 'Which foot leads the throw?',
  answer: 'The foot on the side of your throwing hand: it leads the long step.',
  choices: [
    choice('pqa', 'Throwing side', true, 'It leads the long step.'),
    choice('pqb', 'Other side', false, 'Then your hips cannot turn.'),
    choice('pqc', 'Both', false, 'You lose your balance.'),
  ],
  thinkMs: 8_000,
});

const walk = planned('routine', 'p-walk', {
  title: 'Throw from a walk',
  skill: 'Disc throw',
  part: 'practice',
  effort: 3,
  moves: [
    { ...exercise('pw1', 'Stand side-on', 'other'), ms: 3_000 },
    { ...exercise('pw2', 'Two steps', 'step-and-reach'), ms: 4_000 },
    { ...exercise('pw3', 'Snap and stop', 'disc-throw'), ms: 3_000 },
  ],
  grow: 'from-start',
  script: 'We build it up. Each time from the start, one move more.',
  cues: [cue('pc3', 'Disc level', 'action'), cue('pc4', 'Snap and stop', 'action')],
  kit: [kit('pk5', 'Flying disc', 'a paper plate')],
  cautions: ['Nobody stands in front of you. Keep away from windows and lamps.'],
  pauseAfter: {
    practiceMs: 240_000,
    signMs: 5_000,
    prompt: 'Ten throws from a walk, from three places.',
  },
  footprint: { widthCm: 200, depthCm: 150, heightCm: 230 },
  floor: [mark('pf1', 'travel', '', 150), mark('pf2', 'target', 'hoop', 350, 0, 80)],
  regions: ['shoulders', 'arms'],
});

const skip = planned('intervals', 'p-skip', {
  title: 'Ladder on the rope',
  skill: 'Rope skipping',
  part: 'practice',
  effort: 5,
  exercises: [{ ...exercise('pe2', 'Rope skipping', 'skip-rope'), sides: 'both' }],
  workMs: 30_000,
  restMs: 30_000,
  ladder: [
    { workMs: 20_000, restMs: 20_000 },
    { workMs: 10_000, restMs: 10_000 },
  ],
  rounds: 1,
  script: 'Thirty, twenty, ten. Can you keep the same rate?',
  kit: [kit('pk6', 'Skipping rope', 'skip without a rope')],
  cautions: ['Soft knees. Stop if it hurts.'],
  footprint: { widthCm: 150, depthCm: 200, heightCm: 270 },
});

const bottles = planned('game', 'p-bottles', {
  title: 'Knock the bottles',
  skill: 'Disc throw',
  part: 'game',
  effort: 3,
  exercise: exercise('pe3', 'Disc throw', 'disc-throw'),
  script:
    'Four bottles in a row. The near one counts one, the far one counts four. You have thirty seconds.',
  scoring: 'points',
  targets: [
    { id: 'pt1', name: 'near bottle', points: 1 },
    { id: 'pt2', name: 'far bottle', points: 4 },
  ],
  tries: 2,
  kit: [
    kit('pk7', 'Flying disc', 'a paper plate'),
    { ...kit('pk8', 'Bottle', 'shoes'), quantity: 4 },
  ],
  footprint: { widthCm: 200, depthCm: 150, heightCm: 230 },
  facing: { performer: 'right side on', viewer: 'side on' },
  floor: [
    mark('pf3', 'marker', 'near bottle', 250),
    mark('pf4', 'marker', 'far bottle', 400),
    mark('pf5', 'marker', 'throwing line', 0),
  ],
});

const close = planned('talk', 'p-close', {
  title: 'See you next week',
  part: 'sign-off',
  script:
    'Shake out your arms and legs. Write down your points. Next week we play for the quay cup.',
});

/**
 * Next week's lesson, planned and not yet filmed: most kinds of block, and a few things still to
 * put right.
 */
export function demoPlan(): Lesson {
  const lesson = makeLesson('Balance, beat and bottles', () => 'made');
  return {
    ...lesson,
    series: {
      name: 'Quayside autumn',
      week: 4,
      level: 'standard',
      recap: 'Skip, throw, balance: the disc flies flat.',
      teaser: 'Next week: the quay cup.',
    },
    outcome: 'The disc leaves the hand in the second step and knocks a bottle four metres away.',
    targets: {
      video: { ms: 540_000, toleranceMs: 15_000 },
      session: { ms: 840_000, toleranceMs: 30_000 },
    },
    glossary: [
      { id: 'pg1', term: 'side-on', plain: 'with your shoulder towards the target' },
      { id: 'pg2', term: 'rate', plain: 'how many you do in a second' },
    ],
    room: { widthCm: 300, depthCm: 400, heightCm: 260 },
    sections: [
      { id: 'p-1', title: 'Arrive', blocks: [arrive, needs, room] },
      { id: 'p-2', title: 'Warm up', blocks: [rouse, steps] },
      { id: 'p-3', title: 'Balance and throw', blocks: [heron, question, walk] },
      { id: 'p-4', title: 'Go for it', blocks: [skip, bottles, close] },
    ],
  };
}
