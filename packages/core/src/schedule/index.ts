export { measureBlock, timeBlock } from './block.ts';
export type { BlockTimes, Timing } from './block.ts';
export type { Call, Pace, Span, SpanKind } from './timeline-builder.ts';
export { callOrder, seededChance } from './chance.ts';
export { readerAge, readingMs, readingWpm, YOUNGEST_READER } from './reading.ts';
export { countWords, speechMs, wordsPerMinute } from './speech.ts';
export { scheduleLesson } from './schedule.ts';
export type { Schedule, ScheduledBlock, ScheduledSection, TwoClocks } from './schedule.ts';
export { runSheet, runSheetText } from './run-sheet.ts';
export type { RunSheetLine } from './run-sheet.ts';
export { fitTitle, fitLesson } from './fit.ts';
export type { FitProposal, FitResult } from './fit.ts';
export {
  goOnFrom,
  lessonOfWeek,
  layOutWeeks,
  makingOrder,
  neighbourWords,
  progressChanges,
  skillTimes,
  valueInWeek,
  weekNotes,
  weekTitle,
} from './weeks.ts';
export type { Neighbour, SeriesWeek, WeekLesson } from './weeks.ts';
export { blockSummary } from './summary.ts';
