import { teacherText } from '../words/index.ts';
import { type Block } from '../lesson/index.ts';
import { countOf, lengthOf, listOf } from './answers.ts';
import { capital, framed, minutes, times, type Pattern, within } from './pattern.ts';

export const dance: Pattern = {
  id: 'dance',
  questions: [
    {
      ...{ id: 'moves', ask: 'ask.moves', kind: 'list' },
      usual: () => teacherText('usual.dance-moves'),
    },
    { id: 'bpm', ask: 'ask.bpm', kind: 'count', usual: () => '112' },
    minutes(10),
  ],
  title: ({ moves = '' }) => teacherText('pattern.dance-title', { n: listOf(moves).length }),
  outcome: () => teacherText('pattern.dance-outcome'),
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
    /** A half of the dance, shown and done slowly. */
    const learnt = (title: string, some: readonly string[]): Block => ({
      ...counted(title, some, { bpm: slow, times: times(3, scale) }),
      demo: { times: 1, speed: 'half', onceMs: 4_000 },
      part: 'skill',
    });
    return framed(
      pieces,
      {
        hello: teacherText('pattern.dance-hello'),
        warmUp: { title: teacherText('pattern.march-and-reach') },
        bye: teacherText('pattern.dance-bye'),
      },
      [
        [
          teacherText('pattern.learn-it'),
          [
            learnt(teacherText('pattern.first-half'), names.slice(0, half)),
            ...(names.length > half
              ? [learnt(teacherText('pattern.second-half'), names.slice(half))]
              : []),
            {
              ...counted(teacherText('pattern.all-of-it'), names, {
                bpm: slow,
                times: times(2, scale),
              }),
              part: 'practice',
            },
            {
              ...counted(teacherText('pattern.the-dance'), names, {
                bpm: beats,
                times: times(3, scale),
              }),
              effort: 4,
              part: 'practice',
            },
          ],
        ],
      ],
    );
  },
};

export const growing: Pattern = {
  id: 'growing',
  questions: [
    {
      ...{ id: 'moves', ask: 'ask.moves', kind: 'list' },
      usual: () => teacherText('usual.routine-moves'),
    },
    { id: 'each', ask: 'ask.each-move', kind: 'length', usual: () => '6 s' },
    minutes(10),
  ],
  title: ({ moves = '' }) => teacherText('pattern.growing-title', { n: listOf(moves).length }),
  outcome: () => teacherText('pattern.growing-outcome'),
  plan: ({ moves = '', each = '' }, pieces, scale) => {
    const { block, exercise } = pieces;
    const names = listOf(moves).slice(0, 10);
    const ms = lengthOf(each, 6_000, 2_000, 60_000);
    const routine = (title: string, own: Parameters<typeof block<'routine'>>[2]) =>
      block('routine', title, {
        moves: names.map((name) => ({ ...exercise(name), ms })),
        ...own,
      });
    return framed(
      pieces,
      {
        hello: teacherText('pattern.growing-hello'),
        bye: teacherText('pattern.growing-bye'),
      },
      [
        [
          teacherText('pattern.grow-it'),
          [
            routine(teacherText('pattern.one-more'), {
              demo: { times: 1, speed: 'full', onceMs: 4_000 },
              timesEach: times(2, scale),
              wholeTimes: 1,
              restMs: 5_000,
              part: 'skill',
            }),
            routine(teacherText('pattern.by-heart'), {
              grow: 'whole',
              wholeTimes: times(3, scale),
              restMs: 15_000,
              effort: 4,
              part: 'practice',
            }),
            block('question', teacherText('pattern.what-came-after'), {
              question: teacherText('pattern.what-comes-after', {
                move: within(names[0] ?? teacherText('pattern.first-move')),
              }),
              answer: capital(names[1] ?? teacherText('pattern.first-move-again')),
            }),
          ],
        ],
      ],
    );
  },
};
