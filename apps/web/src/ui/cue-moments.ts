import { teacherText } from '@zest/core/words';
import type { Cue } from '@zest/core/lesson';

/** When a cue belongs, in words. */
export const cueMomentNames: readonly (readonly [Cue['moment'], string])[] = [
  ['ready', teacherText('ui.before-move')],
  ['action', teacherText('ui.while-runs')],
  ['finish', teacherText('ui.end')],
  ['throughout', teacherText('ui.all-time')],
];
