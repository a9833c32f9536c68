export type { Answers } from './answers.ts';
export type { Pattern } from './pattern.ts';
export { draftFrom, lessonFrom, patterns } from './patterns.ts';
