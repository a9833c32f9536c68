import { rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { REFERENCE, SLOT_BOXES } from '@zest/core/overlay';
import { OUTPUT_FPS } from '@zest/core/time';
import { COLOUR_TAGS, ffmpeg, GUARDED_INPUT, VIDEO_ENCODER } from '../media/ffmpeg.ts';
import { cardRgba, streamSlot } from './paint.ts';
import type { Piece } from './pieces.ts';

/** Bars beside a picture that is not 16:9; the pages use the same colour. */
const BARS = '0x26211c';


async function exists(file: string): Promise<boolean> {
  try {
    return (await stat(file)).size > 0;
  } catch {
    return false;
  }
}

/** Where in its working copy a piece begins: a hair before the frame, so that rounding can never skip it. */
export function seekTo(inFrame: number): string[] {
  return inFrame > 0 ? ['-ss', (inFrame / OUTPUT_FPS - 0.001).toFixed(6)] : [];
}

/**
 * Renders the picture of a piece into `cacheDir`, or finds it there from an earlier, perhaps interrupted, run.
 * @param takePath where the working copy with a content hash lies
 * @returns the file
 */
export async function renderPiece(
  piece: Piece,
  cacheDir: string,
  takePath: (sha: string) => string,
  onProgress: (doneMs: number) => void,
  signal?: AbortSignal,
): Promise<string> {
  const picture = path.join(cacheDir, `${piece.hash}.mp4`);
  // It gets its name last, so its presence says that it is whole.
  if (await exists(picture)) return picture;
  const part = `${picture}.part`;
  const cardFile = path.join(cacheDir, `${piece.hash}.rgba`);
  const { width, height } = REFERENCE;
  const input: string[] = [];
  const base: string[] = [];
  if (piece.source.kind === 'take') {
    const { inFrame, mirrored, sha } = piece.source;
    input.push(...seekTo(inFrame), ...GUARDED_INPUT, '-an', '-i', takePath(sha));
    base.push(`setpts=N/${OUTPUT_FPS}/TB`, `fps=${OUTPUT_FPS}`);
    if (mirrored) base.push('hflip');
    base.push(
      `scale=${width}:${height}:force_original_aspect_ratio=decrease:force_divisible_by=2:out_color_matrix=bt709:out_range=tv`,
      `pad=${width}:${height}:(ow-iw)/2:(oh-ih)/2:color=${BARS}`,
      'setsar=1',
    );
  } else {
    await writeFile(cardFile, cardRgba(piece.source.card));
    input.push('-f', 'rawvideo', '-pixel_format', 'rgba', '-video_size', `${width}x${height}`, '-framerate', String(OUTPUT_FPS), '-i', cardFile);
    base.push('scale=out_color_matrix=bt709:out_range=tv');
  }
  // Short footage holds its last frame. Every length is finite: an endless pad never lets ffmpeg finish.
  base.push('format=yuv420p', `tpad=stop=${piece.frames}:stop_mode=clone`, `trim=end_frame=${piece.frames}`);
  const graph = [`[0:v]${base.join(',')}[v0]`];
  piece.overlays.forEach(({ slot }, i) => {
    input.push('-f', 'matroska', '-i', `pipe:${3 + i}`);
    const { x, y } = SLOT_BOXES[slot];
    graph.push(`[${i + 1}:v]scale=out_color_matrix=bt709:out_range=tv,format=yuva420p[r${i}]`);
    graph.push(`[v${i}][r${i}]overlay=${x}:${y}:eval=init:eof_action=repeat[v${i + 1}]`);
  });
  try {
    await ffmpeg(
      [
        ...input,
        ...['-filter_complex', graph.join(';')],
        ...['-map', `[v${piece.overlays.length}]`, '-frames:v', String(piece.frames), ...VIDEO_ENCODER, ...COLOUR_TAGS],
        ...['-r', String(OUTPUT_FPS), '-video_track_timescale', '90000', '-f', 'mp4', part],
      ],
      {
        signal,
        onProgress,
        feed: { pipes: piece.overlays.map(({ slot, changes }) => (to) => streamSlot(to, slot, changes)) },
      },
    );
  } finally {
    await rm(cardFile, { force: true });
  }
  await rename(part, picture);
  return picture;
}
