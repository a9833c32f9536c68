import type { Footage } from '../lesson/index.ts';
import type { BlockMs, TakeMs, TimeSpan } from '../time/index.ts';
import type { TakeFacts } from './types.ts';

/**
 * Where a block starts in its take: set by hand, else by the take's mark, else the take's
 * beginning.
 */
export function startInTake(
  footage: Pick<Footage, 'startsAtMs'>,
  take: Pick<TakeFacts, 'marked'>,
): TakeMs {
  return footage.startsAtMs ?? Math.max(0, take.marked?.startMs ?? 0);
}

/**
 * A take as it lies under a block: where the block's first moment is in it, and how fast its clock
 * runs; the one place that converts between both times.
 */
export class TakeAlignment {
  /**
   * @param startMs the block's first moment in the take
   * @param rate seconds of the take for a second of the plan; clocks of cameras differ a little
   */
  constructor(
    readonly startMs: TakeMs,
    readonly rate: number,
  ) {}

  toTake(ms: BlockMs): TakeMs {
    return this.startMs + ms * this.rate;
  }

  toBlock(ms: TakeMs): BlockMs {
    return (ms - this.startMs) / this.rate;
  }

  spanToTake = ({ startMs, endMs }: TimeSpan): TimeSpan => ({
    startMs: this.toTake(startMs),
    endMs: this.toTake(endMs),
  });

  spanToBlock = ({ startMs, endMs }: TimeSpan): TimeSpan => ({
    startMs: this.toBlock(startMs),
    endMs: this.toBlock(endMs),
  });
}

export const alignTake = (
  footage: Pick<Footage, 'startsAtMs'>,
  take: Pick<TakeFacts, 'marked'>,
): TakeAlignment => new TakeAlignment(startInTake(footage, take), take.marked?.rate ?? 1);

/** A take a block shows: how it lies under it, and the frames of it that may be shown. */
export interface AlignedTake {
  takeId: string;
  takeFrames: number;
  alignment: TakeAlignment;
}

export const alignedTake = (footage: Footage, take: TakeFacts): AlignedTake => ({
  takeId: take.id,
  takeFrames: take.frames,
  alignment: alignTake(footage, take),
});
