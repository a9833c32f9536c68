import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { assemble, type Assembly } from '@zest/core/assembly';
import { OUTPUT_FPS } from '@zest/core/time';
import { COLOUR_TAGS, ffmpeg, VIDEO_ENCODER } from '../../apps/server/src/media/ffmpeg.ts';
import { makeWorkingCopy } from '../../apps/server/src/media/ingest.ts';
import { exportVideo } from '../../apps/server/src/publish/export.ts';
import { cpuOf } from './cpu.ts';
import { tenMinutes } from './lessons.ts';
import { median, type Result } from './result.ts';

const MOST = 1.1;
const MOST_AGAIN = 0.06;
const RUNS = 2;
const clip = path.resolve(import.meta.dirname, '../../demo/clips/skipping.mp4');

/**
 * Export of ten minutes against a plain transcode of the same footage with the same encoder, and
 * again after one cue was changed; in processor time.
 */
export async function exporting(): Promise<Result[]> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-bench-'));
  try {
    const long = path.join(folder, 'long.mp4');
    await ffmpeg(['-stream_loop', '17', '-i', clip, '-t', '605', '-c', 'copy', long]);
    const take = await makeWorkingCopy(long, folder, () => undefined);
    const lesson = tenMinutes('take');
    const takes = new Map([['take', { id: 'take', frames: take.frames, marked: null }]]);
    const assembly = assemble(lesson, takes);
    const seconds = assembly.durationMs / 1000;
    const plain = () =>
      ffmpeg([
        ...[
          '-i',
          take.video,
          '-t',
          String(seconds),
          '-vf',
          `fps=${OUTPUT_FPS},scale=1280:720,format=yuv420p`,
        ],
        ...[
          ...VIDEO_ENCODER,
          ...COLOUR_TAGS,
          '-c:a',
          'aac',
          '-b:a',
          '160k',
          '-movflags',
          '+faststart',
          path.join(folder, 'plain.mp4'),
        ],
      ]);
    const make = (cacheDir: string, cut: Assembly) =>
      exportVideo(cut, new Map([['take', { sha: 'take', hasSound: take.hasSound }]]), {
        cacheDir,
        workDir: folder,
        takePath: () => take.video,
        onProgress: () => undefined,
      });
    const ratios: number[] = [];
    const again: number[] = [];
    const times: string[] = [];
    for (let i = 0; i < RUNS; i += 1) {
      const cacheDir = path.join(folder, `cache-${i}`);
      mkdirSync(cacheDir);
      const plainMs = await cpuOf(plain);
      const fullMs = await cpuOf(() => make(cacheDir, assembly));
      // One cue more, over two seconds in the middle of the lesson.
      const changed = structuredClone(lesson);
      changed.sections[2]?.blocks[0]?.edits.push({
        id: 'cue',
        kind: 'cue',
        fromMs: 6_000,
        toMs: 8_000,
        text: `Look up ${i}`,
        moment: 'action',
      });
      const againMs = await cpuOf(() => make(cacheDir, assemble(changed, takes)));
      ratios.push(fullMs / plainMs);
      again.push(againMs / fullMs);
      times.push(
        `${(fullMs / 1000).toFixed(1)}/${(plainMs / 1000).toFixed(1)} s, again ${(againMs / 1000).toFixed(1)} s`,
      );
    }
    const [ratio, part] = [median(ratios), median(again)];
    return [
      {
        what: `${seconds} s of lesson, ${times.join('; ')}`,
        value: `${ratio.toFixed(2)} times`,
        limit: `at most ${MOST} times`,
        holds: ratio <= MOST,
      },
      {
        what: 'after one cue was changed, of the whole export',
        value: part.toFixed(3),
        limit: `at most ${MOST_AGAIN}`,
        holds: part <= MOST_AGAIN,
      },
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
