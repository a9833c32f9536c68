import type { BlockKind } from './blocks.ts';
import type { LessonPart } from './parts.ts';

/** What each kind of block is called. */
export const kindNames: Record<BlockKind, string> = {
  talk: 'Talk',
  intervals: 'Work and rest',
  reps: 'Repetitions',
  hold: 'Hold',
  counts: 'Counts of 8',
  routine: 'Routine',
  laps: 'Laps',
  game: 'Game',
  called: 'Called-out game',
  question: 'Question',
  card: 'Card',
};

/** What each part of a lesson is called, in the usual order. */
export const partNames: readonly (readonly [LessonPart, string])[] = [
  ['other', 'not said'],
  ['greeting', 'greeting'],
  ['kit', 'what you need'],
  ['space', 'safe space'],
  ['health', 'health note'],
  ['warm-up', 'warm-up'],
  ['skill', 'skill'],
  ['practice', 'practice'],
  ['game', 'game'],
  ['cool-down', 'cool-down'],
  ['extra', 'extra'],
  ['sign-off', 'sign-off'],
];

export const partName = (part: LessonPart): string =>
  partNames.find(([id]) => id === part)?.[1] ?? part;
