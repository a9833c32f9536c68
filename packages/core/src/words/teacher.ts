import { lengthText } from '../time/index.ts';
import { sayFrom, type Texts } from './catalogue.ts';
import en from './teacher/en.json' with { type: 'json' };

/** A text of the program for teachers. */
export type TeacherWord = keyof typeof en;
export const isTeacherWord = (word: string): word is TeacherWord => word in en;

/** Languages the program speaks to teachers in, each by its own name. */
export const teacherLanguages = { en: 'English', de: 'Deutsch', es: 'Español' } as const;
export type TeacherLanguage = keyof typeof teacherLanguages;
export const isTeacherLanguage = (tag: string): tag is TeacherLanguage => tag in teacherLanguages;

/** Where a page keeps its teacher's language for the server. */
export const LANGUAGE_COOKIE = 'zest.language';

const catalogues = {
  de: () => import('./teacher/de.json', { with: { type: 'json' } }),
  es: () => import('./teacher/es.json', { with: { type: 'json' } }),
} as const satisfies Record<Exclude<TeacherLanguage, 'en'>, unknown>;

let spoken: TeacherLanguage = 'en';
const fetched: Record<string, Texts<TeacherWord>> = {};

async function fetchTexts(language: TeacherLanguage): Promise<void> {
  if (language !== 'en') fetched[language] ??= (await catalogues[language]()).default;
}

/**
 * From here on texts for teachers are in this language. A page says so before anything of it is
 * drawn, and is loaded anew for another one.
 */
export async function speakToTeachers(language: TeacherLanguage): Promise<void> {
  await fetchTexts(language);
  spoken = language;
}

let languageNow = (): TeacherLanguage => spoken;

/**
 * For a program that answers several teachers at once: from here on each text is in the language
 * this finds as it is said.
 */
export async function speakToEach(find: () => TeacherLanguage): Promise<void> {
  await Promise.all(Object.keys(teacherLanguages).filter(isTeacherLanguage).map(fetchTexts));
  languageNow = find;
}

/** The language texts for teachers are in. */
export const teacherLanguage = (): TeacherLanguage => languageNow();

/** The tag by which that language writes dates and lists, BCP 47. */
export const teacherLocale = (): string => (languageNow() === 'en' ? 'en-GB' : languageNow());

/** Values of a text: those whose name ends in `Ms` are lengths in milliseconds. */
export type Figures = Readonly<Record<string, string | number>>;

const say = sayFrom<TeacherWord>(en, fetched);
const shown = ([name, value]: [string, string | number]) => [
  name,
  name.endsWith('Ms') && typeof value === 'number' ? lengthText(value) : value,
];

/** A text of the program for teachers, its figures put in; lengths as they are written. */
export const teacherText = (word: TeacherWord, figures: Figures = {}): string =>
  say(
    languageNow(),
    word,
    Object.fromEntries(Object.entries(figures).map(shown)) as Figures,
  ).trim();

/** A text that is said later, in the language of whoever reads it then; to be stored meanwhile. */
export const textToSay = (word: TeacherWord, figures: Figures = {}): string =>
  JSON.stringify({ say: word, figures });

/** Says a text that was stored to be said later; any other is given as it stands. */
export function sayStored(text: string): string {
  if (!text.startsWith('{"say":')) return text;
  const { say: word, figures } = JSON.parse(text) as { say: string; figures: Figures };
  return isTeacherWord(word) ? teacherText(word, figures) : word;
}

/** What a rule of a document says where it is broken, in the language of whoever reads it. */
export const saying = (word: TeacherWord, figures?: Figures) => ({
  error: () => teacherText(word, figures),
});
