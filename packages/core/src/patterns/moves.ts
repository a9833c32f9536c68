import { type Block } from '../lesson/index.ts';
import { countOf, lengthOf, listOf } from './answers.ts';
import { capital, framed, minutes, times, type Pattern } from './pattern.ts';

export const dance: Pattern = {
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
    /** A half of the dance, shown and done slowly. */
    const learnt = (title: string, some: readonly string[]): Block => ({
      ...counted(title, some, { bpm: slow, times: times(3, scale) }),
      demo: { times: 1, speed: 'half', onceMs: 4_000 },
      part: 'skill',
    });
    return framed(
      pieces,
      {
        hello: 'Hello from the quay. Today we dance.',
        warmUp: { title: 'March and reach' },
        bye: 'Show it to somebody at home. See you.',
      },
      [
        [
          'Learn it',
          [
            learnt('First half, slowly', names.slice(0, half)),
            ...(names.length > half ? [learnt('Second half, slowly', names.slice(half))] : []),
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
      ],
    );
  },
};

export const growing: Pattern = {
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
    return framed(
      pieces,
      {
        hello: 'Hello from the quay. One move more each time.',
        bye: 'You have it by heart now. See you.',
      },
      [
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
              answer: capital(names[1] ?? 'The first move again'),
            }),
          ],
        ],
      ],
    );
  },
};
