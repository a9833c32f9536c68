export * from './types.ts';
export { captionsFor } from './captions.ts';
export { firstCut, takeFrameAt } from './first-cut.ts';
