import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { firstCut } from '@zest/core/assembly';
import { OUTPUT_FPS } from '@zest/core/time';
import { COLOUR_TAGS, ffmpeg, VIDEO_ENCODER } from '../../apps/server/src/media/ffmpeg.ts';
import { makeWorkingCopy } from '../../apps/server/src/media/ingest.ts';
import { exportVideo } from '../../apps/server/src/publish/export.ts';
import { twoMinutes } from './lessons.ts';
import { median, timed, type Result } from './result.ts';

const MOST = 1.25;
const RUNS = 3;
const clip = path.resolve(import.meta.dirname, '../../demo/clips/skipping.mp4');

/** Export of two minutes against a plain transcode of the same footage with the same encoder, side by side. */
export async function exporting(): Promise<Result[]> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-bench-'));
  try {
    const long = path.join(folder, 'long.mp4');
    await ffmpeg(['-stream_loop', '3', '-i', clip, '-t', '125', '-c', 'copy', long]);
    const take = await makeWorkingCopy(long, folder, () => undefined);
    const assembly = firstCut(twoMinutes('take'), new Map([['take', { id: 'take', frames: take.frames, marked: null }]]));
    const seconds = assembly.durationMs / 1000;
    const plain = () =>
      ffmpeg([
        ...['-i', take.video, '-t', String(seconds), '-vf', `fps=${OUTPUT_FPS},scale=1280:720,format=yuv420p`],
        ...[...VIDEO_ENCODER, ...COLOUR_TAGS, '-c:a', 'aac', '-b:a', '160k', '-movflags', '+faststart', path.join(folder, 'plain.mp4')],
      ]);
    let run = 0;
    const full = async () => {
      const cacheDir = path.join(folder, `cache-${(run += 1)}`);
      mkdirSync(cacheDir);
      await exportVideo(assembly, new Map([['take', { sha: 'take', hasSound: take.hasSound }]]), {
        cacheDir,
        workDir: folder,
        takePath: () => take.video,
        onProgress: () => undefined,
      });
    };
    const ratios: number[] = [];
    const times: string[] = [];
    for (let i = 0; i < RUNS; i += 1) {
      const plainMs = await timed(plain);
      const fullMs = await timed(full);
      ratios.push(fullMs / plainMs);
      times.push(`${(fullMs / 1000).toFixed(1)}/${(plainMs / 1000).toFixed(1)} s`);
    }
    const ratio = median(ratios);
    return [{ what: `${seconds} s of lesson, ${times.join(', ')}`, value: `${ratio.toFixed(2)} times`, limit: `at most ${MOST} times`, holds: ratio <= MOST }];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
