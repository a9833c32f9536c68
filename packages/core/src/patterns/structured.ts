import { LIMITS } from '../lesson/index.ts';
import { lengthOf, listOf } from './answers.ts';
import { capital, coolDown, minutes, sentence, times, type Pattern } from './pattern.ts';

export const structured: Pattern = {
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
    const { block, move, makeId } = pieces;
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
        block('intervals', capital(name), {
          effort: 2,
          exercises: [{ ...move(name), sides: 'both' }],
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
          }),
          pieces.space(),
        ],
      ],
      ['Move', lesson],
      ['Goodbye', [coolDown(pieces), pieces.bye('We are done. Goodbye.')]],
    ];
  },
};
