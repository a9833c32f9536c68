import type { Block, Cue } from '../lesson/index.ts';
import { countWords } from '../schedule/index.ts';
import { sentences, type Sentence } from './sentences.ts';

/** A script as it is written: text, and the cues spoken in it, in order. */
export type ScriptPiece = { kind: 'text'; text: string } | { kind: 'cue'; cueId: string };

/** Splits a script at its cues. An anchor past the end stands at the end. */
export function piecesOf(
  script: string,
  cues: readonly Pick<Cue, 'id' | 'anchor'>[],
): ScriptPiece[] {
  const anchored = cues
    .flatMap(({ id, anchor }) =>
      anchor === null ? [] : [{ id, at: Math.min(anchor, script.length) }],
    )
    .sort((a, b) => a.at - b.at);
  const pieces: ScriptPiece[] = [];
  let from = 0;
  for (const { id, at } of anchored) {
    if (at > from) pieces.push({ kind: 'text', text: script.slice(from, at) });
    pieces.push({ kind: 'cue', cueId: id });
    from = at;
  }
  if (from < script.length) pieces.push({ kind: 'text', text: script.slice(from) });
  return pieces;
}

/** Puts pieces together again: the script, and where each cue stands in it. */
export function scriptOf(pieces: readonly ScriptPiece[]): {
  script: string;
  anchors: Map<string, number>;
} {
  const anchors = new Map<string, number>();
  let script = '';
  for (const piece of pieces) {
    if (piece.kind === 'text') script += piece.text;
    else anchors.set(piece.cueId, script.length);
  }
  return { script, anchors };
}

/**
 * Gives a block's draft another script and keeps its cues with the words they stood before: what is
 * alike at both ends stays, and a cue inside what was replaced goes to where that begins.
 */
export function rewriteScript(draft: Block, script: string): void {
  const old = draft.script;
  const most = Math.min(old.length, script.length);
  let head = 0;
  while (head < most && old[head] === script[head]) head += 1;
  let tail = 0;
  while (tail < most - head && old[old.length - 1 - tail] === script[script.length - 1 - tail])
    tail += 1;
  for (const cue of draft.cues) {
    if (cue.anchor === null || cue.anchor <= head) continue;
    cue.anchor = cue.anchor >= old.length - tail ? cue.anchor + script.length - old.length : head;
  }
  draft.script = script;
}

/** The sentence in which a cue is spoken; null when it is only shown or there is none. */
export function sentenceOfCue(script: string, cue: Pick<Cue, 'anchor'>): Sentence | null {
  const { anchor } = cue;
  if (anchor === null) return null;
  const all = sentences(script);
  return all.find(({ to }) => anchor <= to) ?? all.at(-1) ?? null;
}

/**
 * The part of the script's words spoken before the cue's sentence, 0 to 1; null when it is not
 * spoken.
 */
export function spokenShare(script: string, cue: Pick<Cue, 'anchor'>): number | null {
  const sentence = sentenceOfCue(script, cue);
  const words = countWords(script);
  return sentence === null || words === 0
    ? null
    : countWords(script.slice(0, sentence.from)) / words;
}
