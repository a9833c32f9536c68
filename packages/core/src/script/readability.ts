import { fleschKincaid } from 'flesch-kincaid';
import { syllable } from 'syllable';
import { countWords } from '../schedule/index.ts';
import { sentencesOf } from './sentences.ts';

/** US school grades begin at about this age. */
const AGE_OF_GRADE_0 = 5;
/** Fewer words than this make no sentence whose difficulty could be told. */
const LEAST_WORDS = 4;

/**
 * The age that usually reads a text with ease, by the Flesch-Kincaid grade (Kincaid et al. 1975,
 * Naval Technical Training Command Research Branch Report 8-75) and five years; English only. Null
 * when too short to tell.
 */
export function readingAge(text: string): number | null {
  const word = countWords(text);
  const sentence = sentencesOf(text).length;
  if (word < LEAST_WORDS || sentence === 0) return null;
  return Math.max(
    AGE_OF_GRADE_0,
    Math.round(fleschKincaid({ sentence, word, syllable: syllable(text) }) + AGE_OF_GRADE_0),
  );
}
