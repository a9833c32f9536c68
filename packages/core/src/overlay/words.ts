import type { ClockPhase, CueMoment } from '../assembly/index.ts';
import type { LessonWord } from '../words/index.ts';

/** What each phase of a clock is called on screen and read out. */
export const phaseWords: Record<ClockPhase, LessonWord> = {
  'lead-in': 'phase.lead-in',
  work: 'phase.work',
  rest: 'phase.rest',
  change: 'phase.change',
  hold: 'phase.hold',
  watch: 'phase.watch',
  think: 'phase.think',
  score: 'phase.score',
};

/** What stands above a cue. */
export const momentWords: Record<CueMoment, LessonWord> = {
  ready: 'moment.ready',
  action: 'moment.action',
  finish: 'moment.finish',
  throughout: 'moment.throughout',
  command: 'moment.command',
  question: 'moment.question',
  answer: 'moment.answer',
  score: 'moment.score',
  again: 'moment.again',
};
