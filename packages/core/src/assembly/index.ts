export * from './types.ts';
export { captionsFor } from './captions.ts';
export { clipOfBlock } from './clip.ts';
export {
  countedBouts,
  performersOf,
  isTrusted,
  shortOf,
  spokenSentences,
  tapsOf,
  type CountedBout,
  type SpokenSentence,
} from './measured.ts';
export { forStudent, lastMoveStart, scoreMoments, type StudentView } from './for-student.ts';
export { firstCut, takesIn } from './first-cut.ts';
export {
  closerRegion,
  footingOf,
  onCamera,
  onScreen,
  startInTake,
  takeFrameAt,
} from './pictures.ts';
export { inVideo, ownMoment, whyNot, type DroppedEdit, type Reel } from './reel.ts';
