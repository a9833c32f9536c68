import type { Edit, EditOf } from '../lesson/index.ts';
import {
  clip,
  merge,
  spanLength,
  type BlockMs,
  type TimeSpan,
  type VideoMs,
} from '../time/index.ts';
import { teacherText } from '../words/index.ts';

/** A change by hand that has no place in the cut any more, and why. */
export interface DroppedEdit {
  blockId: string;
  edit: Edit;
  why: DropReason;
}

/** Why a change by hand cannot be made; `dropText` says it. */
export type DropReason =
  | { kind: 'order' | 'picture-gone' | 'take-gone' | 'take-over' }
  | { kind: 'beyond'; atMs: BlockMs; bodyMs: number };

export const dropText = ({ kind, ...figures }: DropReason): string =>
  teacherText(`dropped.${kind}`, figures);

/** What stands between two moments of a block. */
export type Extra = EditOf<'again'> | EditOf<'freeze'> | EditOf<'card'> | EditOf<'picture'>;

/**
 * A stretch of a block's video: its own time from `fromMs` to `toMs`, or something put in. `atMs`
 * counts from the block's start in the video.
 */
export type Run =
  | { kind: 'own'; atMs: number; fromMs: BlockMs; toMs: BlockMs }
  | { kind: 'extra'; atMs: number; lengthMs: number; edit: Extra };

/** A block's own time (as planned and filmed) laid out in the video; the one place that converts. */
export interface BlockTimeMap {
  /** The block's first moment in the video. */
  startMs: VideoMs;
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

/** Why a change cannot be made on a block that lasts `bodyMs`; null when it can. */
export function whyNot(edit: Edit, bodyMs: number): DropReason | null {
  const fromMs = 'fromMs' in edit ? edit.fromMs : 'atMs' in edit ? edit.atMs : 0;
  if ('fromMs' in edit && edit.toMs <= edit.fromMs) return { kind: 'order' };
  if (fromMs > bodyMs || ('fromMs' in edit && fromMs === bodyMs))
    return { kind: 'beyond', atMs: fromMs, bodyMs };
  return null;
}

/**
 * The block's own time without what is left out, with what is put in. Edits that `whyNot` refuses
 * must not be among them.
 */
export function layOutBlock(
  bodyMs: number,
  edits: readonly Edit[],
  startMs: VideoMs = 0,
): BlockTimeMap {
  const leftOut = merge(
    edits
      .filter((edit) => edit.kind === 'leave-out')
      .map(({ fromMs, toMs }) => ({ startMs: fromMs, endMs: Math.min(toMs, bodyMs) })),
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
  let [blockMs, atMs] = [0, 0];
  const playTo = (toMs: number) => {
    while (blockMs < toMs) {
      const gap = leftOut.find(({ endMs }) => endMs > blockMs);
      if (gap && gap.startMs <= blockMs) {
        blockMs = gap.endMs;
        continue;
      }
      const untilMs = Math.min(toMs, gap?.startMs ?? toMs);
      runs.push({ kind: 'own', atMs, fromMs: blockMs, toMs: untilMs });
      atMs += untilMs - blockMs;
      blockMs = untilMs;
    }
  };
  for (const edit of extras) {
    playTo(Math.min(momentOf(edit), bodyMs));
    const lengthMs = extraLengthMs(edit);
    runs.push({ kind: 'extra', atMs, lengthMs, edit });
    atMs += lengthMs;
  }
  playTo(bodyMs);
  return { startMs, runs, lengthMs: atMs };
}

/**
 * Where a span of the block's own time is seen in the video: in several stretches where something
 * was put in, in none where it was left out.
 * @returns each with what of the span had passed at its start
 */
export function toVideo(
  { startMs: blockStartMs, runs }: BlockTimeMap,
  span: TimeSpan,
): (TimeSpan & { elapsedMs: number })[] {
  return runs.flatMap((run) => {
    const seen = run.kind === 'own' ? clip(span, { startMs: run.fromMs, endMs: run.toMs }) : null;
    if (run.kind !== 'own' || !seen) return [];
    const startMs = blockStartMs + run.atMs + seen.startMs - run.fromMs;
    return [{ startMs, endMs: startMs + spanLength(seen), elapsedMs: seen.startMs - span.startMs }];
  });
}

/**
 * The block's own moment that is on screen at `ms` of the video; in something put in, the moment it
 * stands at.
 */
export function toBlock({ startMs, runs }: BlockTimeMap, ms: VideoMs): BlockMs {
  let blockMs: BlockMs = 0;
  for (const run of runs) {
    if (ms - startMs < run.atMs) break;
    if (run.kind === 'own') blockMs = Math.min(run.toMs, run.fromMs + ms - startMs - run.atMs);
  }
  return blockMs;
}

/** The part of the block's own time that is shown at all, to its last moment. */
export const shownMs = ({ runs }: BlockTimeMap): BlockMs =>
  runs.reduce((most, run) => (run.kind === 'own' ? Math.max(most, run.toMs) : most), 0);
