import type { JSONContent } from '@tiptap/core';
import type { Cue } from '@zest/core/lesson';
import { piecesOf, scriptOf, type ScriptPiece } from '@zest/core/script';

type Tag = Pick<Cue, 'id' | 'text' | 'anchor'>;

const WORD = /[\p{L}\p{N}\p{M}]/u;
/** Joins two letters to one word: don't, side-on. */
const JOINER = /['’-]/;

/** Whether the place before the letter `at` lies within a word. */
function isInWord(text: string, at: number): boolean {
  const [before = '', after = ''] = [text[at - 1], text[at]];
  if (WORD.test(before) && WORD.test(after)) return true;
  return (
    (JOINER.test(before) && WORD.test(text[at - 2] ?? '') && WORD.test(after)) ||
    (JOINER.test(after) && WORD.test(before) && WORD.test(text[at + 1] ?? ''))
  );
}

/** The border of a word nearest to a place in a text; before the word where both are as near. */
export function wordBorder(
  text: string,
  at: number,
  way: 'nearest' | 'before' | 'after' = 'nearest',
): number {
  let before = at;
  let after = at;
  while (isInWord(text, before)) before -= 1;
  while (isInWord(text, after)) after += 1;
  if (way === 'before') return before;
  return way === 'after' || after - at < at - before ? after : before;
}

/** Pasted HTML with each row of a table as a line of its own, its cells apart. */
export function tablesAsLines(html: string): string {
  if (!/<table/i.test(html)) return html;
  const page = new DOMParser().parseFromString(html, 'text/html');
  for (const table of page.querySelectorAll('table')) {
    const lines = [...table.querySelectorAll('tr')].map((row) => {
      const line = page.createElement('p');
      line.textContent = [...row.querySelectorAll('td, th')]
        .map((cell) => (cell.textContent ?? '').replace(/\s+/g, ' ').trim())
        .filter((text) => text !== '')
        .join(', ');
      return line;
    });
    table.replaceWith(...lines);
  }
  return page.body.innerHTML;
}

/** The editor's node of a cue. */
export const tagNode = (cueId: string, label: string): JSONContent => ({
  type: 'cueTag',
  attrs: { cueId, label },
});

/**
 * A script with its cues as the editor's document: a paragraph a line, a tag where a cue is spoken.
 */
export function toDocument(script: string, cues: readonly Tag[]): JSONContent {
  const labels = new Map(cues.map(({ id, text }) => [id, text]));
  const lines: JSONContent[][] = [[]];
  for (const piece of piecesOf(script, cues)) {
    if (piece.kind === 'cue') {
      lines.at(-1)?.push(tagNode(piece.cueId, labels.get(piece.cueId) ?? ''));
      continue;
    }
    piece.text.split('\n').forEach((text, i) => {
      if (i > 0) lines.push([]);
      if (text !== '') lines.at(-1)?.push({ type: 'text', text });
    });
  }
  return { type: 'doc', content: lines.map((content) => ({ type: 'paragraph', content })) };
}

/** The script and the place of every tag in an editor's document. */
export function fromDocument(document: JSONContent): ReturnType<typeof scriptOf> {
  const pieces = (document.content ?? []).flatMap(({ content = [] }, i): ScriptPiece[] => [
    ...(i > 0 ? [{ kind: 'text' as const, text: '\n' }] : []),
    ...content.flatMap((node): ScriptPiece[] => {
      if (node.type === 'cueTag') return [{ kind: 'cue', cueId: String(node.attrs?.['cueId']) }];
      return node.text ? [{ kind: 'text', text: node.text }] : [];
    }),
  ]);
  return scriptOf(pieces);
}
