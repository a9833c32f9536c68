import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { assemble } from '@zest/core/assembly';
import { makeBlock, makeLesson, type IntervalsBlock } from '@zest/core/lesson';
import { exportVideo } from '../../apps/server/src/publish/export.ts';
import type { Result } from './result.ts';

const MINUTES = 60;
const MOST_APART_MS = 20;
/** The flash and the click lie this far before the end. */
const MARK_S = MINUTES * 60 - 5;

/** An hour of grey picture and quiet tone, with a flash and a click at one moment. */
function filmHour(take: string) {
  const picture =
    `color=c=gray:s=320x180:r=30:d=${MINUTES * 60}` +
    `,drawbox=c=white:t=fill:enable='between(t,${MARK_S},${MARK_S + 1})'`;
  const sound =
    `aevalsrc='0.02*sin(2*PI*220*t)+if(between(t,${MARK_S},${MARK_S + 1}` +
    `),0.6*sin(2*PI*1000*t),0)':s=48000:d=${MINUTES * 60}`;
  execFileSync('ffmpeg', [
    '-y',
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    picture,
    '-f',
    'lavfi',
    '-i',
    sound,
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    '-g',
    '15',
    '-bf',
    '0',
    '-c:a',
    'aac',
    take,
  ]);
}

/** Where the flash and the click are in the finished file, in seconds. */
function findMarks(video: string) {
  // A corner of the picture that no overlay touches; brightness by frame, with its time in the
  // file.
  const bright = execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-ss',
      String(MARK_S - 5),
      '-copyts',
      '-i',
      video,
      '-vf',
      'crop=40:40:400:420,signalstats,metadata=print:key=lavfi.signalstats.YAVG:file=-',
      '-f',
      'null',
      '-',
    ],
    { encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 },
  );
  const pairs = [...bright.matchAll(/pts_time:([\d.]+)[\s\S]*?YAVG=([\d.]+)/g)].map((match) => ({
    s: Number(match[1]),
    y: Number(match[2]),
  }));
  const flashS = pairs.find(({ y }) => y > 200)?.s ?? NaN;
  // The sound is decoded from its beginning: what encoding put before it then counts too.
  const raw = execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-i',
      video,
      '-vn',
      '-af',
      `highpass=f=600,atrim=start=${MARK_S - 5}`,
      '-ac',
      '1',
      '-ar',
      '48000',
      '-f',
      'f32le',
      'pipe:1',
    ],
    { maxBuffer: 64 * 1024 * 1024 },
  );
  const samples = new Float32Array(
    raw.buffer.slice(raw.byteOffset, raw.byteOffset + (raw.length & ~3)),
  );
  const loudest = samples.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  const clickS = MARK_S - 5 + samples.findIndex((value) => Math.abs(value) > loudest / 2) / 48_000;
  return { flashS, clickS };
}

/**
 * An hour exported from footage whose last seconds hold a flash and a click at one moment: how far
 * apart they are in the finished file.
 */
export async function hour(): Promise<Result[]> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-hour-'));
  try {
    const take = path.join(folder, 'take.mp4');
    filmHour(take);
    const block: IntervalsBlock = {
      ...(makeBlock('intervals', () => 'b') as IntervalsBlock),
      leadInMs: 0,
      workMs: 60_000,
      restMs: 0,
      rounds: 50,
      footage: { takeId: 'take', startsAtMs: 0 },
    };
    const rest = {
      ...block,
      id: 'c',
      rounds: 10,
      footage: { takeId: 'take', startsAtMs: 50 * 60_000 },
    };
    const lesson = makeLesson('An hour', () => 'h');
    const cut = assemble(
      { ...lesson, sections: [{ id: 's', title: 'Hour', blocks: [block, rest] }] },
      new Map([['take', { id: 'take', frames: MINUTES * 60 * 30, marked: null }]]),
    );
    const cacheDir = path.join(folder, 'cache');
    mkdirSync(cacheDir);
    const { video, frames } = await exportVideo(
      cut,
      new Map([['take', { sha: 'take', hasSound: true }]]),
      { cacheDir, workDir: folder, takePath: () => take, onProgress: () => undefined },
      { width: 854, height: 480, format: 'mp4', overlays: true, captions: false },
    );
    const { flashS, clickS } = findMarks(video);
    const apartMs = Math.abs(flashS - clickS) * 1_000;
    return [
      {
        what: `${frames} frames; flash at ${flashS.toFixed(3)} s, click at ${clickS.toFixed(3)} s of the finished file`,
        value: `${apartMs.toFixed(1)} ms apart`,
        limit: `at most ${MOST_APART_MS} ms`,
        holds: apartMs <= MOST_APART_MS,
      },
    ];
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
