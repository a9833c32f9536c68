import { mkdir, rename, rm, stat } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { OUTPUT_FPS } from '@zest/core/time';
import { partOf } from '../media/unfinished.ts';
import type { TakePath } from '../media/store.ts';
import { COLOUR_TAGS, ffmpeg, videoEncoder } from '../media/ffmpeg.ts';
import { boxPixels, streamSlot } from './paint.ts';
import { PictureGraph } from './picture-graph.ts';
import {
  PART_FRAMES,
  videoFormat,
  type Piece,
  type PiecePart,
  type RenderSettings,
} from './pieces.ts';

async function exists(file: string): Promise<boolean> {
  try {
    return (await stat(file)).size > 0;
  } catch {
    return false;
  }
}

/** Where a rendered part of a piece is kept. */
export const partPath = ({ hash }: PiecePart, settings: RenderSettings, cacheDir: string): string =>
  path.join(cacheDir, `${hash}.${videoFormat(settings)}`);

/** Where the rendered parts of a piece are kept. */
export const partPaths = (
  { parts }: Pick<Piece, 'parts'>,
  settings: RenderSettings,
  cacheDir: string,
): string[] => parts.map((part) => partPath(part, settings, cacheDir));

/** Whether all parts of a piece are kept. */
export async function isRendered(
  piece: Piece,
  settings: RenderSettings,
  cacheDir: string,
): Promise<boolean> {
  for (const file of partPaths(piece, settings, cacheDir)) if (!(await exists(file))) return false;
  return true;
}

/** Most pieces rendered at once: each holds its frames in memory. */
const MOST_AT_ONCE = 4;
const cores = os.availableParallelism();
/**
 * Pieces rendered at once, and the threads of each: several encoders of few threads do the same
 * work for less than one of many.
 */
export const AT_ONCE = Math.min(MOST_AT_ONCE, cores);
const THREADS = ['-threads', String(Math.floor(cores / AT_ONCE))];

/** Ends of the parts, in frames from the piece's start. */
function endsOf(parts: readonly PiecePart[]): number[] {
  let at = 0;
  return parts.map(({ frames }) => (at += frames));
}

/** Each part in its own file of a folder, named by its number. */
function intoParts({ parts }: Piece, format: 'mp4' | 'webm', folder: string): string[] {
  return [
    ...['-force_key_frames', `expr:not(mod(n,${PART_FRAMES}))`],
    ...['-f', 'segment', '-segment_format', format, '-reset_timestamps', '1'],
    // The first one begins at 0 like the others, not where its first decoding time would be 0.
    ...['-avoid_negative_ts', 'disabled'],
    ...(format === 'mp4' ? ['-segment_format_options', 'video_track_timescale=90000'] : []),
    ...['-segment_frames', endsOf(parts).join(',')],
    path.join(folder, '%d'),
  ];
}

/**
 * Renders the picture of a piece into `cacheDir`, or finds it there from an earlier, perhaps
 * interrupted, run.
 * @param takePath where the working copy with a content hash lies
 * @returns the files of its parts
 */
export async function renderPiece(
  piece: Piece,
  settings: RenderSettings,
  cacheDir: string,
  takePath: TakePath,
  onProgress: (doneMs: number) => void,
  signal?: AbortSignal,
): Promise<string[]> {
  const format = videoFormat(settings);
  const files = partPaths(piece, settings, cacheDir);
  // They get their names last, so their presence says that they are whole.
  if (await isRendered(piece, settings, cacheDir)) return files;
  // Nobody else writes to it, even who takes this piece for abandoned. A folder: once it is swept, an
  // encoder that outlived its server cannot go on.
  const making = partOf(path.join(cacheDir, piece.hash));
  await mkdir(making);
  const raw = path.join(making, 'raw');
  const graph = new PictureGraph(piece.frames, takePath, raw, settings, piece.look, THREADS);
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
        ...['-map', `[${label}]`, '-frames:v', String(piece.frames)],
        ...[...videoEncoder(format), ...COLOUR_TAGS, ...THREADS, '-r', String(OUTPUT_FPS)],
        ...intoParts(piece, format, making),
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
    for (const [i, file] of files.entries()) await rename(path.join(making, String(i)), file);
  } finally {
    await rm(making, { recursive: true, force: true });
  }
  return files;
}
