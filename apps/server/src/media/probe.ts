import { z } from 'zod';
import { GUARDED_INPUT } from './ffmpeg.ts';
import { run } from './run.ts';

const numeric = z.coerce.number();
const probeSchema = z.object({
  streams: z
    .array(
      z.object({
        codec_type: z.string().optional(),
        codec_name: z.string().optional(),
        color_space: z.string().optional(),
        width: z.number().optional(),
        height: z.number().optional(),
        r_frame_rate: z.string().optional(),
        pix_fmt: z.string().optional(),
        color_range: z.string().optional(),
        color_transfer: z.string().optional(),
        color_primaries: z.string().optional(),
        has_b_frames: z.number().optional(),
        sample_aspect_ratio: z.string().optional(),
        side_data_list: z.array(z.object({ rotation: z.number().optional() })).optional(),
        nb_read_packets: numeric.optional(),
        duration: numeric.optional(),
        sample_rate: numeric.optional(),
        channels: z.number().optional(),
        tags: z
          .object({
            title: z.string().optional(),
            handler_name: z.string().optional(),
            language: z.string().optional(),
          })
          .optional(),
        disposition: z.object({ attached_pic: z.number().optional() }).optional(),
      }),
    )
    .default([]),
  format: z.object({ format_name: z.string().optional(), duration: numeric.optional() }).optional(),
});

export interface VideoFacts {
  codec: string;
  pixels: string;
  /** The tagged matrix and range, null when there is none. */
  colour: string | null;
  range: string | null;
  /** The tagged transfer function and primaries, null when there are none. */
  transfer: string | null;
  primaries: string | null;
  width: number;
  height: number;
  rate: string;
  packets: number;
  durationMs: number | null;
  /** Frames are stored in the order they are shown, upright and with square pixels. */
  plain: boolean;
  /** Width over height as it is shown: upright, with the pixels' own shape. */
  aspect: number;
}

/** What is in a media file. Durations in milliseconds, null when the file does not say. */
export interface MediaFacts {
  durationMs: number | null;
  video: VideoFacts | null;
  /** Its first sound track. */
  audio: { codec: string; sampleRate: number } | null;
  /** All its sound tracks; the name is empty where the file gives none. */
  tracks: { name: string; channels: number }[];
}

/** Programs that have nothing to say of a track call it by what handles it. */
const trackName = (tags: z.infer<typeof probeSchema>['streams'][number]['tags']) =>
  (
    tags?.title ??
    (/handler|^core media/i.test(tags?.handler_name ?? '') ? '' : (tags?.handler_name ?? ''))
  )
    .trim()
    .slice(0, 60);

const tagOf = (tag: string | undefined) =>
  tag && tag !== 'unknown' && tag !== 'reserved' ? tag : null;

function aspectOf({
  width = 0,
  height = 0,
  sample_aspect_ratio: pixel,
  side_data_list: data,
}: z.infer<typeof probeSchema>['streams'][number]): number {
  const [across, down] = (pixel ?? '1:1').split(':').map(Number);
  const shown = across && down ? (width * across) / (height * down) : width / height;
  const turned = data?.some(
    ({ rotation }) => rotation !== undefined && Math.abs(rotation) % 180 === 90,
  );
  return turned ? 1 / shown : shown;
}

/**
 * Reads a file's streams with ffprobe. `countPackets` reads it to the end.
 * @throws ProgramError when ffprobe cannot make sense of the file
 */
export async function probe(
  file: string,
  countPackets = false,
  signal?: AbortSignal,
): Promise<MediaFacts> {
  const { output } = await run(
    'ffprobe',
    [
      '-v',
      'error',
      ...GUARDED_INPUT,
      '-of',
      'json',
      '-show_streams',
      '-show_format',
      ...(countPackets ? ['-count_packets'] : []),
      '-i',
      file,
    ],
    { signal },
  );
  const facts = probeSchema.parse(JSON.parse(output.toString('utf8')));
  const video = facts.streams.find((s) => s.codec_type === 'video' && !s.disposition?.attached_pic);
  const sounds = facts.streams.filter((s) => s.codec_type === 'audio');
  const [audio] = sounds;
  const ms = (seconds: number | undefined) =>
    seconds === undefined || Number.isNaN(seconds) ? null : Math.round(seconds * 1000);
  return {
    durationMs: ms(facts.format?.duration),
    video: video
      ? {
          codec: video.codec_name ?? 'unknown',
          colour: tagOf(video.color_space),
          transfer: tagOf(video.color_transfer),
          primaries: tagOf(video.color_primaries),
          pixels: video.pix_fmt ?? 'unknown',
          range: video.color_range ?? null,
          width: video.width ?? 0,
          height: video.height ?? 0,
          rate: video.r_frame_rate ?? '',
          packets: video.nb_read_packets ?? 0,
          durationMs: ms(video.duration),
          plain:
            !video.has_b_frames &&
            !video.side_data_list?.length &&
            ['1:1', '0:1', undefined].includes(video.sample_aspect_ratio),
          aspect: aspectOf(video),
        }
      : null,
    audio: audio
      ? { codec: audio.codec_name ?? 'unknown', sampleRate: audio.sample_rate ?? 0 }
      : null,
    tracks: sounds.map(({ tags, channels = 0 }) => ({ name: trackName(tags), channels })),
  };
}

/**
 * Times and key frames of the picture, in order of storage.
 * @throws ProgramError when the file cannot be read to its end
 */
export async function picturePackets(
  file: string,
  signal?: AbortSignal,
): Promise<{ seconds: number; key: boolean }[]> {
  const { output } = await run(
    'ffprobe',
    [
      '-v',
      'error',
      ...GUARDED_INPUT,
      '-select_streams',
      'v:0',
      '-show_entries',
      'packet=pts_time,flags',
      '-of',
      'csv=p=0',
      '-i',
      file,
    ],
    { signal },
  );
  return output
    .toString('utf8')
    .trim()
    .split('\n')
    .map((line) => {
      const [seconds, flags] = line.split(',');
      return { seconds: Number(seconds), key: flags?.includes('K') ?? false };
    });
}
