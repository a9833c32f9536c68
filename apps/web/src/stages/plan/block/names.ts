import type { Company } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';

export const companyNames: readonly (readonly [Company['kind'], string])[] = [
  ['alone', 'alone'],
  ['partner', 'with a partner'],
  ['wall', 'against a wall'],
  ['adult', 'with a grown-up who supports'],
  ['group', 'in a group'],
];

const effortName = (n: number) => teacherText('block.effort-of', { n });

/** Perceived effort, as a choice. */
export const efforts = [
  ['1', effortName(1)],
  ['2', effortName(2)],
  ['3', effortName(3)],
  ['4', effortName(4)],
  ['5', effortName(5)],
] as const;
