export { exercises, movements } from './exercises.ts';
export { lengthMs, proofClips, proofPose, proofView, truthOf, walkerAt } from './clips.ts';
export type { ProofClip } from './clips.ts';
export { looksAt } from './joints.ts';
