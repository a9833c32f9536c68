import type { Company, LessonPart } from '@zest/core/lesson';

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

export const partName = (part: LessonPart): string => partNames.find(([id]) => id === part)?.[1] ?? part;

export const companyNames: readonly (readonly [Company['kind'], string])[] = [
  ['alone', 'alone'],
  ['partner', 'with a partner'],
  ['wall', 'against a wall'],
  ['adult', 'with a grown-up who supports'],
  ['group', 'in a group'],
];
