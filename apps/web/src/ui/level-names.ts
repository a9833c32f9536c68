import type { WeekLevel } from '@zest/core/lesson';

/** The form of the exercises a week asks for. */
export const levelNames: readonly (readonly [WeekLevel, string])[] = [
  ['easier', 'easier'],
  ['standard', 'as written'],
  ['harder', 'harder'],
];
