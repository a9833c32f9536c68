/**
 * Words for made-up names: things of a harbour garden, nobody's name, each easy to say and to
 * spell.
 */
const FIRST = [
  'amber',
  'brisk',
  'calm',
  'copper',
  'dusky',
  'early',
  'fern',
  'gentle',
  'golden',
  'hazel',
  'hidden',
  'ivory',
  'jolly',
  'keen',
  'lively',
  'lunar',
  'mellow',
  'misty',
  'nimble',
  'olive',
  'patient',
  'pearly',
  'quiet',
  'rapid',
  'rusty',
  'sandy',
  'silver',
  'steady',
  'sunny',
  'tidal',
  'velvet',
  'windy',
] as const;
const SECOND = [
  'anchor',
  'badger',
  'beacon',
  'bramble',
  'buoy',
  'clover',
  'comet',
  'cricket',
  'dolphin',
  'ember',
  'finch',
  'gull',
  'harbour',
  'heron',
  'juniper',
  'kestrel',
  'lantern',
  'maple',
  'marten',
  'otter',
  'pebble',
  'plover',
  'puffin',
  'quill',
  'rook',
  'sparrow',
  'starling',
  'thistle',
  'tern',
  'wagtail',
  'willow',
  'wren',
] as const;

/** Letters and digits that are not taken for one another, read out or by hand. */
const READ_OUT = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
/** Length of a code that is read out or typed from a card. */
export const SPOKEN_LENGTH = 6;

type Chance = () => number;
const pick = <T>(list: readonly T[], chance: Chance): T | undefined =>
  list[Math.floor(chance() * list.length)];

/** Tries at a name nobody has before a number is put behind it. */
const MOST_TRIES = 40;

/**
 * A made-up name that is not `taken`, such as "silver heron". `chance` gives numbers from 0 to
 * below 1.
 */
export function madeUpName(taken: ReadonlySet<string>, chance: Chance): string {
  const one = () => `${pick(FIRST, chance) ?? ''} ${pick(SECOND, chance) ?? ''}`;
  for (let i = 0; i < MOST_TRIES; i += 1) {
    const name = one();
    if (!taken.has(name)) return name;
  }
  for (let number = 2; ; number += 1) {
    const name = `${one()} ${number}`;
    if (!taken.has(name)) return name;
  }
}

/** A code to be read out, such as "K7MPQ2". Good only together with something else: it is short. */
export function spokenCode(chance: Chance): string {
  return Array.from(
    { length: SPOKEN_LENGTH },
    () => READ_OUT[Math.floor(chance() * READ_OUT.length)] ?? '',
  ).join('');
}

/** A code as somebody typed it: case, blanks and dashes do not matter. */
export function readSpoken(typed: string): string {
  return typed.toUpperCase().replace(/[^A-Z0-9]/g, '');
}

/** In two halves, as it is read out. */
export const sayCode = (code: string): string =>
  `${code.slice(0, SPOKEN_LENGTH / 2)} ${code.slice(SPOKEN_LENGTH / 2)}`;
