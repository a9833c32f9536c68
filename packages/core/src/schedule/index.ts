export { timeBlock } from './block.ts';
export type { BlockTimes, Call, Span, SpanKind } from './block.ts';
export { countWords, speechMs } from './speech.ts';
export { scheduleLesson } from './schedule.ts';
export type { Schedule, ScheduledBlock, ScheduledSection, TwoClocks } from './schedule.ts';
export { runSheet, runSheetText } from './run-sheet.ts';
export type { RunSheetLine } from './run-sheet.ts';
