import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { COLOUR_TAGS, ffmpeg, VIDEO_ENCODER } from '../../apps/server/src/media/ffmpeg.ts';
import { makeWorkingCopy } from '../../apps/server/src/media/ingest.ts';
import { marksIn } from '../../apps/server/src/media/marks.ts';
import { median, timed, type Result } from './result.ts';

const MOST = 1.2;
const RUNS = 2;
const SECONDS = 300;
const clip = path.resolve(import.meta.dirname, '../../demo/clips/skipping.mp4');

/**
 * Taking in a five minute 1080p file as a phone makes it (working copy, a smaller one for the
 * pages, pictures, waveform, sync marks), against plain ffmpeg making the same two sizes of the
 * same file.
 */
export async function importing(): Promise<Result[]> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-bench-'));
  try {
    const phone = path.join(folder, 'phone.mp4');
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-stream_loop',
      '-1',
      '-i',
      clip,
      '-t',
      String(SECONDS),
      '-vf',
      'scale=1920:1080,noise=alls=4:allf=t',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-b:v',
      '12M',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'aac',
      phone,
    ]);
    const plain = () =>
      ffmpeg([
        '-i',
        phone,
        '-filter_complex',
        '[0:v]fps=30,format=yuv420p,split=2[full][half];[half]scale=1280:720[small]',
        ...['full', 'small'].flatMap((size) => [
          '-map',
          `[${size}]`,
          '-map',
          '0:a',
          ...VIDEO_ENCODER,
          ...COLOUR_TAGS,
          '-g',
          '15',
          '-bf',
          '0',
          '-c:a',
          'aac',
          '-b:a',
          '160k',
          '-movflags',
          '+faststart',
          path.join(folder, `${size}.mp4`),
        ]),
      ]);
    const ours = async () => {
      const ourFolder = path.join(folder, 'ours');
      mkdirSync(ourFolder, { recursive: true });
      const { video } = await makeWorkingCopy(phone, ourFolder, () => undefined);
      await marksIn(video);
    };
    const ratios: number[] = [];
    const times: string[] = [];
    for (let i = 0; i < RUNS; i += 1) {
      const plainMs = await timed(plain);
      const oursMs = await timed(ours);
      ratios.push(oursMs / plainMs);
      times.push(`${(oursMs / 1000).toFixed(1)}/${(plainMs / 1000).toFixed(1)} s`);
    }
    const ratio = median(ratios);
    return [
      {
        what: `a phone’s file of ${SECONDS} s in 1080p, ${times.join(', ')}`,
        value: `${ratio.toFixed(2)} times`,
        limit: `at most ${MOST} times`,
        holds: ratio <= MOST,
      },
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
