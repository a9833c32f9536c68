import { contains, overlaps, type TimeSpan } from '../time/index.ts';
import { clipped } from './by-hand.ts';
import { emptyLanes, slots, type Assembly, type Overlay } from './types.ts';

/**
 * One block of a cut by itself, without its pause, from 0 on; null when the cut does not show it.
 */
export function clipOfBlock(cut: Assembly, blockId: string): Assembly | null {
  const placed = cut.blocks.find((block) => block.blockId === blockId);
  if (!placed) return null;
  const { startMs } = placed;
  const lengthMs = placed.timeMap.lengthMs;
  const span = { startMs, endMs: startMs + lengthMs };
  const inside = (item: TimeSpan) => overlaps(item, span);
  const moved = <T extends TimeSpan>(item: T): T => ({
    ...item,
    startMs: Math.max(startMs, item.startMs) - startMs,
    endMs: Math.min(span.endMs, item.endMs) - startMs,
  });
  const heard = <T extends { atMs: number }>(list: readonly T[]) =>
    list
      .filter(({ atMs }) => contains(span, atMs))
      .map((one) => ({ ...one, atMs: one.atMs - startMs }));
  const lanes = emptyLanes();
  for (const slot of slots)
    (lanes[slot] as Overlay[]).push(
      ...(cut.lanes[slot] as Overlay[])
        .filter(inside)
        .map((overlay) =>
          moved(
            clipped(
              overlay,
              Math.max(startMs, overlay.startMs),
              Math.min(span.endMs, overlay.endMs),
            ),
          ),
        ),
    );
  return {
    ...cut,
    durationMs: lengthMs,
    // What it would come up over is not there.
    segments: cut.segments.filter(inside).map((segment) => ({
      ...moved(segment),
      under: segment.startMs === startMs ? null : segment.under,
    })),
    lanes,
    captions: cut.captions.filter(inside).map(moved),
    pauses: [],
    chapters: cut.chapters.filter(inside).map(moved),
    blocks: [
      { ...placed, startMs: 0, endMs: lengthMs, timeMap: { ...placed.timeMap, startMs: 0 } },
    ],
    tones: heard(cut.tones),
    spoken: { ...cut.spoken, calls: heard(cut.spoken.calls) },
    dropped: cut.dropped.filter((one) => one.blockId === blockId),
  };
}
