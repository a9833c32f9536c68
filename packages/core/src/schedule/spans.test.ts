import { expect, it } from 'vitest';
import {
  makeBlock,
  makeLesson,
  type Block,
  type BlockKind,
  type BlockOf,
  type Lesson,
} from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { labelText } from '../words/index.ts';
import {
  blockSummary,
  runSheet,
  runSheetText,
  scheduleLesson,
  timeBlock,
  type Span,
} from './index.ts';

// Every kind of block laid out whole; each line was reckoned by hand.

const lesson = makeLesson('A', counter());
const dropped: Lesson = { ...lesson, settings: { ...lesson.settings, lastRest: 'dropped' } };
const made = <K extends BlockKind>(kind: K, more: Partial<BlockOf<K>>) =>
  ({ ...makeBlock(kind, counter()), id: 'b', demo: null, ...more }) as BlockOf<K>;
const exercise = (title: string) => ({ id: title, title, movement: 'squat' as const });

const paceText = (pace: Span['pace']) =>
  pace?.kind === 'beats' ? `${pace.beats} beats` : pace ? `${pace.inMs}/${pace.outMs}` : '';
/** A span as "from-to kind label, round/rounds, rep/reps" and what else it has. */
const spanText = (span: Span) =>
  [
    `${span.startMs / 1_000}-${span.endMs / 1_000} ${span.kind}`,
    labelText(span.label, 'en'),
    span.rounds === undefined ? '' : `round ${span.round}/${span.rounds}`,
    span.reps === undefined ? '' : `${span.rep}/${span.reps}`,
    span.side ?? '',
    span.halves ? 'halves' : '',
    span.movement ?? '',
    paceText(span.pace),
    span.up ? 'up' : '',
  ]
    .filter((part) => part !== '')
    .join(', ');
const laidOut = (block: Block) => timeBlock(block, dropped).spans.map(spanText);
const called = (block: Block) =>
  timeBlock(block, dropped).calls.map(
    ({ kind, atMs, label }) => `${atMs / 1_000} ${kind}: ${labelText(label, 'en')}`,
  );
const summary = (block: Block) => blockSummary(block, 'en');

const ladder = made('intervals', {
  ...{ leadInMs: 5_000, workMs: 20_000, restMs: 10_000, rounds: 2, sets: 1, startSide: 'left' },
  ladder: [{ workMs: 10_000, restMs: 4_000 }],
  restBetweenRoundsMs: 15_000,
  exercises: [
    { ...exercise('Squat'), sides: 'rounds' },
    { ...exercise('Lunge'), sides: 'halves' },
  ],
  demo: { times: 1, speed: 'half', onceMs: 2_000 },
});
const oneSided = made('intervals', {
  ...{ leadInMs: 0, workMs: 9_000, restMs: 3_000, rounds: 1, sets: 2, restBetweenSetsMs: 8_000 },
  ...{ restBetweenRoundsMs: null, title: 'Turns' },
  exercises: [
    { ...exercise('A'), sides: 'left' },
    { ...exercise('B'), sides: 'right' },
  ],
});
const sided = made('reps', {
  ...{ leadInMs: 3_000, reps: 2, sets: 2, sides: 'each', startSide: 'left' },
  ...{ sideChangeMs: 4_000, restBetweenSetsMs: 20_000, exercise: exercise('Squat') },
  tempo: { downMs: 2_000, holdMs: 500, upMs: 1_000, topHoldMs: 500 },
  demo: { times: 2, speed: 'full', onceMs: 3_000 },
  parts: { names: ['Down', 'Up'], timesEach: 1, partMs: 2_500, joinedTimes: 1, joinedMs: 5_000 },
});
const byTurns = made('reps', {
  ...{ leadInMs: 0, reps: 2, sets: 1, sides: 'alternating', startSide: 'right' },
  exercise: exercise('Step'),
  tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
});
const breaths = made('hold', {
  ...{ leadInMs: 2_000, by: 'breaths', breaths: 3, breathInMs: 3_000, breathOutMs: 5_000 },
  ...{ holds: 2, restMs: 6_000, sides: 'each', startSide: 'right', sideChangeMs: 4_000 },
  ...{ exercise: exercise('Stretch'), count: 'up' },
});
const balance = made('hold', {
  ...{ leadInMs: 0, by: 'seconds', holdMs: 10_000, holds: 2, restMs: 5_000 },
  ...{ sides: 'alternating', startSide: 'left', exercise: exercise('Balance'), count: 'down' },
});
const eights = made('counts', {
  ...{ bpm: 120, times: 2, countIn: 1 },
  moves: [
    { ...exercise('March'), eights: 2 },
    { ...exercise('Clap'), eights: 1 },
  ],
});
const routine = made('routine', {
  ...{ leadInMs: 5_000, grow: 'from-start', timesEach: 1, restMs: 3_000, wholeTimes: 1 },
  moves: [
    { ...exercise('A'), ms: 4_000 },
    { ...exercise('B'), ms: 6_000 },
  ],
});
const laps = made('laps', {
  ...{ leadInMs: 5_000, laps: 2, lapMs: 15_000, restMs: 5_000, tokens: 4 },
  exercise: exercise('Shuttle'),
});
const oneLap = made('laps', { ...laps, leadInMs: 0, laps: 1, tokens: 0 });
const tries = made('game', {
  ...{ title: 'Discs', explainMs: 8_000, leadInMs: 3_000, playMs: 30_000, tries: 2 },
  ...{ scoreMs: 5_000, restMs: 10_000, goal: 'clock', scoring: 'points' },
  exercise: exercise('Throw'),
});
const target = made('game', {
  ...{ title: 'Discs', explainMs: null, script: 'one two three four', leadInMs: 0 },
  ...{ playMs: 9_000, target: 20, tries: 1, scoreMs: 0, goal: 'target', scoring: 'time' },
  exercise: exercise('Throw'),
});
const calls = made('called', {
  ...{ title: 'Call', leadInMs: 2_000, calls: 3, gapMinMs: 2_000, gapMaxMs: 2_000, minEach: 1 },
  labels: [
    { id: '1', text: 'Jump' },
    { id: '2', text: 'Sit' },
  ],
  demo: { times: 1, speed: 'full', onceMs: 4_000 },
});
const question = made('question', {
  ...{ question: 'How many beats?', answer: 'Eight of them', script: '' },
  ...{ askMs: null, thinkMs: 6_000, answerMs: null },
});
const talk = made('talk', {
  ...{ title: 'Hello', fixedMs: null, script: 'one two three' },
  pauseAfter: { practiceMs: 60_000, signMs: 5_000, prompt: 'Skip on' },
});
const fixed = made('talk', {
  ...{ title: 'Hello', fixedMs: 7_000, script: '' },
  pauseAfter: { practiceMs: 60_000, signMs: 5_000, prompt: '' },
});
const card = made('card', { title: 'Kit', lines: ['A rope'], fixedMs: null, script: '' });

const kinds: readonly [
  name: string,
  block: Block,
  say: string,
  spans: string[],
  calls: string[],
][] = [
  [
    'work and rest down a ladder',
    ladder,
    '2 × 2 exercises, 20/10, 10/4',
    [
      '0-4 show, Watch: Squat, 1/1, squat',
      '4-9 lead-in, Get ready',
      '9-29 work, Squat, round 1/2, left, squat',
      '29-39 rest, Rest, round 1/2',
      '39-43 show, Watch: Lunge, 1/1, squat',
      '43-63 work, Lunge, round 1/2, left, halves, squat',
      '63-73 rest, Rest, round 1/2',
      '73-83 work, Squat, round 1/2, left, squat',
      '83-87 rest, Rest, round 1/2',
      '87-97 work, Lunge, round 1/2, left, halves, squat',
      '97-112 round-rest, Rest between rounds, round 1/2',
      '112-132 work, Squat, round 2/2, right, squat',
      '132-142 rest, Rest, round 2/2',
      '142-162 work, Lunge, round 2/2, left, halves, squat',
      '162-172 rest, Rest, round 2/2',
      '172-182 work, Squat, round 2/2, right, squat',
      '182-186 rest, Rest, round 2/2',
      '186-196 work, Lunge, round 2/2, left, halves, squat',
    ],
    [
      '9 start: Squat',
      '19 halfway: Halfway',
      '24 last-five: Last five',
      '29 stop: Stop',
      '43 start: Lunge',
      '53 change-sides: Change sides',
      '58 last-five: Last five',
      '63 stop: Stop',
      '73 start: Squat',
      '78 last-five: Last five',
      '83 stop: Stop',
      '87 start: Lunge',
      '92 change-sides: Change sides',
      '92 last-five: Last five',
      '97 stop: Stop',
      '112 start: Squat',
      '122 halfway: Halfway',
      '127 last-five: Last five',
      '132 stop: Stop',
      '142 start: Lunge',
      '152 change-sides: Change sides',
      '157 last-five: Last five',
      '162 stop: Stop',
      '172 start: Squat',
      '177 last-five: Last five',
      '182 stop: Stop',
      '186 start: Lunge',
      '191 change-sides: Change sides',
      '191 last-five: Last five',
      '196 stop: Stop',
    ],
  ],
  [
    'works on one side, in sets',
    oneSided,
    '2 × 1 × 2 exercises, 9 s work, 3 s rest',
    [
      '0-9 work, A, round 1/2, left, squat',
      '9-12 rest, Rest, round 1/2',
      '12-21 work, B, round 1/2, right, squat',
      '21-29 set-rest, Rest between sets, round 1/2',
      '29-38 work, A, round 2/2, left, squat',
      '38-41 rest, Rest, round 2/2',
      '41-50 work, B, round 2/2, right, squat',
    ],
    [
      '0 start: A',
      '9 stop: Stop',
      '12 start: B',
      '21 stop: Stop',
      '29 start: A',
      '38 stop: Stop',
      '41 start: B',
      '50 stop: Stop',
    ],
  ],
  [
    'repetitions taught in parts, each side',
    sided,
    '2 × 2 repetitions each side, 4 s each',
    [
      '0-3 show, Watch: Squat, 1/2, squat',
      '3-6 show, Watch: Squat, 2/2, squat',
      '6-9 lead-in, Get ready',
      '9-11.5 part, Down, 1/1, squat',
      '11.5-14 part, Up, 1/1, squat',
      '14-19 part, Joined, slowly, 1/1, squat',
      '19-23 rep, Squat, round 1/2, 1/2, left, squat',
      '23-27 rep, Squat, round 1/2, 2/2, left, squat',
      '27-31 side-change, Change sides, right',
      '31-35 rep, Squat, round 1/2, 1/2, right, squat',
      '35-39 rep, Squat, round 1/2, 2/2, right, squat',
      '39-59 set-rest, Rest between sets, round 1/2',
      '59-63 rep, Squat, round 2/2, 1/2, left, squat',
      '63-67 rep, Squat, round 2/2, 2/2, left, squat',
      '67-71 side-change, Change sides, right',
      '71-75 rep, Squat, round 2/2, 1/2, right, squat',
      '75-79 rep, Squat, round 2/2, 2/2, right, squat',
    ],
    [
      '19 start: Squat',
      '27 change-sides: Change sides',
      '39 stop: Stop',
      '59 start: Squat',
      '67 change-sides: Change sides',
      '79 stop: Stop',
    ],
  ],
  [
    'repetitions side by side',
    byTurns,
    '2 repetitions each side, alternating, 2 s each',
    [
      '0-2 rep, Step, round 1/1, 1/2, right, squat',
      '2-4 rep, Step, round 1/1, 1/2, left, squat',
      '4-6 rep, Step, round 1/1, 2/2, right, squat',
      '6-8 rep, Step, round 1/1, 2/2, left, squat',
    ],
    ['0 start: Step', '8 stop: Stop'],
  ],
  [
    'holds by breaths',
    breaths,
    '2 × 3 slow breaths held each side',
    [
      '0-2 lead-in, Get ready',
      '2-26 hold, Stretch, 1/2, right, squat, 3000/5000, up',
      '26-32 rest, Rest, right',
      '32-56 hold, Stretch, 2/2, right, squat, 3000/5000, up',
      '56-60 side-change, Change sides, left',
      '60-84 hold, Stretch, 1/2, left, squat, 3000/5000, up',
      '84-90 rest, Rest, left',
      '90-114 hold, Stretch, 2/2, left, squat, 3000/5000, up',
    ],
    [
      '2 start: Hold',
      '26 stop: Relax',
      '32 start: Hold',
      '56 stop: Relax',
      '56 change-sides: Change sides',
      '60 start: Hold',
      '84 stop: Relax',
      '90 start: Hold',
      '114 stop: Relax',
    ],
  ],
  [
    'holds by seconds, side by side',
    balance,
    '2 × 10 s held each side, alternating',
    [
      '0-10 hold, Balance, 1/2, left, squat',
      '10-15 rest, Rest',
      '15-25 hold, Balance, 1/2, right, squat',
      '25-30 rest, Rest',
      '30-40 hold, Balance, 2/2, left, squat',
      '40-45 rest, Rest',
      '45-55 hold, Balance, 2/2, right, squat',
    ],
    [
      '0 start: Hold',
      '10 stop: Relax',
      '15 start: Hold',
      '25 stop: Relax',
      '30 start: Hold',
      '40 stop: Relax',
      '45 start: Hold',
      '55 stop: Relax',
    ],
  ],
  [
    'counts of eight',
    eights,
    'counts of 8, 2 × 3 eights at 120 beats a minute',
    [
      '0-4 lead-in, Count in, 1/1, 8 beats',
      '4-8 count, March, round 1/2, 1/2, squat, 8 beats',
      '8-12 count, March, round 1/2, 2/2, squat, 8 beats',
      '12-16 count, Clap, round 1/2, 1/1, squat, 8 beats',
      '16-20 count, March, round 2/2, 1/2, squat, 8 beats',
      '20-24 count, March, round 2/2, 2/2, squat, 8 beats',
      '24-28 count, Clap, round 2/2, 1/1, squat, 8 beats',
    ],
    ['4 start: March', '12 start: Clap', '16 start: March', '24 start: Clap', '28 stop: Stop'],
  ],
  [
    'a routine that grows',
    routine,
    'routine of 2 moves, grows from the start',
    [
      '0-5 lead-in, Get ready',
      '5-9 move, A, round 1/3, 1/1, squat',
      '9-12 rest, Rest, round 1/3',
      '12-16 move, A, round 2/3, 1/2, squat',
      '16-22 move, B, round 2/3, 2/2, squat',
      '22-25 rest, Rest, round 2/3',
      '25-29 move, A, round 3/3, 1/2, squat',
      '29-35 move, B, round 3/3, 2/2, squat',
    ],
    [
      '5 start: A',
      '9 stop: Stop',
      '12 start: A',
      '16 start: B',
      '22 stop: Stop',
      '25 start: A',
      '29 start: B',
      '35 stop: Stop',
    ],
  ],
  [
    'laps',
    laps,
    '2 laps of about 15 s, 4 tokens',
    [
      '0-5 lead-in, Get ready',
      '5-20 lap, Shuttle, 1/2, squat',
      '20-25 rest, Rest',
      '25-40 lap, Shuttle, 2/2, squat',
    ],
    ['5 start: Lap 1', '25 start: Lap 2', '40 stop: Stop'],
  ],
  [
    'one lap',
    oneLap,
    '1 lap of about 15 s',
    ['0-15 lap, Shuttle, 1/1, squat'],
    ['0 start: Shuttle', '15 stop: Stop'],
  ],
  [
    'a game by the clock',
    tries,
    '2 × 30 s, score: points',
    [
      '0-8 explain, How it goes: Discs',
      '8-11 lead-in, Get ready, round 1/2',
      '11-41 play, Throw, round 1/2, squat',
      '41-46 score, Write down your score, round 1/2',
      '46-56 rest, Rest, round 1/2',
      '56-59 lead-in, Get ready, round 2/2',
      '59-89 play, Throw, round 2/2, squat',
      '89-94 score, Write down your score, round 2/2',
    ],
    [
      '11 start: Throw',
      '26 halfway: Halfway',
      '36 last-five: Last five',
      '41 stop: Stop',
      '59 start: Throw',
      '74 halfway: Halfway',
      '84 last-five: Last five',
      '89 stop: Stop',
    ],
  ],
  [
    'a game to a target',
    target,
    'to 20, score: how fast',
    ['0-2 explain, How it goes: Discs', '2-11 play, Throw, round 1/1, squat, up'],
    ['2 start: Throw', '11 stop: Stop'],
  ],
  [
    'a called-out game',
    calls,
    '3 calls of 2 commands',
    [
      '0-4 show, Watch: Call, 1/1',
      '4-6 lead-in, Get ready',
      '6-8 prompt, Jump, 1/3, other',
      '8-10 prompt, Sit, 2/3, other',
      '10-12 prompt, Sit, 3/3, other',
    ],
    ['6 command: Jump', '8 command: Sit', '10 command: Sit', '12 stop: Stop'],
  ],
  [
    'a question',
    question,
    'question, 6 s to think',
    ['0-2 ask, How many beats?', '2-8 think, Think', '8-10 answer, Eight of them'],
    [],
  ],
  ['a talk and a pause', talk, 'talk, 3 words', ['0-2 talk, Hello', '2-7 pause-sign, Skip on'], []],
  [
    'a talk of fixed length',
    fixed,
    'talk, fixed length',
    ['0-7 talk, Hello', '7-12 pause-sign, Pause and practise'],
    [],
  ],
  ['a card', card, 'card, 1 line', ['0-3 card, Kit'], []],
];

it.each(kinds)('lays out %s', (_name, block, say, spans, callsOfBlock) => {
  expect(laidOut(block)).toEqual(spans);
  expect(called(block)).toEqual(callsOfBlock);
  expect(summary(block)).toBe(say);
});

it('the run sheet lists them on both clocks, with what is called when', () => {
  const schedule = scheduleLesson({
    ...dropped,
    sections: [
      { id: 's', title: 'Part', blocks: [oneSided, talk, sided, tries] },
      { id: 't', title: 'Next', blocks: [eights, routine, laps] },
    ],
  });
  expect(runSheetText(runSheet(schedule, 'en')).split('\n')).toEqual([
    '   0:00     0:00  Part  [3 min 50 s]',
    '   0:00     0:00    Turns  [50 s]',
    '   0:00     0:00      A, left, round 1  [9 s]',
    '   0:00     0:00        ! A',
    '   0:09     0:09        ! Stop',
    '   0:09     0:09      Rest, round 1  [3 s]',
    '   0:12     0:12      B, right, round 1  [9 s]',
    '   0:12     0:12        ! B',
    '   0:21     0:21        ! Stop',
    '   0:21     0:21      Rest between sets, set 1  [8 s]',
    '   0:29     0:29      A, left, round 2  [9 s]',
    '   0:29     0:29        ! A',
    '   0:38     0:38        ! Stop',
    '   0:38     0:38      Rest, round 2  [3 s]',
    '   0:41     0:41      B, right, round 2  [9 s]',
    '   0:41     0:41        ! B',
    '   0:50     0:50        ! Stop',
    '   0:50     0:50    Hello, then 1 min off the video  [7 s]',
    '   0:50     0:50      Hello  [2 s]',
    '   0:52     0:52      Skip on  [5 s]',
    '   0:57     1:57    Repetitions  [1 min 19 s]',
    '   0:57     1:57      Watch: Squat, 1 of 2  [3 s]',
    '   1:00     2:00      Watch: Squat, 2 of 2  [3 s]',
    '   1:03     2:03      Get ready  [3 s]',
    '   1:06     2:06      Down, 1 of 1  [2.5 s]',
    '   1:08     2:08      Up, 1 of 1  [2.5 s]',
    '   1:11     2:11      Joined, slowly, 1 of 1  [5 s]',
    '   1:16     2:16      Squat, 1 of 2, left, set 1  [4 s]',
    '   1:16     2:16        ! Squat',
    '   1:20     2:20      Squat, 2 of 2, left, set 1  [4 s]',
    '   1:24     2:24        ! Change sides',
    '   1:24     2:24      Change sides  [4 s]',
    '   1:28     2:28      Squat, 1 of 2, right, set 1  [4 s]',
    '   1:32     2:32      Squat, 2 of 2, right, set 1  [4 s]',
    '   1:36     2:36        ! Stop',
    '   1:36     2:36      Rest between sets, set 1  [20 s]',
    '   1:56     2:56      Squat, 1 of 2, left, set 2  [4 s]',
    '   1:56     2:56        ! Squat',
    '   2:00     3:00      Squat, 2 of 2, left, set 2  [4 s]',
    '   2:04     3:04        ! Change sides',
    '   2:04     3:04      Change sides  [4 s]',
    '   2:08     3:08      Squat, 1 of 2, right, set 2  [4 s]',
    '   2:12     3:12      Squat, 2 of 2, right, set 2  [4 s]',
    '   2:16     3:16        ! Stop',
    '   2:16     3:16    Discs  [1 min 34 s]',
    '   2:16     3:16      How it goes: Discs  [8 s]',
    '   2:24     3:24      Get ready, try 1  [3 s]',
    '   2:27     3:27      Throw, try 1  [30 s]',
    '   2:27     3:27        ! Throw',
    '   2:42     3:42        ! Halfway',
    '   2:52     3:52        ! Last five',
    '   2:57     3:57        ! Stop',
    '   2:57     3:57      Write down your score, try 1  [5 s]',
    '   3:02     4:02      Rest, try 1  [10 s]',
    '   3:12     4:12      Get ready, try 2  [3 s]',
    '   3:15     4:15      Throw, try 2  [30 s]',
    '   3:15     4:15        ! Throw',
    '   3:30     4:30        ! Halfway',
    '   3:40     4:40        ! Last five',
    '   3:45     4:45        ! Stop',
    '   3:45     4:45      Write down your score, try 2  [5 s]',
    '   3:50     4:50  Next  [1 min 43 s]',
    '   3:50     4:50    Counts of 8  [28 s]',
    '   3:50     4:50      Count in, 1 of 1  [4 s]',
    '   3:54     4:54      March, 1 of 2, time 1  [4 s]',
    '   3:54     4:54        ! March',
    '   3:58     4:58      March, 2 of 2, time 1  [4 s]',
    '   4:02     5:02      Clap, 1 of 1, time 1  [4 s]',
    '   4:02     5:02        ! Clap',
    '   4:06     5:06      March, 1 of 2, time 2  [4 s]',
    '   4:06     5:06        ! March',
    '   4:10     5:10      March, 2 of 2, time 2  [4 s]',
    '   4:14     5:14      Clap, 1 of 1, time 2  [4 s]',
    '   4:14     5:14        ! Clap',
    '   4:18     5:18        ! Stop',
    '   4:18     5:18    Routine  [35 s]',
    '   4:18     5:18      Get ready  [5 s]',
    '   4:23     5:23      A, 1 of 1, run 1  [4 s]',
    '   4:23     5:23        ! A',
    '   4:27     5:27        ! Stop',
    '   4:27     5:27      Rest, run 1  [3 s]',
    '   4:30     5:30      A, 1 of 2, run 2  [4 s]',
    '   4:30     5:30        ! A',
    '   4:34     5:34      B, 2 of 2, run 2  [6 s]',
    '   4:34     5:34        ! B',
    '   4:40     5:40        ! Stop',
    '   4:40     5:40      Rest, run 2  [3 s]',
    '   4:43     5:43      A, 1 of 2, run 3  [4 s]',
    '   4:43     5:43        ! A',
    '   4:47     5:47      B, 2 of 2, run 3  [6 s]',
    '   4:47     5:47        ! B',
    '   4:53     5:53        ! Stop',
    '   4:53     5:53    Laps  [40 s]',
    '   4:53     5:53      Get ready  [5 s]',
    '   4:58     5:58      Shuttle, 1 of 2  [15 s]',
    '   4:58     5:58        ! Lap 1',
    '   5:13     6:13      Rest  [5 s]',
    '   5:18     6:18      Shuttle, 2 of 2  [15 s]',
    '   5:18     6:18        ! Lap 2',
    '   5:33     6:33        ! Stop',
  ]);
});
