export { captionsToWebVtt } from './webvtt.ts';
