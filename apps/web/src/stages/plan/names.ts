import type { Company } from '@zest/core/lesson';

export const companyNames: readonly (readonly [Company['kind'], string])[] = [
  ['alone', 'alone'],
  ['partner', 'with a partner'],
  ['wall', 'against a wall'],
  ['adult', 'with a grown-up who supports'],
  ['group', 'in a group'],
];
