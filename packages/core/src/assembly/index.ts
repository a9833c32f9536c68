export * from './types.ts';
export { captionsFor } from './captions.ts';
export { firstCut } from './first-cut.ts';
export { closerRegion, onScreen, startInTake, takeFrameAt } from './pictures.ts';
export { ownMoment, whyNot, type DroppedEdit, type Reel } from './reel.ts';
