import type { Cue } from '@zest/core/lesson';

/** When a cue belongs, in words. */
export const cueMomentNames: readonly (readonly [Cue['moment'], string])[] = [
  ['ready', 'before the move'],
  ['action', 'while it runs'],
  ['finish', 'at its end'],
  ['throughout', 'all the time'],
];
