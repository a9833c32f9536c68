import type { Edit, EditOf } from '../lesson/index.ts';
import { lengthText, type TimeSpan } from '../time/index.ts';

/** A change by hand that has no place in the cut any more, and why. */
export interface DroppedEdit {
  blockId: string;
  edit: Edit;
  why: string;
}

/** What stands between two moments of a block. */
export type Extra = EditOf<'again'> | EditOf<'freeze'> | EditOf<'card'> | EditOf<'picture'>;

/**
 * A stretch of a block's video: its own time from `fromMs` to `toMs`, or something put in. `atMs`
 * counts from the block's start in the video.
 */
export type Run =
  | { kind: 'own'; atMs: number; fromMs: number; toMs: number }
  | { kind: 'extra'; atMs: number; lengthMs: number; edit: Extra };

/** A block's own time (as planned and filmed) laid out as its time in the video. */
export interface Reel {
  runs: Run[];
  lengthMs: number;
}

/** Where something put in comes: something shown again comes when it is over. */
const momentOf = (edit: Extra) => (edit.kind === 'again' ? edit.toMs : edit.atMs);

function extraLengthMs(edit: Extra): number {
  return edit.kind === 'again' ? edit.times * againOnceMs(edit) : edit.lengthMs;
}

/** How long one showing lasts at its speed. */
export function againOnceMs({ fromMs, toMs, speed }: EditOf<'again'>): number {
  return Math.round(((toMs - fromMs) * 100) / speed);
}

/** Stretches sorted and joined where they touch, within 0 and `endMs`. */
function joined(
  stretches: readonly { fromMs: number; toMs: number }[],
  endMs: number,
): { fromMs: number; toMs: number }[] {
  const found: { fromMs: number; toMs: number }[] = [];
  for (const { fromMs, toMs } of [...stretches].sort((a, b) => a.fromMs - b.fromMs)) {
    const last = found.at(-1);
    if (last && fromMs <= last.toMs) last.toMs = Math.max(last.toMs, Math.min(toMs, endMs));
    else found.push({ fromMs, toMs: Math.min(toMs, endMs) });
  }
  return found;
}

/** Why a change cannot be made on a block that lasts `bodyMs`; null when it can. */
export function whyNot(edit: Edit, bodyMs: number): string | null {
  const fromMs = 'fromMs' in edit ? edit.fromMs : 'atMs' in edit ? edit.atMs : 0;
  if ('fromMs' in edit && edit.toMs <= edit.fromMs)
    return 'Its end does not come after its beginning.';
  if (fromMs > bodyMs || ('fromMs' in edit && fromMs === bodyMs))
    return `It lies at ${lengthText(fromMs)}, and the block lasts only ${lengthText(bodyMs)} now.`;
  return null;
}

/**
 * The block's own time without what is left out, with what is put in. Edits that `whyNot` refuses
 * must not be among them.
 */
export function reelOf(bodyMs: number, edits: readonly Edit[]): Reel {
  const gaps = joined(
    edits.filter((edit) => edit.kind === 'leave-out'),
    bodyMs,
  );
  const extras = edits
    .filter(
      (edit): edit is Extra =>
        edit.kind === 'again' ||
        edit.kind === 'freeze' ||
        edit.kind === 'card' ||
        edit.kind === 'picture',
    )
    .sort((a, b) => momentOf(a) - momentOf(b));
  const runs: Run[] = [];
  let [ownMs, atMs] = [0, 0];
  const playTo = (toMs: number) => {
    while (ownMs < toMs) {
      const gap = gaps.find((own) => own.toMs > ownMs);
      if (gap && gap.fromMs <= ownMs) {
        ownMs = gap.toMs;
        continue;
      }
      const untilMs = Math.min(toMs, gap?.fromMs ?? toMs);
      runs.push({ kind: 'own', atMs, fromMs: ownMs, toMs: untilMs });
      atMs += untilMs - ownMs;
      ownMs = untilMs;
    }
  };
  for (const edit of extras) {
    playTo(Math.min(momentOf(edit), bodyMs));
    const lengthMs = extraLengthMs(edit);
    runs.push({ kind: 'extra', atMs, lengthMs, edit });
    atMs += lengthMs;
  }
  playTo(bodyMs);
  return { runs, lengthMs: atMs };
}

/**
 * What lies over a span of the block's own time, as stretches of the block's video.
 * @returns each with what of the span had passed at its start
 */
export function inVideo({ runs }: Reel, span: TimeSpan): (TimeSpan & { goneMs: number })[] {
  return runs.flatMap((run) => {
    if (run.kind !== 'own') return [];
    const fromMs = Math.max(run.fromMs, span.startMs);
    const toMs = Math.min(run.toMs, span.endMs);
    if (toMs <= fromMs) return [];
    const startMs = run.atMs + fromMs - run.fromMs;
    return [{ startMs, endMs: startMs + toMs - fromMs, goneMs: fromMs - span.startMs }];
  });
}

/**
 * The block's own moment that is on screen at `ms` of the block's video; in something put in, the
 * moment it stands at.
 */
export function ownMoment({ runs }: Reel, ms: number): number {
  let ownMs = 0;
  for (const run of runs) {
    if (ms < run.atMs) break;
    if (run.kind === 'own') ownMs = Math.min(run.toMs, run.fromMs + ms - run.atMs);
  }
  return ownMs;
}
