import type { ScheduledBlock } from '@zest/core/schedule';

/**
 * Where a block without length can be seen and pressed, in pixels; less where there are very many.
 */
const EMPTY_PX = 24;
/** Blocks without length take no more than this part of the ribbon. */
const EMPTY_PART = 1 / 3;

/**
 * How a lesson lies along a ribbon: to scale, with a little room for each block that has no length
 * yet. In pixels.
 */
export interface RibbonScale {
  /** Of a millisecond. */
  perMs: number;
  /** Left edge of each block. */
  lefts: number[];
  /** Width of a block without length. */
  emptyPx: number;
  /** Where a moment of the student's clock lies. */
  x: (studentMs: number) => number;
}

type Placed = Pick<ScheduledBlock, 'studentStartMs' | 'studentMs'>;

/** @param leftPx where the ribbon begins @param widthPx how long it is */
export function ribbonScale(
  blocks: readonly Placed[],
  leftPx: number,
  widthPx: number,
): RibbonScale {
  const empty = blocks.filter(({ studentMs }) => studentMs === 0).length;
  const totalMs = blocks.reduce((sum, { studentMs }) => sum + studentMs, 0);
  const roomPx = totalMs === 0 ? widthPx : widthPx * EMPTY_PART;
  const emptyPx = Math.min(EMPTY_PX, roomPx / Math.max(1, empty));
  const perMs = (widthPx - empty * emptyPx) / Math.max(1, totalMs);
  let at = leftPx;
  const lefts = blocks.map(({ studentMs }) => {
    const left = at;
    at += studentMs === 0 ? emptyPx : studentMs * perMs;
    return left;
  });
  const x = (studentMs: number) => {
    // Of several that begin at one moment, the one with length: the others have none of the time.
    const index = blocks.findLastIndex(
      (block) => block.studentMs > 0 && block.studentStartMs <= studentMs,
    );
    const block = blocks[index];
    return block
      ? (lefts[index] ?? leftPx) +
          Math.min(studentMs - block.studentStartMs, block.studentMs) * perMs
      : leftPx;
  };
  return { perMs, lefts, emptyPx, x };
}
