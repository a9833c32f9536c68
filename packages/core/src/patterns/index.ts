export { listOf } from './answers.ts';
export type { Answers } from './answers.ts';
export { lessonFrom, patterns } from './patterns.ts';
export type { Pattern, PatternId, Question } from './patterns.ts';
