export * from './types.ts';
export { captionsFor } from './captions.ts';
export { clipOfBlock } from './clip.ts';
export {
  countedBouts,
  performersOf,
  isTrusted,
  shortOf,
  spokenSentences,
  type CountedBout,
  type SpokenSentence,
} from './measured.ts';
export {
  forStudent,
  lastMoveStart,
  scoreMoments,
  type ChosenForm,
  type StudentView,
} from './for-student.ts';
export { assemble, takesIn } from './assemble.ts';
export { closerRegion, onCamera, onScreen, takeFrameAt } from './pictures.ts';
export { alignTake, startInTake, TakeAlignment } from './take-alignment.ts';
export { dropText, shownMs, toVideo, toBlock, type DroppedEdit } from './block-time-map.ts';
