import { rename, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Assembly } from '@zest/core/assembly';
import { captionsToWebVtt, chaptersMetadata } from '@zest/core/formats';
import { firstFrameFrom, OUTPUT_FPS } from '@zest/core/time';
import { textToSay } from '@zest/core/words';
import { ffmpeg } from '../media/ffmpeg.ts';
import type { TakePath } from '../media/store.ts';
import { probe } from '../media/probe.ts';
import type { FrameSize } from './frame-size.ts';
import {
  missingOf,
  piecesOf,
  STANDARD,
  videoFormat,
  type Piece,
  type PiecePart,
  type RenderSettings,
} from './pieces.ts';
import type { TakeMedia } from '../cut/cut.ts';
import { seekTo } from './picture-graph.ts';
import { partPath, partPaths } from './render.ts';
import { folderRendering, type Rendering } from './rendering.ts';
import type { Loudness } from '../media/loudness.ts';
import { encodeSound } from './sound.ts';

/** The lesson cannot be exported as it is; the message says why and what to do. */
export class ExportFault extends Error {
  override readonly name = 'ExportFault';
}

export interface ExportedVideo extends Loudness {
  video: string;
  captions: string;
  /** The sound by itself. */
  sound: string;
  /** A picture from the middle of the first footage. */
  poster: string;
  frames: number;
  durationMs: number;
  bytes: number;
}

export interface ExportTools {
  cacheDir: string;
  workDir: string;
  takePath: TakePath;
  /** Part done, 0 to 1, and what is being done. */
  onProgress: (part: number, message: string) => void;
  signal?: AbortSignal;
  /** How pieces are shared among workers; without it among those of `cacheDir`. */
  rendering?: Rendering;
  /** The job this is. */
  exportId?: string;
}

/** Share of the work that is rendering; the rest is joining and verifying. */
const RENDER_PART = 0.97;

/** Tells of parts that need not be rendered, and of those it was asked about before. */
async function keptOf(
  pieces: readonly Piece[],
  settings: RenderSettings,
  { cacheDir }: ExportTools,
  rendering: Rendering,
): Promise<(part: PiecePart) => boolean> {
  const files = new Set(
    await rendering.kept(pieces.flatMap((piece) => partPaths(piece, settings, cacheDir))),
  );
  return (part) => {
    const file = partPath(part, settings, cacheDir);
    const isKept = files.has(file);
    // Equal ones, such as the same card twice, are rendered once.
    files.add(file);
    return isKept;
  };
}

/** Reports progress over all pieces together. */
function reporter(
  pieces: readonly Piece[],
  { onProgress }: ExportTools,
): (piece: Piece, doneMs: number) => void {
  const frames = pieces.reduce((sum, piece) => sum + piece.frames, 0);
  const done = new Map<Piece, number>();
  return (piece, doneMs) => {
    done.set(piece, Math.min(Math.floor((doneMs * OUTPUT_FPS) / 1_000), piece.frames));
    const all = [...done.values()].reduce((sum, n) => sum + n, 0);
    onProgress((RENDER_PART * all) / frames, textToSay('job.burning-in'));
  };
}

/**
 * Burns the assembly's scenes into an MP4 (H.264/AAC) or a WebM (VP9/Opus) at 30 frames a second,
 * with its chapters in it, and writes its captions, its sound alone and a poster. Rendered pieces
 * are kept, so that an interrupted or changed export only renders what is missing.
 * @throws ExportFault for an empty lesson or when the finished file does not hold what it should
 */
export async function exportVideo(
  assembly: Assembly,
  media: ReadonlyMap<string, TakeMedia>,
  tools: ExportTools,
  settings: RenderSettings = STANDARD,
): Promise<ExportedVideo> {
  const frames = firstFrameFrom(assembly.durationMs);
  if (frames === 0) throw new ExportFault(textToSay('server.no-length'));
  const pieces = piecesOf(assembly, media, settings);
  const format = videoFormat(settings);
  const sound = path.join(tools.workDir, format === 'webm' ? 'sound.webm' : 'sound.m4a');
  const stop = new AbortController();
  const signal = tools.signal ? AbortSignal.any([tools.signal, stop.signal]) : stop.signal;
  const rendering = tools.rendering ?? folderRendering(tools.cacheDir, tools.takePath);
  const isKept = await keptOf(pieces, settings, tools, rendering);
  const missing = missingOf(pieces, assembly, media, settings, isKept);
  // Sound is levelled beside the picture; whichever fails stops the other.
  const sounding = encodeSound(pieces, assembly, sound, format, {
    ...tools,
    shaOf: (takeId) => media.get(takeId)?.sha ?? '',
    signal,
  });
  const onPiece = reporter(missing, tools);
  const { exportId = null } = tools;
  const both = [
    rendering.renderAll({
      ...{ pieces: missing, settings, beside: sounding, onPiece, signal, exportId },
    }),
    sounding,
  ] as const;
  const [, loudness] = await Promise.all(both).catch(async (error: unknown) => {
    stop.abort();
    await Promise.allSettled(both);
    throw error;
  });
  tools.onProgress(RENDER_PART, textToSay('job.joining'));
  const captions = path.join(tools.workDir, 'lesson.vtt');
  await writeFile(captions, captionsToWebVtt(assembly));
  const joined = path.join(tools.workDir, `lesson.${format}`);
  // Players show the track of an MP4 by themselves: burned in as well, every word would stand there
  // twice.
  const track = assembly.captions.length > 0 && !settings.captions ? captions : null;
  const pictures = pieces.flatMap((piece) => partPaths(piece, settings, tools.cacheDir));
  await rendering.gather(pictures);
  await join(pictures, sound, track, joined, assembly, format, tools);
  await verify(joined, frames, { ...settings, format }, tools.signal);
  const video = settings.format === 'gif' ? await gifOf(joined, tools) : joined;
  const poster = path.join(tools.workDir, 'poster.png');
  await takePoster(joined, pieces, poster, tools.signal);
  const { size } = await stat(video);
  tools.onProgress(1, textToSay('job.ready'));
  return {
    video,
    captions,
    sound,
    poster,
    frames,
    durationMs: assembly.durationMs,
    bytes: size,
    ...loudness,
  };
}

/** Languages as MP4 writes them (ISO 639-2/T); others are left to say nothing. */
const TRACK_LANGUAGES: Readonly<Record<string, string>> = {
  ar: 'ara',
  de: 'deu',
  en: 'eng',
  es: 'spa',
  fr: 'fra',
  it: 'ita',
  nl: 'nld',
  pl: 'pol',
  pt: 'por',
  tr: 'tur',
};

async function join(
  pictures: readonly string[],
  sound: string,
  captions: string | null,
  video: string,
  assembly: Assembly,
  format: 'mp4' | 'webm',
  tools: ExportTools,
): Promise<void> {
  const list = path.join(tools.workDir, 'pieces.txt');
  const lines = pictures.map((picture) => `file '${picture.replace(/'/g, `'\\''`)}'`);
  await writeFile(list, `ffconcat version 1.0\n${lines.join('\n')}\n`);
  const part = `${video}.part`;
  const chapters = path.join(tools.workDir, 'chapters.txt');
  await writeFile(chapters, chaptersMetadata(assembly));
  await ffmpeg(
    [
      ...[
        '-protocol_whitelist',
        'file',
        '-f',
        'concat',
        '-safe',
        '0',
        '-i',
        list,
        '-i',
        sound,
        '-f',
        'ffmetadata',
        '-i',
        chapters,
      ],
      ...(captions === null ? [] : ['-f', 'webvtt', '-i', captions]),
      ...['-map', '0:v:0', '-map', '1:a:0', '-map_chapters', '2', '-c', 'copy'],
      ...(captions === null
        ? []
        : [
            '-map',
            '3:s:0',
            '-c:s',
            format === 'mp4' ? 'mov_text' : 'webvtt',
            '-metadata:s:s:0',
            `language=${TRACK_LANGUAGES[assembly.words.language.split('-')[0] ?? ''] ?? 'und'}`,
          ]),
      ...(format === 'mp4' ? ['-video_track_timescale', '90000', '-movflags', '+faststart'] : []),
      ...['-f', format, part],
    ],
    { signal: tools.signal },
  );
  await rename(part, video);
  for (const file of [list, chapters]) await rm(file, { force: true });
}

/**
 * Pictures a second, and the longer side, of a clip as a GIF: small enough to be sent in a message.
 */
const GIF_FPS = 12;
const GIF_SIDE = 480;

async function gifOf(video: string, { workDir, signal }: ExportTools): Promise<string> {
  const gif = path.join(workDir, 'lesson.gif');
  const filters =
    `fps=${GIF_FPS},scale='if(gt(iw,ih),${GIF_SIDE},-2)':'if(gt(iw,ih),-2,${GIF_SIDE}` +
    `)':flags=lanczos,split[a][b];[a]palettegen=stats_mode=diff[p];[b][p]paletteuse=dither=bayer`;
  await ffmpeg(['-i', video, '-an', '-filter_complex', filters, '-loop', '0', gif], { signal });
  return gif;
}

/** A picture from the middle of the first footage; of the first card, where there is none. */
async function takePoster(
  video: string,
  pieces: readonly Piece[],
  poster: string,
  signal?: AbortSignal,
): Promise<void> {
  const first = pieces.find(({ picture }) => picture.kind === 'take') ?? pieces[0];
  const frame = (first?.startFrame ?? 0) + Math.floor((first?.frames ?? 0) / 2);
  await ffmpeg([...seekTo(frame), '-i', video, '-frames:v', '1', '-update', '1', poster], {
    signal,
  });
}

/** Reads the finished file to its end and holds it against the plan. */
async function verify(
  video: string,
  frames: number,
  { width, height, format }: FrameSize & { format: 'mp4' | 'webm' },
  signal?: AbortSignal,
): Promise<void> {
  const facts = await probe(video, true, signal);
  const wanted =
    `${frames} frames of ${format === 'webm' ? 'vp9' : 'h264'} ${width}x${height} at ` +
    `30/1 with ${format === 'webm' ? 'opus' : 'aac'} sound`;
  const found = facts.video
    ? `${facts.video.packets} frames of ${facts.video.codec} ${facts.video.width}x` +
      `${facts.video.height} at ${facts.video.rate} with ${facts.audio?.codec ?? 'no'} ` +
      'sound'
    : 'no picture';
  // A WebM file tells only its whole length, to the end of the last packet of sound.
  const [lengthMs, mostMs] =
    format === 'webm'
      ? [facts.durationMs, 2 * (1000 / OUTPUT_FPS)]
      : [facts.video?.durationMs, 1000 / OUTPUT_FPS];
  const driftMs = Math.abs((lengthMs ?? 0) - (frames * 1000) / OUTPUT_FPS);
  if (found !== wanted || driftMs > mostMs) {
    throw new ExportFault(textToSay('server.not-right', { found, wanted }));
  }
}
