import { toCardinal as ar } from 'n2words/ar-SA';
import { toCardinal as de } from 'n2words/de-DE';
import { toCardinal as en } from 'n2words/en-GB';
import { toCardinal as es } from 'n2words/es-ES';
import { toCardinal as fr } from 'n2words/fr-FR';
import { toCardinal as it } from 'n2words/it-IT';
import { toCardinal as nl } from 'n2words/nl-NL';
import { toCardinal as pl } from 'n2words/pl-PL';
import { toCardinal as pt } from 'n2words/pt-PT';
import { toCardinal as tr } from 'n2words/tr-TR';
import type { CountLanguage, Lesson } from '../lesson/index.ts';

const wordsOf: Record<CountLanguage, (n: number) => string> = {
  ar,
  en,
  de,
  es,
  fr,
  it,
  nl,
  pl,
  pt,
  tr,
};

type Counts = Lesson['settings']['counts'];

/** How a count is called out: the teacher's own word for it, or the language's. */
export function calledNumber(n: number, { language, own: numbers }: Counts): string {
  return numbers[n - 1] || wordsOf[language](n);
}

/** A count from 1 to `most` as it is called, or down from it. */
export function calledCount(most: number, direction: 'up' | 'down', counts: Counts): string[] {
  const up = Array.from({ length: most }, (_, i) => calledNumber(i + 1, counts));
  return direction === 'up' ? up : up.reverse();
}
