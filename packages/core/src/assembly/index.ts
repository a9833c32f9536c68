export * from './types.ts';
export { captionsFor } from './captions.ts';
export { firstCut, startInTake, takeFrameAt } from './first-cut.ts';
