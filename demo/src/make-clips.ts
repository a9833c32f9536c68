import { execFileSync, spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdirSync, writeFileSync, rmSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { createCanvas, type SKRSContext2D } from '@napi-rs/canvas';
import { findBlock } from '@zest/core/lesson';
import { sentencesOf } from '@zest/core/script';
import { demoClips, demoLesson, type DemoClip } from './lesson.ts';
import { drawPerformer, poseAt, type DrawContext } from '@zest/performer';

/**
 * Draws the demo's clips, or only those of the blocks named, with ffmpeg and espeak-ng on the path:
 * `npx tsx demo/src/make-clips.ts`.
 */
const WIDTH = 1280;
const HEIGHT = 720;
const FPS = 30;
/** The synthesiser's own. */
const RATE = 22_050;
const WAV_HEADER = 44;
/** Between two sentences. */
const BREATH_S = 0.45;
/** So loud the mouth is wide open. */
const LOUD = 0.25;
const folder = path.join(path.dirname(fileURLToPath(import.meta.url)), '..', 'clips');

function moveAt(clip: DemoClip, blockMs: number) {
  return (
    clip.moves.filter((move) => move.fromMs <= blockMs).at(-1) ?? {
      fromMs: 0,
      movement: 'other' as const,
    }
  );
}

/** The block's script as it is said over the clip. */
function voiceOf(clip: DemoClip): Float32Array {
  const samples = new Float32Array(Math.round((clip.lengthMs * RATE) / 1000));
  let at = Math.round((clip.headMs / 1000 + BREATH_S) * RATE);
  for (const sentence of sentencesOf(
    findBlock(demoLesson(new Map()), clip.blockId)?.script ?? '',
  )) {
    const wav = execFileSync(
      'espeak-ng',
      ['-v', 'en-us+f3', '-s', '150', '--stdout', '--', sentence],
      { maxBuffer: 1 << 26 },
    );
    const count = (wav.length - WAV_HEADER) >> 1;
    for (let i = 0; i < count && at + i < samples.length; i += 1)
      samples[at + i] = (wav.readInt16LE(WAV_HEADER + 2 * i) / 32_768) * 0.7;
    at += count + Math.round(BREATH_S * RATE);
  }
  return samples;
}

/** How far the mouth is open, 0 to 1. */
function mouthAt(voice: Float32Array, ms: number): number {
  const around = voice.subarray(
    Math.max(0, Math.round(((ms - 25) * RATE) / 1000)),
    Math.round(((ms + 25) * RATE) / 1000),
  );
  return Math.min(1, around.reduce((most, value) => Math.max(most, Math.abs(value)), 0) / LOUD);
}

async function makeClip(clip: DemoClip): Promise<void> {
  const target = path.join(folder, clip.file);
  const frames = Math.round((clip.lengthMs * FPS) / 1000);
  const samples = voiceOf(clip);
  const sound = path.join(folder, `${clip.blockId}.pcm`);
  writeFileSync(sound, Buffer.from(samples.buffer));
  const ffmpeg = spawn(
    'ffmpeg',
    [
      ...[
        '-y',
        '-v',
        'error',
        '-f',
        'rawvideo',
        '-pixel_format',
        'rgba',
        '-video_size',
        `${WIDTH}x${HEIGHT}`,
        '-framerate',
        String(FPS),
        '-i',
        'pipe:0',
      ],
      ...['-f', 'f32le', '-ar', String(RATE), '-ac', '1', '-i', sound],
      ...[
        '-vf',
        'scale=out_color_matrix=bt709:out_range=tv,format=yuv420p',
        '-c:v',
        'libx264',
        '-preset',
        'slow',
        '-crf',
        '29',
      ],
      // As the server's working copies are, so that the demo's need no second encoding.
      ...[
        '-g',
        '15',
        '-keyint_min',
        '15',
        '-sc_threshold',
        '0',
        '-bf',
        '0',
        '-colorspace',
        'bt709',
        '-color_primaries',
        'bt709',
        '-color_trc',
        'bt709',
        '-color_range',
        'tv',
      ],
      ...[
        '-c:a',
        'aac',
        '-b:a',
        '64k',
        '-ar',
        '48000',
        '-ac',
        '2',
        '-movflags',
        '+faststart',
        target,
      ],
    ],
    { stdio: ['pipe', 'inherit', 'inherit'] },
  );
  const ctx = createCanvas(WIDTH, HEIGHT).getContext('2d') as SKRSContext2D & DrawContext;
  for (let frame = 0; frame < frames; frame += 1) {
    const ms = (frame * 1000) / FPS;
    const blockMs = ms - clip.headMs;
    const move = moveAt(clip, blockMs);
    drawPerformer(
      ctx,
      poseAt(move.movement, (blockMs - move.fromMs) / 1000, move.periodS, mouthAt(samples, ms)),
      WIDTH,
      HEIGHT,
    );
    const pixels = Buffer.from(ctx.getImageData(0, 0, WIDTH, HEIGHT).data.buffer);
    if (!ffmpeg.stdin.write(pixels)) await once(ffmpeg.stdin, 'drain');
  }
  ffmpeg.stdin.end();
  const [code] = (await once(ffmpeg, 'close')) as [number];
  rmSync(sound);
  if (code !== 0) throw new Error(`ffmpeg ended with ${code} on ${clip.file}`);
  process.stdout.write(`${target}\n`);
}

mkdirSync(folder, { recursive: true });
const only = process.argv.slice(2);
for (const clip of demoClips)
  if (only.length === 0 || only.includes(clip.blockId)) await makeClip(clip);
