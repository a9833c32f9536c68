import type { Edit, EditKind, EditOf } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import type { OverlaySlot } from '../../ui/slot-name.ts';
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
  /** What was chosen on screen. */
  slot: OverlaySlot;
}

/** A change that can be begun, and its key; empty for none. */
export type ChangeAction = readonly [kind: EditKind, key: string];

/** What can be done with a stretch. */
export const stretchActions: readonly ChangeAction[] = [
  ['leave-out', 'Delete'],
  ['again', 's'],
  ['closer', 'c'],
  ['blur', 'b'],
  ['note', 'x'],
  ['cue', 'w'],
  ['point', 'a'],
  ['mirror', 'm'],
  ['turn', 'u'],
  ['beside', 'd'],
  ['instead', 'o'],
];

/** What can be done with something on screen. */
export const overlayActions: readonly ChangeAction[] = [
  ['hide', 'h'],
  ['shift', 'e'],
  ['place', 'p'],
];

/** What can be done at the frame shown. */
export const momentActions: readonly ChangeAction[] = [
  ['freeze', 'k'],
  ['card', 'n'],
];

/** What can be done with the whole block. */
export const blockActions: readonly ChangeAction[] = [
  ['taps', 'r'],
  ['place', 'p'],
  ['fade', 'i'],
];

/** Kinds that show footage otherwise. */
export const needsFootage: ReadonlySet<EditKind> = new Set([
  'closer',
  'blur',
  'mirror',
  'turn',
  'beside',
  'point',
]);
/** Kinds with nothing more to say: the stage plays them at once. */
export const playedAtOnce: ReadonlySet<EditKind> = new Set([
  'leave-out',
  'again',
  'mirror',
  'turn',
  'beside',
  'hide',
  'shift',
  'fade',
]);
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
  place: ({ id, slot }) => ({ id, kind: 'place', slot, x: 620, y: 390 }),
};
type MomentKind = 'freeze' | 'card' | 'picture' | 'taps' | 'fade' | 'place';
const isOfMoment = (kind: EditKind): kind is MomentKind => kind in momentEdits;

type StretchKind = Exclude<EditKind, MomentKind | 'said'>;
/** What is usual for a change of a stretch. */
const stretchEdits: {
  [K in StretchKind]: (
    otherTakeId: string,
    slot: OverlaySlot,
  ) => Omit<EditOf<K>, 'id' | 'kind' | 'fromMs' | 'toMs'>;
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
  hide: (_takeId, slot) => ({ slot }),
  shift: (_takeId, slot) => ({ slot, byMs: 500 }),
};

/** A change of a kind with what is usual; null when it needs a stretch and there is none. */
export function newEdit(kind: EditKind, at: NewEditAt): Edit | null {
  if (isOfMoment(kind)) return momentEdits[kind](at);
  const { id, stretch, otherTakeId, slot } = at;
  // Where a sentence is said is set by dragging it.
  if (kind === 'said' || !stretch || stretch.toMs <= stretch.fromMs) return null;
  const { fromMs, toMs } = stretch;
  return { id, kind, fromMs, toMs, ...stretchEdits[kind](otherTakeId, slot) } as Edit;
}

/** What still has to be said before a change can be made; null when nothing. */
export function missingIn(edit: Edit): string | null {
  if ('fromMs' in edit && edit.toMs <= edit.fromMs) return teacherText('missing.end');
  if ((edit.kind === 'note' || edit.kind === 'cue') && edit.text.trim() === '')
    return teacherText('missing.text');
  if (edit.kind === 'card' && edit.heading.trim() === '' && edit.lines.length === 0 && !edit.court)
    return teacherText('missing.card');
  if (edit.kind === 'blur' && (edit.width === 0 || edit.height === 0))
    return teacherText('missing.blur');
  if (edit.kind === 'instead' && !edit.picture && !edit.sound)
    return teacherText('missing.instead');
  if (edit.kind === 'shift' && edit.byMs === 0) return teacherText('missing.shift');
  return null;
}
