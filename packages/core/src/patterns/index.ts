export type { Answers } from './answers.ts';
export { lessonFrom, patterns } from './patterns.ts';
export type { Pattern } from './patterns.ts';
