import type { JSONContent } from '@tiptap/core';
import type { Cue } from '@zest/core/lesson';
import { piecesOf, scriptOf, type ScriptPiece } from '@zest/core/script';

type Tag = Pick<Cue, 'id' | 'text' | 'anchor'>;

/** The editor's node of a cue. */
export const tagNode = (cueId: string, label: string): JSONContent => ({ type: 'cueTag', attrs: { cueId, label } });

/** A script with its cues as the editor's document: a paragraph a line, a tag where a cue is spoken. */
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
