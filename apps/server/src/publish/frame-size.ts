import type { Shape } from '@zest/core/assembly';
import { FRAMES, PICTURE_BOXES, type Box } from '@zest/core/overlay';

/** Pixels of a frame; both even. */
export interface FrameSize {
  width: number;
  height: number;
}

export const shapeOf = ({ width, height }: FrameSize): Shape =>
  height > width ? 'upright' : 'wide';

/** Pixels a layout unit. */
export const scaleOf = (size: FrameSize): number => size.height / FRAMES[shapeOf(size)].height;

/** Whole even pixels, as colours at half resolution need them. */
export const even = (value: number): number => 2 * Math.round(value / 2);

/** A box of the layout in even pixels of a frame. */
export function pixelsOf(
  { x, y, width, height }: Box,
  size: FrameSize,
): { left: number; top: number; width: number; height: number } {
  const scale = scaleOf(size);
  return {
    left: even(x * scale),
    top: even(y * scale),
    width: even(width * scale),
    height: even(height * scale),
  };
}

/** Pixels of the part of a frame the picture has. */
export function pictureSize(size: FrameSize): FrameSize {
  const { width, height } = pixelsOf(PICTURE_BOXES[shapeOf(size)], size);
  return shapeOf(size) === 'wide' ? size : { width, height };
}
