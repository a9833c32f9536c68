import { countOf, listOf } from './answers.ts';
import { capital, framed, minutes, times, type Pattern } from './pattern.ts';

export const challenge: Pattern = {
  id: 'challenge',
  questions: [
    { id: 'game', ask: 'ask.game', kind: 'text', usual: 'Knock the bottles' },
    { id: 'kit', ask: 'ask.kit', kind: 'list', usual: 'Flying disc, Four bottles' },
    { id: 'rule', ask: 'ask.rule', kind: 'text', usual: 'One point for each bottle that falls.' },
    { id: 'tries', ask: 'ask.tries', kind: 'count', usual: '3' },
    minutes(10),
  ],
  title: ({ game = '' }) => `${capital(game)}, a challenge`,
  outcome: () => 'The last try beats the first one.',
  plan: ({ game = '', kit = '', rule = '', tries = '' }, pieces, scale) => {
    const { block } = pieces;
    const exercise = pieces.move(`${game} ${kit}`);
    const n = countOf(tries, 3, 1, 10);
    return framed(
      pieces,
      {
        hello: `Hello from the quay. Today: ${game.toLowerCase()}.`,
        kit: listOf(kit),
        space: 'Nobody behind the target',
        bye: 'Note your best and send it. See you.',
      },
      [
        [
          'Challenge',
          [
            block('reps', 'Try it first', {
              exercise,
              reps: times(6, scale),
              sides: 'alternating',
              demo: { times: 2, speed: 'full', onceMs: 3_000 },
              part: 'skill',
            }),
            block('game', capital(game), {
              exercise,
              script: rule,
              playMs: 45_000,
              tries: n,
              restMs: 20_000,
              part: 'game',
            }),
            block('game', `${capital(game)}, one step further`, {
              exercise,
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
      ],
    );
  },
};

export const quiz: Pattern = {
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
  title: ({ topic = '' }) => `${capital(topic)}: a quiz with moves`,
  outcome: ({ topic = '' }) => `What is right about ${topic.toLowerCase()} is shown with a move.`,
  plan: ({ topic = '', right = '', wrong = '' }, pieces, scale) => {
    const { block, move, makeId } = pieces;
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
        exercises: [{ ...move(i % 2 === 0 ? 'Squats' : 'Step and reach'), sides: 'both' }],
        ...{ workMs: 30_000, restMs: 10_000, rounds: times(2, scale) },
        part: 'practice',
      });
    return framed(
      pieces,
      {
        hello: 'Hello from the quay. Answer with a move today.',
        bye: 'How many did you have right? See you.',
      },
      [['Quiz', questions.flatMap((question, i) => [question, between(i)])]],
    );
  },
};
