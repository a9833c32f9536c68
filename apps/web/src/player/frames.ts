import { OUTPUT_FPS } from '@zest/core/time';

/**
 * The frame a video shows at `mediaSeconds`; the hair more keeps a rounded-down time on its own
 * frame.
 */
export function frameOfMedia(mediaSeconds: number): number {
  return Math.floor(mediaSeconds * OUTPUT_FPS + 0.01);
}

/**
 * Where to seek for a frame, in seconds: its middle, so that no rounding can land on a neighbour.
 */
export function mediaOfFrame(frame: number): number {
  return (frame + 0.5) / OUTPUT_FPS;
}
