export { measureBlock, timeBlock } from './block.ts';
export type { Timing } from './block.ts';
export { moveKinds, restKinds, waitKinds } from './timeline-builder.ts';
export type { Call, Span, SpanKind } from './timeline-builder.ts';
export { callOrder, seededChance } from './chance.ts';
export { readerAge, readingMs, readingWpm, YOUNGEST_READER } from './reading.ts';
export { countWords, speechMs, wordsPerMinute } from './speech.ts';
export { scheduleLesson, waitedMs } from './schedule.ts';
export type { Schedule, ScheduledBlock, ScheduledSection } from './schedule.ts';
export { runSheet, runSheetText } from './run-sheet.ts';
export type { RunSheetLine } from './run-sheet.ts';
export { applyFit, fitTitle, fitLesson } from './fit.ts';
export type { FitResult } from './fit.ts';
export {
  goOnFrom,
  lessonOfWeek,
  layOutWeeks,
  makingOrder,
  neighbourWords,
  skillTimes,
  weekNotes,
  weekTitle,
} from './weeks.ts';
export type { SeriesWeek } from './weeks.ts';
export {
  figureInWeek,
  isLighter,
  kitChanges,
  progressChanges,
  progressTo,
  valueInWeek,
  canSetInWeek,
  valuesWith,
} from './growing.ts';
export { blockSummary } from './summary.ts';
export { shortForm } from './short-form.ts';
export { drawnOut, stripOf } from './strip.ts';
export type { StripPart } from './strip.ts';
