export { filmClip } from './film.ts';
export {
  makeSpeech,
  scriptFromElsewhere,
  speechKinds,
  type SpeechKind,
  type SpokenProof,
} from './speech.ts';
