import { countWords } from '../schedule/index.ts';
import { sentencesOf } from '../script/index.ts';
import { spanLength, type TimeSpan } from '../time/index.ts';
import type { Caption } from './types.ts';

/** Characters in a caption line; two lines a caption (common practice for 16:9). */
const LINE_CHARS = 42;
const MAX_LINES = 2;

/** Breaks a sentence into lines of at most `LINE_CHARS`; a longer word is cut. */
function linesOf(sentence: string): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of sentence.split(/\s+/)) {
    for (let rest = word; rest.length > 0;) {
      const joined = line ? `${line} ${rest}` : rest;
      if (joined.length <= LINE_CHARS) {
        line = joined;
        break;
      }
      if (line) {
        lines.push(line);
        line = '';
      } else {
        lines.push(rest.slice(0, LINE_CHARS));
        rest = rest.slice(LINE_CHARS);
      }
    }
  }
  if (line) lines.push(line);
  return lines;
}

/**
 * Speaking weight of a piece of text: its words, or one for text without any, so that nothing gets
 * no time.
 */
function weight(text: string): number {
  return Math.max(1, countWords(text));
}

/**
 * Captions of a script over `span`, each as long as its share of the words. Never past the span's
 * end; the pieces tile the span exactly. Empty for an empty script or span.
 */
export function captionsFor(script: string, span: TimeSpan): Caption[] {
  const pieces: string[][] = [];
  for (const sentence of sentencesOf(script)) {
    const lines = linesOf(sentence);
    for (let i = 0; i < lines.length; i += MAX_LINES) pieces.push(lines.slice(i, i + MAX_LINES));
  }
  const weights = pieces.map((lines) => weight(lines.join(' ')));
  const total = weights.reduce((sum, w) => sum + w, 0);
  const length = spanLength(span);
  let said = 0;
  return pieces.flatMap((lines, i) => {
    const startMs = span.startMs + Math.floor((length * said) / total);
    said += weights[i] ?? 0;
    const endMs = span.startMs + Math.floor((length * said) / total);
    return endMs > startMs ? [{ startMs, endMs, lines }] : [];
  });
}

/**
 * A caption stays so long after its words when nothing else is said, so that it can be read to its
 * end.
 */
const LINGER_MS = 700;

/**
 * Captions of sentences each of which has its time; pieces of a long one share it by their words.
 */
export function captionsOfSaid(
  said: readonly (TimeSpan & { text: string })[],
  endMs: number,
): Caption[] {
  return said.flatMap(({ text, ...span }, i) => {
    const captions = captionsFor(text, span);
    const last = captions.at(-1);
    if (last)
      last.endMs = Math.max(
        last.endMs,
        Math.min(last.endMs + LINGER_MS, said[i + 1]?.startMs ?? endMs),
      );
    return captions;
  });
}
