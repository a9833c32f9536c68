import { toVideo, toBlock, type Assembly, type PlacedBlock } from '@zest/core/assembly';
import type { Edit } from '@zest/core/lesson';
import { indexAt } from '@zest/core/overlay';
import type { TimeSpan } from '@zest/core/time';

/** What is worked on: a stretch of the finished video. */
export type Stretch = TimeSpan;

/** Moments where something begins or ends, sorted: what a stretch snaps to. */
export function momentsOf(assembly: Assembly): number[] {
  const { lanes } = assembly;
  const spans: readonly TimeSpan[] = [
    ...assembly.segments,
    ...Object.values(lanes).flat(),
    ...assembly.captions,
    ...assembly.blocks,
  ];
  return [...new Set(spans.flatMap(({ startMs, endMs }) => [startMs, endMs]))].sort(
    (a, b) => a - b,
  );
}

/** The moment nearest to `ms`, if it lies within `reachMs`. */
export function snapped(moments: readonly number[], ms: number, reachMs: number): number {
  let best = ms;
  let least = reachMs;
  // Few enough to look at all of them at every move of the mouse.
  for (const moment of moments) {
    const distance = Math.abs(moment - ms);
    if (distance <= least) [best, least] = [moment, distance];
  }
  return Math.round(best);
}

/** The next moment after, or the last before, `ms`. */
export function nextMoment(moments: readonly number[], ms: number, way: 1 | -1): number {
  return (
    (way > 0 ? moments.find((moment) => moment > ms) : moments.findLast((moment) => moment < ms)) ??
    ms
  );
}

/** A stretch of a block's own time. */
export interface OwnStretch {
  blockId: string;
  fromMs: number;
  toMs: number;
}

/**
 * A stretch of the video in the own time of the block it begins in; it ends at that block's end.
 * Null where no own time passes: in something put in.
 */
export function inBlock(assembly: Assembly, { startMs, endMs }: Stretch): OwnStretch | null {
  const placed = assembly.blocks[indexAt(assembly.blocks, startMs)];
  if (!placed) return null;
  const blockMsAt = (ms: number) => toBlock(placed.timeMap, Math.min(ms, placed.endMs));
  const [fromMs, toMs] = [blockMsAt(startMs), blockMsAt(endMs)];
  return toMs > fromMs ? { blockId: placed.blockId, fromMs, toMs } : null;
}

/** Where a change by hand is seen in the video; null where it has no place. */
export function placeOf(placed: PlacedBlock, edit: Edit): Stretch | null {
  const extra = placed.timeMap.runs.find((run) => run.kind === 'extra' && run.edit.id === edit.id);
  const at = (ms: number) => placed.startMs + ms;
  if (extra?.kind === 'extra')
    return { startMs: at(extra.atMs), endMs: at(extra.atMs + extra.lengthMs) };
  if (!('fromMs' in edit)) return { startMs: placed.startMs, endMs: placed.endMs };
  const seen = toVideo(placed.timeMap, { startMs: edit.fromMs, endMs: edit.toMs });
  const [first, last] = [seen[0], seen.at(-1)];
  if (first && last) return { startMs: first.startMs, endMs: last.endMs };
  // What is left out lies between two runs.
  const after = placed.timeMap.runs.find((run) => run.kind === 'own' && run.fromMs >= edit.toMs);
  return { startMs: at(after?.atMs ?? 0), endMs: at(after?.atMs ?? 0) };
}
