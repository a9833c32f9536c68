import type { Picture } from '@zest/core/signal';
import { textToSay } from '@zest/core/words';
import { GUARDED_INPUT } from './ffmpeg.ts';
import { probe } from './probe.ts';
import { run } from './run.ts';

/** The pictures of a video as they go by, at a steady rate, small. */
export interface PictureStream {
  width: number;
  height: number;
  /** @throws ProgramError when the file cannot be read */
  each: (look: (picture: Picture, index: number) => Promise<void> | void) => Promise<number>;
}

const even = (length: number) => Math.max(2, Math.round(length / 2) * 2);

/**
 * Opens a video to be looked at, `fps` pictures a second, upright, the long side `longSide` pixels.
 * @throws ProgramError when it cannot be read, Error with words when there is no picture in it
 */
export async function openPictures(
  file: string,
  fps: number,
  longSide: number,
  signal?: AbortSignal,
): Promise<PictureStream> {
  const { video } = await probe(file, false, signal);
  if (!video) throw new Error(textToSay('server.no-picture-inside'));
  const { aspect } = video;
  if (!Number.isFinite(aspect) || aspect < 1 / 16 || aspect > 16)
    throw new Error(textToSay('server.odd-size'));
  const [width, height] = [
    even(longSide * Math.min(1, aspect)),
    even(longSide * Math.min(1, 1 / aspect)),
  ];
  const bytes = width * height * 3;
  return {
    width,
    height,
    each: async (look) => {
      let count = 0;
      await run(
        'ffmpeg',
        [
          '-v',
          'error',
          ...GUARDED_INPUT,
          '-i',
          file,
          '-map',
          '0:v:0',
          '-an',
          '-vf',
          `fps=${fps},scale=${width}:${height}:flags=area,format=rgb24`,
          '-f',
          'rawvideo',
          'pipe:1',
        ],
        {
          signal,
          read: async (from) => {
            const rgb = new Uint8Array(bytes);
            let filled = 0;
            for await (const chunk of from) {
              for (let at = 0; at < chunk.length;) {
                const part = chunk.subarray(at, at + bytes - filled);
                rgb.set(part, filled);
                filled += part.length;
                at += part.length;
                if (filled < bytes) continue;
                filled = 0;
                await look({ rgb, width, height }, count);
                count += 1;
              }
            }
          },
        },
      );
      return count;
    },
  };
}
