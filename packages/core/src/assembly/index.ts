export * from './types.ts';
export { captionsFor, sentencesOf } from './captions.ts';
export { firstCut, takeFrameAt } from './first-cut.ts';
