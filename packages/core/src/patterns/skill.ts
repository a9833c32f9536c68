import { LIMITS, makeCue } from '../lesson/index.ts';
import { countOf, listOf } from './answers.ts';
import { capital, framed, minutes, sentence, times, type Pattern } from './pattern.ts';

export const skill: Pattern = {
  id: 'skill',
  questions: [
    { id: 'skill', ask: 'ask.skill', kind: 'text', usual: 'Backhand throw' },
    { id: 'steps', ask: 'ask.steps', kind: 'list', usual: 'Stand side-on, Swing low, Let go' },
    { id: 'kit', ask: 'ask.kit', kind: 'list', usual: 'Flying disc, Bottle' },
    { id: 'reps', ask: 'ask.reps', kind: 'count', usual: '8' },
    minutes(10),
  ],
  title: ({ skill: name = '' }) => `${capital(name)}, step by step`,
  outcome: ({ skill: name = '', steps = '' }) =>
    `${capital(name)}: ${sentence(listOf(steps).map((step) => step.toLowerCase()))}, in one go.`,
  plan: ({ skill: name = '', steps = '', kit = '', reps = '' }, pieces, scale) => {
    const { block, makeId } = pieces;
    const names = listOf(steps).slice(0, LIMITS.parts.max);
    const exercise = pieces.move(name);
    const n = countOf(reps, 8, 1, 60);
    const once = { downMs: 1_000, holdMs: 500, upMs: 1_000, topHoldMs: 500 };
    return framed(
      pieces,
      {
        hello: `Hello from the quay. Today we learn the ${name.toLowerCase()}.`,
        kit: listOf(kit),
        space: 'Nothing that breaks in front of you',
        bye: 'Well done. Put your kit away and tell me how many came off.',
      },
      [
        [
          'Learn it',
          [
            block('reps', `${capital(name)} in parts`, {
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
                  text: 'Slower, without kit',
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
          'Use it',
          [
            block('game', 'How many of ten?', {
              exercise,
              skill: name,
              script: 'Ten tries. Count how many come off, and write it down.',
              playMs: 60_000,
              tries: times(1.5, scale),
              part: 'game',
            }),
            block('question', 'What helped most?', {
              question: `What helped your ${name.toLowerCase()} most?`,
              answer: `Think of ${sentence(names.map((step) => step.toLowerCase()))}.`,
            }),
          ],
        ],
      ],
    );
  },
};
