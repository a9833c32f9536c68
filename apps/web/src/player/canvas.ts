/**
 * Gives a 16:9 canvas as many pixels as its place has on this screen; changing them clears it, so they change only
 * when they must.
 * @returns its width in pixels
 */
export function fitCanvas(canvas: HTMLCanvasElement): number {
  const width = Math.max(1, Math.round(canvas.clientWidth * Math.min(2, window.devicePixelRatio)));
  const height = Math.round((width * 9) / 16);
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
  }
  return width;
}
