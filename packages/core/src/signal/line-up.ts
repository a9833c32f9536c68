import type { FoundMark } from './find-marks.ts';
import { MARK_LEAD_MS, MARK_TAIL_MS } from './sync-mark.ts';

/** A performance in a recording, as its marks tell. */
export interface MarkedStretch {
  number: number;
  /**
   * The block's first moment in the recording, in milliseconds; below 0 when the recording begins
   * after it.
   */
  blockStartMs: number;
  /** The block's last moment; null when the end mark was not found. */
  blockEndMs: number | null;
  score: number;
}

/**
 * Clocks of cameras and loudspeakers differ by less than this; a distance further off belongs to
 * another performance.
 */
const MOST_DRIFT = 0.002;

/**
 * Marks taken together: each start with the next end of the same number. A lone end mark tells
 * nothing.
 */
export function markedStretches(marks: readonly FoundMark[]): MarkedStretch[] {
  return marks.flatMap((mark, i): MarkedStretch[] => {
    if (mark.kind !== 'start') return [];
    const nextStart = marks.findIndex((other, j) => j > i && other.kind === 'start');
    const end = marks
      .slice(i + 1, nextStart < 0 ? undefined : nextStart)
      .find((other) => other.kind === 'end' && other.number === mark.number);
    return [
      {
        number: mark.number,
        blockStartMs: mark.atMs + MARK_LEAD_MS,
        blockEndMs: end ? end.atMs - MARK_TAIL_MS : null,
        score: mark.score,
      },
    ];
  });
}

/**
 * How much longer a recording's second is than a second of the plan: 1.0002 is 200 parts in a
 * million.
 * @param playedMs what lay between the block's first and last moment when it was played
 * @returns null without an end mark, or when the distance is off by more than clocks are
 */
export function clockRate(
  { blockStartMs, blockEndMs }: MarkedStretch,
  playedMs: number,
): number | null {
  if (blockEndMs === null || playedMs <= 0) return null;
  // The marks themselves span lead and tail as well, which drift along.
  const spanMs = MARK_LEAD_MS + playedMs + MARK_TAIL_MS;
  const rate = (blockEndMs - blockStartMs + MARK_LEAD_MS + MARK_TAIL_MS) / spanMs;
  return Math.abs(rate - 1) <= MOST_DRIFT ? rate : null;
}
