import type { BlockKind } from '@zest/core/lesson';

/** One line about each kind, for whoever chooses one. */
export const kindWords: Record<BlockKind, string> = {
  talk: 'words at your pace, or a fixed time',
  intervals: 'exercises to the clock, in rounds and sets',
  reps: 'a number of repetitions at a tempo, by side',
  hold: 'seconds or slow breaths, by side',
  counts: 'moves on the beat, in eights',
  routine: 'moves that grow into a whole',
  laps: 'times round, with tokens to take',
  game: 'against the clock or to a target, with a score',
  called: 'commands in a random order',
  question: 'asked, thought about, answered',
  card: 'kit, space or rules to read',
};
