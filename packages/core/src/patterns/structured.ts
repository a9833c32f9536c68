import { teacherText } from '../words/index.ts';
import { LIMITS } from '../lesson/index.ts';
import { lengthOf, listOf } from './answers.ts';
import { capital, coolDown, minutes, sentence, times, type Pattern, within } from './pattern.ts';

export const structured: Pattern = {
  id: 'structured',
  questions: [
    {
      ...{ id: 'activities', ask: 'ask.activities', kind: 'list' },
      usual: () => teacherText('usual.activities'),
    },
    { id: 'each', ask: 'ask.each-activity', kind: 'length', usual: () => '40 s' },
    {
      id: 'kit',
      ask: 'common.kit',
      kind: 'list',
      usual: () => teacherText('usual.structured-kit'),
    },
    minutes(10),
  ],
  title: ({ activities = '' }) =>
    teacherText('pattern.structured-title', {
      activities: sentence(listOf(activities).slice(0, 3)),
    }),
  outcome: () => teacherText('pattern.structured-outcome'),
  plan: ({ activities = '', each = '', kit = '' }, pieces, scale) => {
    const { block, move, makeId } = pieces;
    const names = listOf(activities).slice(0, 6);
    const workMs = lengthOf(each, 40_000, 10_000, 180_000);
    const lesson = names.flatMap((name, i) => {
      const next = names[i + 1] ?? teacherText('pattern.breathe');
      return [
        block('card', teacherText('pattern.now-name', { activity: within(name) }), {
          about: 'other',
          lines: [
            teacherText('pattern.now', { activity: name }),
            teacherText('pattern.then', { activity: next }),
          ],
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
          company: { kind: 'adult', players: 1, hands: teacherText('pattern.beside-not-on') },
          levels: [
            {
              id: makeId(),
              form: 'easier',
              text: teacherText('pattern.seated'),
              rule: '',
              target: null,
            },
          ],
          part: 'practice',
        }),
      ];
    });
    return [
      [
        teacherText('pattern.arrive'),
        [
          pieces.hello(teacherText('pattern.structured-hello')),
          ...pieces.kit(listOf(kit)),
          block('card', teacherText('pattern.our-order'), {
            about: 'other',
            lines: [...names, teacherText('pattern.breathe'), teacherText('pattern.goodbye')].slice(
              0,
              LIMITS.cardLines,
            ),
            fixedMs: 15_000,
          }),
          pieces.space(),
        ],
      ],
      [teacherText('pattern.move-section'), lesson],
      [
        teacherText('pattern.goodbye'),
        [coolDown(pieces), pieces.bye(teacherText('pattern.structured-bye'))],
      ],
    ];
  },
};
