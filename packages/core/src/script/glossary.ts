import { syllable } from 'syllable';
import type { Term } from '../lesson/index.ts';

/** A run of text, and the term it is, if any. */
export interface TermPiece {
  text: string;
  term: Term | null;
}

const escaped = (text: string) => text.replace(/[.*+?^${}()|[\]\\]/g, '\\$&');

/**
 * Cuts a text where a term of the glossary stands in it as a word of its own; the longest term
 * wins. Together the pieces are the text.
 */
export function termPieces(text: string, glossary: readonly Term[]): TermPiece[] {
  const byWord = new Map(
    glossary.flatMap((term) => (term.term.trim() ? [[term.term.trim().toLowerCase(), term]] : [])),
  );
  if (byWord.size === 0 || text === '') return text === '' ? [] : [{ text, term: null }];
  const words = [...byWord.keys()].sort((a, b) => b.length - a.length).map(escaped);
  const found = new RegExp(`(?<![\\p{L}\\p{N}])(?:${words.join('|')})(?![\\p{L}\\p{N}])`, 'giu');
  const pieces: TermPiece[] = [];
  let end = 0;
  for (const match of text.matchAll(found)) {
    if (match.index > end) pieces.push({ text: text.slice(end, match.index), term: null });
    pieces.push({ text: match[0], term: byWord.get(match[0].toLowerCase()) ?? null });
    end = match.index + match[0].length;
  }
  if (end < text.length) pieces.push({ text: text.slice(end), term: null });
  return pieces;
}

/**
 * A word of so many syllables is usually hard for children (the polysyllable of readability
 * formulas has three; from memory).
 */
const HARD_SYLLABLES = 4;

/**
 * Words of a text that children may not know and the glossary does not explain, each once. English
 * only.
 */
export function unexplainedWords(text: string, glossary: readonly Term[]): string[] {
  const plain = termPieces(text, glossary).filter(({ term }) => term === null);
  const words = plain.flatMap((piece) => piece.text.match(/\p{L}[\p{L}'’-]*/gu) ?? []);
  return [...new Set(words.map((word) => word.toLowerCase()))].filter(
    (word) => syllable(word) >= HARD_SYLLABLES,
  );
}
