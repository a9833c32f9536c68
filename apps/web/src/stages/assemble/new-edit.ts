import type { Edit, EditKind, EditOf } from '@zest/core/lesson';
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

const middle = { x: 500, y: 500 };

/** Changes of a moment or of the whole block, as they are usual. */
const momentEdits: { [K in MomentKind]: (at: NewEditAt) => EditOf<K> } = {
  freeze: ({ id, atMs }) => ({
    id,
    kind: 'freeze',
    atMs,
    lengthMs: 3_000,
    point: middle,
    text: '',
  }),
  card: ({ id, atMs }) => ({
    id,
    kind: 'card',
    atMs,
    lengthMs: 5_000,
    heading: '',
    lines: [],
    court: false,
  }),
  picture: ({ id, atMs, otherTakeId }) => ({
    id,
    kind: 'picture',
    atMs,
    lengthMs: 5_000,
    takeId: otherTakeId,
  }),
  taps: ({ id }) => ({ id, kind: 'taps', taps: [] }),
  fade: ({ id }) => ({ id, kind: 'fade', lengthMs: 500 }),
  place: ({ id }) => ({ id, kind: 'place', slot: 'cue', x: 620, y: 390 }),
};
type MomentKind = 'freeze' | 'card' | 'picture' | 'taps' | 'fade' | 'place';
const isOfMoment = (kind: EditKind): kind is MomentKind => kind in momentEdits;

type StretchKind = Exclude<EditKind, MomentKind | 'said'>;
/** What is usual for a change of a stretch. */
const stretchEdits: {
  [K in StretchKind]: (otherTakeId: string) => Omit<EditOf<K>, 'id' | 'kind' | 'fromMs' | 'toMs'>;
} = {
  'leave-out': () => ({}),
  mirror: () => ({}),
  again: () => ({ speed: 50, times: 1, sound: 'off' }),
  closer: () => ({ zoom: 200, from: middle, to: middle, path: [] }),
  turn: () => ({ quarters: 1 }),
  beside: (takeId) => ({ takeId, startsAtMs: null, layout: 'halves' }),
  instead: (takeId) => ({ takeId, startsAtMs: null, picture: false, sound: true }),
  blur: () => ({ x: 400, y: 400, width: 200, height: 200 }),
  note: () => ({ text: '' }),
  cue: () => ({ text: '', moment: 'action' }),
  point: () => ({ joint: 'left knee', text: '' }),
  hide: () => ({ slot: 'counter' }),
  shift: () => ({ slot: 'cue', byMs: 500 }),
};

/** A change of a kind with what is usual; null when it needs a stretch and there is none. */
export function newEdit(kind: EditKind, at: NewEditAt): Edit | null {
  if (isOfMoment(kind)) return momentEdits[kind](at);
  const { id, stretch, otherTakeId } = at;
  // Where a sentence is said is set by dragging it.
  if (kind === 'said' || !stretch || stretch.toMs <= stretch.fromMs) return null;
  const { fromMs, toMs } = stretch;
  return { id, kind, fromMs, toMs, ...stretchEdits[kind](otherTakeId) } as Edit;
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
