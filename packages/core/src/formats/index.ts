export { captionsToWebVtt } from './webvtt.ts';
export { kitCsv, planMarkdown, runSheetCsv } from './plan-text.ts';
