import { run, type RunOptions } from './run.ts';

/**
 * Containers a phone or a browser writes. Playlists and other formats that point elsewhere are not
 * among them.
 */
const CONTAINERS = 'mov,mp4,m4a,3gp,3g2,mj2,matroska,webm,avi,mpegts,mpeg';

/**
 * Arguments before every input that came from outside: known containers only, files and pipes only.
 */
export const GUARDED_INPUT = [
  '-protocol_whitelist',
  'file,pipe',
  '-format_whitelist',
  CONTAINERS,
] as const;

/** The same for a recording that may be sound alone. */
export const GUARDED_SOUND = [
  '-protocol_whitelist',
  'file,pipe',
  '-format_whitelist',
  `${CONTAINERS},wav,mp3,ogg,flac,aac`,
] as const;

/**
 * The one way video is encoded, in working copies and in exports; a key frame at least every two
 * seconds, so that a player gets to any place soon.
 */
export const VIDEO_ENCODER = [
  '-c:v',
  'libx264',
  '-preset',
  'veryfast',
  '-crf',
  '21',
  '-g',
  '60',
  '-pix_fmt',
  'yuv420p',
] as const;
/** WebM for browsers and learning platforms: VP9 at a speed that keeps up with the H.264 one. */
const WEBM_ENCODER = [
  '-c:v',
  'libvpx-vp9',
  '-deadline',
  'realtime',
  '-cpu-used',
  '7',
  '-row-mt',
  '1',
  '-crf',
  '33',
  '-b:v',
  '0',
  '-g',
  '60',
  '-pix_fmt',
  'yuv420p',
] as const;

export const videoEncoder = (format: 'mp4' | 'webm'): readonly string[] =>
  format === 'webm' ? WEBM_ENCODER : VIDEO_ENCODER;

/** Tags of the colours the filters produce: limited-range BT.709. */
export const COLOUR_TAGS = [
  '-colorspace',
  'bt709',
  '-color_primaries',
  'bt709',
  '-color_trc',
  'bt709',
  '-color_range',
  'tv',
] as const;

export const SAMPLE_RATE = 48_000;
/** Arguments before an input of raw samples: one channel, 16 bits. */
export const RAW_SOUND = ['-f', 's16le', '-ar', String(SAMPLE_RATE), '-ac', '1'] as const;

/** Runs ffmpeg quietly; `onProgress` gets the milliseconds of output written so far. */
export async function ffmpeg(
  args: readonly string[],
  options: Omit<RunOptions, 'onOutput'> & {
    onProgress?: ((doneMs: number) => void) | undefined;
  } = {},
): Promise<string> {
  const { onProgress, ...rest } = options;
  let tail = '';
  const { errors } = await run(
    'ffmpeg',
    ['-hide_banner', '-nostats', '-y', '-v', 'error', '-progress', 'pipe:1', ...args],
    {
      ...rest,
      onOutput: (chunk) => {
        tail += chunk.toString('utf8');
        const lines = tail.split('\n');
        tail = lines.pop() ?? '';
        for (const line of lines) {
          const match = /^out_time_us=(\d+)/.exec(line);
          if (match) onProgress?.(Number(match[1]) / 1000);
        }
      },
    },
  );
  return errors;
}
