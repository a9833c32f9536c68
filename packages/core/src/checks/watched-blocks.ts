import {
  countedBouts,
  alignTake,
  shownMs,
  toVideo,
  type Assembly,
  type CountedBout,
  type PlacedBlock,
  type TakeAlignment,
  type TakeFacts,
} from '../assembly/index.ts';
import { findBlock, type Block, type Lesson } from '../lesson/index.ts';
import type { Schedule, Span } from '../schedule/index.ts';
import { findingsIn, type TakeAnalysis, type TakeFindings } from '../signal/index.ts';
import { spanLength, type BlockMs, type TimeSpan, type VideoMs } from '../time/index.ts';

/**
 * A block whose take was looked at, with what is in the part of it that is shown. All times in the
 * block's own.
 */
export interface WatchedBlock {
  block: Block;
  placed: PlacedBlock;
  facts: TakeFacts & { watched: TakeAnalysis };
  alignment: TakeAlignment;
  spans: readonly Span[];
  bodyMs: number;
  /** In the take's own time. */
  seen: TakeFindings;
  /** Its repetitions counted bout by bout; null where none are planned or nobody is seen. */
  bouts: readonly CountedBout[] | null;
}

/** Whether footage is seen in a block of the cut, and not a card alone. */
export const showsTake = ({ segments }: Assembly, placed: PlacedBlock): boolean =>
  segments.some(({ blockId, source }) => blockId === placed.blockId && source.kind === 'take');

/** The blocks of a cut whose takes were looked at. */
export function watchedBlocks(
  lesson: Lesson,
  schedule: Schedule,
  cut: Assembly,
  takes: ReadonlyMap<string, TakeFacts>,
): WatchedBlock[] {
  const planned = new Map(schedule.blocks.map((one) => [one.block.id, one.spans]));
  return cut.blocks.flatMap((placed): WatchedBlock[] => {
    const block = findBlock(lesson, placed.blockId);
    const facts = block?.footage ? takes.get(block.footage.takeId) : undefined;
    if (!block?.footage || !facts?.watched || !showsTake(cut, placed)) return [];
    const { watched } = facts;
    const alignment = alignTake(block.footage, facts);
    const bodyMs = shownMs(placed.timeMap);
    const seen = findingsIn(watched, {
      startMs: alignment.startMs,
      endMs: Math.min(watched.durationMs, alignment.toTake(bodyMs)),
    });
    const spans = (planned.get(block.id) ?? []).filter(({ kind }) => kind !== 'pause-sign');
    return [
      {
        block,
        placed,
        facts: { ...facts, watched },
        alignment,
        spans,
        bodyMs,
        seen,
        bouts: countedBouts(block, spans, alignment, facts),
      },
    ];
  });
}

/** Where in the video a moment of the block is seen; null when it was left out. */
export function shownAt({ placed }: WatchedBlock, ms: BlockMs): VideoMs | null {
  const at = Math.max(0, Math.round(ms));
  const [piece] = toVideo(placed.timeMap, { startMs: at, endMs: at + 1 });
  return piece?.startMs ?? null;
}

/** Those of the stretches that are shown at all, in the block's own time. */
export function shownStretches(watched: WatchedBlock, stretches: readonly TimeSpan[]): TimeSpan[] {
  return stretches.flatMap((stretch) => {
    const { startMs, endMs } = watched.alignment.spanToBlock(stretch);
    return toVideo(watched.placed.timeMap, {
      startMs: Math.max(0, Math.round(startMs)),
      endMs: Math.round(Math.min(endMs, watched.bodyMs)),
    }).map(({ elapsedMs, ...piece }) => ({
      startMs: Math.max(0, Math.round(startMs)) + elapsedMs,
      endMs: Math.max(0, Math.round(startMs)) + elapsedMs + spanLength(piece),
    }));
  });
}
