import type { Company } from '@zest/core/lesson';

export const companyNames: readonly (readonly [Company['kind'], string])[] = [
  ['alone', 'alone'],
  ['partner', 'with a partner'],
  ['wall', 'against a wall'],
  ['adult', 'with a grown-up who supports'],
  ['group', 'in a group'],
];

/** Perceived effort, as a choice. */
export const efforts = [
  ['1', '1, at rest'],
  ['2', '2, easy'],
  ['3', '3, warm'],
  ['4', '4, out of breath'],
  ['5', '5, hard'],
] as const;
