import { lessonWord } from '../words/index.ts';
import type { Kit } from './parts.ts';

type Share = Kit['share'];

/** How many of a thing are needed, by whom it is for. */
export interface KitNeed {
  share: Share;
  quantity: number;
}

const SHARES: readonly Share[] = ['each', 'pair', 'group'];
/**
 * Endings of a plural and what stands there in the singular, by language; the usual ones, so that a
 * thing is known in either number (from memory of the grammars). A language that is not here knows
 * a word only as it is written.
 */
const PLURALS: Readonly<Record<string, readonly (readonly [string, string])[]>> = {
  en: [
    ['s', ''],
    ['es', ''],
    ['ies', 'y'],
    ['ves', 'f'],
    ['ves', 'fe'],
  ],
  de: [
    ['e', ''],
    ['en', ''],
    ['n', ''],
    ['er', ''],
    ['s', ''],
    ['nen', ''],
  ],
  es: [
    ['s', ''],
    ['es', ''],
    ['ces', 'z'],
    ['ones', 'ón'],
    ['anes', 'án'],
    ['ines', 'ín'],
  ],
  fr: [
    ['s', ''],
    ['x', ''],
    ['aux', 'al'],
  ],
  it: [
    ['i', 'o'],
    ['e', 'a'],
    ['i', 'e'],
    ['chi', 'co'],
    ['che', 'ca'],
    ['ghi', 'go'],
    ['ghe', 'ga'],
  ],
  nl: [
    ['en', ''],
    ['s', ''],
    ["'s", ''],
  ],
  pl: [
    ['y', ''],
    ['y', 'a'],
    ['i', ''],
    ['i', 'a'],
    ['ki', 'ek'],
    ['e', ''],
    ['e', 'a'],
  ],
  pt: [
    ['s', ''],
    ['es', ''],
    ['ões', 'ão'],
    ['ns', 'm'],
    ['is', 'l'],
  ],
  tr: [
    ['lar', ''],
    ['ler', ''],
  ],
};

/** Languages whose plural may change the vowel: Ball, Bälle. */
const UMLAUTS: readonly (readonly [string, string])[] = [
  ['ä', 'a'],
  ['ö', 'o'],
  ['ü', 'u'],
];

/** Dutch writes a doubled consonant before the ending: bal, ballen. */
const undoubled = (stem: string) => (/([bcdfgklmnprst])\1$/.test(stem) ? stem.slice(0, -1) : stem);

/** A word and what it may be the plural of. */
function singulars(word: string, language: string): string[] {
  const base = language.split('-')[0] ?? language;
  const stems = (PLURALS[base] ?? []).flatMap(([plural, singular]) =>
    word.length > plural.length + 1 && word.endsWith(plural)
      ? [word.slice(0, -plural.length) + singular]
      : [],
  );
  const wider =
    base === 'nl'
      ? stems.map(undoubled)
      : base === 'de'
        ? stems.map((stem) => UMLAUTS.reduce((text, [from, to]) => text.replace(from, to), stem))
        : [];
  return [word, ...stems, ...wider];
}

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}'’]+/u)
    .filter((word) => word !== '');

/** What a thing is called without what is said about it: "Rope, 2 m long" is a rope. */
const headOf = (name: string) => name.split(/[,;:(/]/)[0] ?? name;

function isSameWord(a: string, b: string, language: string): boolean {
  const known = new Set(singulars(a, language));
  return singulars(b, language).some((word) => known.has(word));
}

/**
 * Whether a text names the thing, in one or several, in whole words of the language: "balloon"
 * names no ball.
 */
export function namesThing(text: string, thing: string, language: string): boolean {
  const wanted = wordsOf(headOf(thing));
  const words = wordsOf(text);
  if (wanted.length === 0) return false;
  return words.some((_word, at) =>
    wanted.every((word, i) => isSameWord(words[at + i] ?? '', word, language)),
  );
}

/** The name under which a thing is one and the same, in one or several. */
export const isSameThing = (a: string, b: string, language: string): boolean => {
  const [one, other] = [wordsOf(a), wordsOf(b)];
  return (
    one.length === other.length &&
    one.every((word, i) => isSameWord(word, other[i] ?? '', language))
  );
};

/**
 * What several lists ask for of one thing: of each share the most needed at one time; for each
 * first, then pairs and the group.
 */
export function kitNeeds(items: readonly KitNeed[]): KitNeed[] {
  return SHARES.flatMap((share) => {
    const quantities = items.filter((item) => item.share === share).map(({ quantity }) => quantity);
    return quantities.length > 0 ? [{ share, quantity: Math.max(...quantities) }] : [];
  });
}

/** How many, in words of a language: "2 each, and 1 for the group". */
export const needsText = (needs: readonly KitNeed[], language: string): string =>
  needs
    .map(({ share, quantity }) => lessonWord(language, `kit.${share}`, { n: quantity }))
    .reduce((some, more) => lessonWord(language, 'kit.and', { some, more }));

/**
 * A thing with how many of it are needed, in words of a language: "2 × Bottle", "Ball: 2 each, and
 * 1 for the group". One for each is the thing alone.
 */
export function neededText(name: string, needs: readonly KitNeed[], language: string): string {
  const [only] = needs;
  if (needs.length === 1 && only?.share === 'each')
    return only.quantity > 1 ? `${only.quantity} × ${name}` : name;
  return needs.length === 0 ? name : `${name}: ${needsText(needs, language)}`;
}

/** A thing and what does instead: "Bottle (or a shoe)". */
export const insteadText = (name: string, standIns: readonly string[], language: string): string =>
  standIns
    .filter((instead) => instead !== '')
    .reduce((text, instead) => lessonWord(language, 'kit.or', { name: text, instead }), name);

/** A thing of the kit as it is written everywhere: "4 × Bottle (or shoes)". */
export const kitText = (
  { name, quantity, share, standIn }: Pick<Kit, 'name' | 'quantity' | 'share' | 'standIn'>,
  language: string,
): string => insteadText(neededText(name, [{ share, quantity }], language), [standIn], language);
