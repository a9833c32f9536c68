import type { Company } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';

export const companyNames: readonly (readonly [Company['kind'], string])[] = [
  ['alone', teacherText('block.alone')],
  ['partner', teacherText('block.partner')],
  ['wall', teacherText('block.against-wall')],
  ['adult', teacherText('block.grown-up-who-supports')],
  ['group', teacherText('block.in-group')],
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
