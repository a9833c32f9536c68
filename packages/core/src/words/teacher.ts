import { lengthText } from '../time/index.ts';
import { sayFrom } from './catalogue.ts';
import en from './teacher/en.json' with { type: 'json' };

/** A text of the program for teachers. */
export type TeacherWord = keyof typeof en;
export const isTeacherWord = (word: string): word is TeacherWord => word in en;

/** Values of a text: those whose name ends in `Ms` are lengths in milliseconds. */
export type Figures = Readonly<Record<string, string | number>>;

const say = sayFrom<TeacherWord>(en, {});
const shown = ([name, value]: [string, string | number]) => [
  name,
  name.endsWith('Ms') && typeof value === 'number' ? lengthText(value) : value,
];

/** A text of the program for teachers, its figures put in; lengths as they are written. */
export const teacherText = (word: TeacherWord, figures: Figures = {}): string =>
  say('en', word, Object.fromEntries(Object.entries(figures).map(shown)) as Figures).trim();
