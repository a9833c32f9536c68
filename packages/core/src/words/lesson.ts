import ar from './lesson/ar.json' with { type: 'json' };
import de from './lesson/de.json' with { type: 'json' };
import en from './lesson/en.json' with { type: 'json' };
import es from './lesson/es.json' with { type: 'json' };
import fr from './lesson/fr.json' with { type: 'json' };
import it from './lesson/it.json' with { type: 'json' };
import nl from './lesson/nl.json' with { type: 'json' };
import pl from './lesson/pl.json' with { type: 'json' };
import pt from './lesson/pt.json' with { type: 'json' };
import tr from './lesson/tr.json' with { type: 'json' };
import { sayFrom, type Values } from './catalogue.ts';

/** A word of the program's own that a student sees or hears in a lesson. */
export type LessonWord = keyof typeof en;
const others = { ar, de, es, fr, it, nl, pl, pt, tr };
/** Languages besides English a lesson's own words are known in (from memory). */
export const lessonLanguages = Object.keys(others);

/** What the program says in a lesson itself, in the lesson's language. */
export const lessonWord = sayFrom<LessonWord>(en, others);

/** Says the program's own words in one language. */
export type Say = (word: LessonWord, values?: Values) => string;
export const speaking =
  (language: string): Say =>
  (word, values) =>
    lessonWord(language, word, values);

/** Words of the program's own, with their values, or a text of somebody's that stays as it is. */
export type Label = { own: LessonWord; values?: Values } | { text: string };

/** A label as it is read or said in a language. */
export const labelText = (label: Label, language: string): string =>
  'own' in label ? lessonWord(language, label.own, label.values) : label.text;
