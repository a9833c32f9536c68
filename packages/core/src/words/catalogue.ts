import { IntlMessageFormat } from 'intl-messageformat';

/** Values put into a text, by name. */
export type Values = Readonly<Record<string, string | number>>;
/** Texts in ICU MessageFormat by name; the pages get those that take values parsed by the build. */
export type Texts<Key extends string> = Readonly<Record<Key, unknown>>;
/** A text of a catalogue in a language, its values put in. */
export type SayIn<Key extends string> = (language: string, key: Key, values?: Values) => string;

const baseOf = (language: string) => language.split('-')[0]?.toLowerCase() ?? '';

/**
 * Says the texts of a catalogue: `de-AT` as `de`; in English where the catalogue does not know the
 * language.
 */
export function sayFrom<Key extends string>(
  english: Texts<Key>,
  others: Readonly<Record<string, Texts<Key>>>,
): SayIn<Key> {
  const formats = new Map<string, IntlMessageFormat>();
  return (language, key, values) => {
    const base = baseOf(language);
    const texts = others[base];
    const text = (texts ?? english)[key];
    if (typeof text === 'string' && !text.includes('{')) return text;
    const known = texts ? base : 'en';
    const name = `${known} ${key}`;
    let format = formats.get(name);
    if (!format) {
      format = new IntlMessageFormat(
        text as ConstructorParameters<typeof IntlMessageFormat>[0],
        known,
      );
      formats.set(name, format);
    }
    return String(format.format(values));
  };
}
