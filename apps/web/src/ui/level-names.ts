import { teacherText } from '@zest/core/words';
import type { WeekLevel } from '@zest/core/lesson';

/** The form of the exercises a week asks for. */
export const levelNames: readonly (readonly [WeekLevel, string])[] = [
  ['easier', teacherText('ui.easier')],
  ['standard', teacherText('ui.written')],
  ['harder', teacherText('ui.harder')],
];
