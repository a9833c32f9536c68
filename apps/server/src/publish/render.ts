import { rename, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { OUTPUT_FPS } from '@zest/core/time';
import { partOf } from '../media/unfinished.ts';
import { COLOUR_TAGS, ffmpeg, videoEncoder } from '../media/ffmpeg.ts';
import { boxPixels, streamSlot } from './paint.ts';
import { PictureGraph } from './picture-graph.ts';
import { videoFormat, type Piece, type RenderSettings } from './pieces.ts';

async function exists(file: string): Promise<boolean> {
  try {
    return (await stat(file)).size > 0;
  } catch {
    return false;
  }
}

/** Where a rendered piece is kept. */
export const piecePath = ({ hash }: Piece, settings: RenderSettings, cacheDir: string): string =>
  path.join(cacheDir, `${hash}.${videoFormat(settings)}`);

/**
 * Renders the picture of a piece into `cacheDir`, or finds it there from an earlier, perhaps
 * interrupted, run.
 * @param takePath where the working copy with a content hash lies
 * @returns the file
 */
export async function renderPiece(
  piece: Piece,
  settings: RenderSettings,
  cacheDir: string,
  takePath: (sha: string) => string,
  onProgress: (doneMs: number) => void,
  signal?: AbortSignal,
): Promise<string> {
  const format = videoFormat(settings);
  const picture = piecePath(piece, settings, cacheDir);
  // It gets its name last, so its presence says that it is whole.
  if (await exists(picture)) return picture;
  // Nobody else writes to it, even who takes this piece for abandoned.
  const part = partOf(picture);
  const graph = new PictureGraph(piece.frames, takePath, part, settings, piece.look);
  try {
    const upper = await graph.picture(piece.picture);
    let label = piece.under ? graph.over(await graph.picture(piece.under), upper) : upper;
    const input = [...graph.input];
    const filters = [...graph.filters];
    piece.overlays.forEach(({ box }, i) => {
      input.push('-f', 'matroska', '-i', `pipe:${3 + i}`);
      const { left, top } = boxPixels(box, settings);
      filters.push(
        `[${graph.inputs + i}:v]scale=out_color_matrix=bt709:out_range=tv,format=yuva420p[r${i}]`,
      );
      filters.push(`[${label}][r${i}]overlay=${left}:${top}:eval=init:eof_action=repeat[v${i}]`);
      label = `v${i}`;
    });
    await ffmpeg(
      [
        ...input,
        ...['-filter_complex', filters.join(';')],
        ...[
          '-map',
          `[${label}]`,
          '-frames:v',
          String(piece.frames),
          ...videoEncoder(format),
          ...COLOUR_TAGS,
        ],
        ...[
          '-r',
          String(OUTPUT_FPS),
          ...(format === 'mp4' ? ['-video_track_timescale', '90000'] : []),
          '-f',
          format,
          part,
        ],
      ],
      {
        signal,
        onProgress,
        feed: {
          pipes: piece.overlays.map(
            ({ box, changes }) =>
              (to) =>
                streamSlot(to, box, changes, piece.look, settings),
          ),
        },
      },
    );
  } finally {
    for (const file of graph.files) await rm(file, { force: true });
  }
  await rename(part, picture);
  return picture;
}
