export { exercises, movements } from './exercises.ts';
export { lengthMs, proofClips, proofPose, proofView, truthOf, walkerAt } from './clips.ts';
export type { ProofClip, ProofTruth } from './clips.ts';
export { looksAt } from './joints.ts';
