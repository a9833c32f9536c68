import { otherSide, type Side } from '../lesson/index.ts';

/** Parts of the body on the side of the throwing hand, or on the other one. */
const HAND_PARTS = ['hand', 'arm', 'shoulder', 'wrist', 'elbow', 'fist'] as const;
/**
 * Parts whose side depends on the move: the same foot leads in one throw and follows in another.
 */
const FOOT_PARTS = ['foot', 'leg', 'knee', 'hip', 'heel', 'ankle', 'side'] as const;

/**
 * Wordings that hold for either hand. Written so, a cue needs no turning round; the reading says
 * which side is meant for a right- or left-handed student.
 */
const NEUTRAL: readonly { phrase: string; side: 'own' | 'other' }[] = [
  ...HAND_PARTS.map((part) => ({ phrase: `throwing ${part}`, side: 'own' as const })),
  ...[...HAND_PARTS, ...FOOT_PARTS].map((part) => ({
    phrase: `other ${part}`,
    side: 'other' as const,
  })),
  { phrase: 'throwing side', side: 'own' },
  { phrase: 'strong hand', side: 'own' },
];

export interface ReadPiece {
  text: string;
  /** The side meant by a neutral wording; null for everything else. */
  side: Side | null;
}

const neutral = new RegExp(`\\b(${NEUTRAL.map(({ phrase }) => phrase).join('|')})\\b`, 'giu');

/**
 * A text read for a student of that hand: neutral wordings with the side they mean for them.
 * Nothing else is touched.
 */
export function readForHand(text: string, hand: Side): ReadPiece[] {
  const pieces: ReadPiece[] = [];
  let from = 0;
  for (const match of text.matchAll(neutral)) {
    if (match.index > from) pieces.push({ text: text.slice(from, match.index), side: null });
    const rule = NEUTRAL.find(({ phrase }) => phrase === match[0].toLowerCase());
    pieces.push({ text: match[0], side: rule?.side === 'own' ? hand : otherSide(hand) });
    from = match.index + match[0].length;
  }
  if (from < text.length) pieces.push({ text: text.slice(from), side: null });
  return pieces;
}

/** A fixed side of the body in a text, which is wrong for students of the other hand. */
export interface FixedSide {
  at: number;
  words: string;
  /** A wording for either hand, or null when only the teacher can tell what is meant. */
  instead: string | null;
}

const fixed = new RegExp(
  `\\b(left|right)\\s+(${[...HAND_PARTS, ...FOOT_PARTS].join('|')})\\b`,
  'giu',
);

/**
 * Finds sides of the body fixed in a text. Only a hand's side has a sure neutral wording; a foot
 * may lead or follow, so there the teacher is shown both.
 */
export function fixedSides(text: string, throwingHand: Side = 'right'): FixedSide[] {
  return [...text.matchAll(fixed)].map((match) => {
    const side = (match[1] ?? '').toLowerCase() as Side;
    const part = (match[2] ?? '').toLowerCase();
    const isHand = (HAND_PARTS as readonly string[]).includes(part);
    const instead = !isHand ? null : side === throwingHand ? `throwing ${part}` : `other ${part}`;
    return { at: match.index, words: match[0], instead };
  });
}
