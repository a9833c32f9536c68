import type { Shape } from '@zest/core/assembly';
import { FRAMES } from '@zest/core/overlay';

/**
 * Gives a canvas of a frame's shape as many pixels as its place has on this screen; changing them
 * clears it, so they change only when they must.
 * @returns its width in pixels
 */
export function fitCanvas(canvas: HTMLCanvasElement, shape: Shape): number {
  const frame = FRAMES[shape];
  const width = Math.max(1, Math.round(canvas.clientWidth * Math.min(2, window.devicePixelRatio)));
  const height = Math.round((width * frame.height) / frame.width);
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
  }
  return width;
}
