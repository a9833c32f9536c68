import { IntlMessageFormat } from 'intl-messageformat';
import type source from './en.json';
import en from './en.json';

/** Names of the texts of the student's page. */
export type Word = keyof typeof source;
/** Texts by name; those that take values come parsed from the build. */
type Catalogue = Record<Word, unknown>;

const others = {
  ar: () => import('./ar.json'),
  de: () => import('./de.json'),
  es: () => import('./es.json'),
  fr: () => import('./fr.json'),
  it: () => import('./it.json'),
  nl: () => import('./nl.json'),
  pl: () => import('./pl.json'),
  pt: () => import('./pt.json'),
  tr: () => import('./tr.json'),
} as const satisfies Record<string, () => Promise<{ default: Catalogue }>>;

let spoken = 'en';
let wanted = spoken;
let texts: Catalogue = en;
let formats = new Map<Word, IntlMessageFormat>();
const listeners = new Set<() => void>();

/** The language the page's own words are in now. */
export const spokenLanguage = (): string => spoken;
export const onLanguage = (run: () => void): (() => void) => {
  listeners.add(run);
  return () => listeners.delete(run);
};

/** Has the document say what language its words are in, and which way they run. */
export function tellDocument(): void {
  const tell = () =>
    Object.assign(document.documentElement, { lang: spoken, dir: spoken === 'ar' ? 'rtl' : 'ltr' });
  tell();
  onLanguage(tell);
}

/**
 * The language the page can speak that fits a tag best: `de-AT` as `de`; English where it knows
 * none.
 */
export function languageFor(tags: readonly string[]): string {
  const known = tags
    .map((tag) => tag.split('-')[0]?.toLowerCase() ?? '')
    .find((base) => base === 'en' || base in others);
  return known ?? 'en';
}

/**
 * Has the page speak a language. Where its texts cannot be had, it goes on in the one it speaks.
 */
export async function speak(language: string): Promise<void> {
  wanted = language;
  if (language === spoken) return;
  const load = (others as Readonly<Record<string, () => Promise<{ default: Catalogue }>>>)[
    language
  ];
  const loaded = load
    ? await load().then(
        (loaded) => loaded.default,
        () => null,
      )
    : en;
  // Whoever asked later is heard, whosever texts come first.
  if (loaded === null || wanted !== language) return;
  [spoken, texts, formats] = [load ? language : 'en', loaded, new Map()];
  for (const run of listeners) run();
}

/** A text of the page in the language it speaks, its values put in. */
export function say(word: Word, values: Readonly<Record<string, string | number>> = {}): string {
  const text = texts[word];
  if (typeof text === 'string') return text;
  const format =
    formats.get(word) ??
    new IntlMessageFormat(text as ConstructorParameters<typeof IntlMessageFormat>[0], spoken);
  formats.set(word, format);
  return String(format.format(values));
}

/** The text of that name, or other words where there is none. */
export const sayOr = (
  name: string,
  others: string,
  values?: Readonly<Record<string, string | number>>,
): string => (name in en ? say(name as Word, values) : others);
