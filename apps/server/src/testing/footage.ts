import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';

/** A folder of test footage made by ffmpeg; `remove` clears it. */
export function footageFolder() {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-footage-'));
  const at = (name: string) => path.join(folder, name);
  return {
    at,
    /** Makes a clip: a test picture of `seconds` with its frame count in it, and a tone. */
    make(
      name: string,
      seconds: number,
      args: string[] = [],
      options: { size?: string; rate?: number; sound?: boolean } = {},
    ): string {
      const { size = '320x240', rate = 30, sound = true } = options;
      const tone = sound ? ['-f', 'lavfi', '-i', `sine=frequency=440:duration=${seconds}`] : [];
      execFileSync('ffmpeg', [
        ...[
          '-y',
          '-v',
          'error',
          '-f',
          'lavfi',
          '-i',
          `testsrc=size=${size}:rate=${rate}:duration=${seconds}`,
        ],
        ...[...tone, ...args, at(name)],
      ]);
      return at(name);
    },
    write(name: string, content: string | Uint8Array): string {
      writeFileSync(at(name), content);
      return at(name);
    },
    read: (name: string) => readFileSync(at(name)),
    remove: () => rmSync(folder, { recursive: true, force: true }),
  };
}

/** One frame of a video as RGB bytes, `width` x `height`. */
export function frameOf(video: string, frame: number): Buffer {
  return execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-i',
      video,
      '-vf',
      `select=eq(n\\,${frame}),scale=in_color_matrix=bt709:in_range=tv,format=rgb24`,
      '-frames:v',
      '1',
      '-f',
      'rawvideo',
      'pipe:1',
    ],
    {
      maxBuffer: 64 * 1024 * 1024,
    },
  );
}
