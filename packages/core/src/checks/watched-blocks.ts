import {
  countedBouts,
  footingOf,
  inVideo,
  type Assembly,
  type CountedBout,
  type PlacedBlock,
  type TakeFacts,
} from '../assembly/index.ts';
import { findBlock, type Block, type Lesson } from '../lesson/index.ts';
import type { Schedule, Span } from '../schedule/index.ts';
import { findingsIn, type Watched, type WatchedFindings } from '../signal/index.ts';
import { spanLength, type TimeSpan } from '../time/index.ts';
import { quoted } from './finding.ts';

/**
 * A block whose take was looked at, with what is in the part of it that is shown. All times in the
 * block's own.
 */
export interface WatchedBlock {
  block: Block;
  placed: PlacedBlock;
  facts: TakeFacts & { watched: Watched };
  footing: { startMs: number; rate: number };
  spans: readonly Span[];
  bodyMs: number;
  /** In the take's own time. */
  seen: WatchedFindings;
  /** Its repetitions counted bout by bout; null where none are planned or nobody is seen. */
  bouts: readonly CountedBout[] | null;
}

/** The blocks of a cut whose takes were looked at. */
export function watchedBlocks(
  lesson: Lesson,
  schedule: Schedule,
  cut: Assembly,
  takes: ReadonlyMap<string, TakeFacts>,
): WatchedBlock[] {
  const planned = new Map(schedule.blocks.map((own) => [own.block.id, own.spans]));
  return cut.blocks.flatMap((placed): WatchedBlock[] => {
    const block = findBlock(lesson, placed.blockId);
    const facts = block?.footage ? takes.get(block.footage.takeId) : undefined;
    const shown = cut.segments.some(
      ({ blockId, source }) => blockId === placed.blockId && source.kind === 'take',
    );
    if (!block?.footage || !facts?.watched || !shown) return [];
    const { watched } = facts;
    const footing = footingOf(block.footage, facts);
    const bodyMs = placed.reel.runs.reduce(
      (most, run) => (run.kind === 'own' ? Math.max(most, run.toMs) : most),
      0,
    );
    const seen = findingsIn(watched, {
      startMs: footing.startMs,
      endMs: Math.min(watched.durationMs, footing.startMs + bodyMs * footing.rate),
    });
    const spans = (planned.get(block.id) ?? []).filter(({ kind }) => kind !== 'pause-sign');
    return [
      {
        block,
        placed,
        facts: { ...facts, watched },
        footing,
        spans,
        bodyMs,
        seen,
        bouts: countedBouts(block, spans, footing, facts),
      },
    ];
  });
}

/** A stretch of the take in the block's own time. */
export const own = ({ footing: { startMs, rate } }: WatchedBlock, stretch: TimeSpan): TimeSpan => ({
  startMs: (stretch.startMs - startMs) / rate,
  endMs: (stretch.endMs - startMs) / rate,
});

/** Where in the video a moment of the block is seen; null when it was left out. */
export function shownAt({ placed }: WatchedBlock, ownMs: number): number | null {
  const at = Math.max(0, Math.round(ownMs));
  const [piece] = inVideo(placed.reel, { startMs: at, endMs: at + 1 });
  return piece ? placed.startMs + piece.startMs : null;
}

/** Those of the stretches that are shown at all, in the block's own time. */
export function shownStretches(watched: WatchedBlock, stretches: readonly TimeSpan[]): TimeSpan[] {
  return stretches.flatMap((stretch) => {
    const { startMs, endMs } = own(watched, stretch);
    return inVideo(watched.placed.reel, {
      startMs: Math.max(0, Math.round(startMs)),
      endMs: Math.round(Math.min(endMs, watched.bodyMs)),
    }).map(({ goneMs, ...piece }) => ({
      startMs: Math.max(0, Math.round(startMs)) + goneMs,
      endMs: Math.max(0, Math.round(startMs)) + goneMs + spanLength(piece),
    }));
  });
}

export const titleOf = ({ block }: WatchedBlock): string => quoted(block);
