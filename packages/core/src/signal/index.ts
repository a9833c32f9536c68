export { median } from './numbers.ts';
export {
  MARK_LEAD_MS,
  MARK_NUMBERS,
  MARK_TAIL_MS,
  markLengthMs,
  markSamples,
} from './sync-mark.ts';
export type { MarkKind } from './sync-mark.ts';
export { findMarks, MARK_RATE_HZ } from './find-marks.ts';
export type { FoundMark } from './find-marks.ts';
export { clockRate, markedStretches } from './line-up.ts';
export type { MarkedStretch } from './line-up.ts';
export {
  boxAbout,
  isSomebody,
  joints,
  nextCrop,
  onWideFrame,
  placeOfJoint,
  poseFrom,
  SURE_JOINT,
  sureJoints,
  wholeCrop,
} from './pose.ts';
export type { Crop, SeenPose } from './pose.ts';
export { readPose } from './pose-heads.ts';
export { croppedSquare, type Picture } from './picture.ts';
export { isCount, spokenBeats, type SpokenBeat } from './counted-aloud.ts';
export { SURE_SENTENCE } from './speech-trust.ts';
export { alignSpeech, type Alignment } from './speech-align.ts';
export {
  bandSound,
  noiseFloor,
  inRoom,
  speechFrames,
  speechPower,
  SPEECH_STEP_MS,
  type BandSound,
} from './speech-sound.ts';
export { bodyOf } from './body.ts';
export { motionOf } from './motion.ts';
export {
  repetitionsIn,
  SURE_REPETITION,
  timesKnown,
  WHOLE_REPETITION,
  type SeenRepetition,
} from './repetitions.ts';
export { stillStretches } from './stillness.ts';
export { bodyBox, findingsIn, type TakeFindings } from './findings.ts';
export { takeAnalysisSchema, type TakeAnalysis } from './take-analysis.ts';
export { FlashWatch } from './flashes.ts';
export { outOfFrame } from './in-frame.ts';
export { PictureWatch, type PictureFault, type PictureFrame } from './picture-quality.ts';
export {
  SOUND_STEP_MS,
  soundFigures,
  soundFrames,
  type SoundFault,
  type SoundFigures,
} from './sound-quality.ts';
export { frameHint, lightHint, soundHint, standing, steady } from './watch.ts';
export type { FrameHint, LightHint, SoundHint } from './watch.ts';
export { LEVEL_WINDOW_MS, openness, speechWindows } from './ducking.ts';
export { followPath, type PoseAt } from './follow.ts';
