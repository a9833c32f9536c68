import { teacherText } from '../words/index.ts';
import { LIMITS } from '../lesson/index.ts';
import { countOf, lengthOf, listOf } from './answers.ts';
import { capital, framed, minutes, sentence, type Pattern } from './pattern.ts';

export const intervals: Pattern = {
  id: 'intervals',
  questions: [
    {
      ...{ id: 'exercises', ask: 'ask.exercises', kind: 'list' },
      usual: () => teacherText('usual.exercises'),
    },
    { id: 'work', ask: 'ask.work', kind: 'length', usual: () => '30 s' },
    { id: 'rest', ask: 'ask.rest', kind: 'length', usual: () => '15 s' },
    minutes(10),
  ],
  title: ({ exercises = '' }) =>
    teacherText('pattern.intervals-title', { exercises: sentence(listOf(exercises).slice(0, 2)) }),
  outcome: () => teacherText('pattern.intervals-outcome'),
  plan: ({ exercises = '', work = '', rest = '' }, pieces, scale) => {
    const { block, move } = pieces;
    const names = listOf(exercises).slice(0, 8);
    const workMs = lengthOf(work, 30_000, 5_000, 180_000);
    const restMs = lengthOf(rest, 15_000, 0, 180_000);
    const oneMs = workMs + restMs;
    // About six minutes of work and rest in a lesson of ten, shared among the exercises.
    const rounds = Math.max(1, Math.round((330_000 * scale) / oneMs / Math.max(1, names.length)));
    return framed(
      pieces,
      {
        hello: teacherText('pattern.intervals-hello'),
        warmUp: {
          moves: [
            teacherText('pattern.march'),
            teacherText('pattern.step-and-reach'),
            teacherText('pattern.side-step'),
          ],
        },
        bye: teacherText('pattern.intervals-bye'),
      },
      [
        [
          teacherText('pattern.work-section'),
          names.map((name) =>
            block('intervals', capital(name), {
              exercises: [{ ...move(name), sides: 'both' }],
              ...{ workMs, restMs, rounds: Math.min(rounds, LIMITS.rounds.max) },
              leadInMs: 10_000,
              part: 'practice',
            }),
          ),
        ],
      ],
    );
  },
};

export const circuit: Pattern = {
  id: 'circuit',
  questions: [
    {
      ...{ id: 'stations', ask: 'ask.stations', kind: 'list' },
      usual: () => teacherText('usual.stations'),
    },
    { id: 'work', ask: 'ask.work', kind: 'length', usual: () => '30 s' },
    { id: 'rest', ask: 'ask.change', kind: 'length', usual: () => '15 s' },
    { id: 'rounds', ask: 'ask.rounds', kind: 'count', usual: () => '2' },
    minutes(10),
  ],
  title: ({ stations = '' }) =>
    teacherText('pattern.circuit-title', { n: listOf(stations).length }),
  outcome: () => teacherText('pattern.circuit-outcome'),
  plan: ({ stations = '', work = '', rest = '', rounds = '' }, pieces) => {
    const { block, exercise } = pieces;
    const names = listOf(stations).slice(0, LIMITS.exercises);
    return framed(
      pieces,
      {
        hello: teacherText('pattern.circuit-hello', { n: names.length }),
        space: teacherText('pattern.circuit-space'),
        bye: teacherText('pattern.circuit-bye'),
      },
      [
        [
          teacherText('pattern.stations'),
          [
            block('intervals', teacherText('pattern.round-stations'), {
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
      ],
    );
  },
};
