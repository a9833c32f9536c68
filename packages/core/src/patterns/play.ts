import { teacherText } from '../words/index.ts';
import { countOf, listOf } from './answers.ts';
import { capital, framed, minutes, times, type Pattern, within } from './pattern.ts';

export const challenge: Pattern = {
  id: 'challenge',
  questions: [
    { id: 'game', ask: 'ask.game', kind: 'text', usual: () => teacherText('usual.game') },
    { id: 'kit', ask: 'common.kit', kind: 'list', usual: () => teacherText('usual.game-kit') },
    { id: 'rule', ask: 'ask.rule', kind: 'text', usual: () => teacherText('usual.game-rule') },
    { id: 'tries', ask: 'ask.tries', kind: 'count', usual: () => '3' },
    minutes(10),
  ],
  title: ({ game = '' }) => teacherText('pattern.challenge-title', { game: capital(game) }),
  outcome: () => teacherText('pattern.challenge-outcome'),
  plan: ({ game = '', kit = '', rule = '', tries = '' }, pieces, scale) => {
    const { block } = pieces;
    const exercise = pieces.move(`${game} ${kit}`);
    const n = countOf(tries, 3, 1, 10);
    return framed(
      pieces,
      {
        hello: teacherText('pattern.challenge-hello', { game: within(game) }),
        kit: listOf(kit),
        space: teacherText('pattern.challenge-space'),
        bye: teacherText('pattern.challenge-bye'),
      },
      [
        [
          teacherText('pattern.challenge-section'),
          [
            block('reps', teacherText('pattern.try-first'), {
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
            block('game', teacherText('pattern.one-step-further', { game: capital(game) }), {
              exercise,
              script: teacherText('pattern.from-further'),
              playMs: 45_000,
              tries: n,
              restMs: 20_000,
              effort: 4,
              part: 'game',
            }),
            block('question', teacherText('pattern.best-try'), {
              question: teacherText('pattern.best-try-question'),
              answer: teacherText('pattern.best-try-answer'),
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
    { id: 'topic', ask: 'ask.topic', kind: 'text', usual: () => teacherText('usual.topic') },
    {
      ...{ id: 'right', ask: 'ask.right', kind: 'list' },
      usual: () => teacherText('usual.right'),
    },
    {
      ...{ id: 'wrong', ask: 'ask.wrong', kind: 'list' },
      usual: () => teacherText('usual.wrong'),
    },
    minutes(8),
  ],
  title: ({ topic = '' }) => teacherText('pattern.quiz-title', { topic: capital(topic) }),
  outcome: ({ topic = '' }) => teacherText('pattern.quiz-outcome', { topic: within(topic) }),
  plan: ({ topic = '', right = '', wrong = '' }, pieces, scale) => {
    const { block, move, makeId } = pieces;
    const [yes, no] = [listOf(right).slice(0, 4), listOf(wrong).slice(0, 4)];
    const asked = Math.max(yes.length, no.length);
    const questions = Array.from({ length: asked }, (_, i) =>
      block('question', teacherText('pattern.quiz-question', { n: i + 1 }), {
        question: teacherText('pattern.quiz-ask', { topic: within(topic) }),
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
      block(
        'intervals',
        i % 2 === 0 ? teacherText('pattern.squats') : teacherText('pattern.step-and-reach'),
        {
          exercises: [
            {
              ...move(
                i % 2 === 0 ? teacherText('pattern.squats') : teacherText('pattern.step-and-reach'),
              ),
              sides: 'both',
            },
          ],
          ...{ workMs: 30_000, restMs: 10_000, rounds: times(2, scale) },
          part: 'practice',
        },
      );
    return framed(
      pieces,
      {
        hello: teacherText('pattern.quiz-hello'),
        bye: teacherText('pattern.quiz-bye'),
      },
      [
        [
          teacherText('pattern.quiz-section'),
          questions.flatMap((question, i) => [question, between(i)]),
        ],
      ],
    );
  },
};
