import { teacherText } from '../words/index.ts';
import { LIMITS, makeCue } from '../lesson/index.ts';
import { countOf, listOf } from './answers.ts';
import { capital, framed, minutes, sentence, times, type Pattern, within } from './pattern.ts';

export const skill: Pattern = {
  id: 'skill',
  questions: [
    { id: 'skill', ask: 'ask.skill', kind: 'text', usual: () => teacherText('usual.skill') },
    { id: 'steps', ask: 'ask.steps', kind: 'list', usual: () => teacherText('usual.steps') },
    { id: 'kit', ask: 'common.kit', kind: 'list', usual: () => teacherText('usual.skill-kit') },
    { id: 'reps', ask: 'ask.reps', kind: 'count', usual: () => '8' },
    minutes(10),
  ],
  title: ({ skill: name = '' }) => teacherText('pattern.skill-title', { skill: capital(name) }),
  outcome: ({ skill: name = '', steps = '' }) =>
    teacherText('pattern.skill-outcome', {
      skill: capital(name),
      steps: sentence(listOf(steps).map(within)),
    }),
  plan: ({ skill: name = '', steps = '', kit = '', reps = '' }, pieces, scale) => {
    const { block, makeId } = pieces;
    const names = listOf(steps).slice(0, LIMITS.parts.max);
    const exercise = pieces.move(name);
    const n = countOf(reps, 8, 1, 60);
    const once = { downMs: 1_000, holdMs: 500, upMs: 1_000, topHoldMs: 500 };
    return framed(
      pieces,
      {
        hello: teacherText('pattern.skill-hello', { skill: within(name) }),
        kit: listOf(kit),
        space: teacherText('pattern.skill-space'),
        bye: teacherText('pattern.skill-bye'),
      },
      [
        [
          teacherText('pattern.learn-it'),
          [
            block('reps', teacherText('pattern.in-parts', { skill: capital(name) }), {
              exercise,
              skill: name,
              parts:
                names.length < LIMITS.parts.min
                  ? null
                  : { names, timesEach: 2, partMs: 3_000, joinedTimes: 2, joinedMs: 6_000 },
              demo: { times: 2, speed: 'half', onceMs: 3_000 },
              cues: names.map((step) => makeCue(step, makeId)),
              tempo: once,
              reps: 4,
              levels: [
                {
                  id: makeId(),
                  form: 'easier',
                  text: teacherText('pattern.slower'),
                  rule: '',
                  target: null,
                },
              ],
              part: 'skill',
            }),
            block('reps', capital(name), {
              exercise,
              skill: name,
              reps: n,
              sets: times(2, scale),
              tempo: once,
              part: 'practice',
            }),
          ],
        ],
        [
          teacherText('pattern.use-it'),
          [
            block('game', teacherText('pattern.of-ten'), {
              exercise,
              skill: name,
              script: teacherText('pattern.ten-tries'),
              playMs: 60_000,
              tries: times(1.5, scale),
              part: 'game',
            }),
            block('question', teacherText('pattern.helped-most'), {
              question: teacherText('pattern.helped-your', { skill: within(name) }),
              answer: teacherText('pattern.think-of', { steps: sentence(names.map(within)) }),
            }),
          ],
        ],
      ],
    );
  },
};
