import path from 'node:path';
import { COLOUR_TAGS, ffmpeg, SAMPLE_RATE } from './ffmpeg.ts';
import { probe } from './probe.ts';

/**
 * What footage is offered at: lines of the shorter side, and at most so many kilobits a second of
 * picture and sound.
 */
const RUNGS = [
  { lines: 360, pictureKbit: 336, soundKbit: 64 },
  { lines: 540, pictureKbit: 820, soundKbit: 80 },
  { lines: 720, pictureKbit: 1_700, soundKbit: 96 },
] as const;
/** A version that would save less than this part is not worth its room. */
const LEAST_SAVED = 0.2;
/** A student seeks by blocks, not by frames: a key frame a second. */
const GOP = 30;

/** A smaller version of a working copy, with the same frames at the same instants. */
export interface MadeRendition {
  lines: number;
  file: string;
}

/**
 * The versions of a working copy for slower lines that are smaller than itself, the smallest first;
 * one pass makes all of them.
 */
export async function makeRenditions(
  working: string,
  bytes: number,
  folder: string,
  onProgress: (part: number) => void,
  signal?: AbortSignal,
): Promise<MadeRendition[]> {
  const { video, audio, durationMs } = await probe(working, false, signal);
  if (!video || !durationMs) return [];
  const kbit = (bytes * 8) / durationMs;
  const isSmaller = ({ lines, pictureKbit, soundKbit }: (typeof RUNGS)[number]) =>
    lines <= Math.min(video.width, video.height) &&
    pictureKbit + soundKbit < kbit * (1 - LEAST_SAVED);
  const made = RUNGS.filter(isSmaller).map((rung) => ({
    ...rung,
    file: path.join(folder, `${rung.lines}.mp4`),
  }));
  if (made.length === 0) return [];
  const isWide = video.width >= video.height;
  const outputs = made.flatMap(({ lines, pictureKbit, soundKbit, file }) => [
    ...[
      '-map',
      '0:v:0',
      '-vf',
      `scale=${isWide ? `-2:${lines}` : `${lines}:-2`}`,
      '-fps_mode',
      'passthrough',
    ],
    ...[
      '-c:v',
      'libx264',
      '-preset',
      'faster',
      '-crf',
      '24',
      '-maxrate',
      `${pictureKbit}k`,
      '-bufsize',
      `${2 * pictureKbit}k`,
      '-pix_fmt',
      'yuv420p',
      ...COLOUR_TAGS,
    ],
    ...['-g', String(GOP), '-keyint_min', String(GOP), '-sc_threshold', '0', '-bf', '0'],
    ...(audio
      ? [
          '-map',
          '0:a:0',
          '-c:a',
          'aac',
          '-ar',
          String(SAMPLE_RATE),
          '-ac',
          '2',
          '-b:a',
          `${soundKbit}k`,
        ]
      : []),
    ...['-map_metadata', '-1', '-movflags', '+faststart', file],
  ]);
  await ffmpeg(['-i', working, ...outputs], {
    signal,
    onProgress: (doneMs) => onProgress(Math.min(1, doneMs / durationMs)),
  });
  return made.map(({ lines, file }) => ({ lines, file }));
}
