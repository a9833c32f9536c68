export { captionsToWebVtt } from './webvtt.ts';
export { kitCsv, planMarkdown, runSheetCsv } from './plan-text.ts';
export { seriesCalendar, type CalendarLesson } from './calendar.ts';
export * from './archive.ts';
