export { exercises } from './exercises.ts';
export { lengthMs, proofClips, truthOf, type ProofClip, type ProofTruth } from './clips.ts';
export { filmClip } from './film.ts';
export { looksAt } from './joints.ts';
export { makeSpeech, speechKinds, type SpeechKind } from './speech.ts';
