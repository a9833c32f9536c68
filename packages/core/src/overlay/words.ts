import type { ClockPhase, CueMoment } from '../assembly/index.ts';
import type { OwnWord } from '../script/index.ts';

/** What each phase of a clock is called on screen and read out. */
export const phaseWords: Record<ClockPhase, OwnWord> = {
  'lead-in': 'Get ready',
  work: 'Work',
  rest: 'Rest',
  change: 'Change sides',
  hold: 'Hold',
  watch: 'Watch',
  think: 'Think',
  score: 'Your score',
};

/** What stands above a cue. */
export const momentWords: Record<CueMoment, OwnWord> = {
  ready: 'Ready',
  action: 'Now',
  finish: 'Finish',
  throughout: 'All the time',
  command: 'Go',
  question: 'Question',
  answer: 'Answer',
  score: 'Your score',
  again: 'Watch again',
};
