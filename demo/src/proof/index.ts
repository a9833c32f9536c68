export { filmClip } from './film.ts';
export { makeSpeech, speechKinds, type SpeechKind } from './speech.ts';
