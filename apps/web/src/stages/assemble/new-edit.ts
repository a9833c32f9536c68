import type { Edit, EditKind } from '@zest/core/lesson';
import type { OwnStretch } from './stretch.ts';

/** What a change is made with before anything is said about it. */
export interface NewEditAt {
  id: string;
  /** The stretch chosen, in the block's own time. */
  stretch: OwnStretch | null;
  /** The block's own moment that is on screen. */
  atMs: number;
  /** A take other than the one shown, or the picture that is put in; empty when there is none. */
  otherTakeId: string;
}

/** Kinds that need a stretch, with the words they are offered by. */
export const stretchActions = [
  ['leave-out', 'Leave out'],
  ['again', 'Show again, slowly'],
  ['closer', 'Move closer'],
  ['blur', 'Blur a part'],
  ['note', 'Put a slip right'],
  ['cue', 'Add a cue'],
  ['point', 'Arrow at a joint'],
  ['hide', 'Hide something'],
  ['shift', 'Earlier or later'],
  ['mirror', 'Mirror'],
  ['turn', 'Turn upright'],
  ['beside', 'Second view'],
  ['instead', 'Use another take'],
] as const satisfies readonly (readonly [EditKind, string])[];

export const momentActions = [
  ['freeze', 'Stand still and point'],
  ['card', 'Put in a card'],
] as const satisfies readonly (readonly [EditKind, string])[];

/** Kinds that are done at once; what they say can be changed afterwards. */
export const atOnce: ReadonlySet<EditKind> = new Set(['leave-out', 'mirror']);
/** Kinds that name a second take. */
export const needsTake: ReadonlySet<EditKind> = new Set(['beside', 'instead']);

/** A change of a kind with what is usual; null when it needs a stretch and there is none. */
export function newEdit(
  kind: EditKind,
  { id, stretch, atMs, otherTakeId }: NewEditAt,
): Edit | null {
  const middle = { x: 500, y: 500 };
  switch (kind) {
    case 'freeze':
      return { id, kind, atMs, lengthMs: 3_000, point: middle, text: '' };
    case 'card':
      return { id, kind, atMs, lengthMs: 5_000, heading: '', lines: [], court: false };
    case 'picture':
      return { id, kind, atMs, lengthMs: 5_000, takeId: otherTakeId };
    case 'taps':
      return { id, kind, taps: [] };
    case 'fade':
      return { id, kind, lengthMs: 500 };
    case 'place':
      return { id, kind, slot: 'cue', x: 620, y: 390 };
    default:
      break;
  }
  if (!stretch || stretch.toMs <= stretch.fromMs) return null;
  const over = { id, fromMs: stretch.fromMs, toMs: stretch.toMs };
  switch (kind) {
    case 'leave-out':
    case 'mirror':
      return { ...over, kind };
    case 'again':
      return { ...over, kind, speed: 50, times: 1, sound: 'off' };
    case 'closer':
      return { ...over, kind, zoom: 200, from: middle, to: middle, path: [] };
    case 'turn':
      return { ...over, kind, quarters: 1 };
    case 'beside':
      return { ...over, kind, takeId: otherTakeId, startsAtMs: null, layout: 'halves' };
    case 'instead':
      return { ...over, kind, takeId: otherTakeId, startsAtMs: null, picture: false, sound: true };
    case 'blur':
      return { ...over, kind, x: 400, y: 400, width: 200, height: 200 };
    case 'note':
      return { ...over, kind, text: '' };
    case 'cue':
      return { ...over, kind, text: '', moment: 'action' };
    case 'point':
      return { ...over, kind, joint: 'left knee', text: '' };
    case 'said':
      return null;
    case 'hide':
      return { ...over, kind, slot: 'counter' };
    case 'shift':
      return { ...over, kind, slot: 'cue', byMs: 500 };
  }
}

/** What still has to be said before a change can be made; null when nothing. */
export function missingIn(edit: Edit): string | null {
  if ('fromMs' in edit && edit.toMs <= edit.fromMs)
    return 'Its end has to come after its beginning.';
  if ((edit.kind === 'note' || edit.kind === 'cue') && edit.text.trim() === '')
    return 'Write what is to be read.';
  if (edit.kind === 'card' && edit.heading.trim() === '' && edit.lines.length === 0 && !edit.court)
    return 'Write a heading or lines, or draw the floor.';
  if (edit.kind === 'blur' && (edit.width === 0 || edit.height === 0))
    return 'Draw the part on the picture.';
  if (edit.kind === 'instead' && !edit.picture && !edit.sound)
    return 'Take its picture, its sound, or both.';
  if (edit.kind === 'shift' && edit.byMs === 0) return 'Say by how much.';
  return null;
}
