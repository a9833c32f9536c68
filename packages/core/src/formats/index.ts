export { captionsToWebVtt } from './webvtt.ts';
export { captionsToSubRip } from './subrip.ts';
export { chaptersMetadata, chaptersText } from './chapters.ts';
export { editList, timeCode, type CutMedia } from './edit-list.ts';
export { timelineOf } from './timeline.ts';
export { kitCsv, planMarkdown, runSheetCsv } from './plan-text.ts';
export { seriesCalendar, type CalendarLesson } from './calendar.ts';
export * from './archive.ts';
export { qrPath } from './qr.ts';
