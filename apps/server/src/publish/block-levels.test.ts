import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { assemble, type TakeFacts } from '@zest/core/assembly';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { measureLoudness } from '../media/loudness.ts';
import { footageFolder } from '../testing/footage.ts';
import { lessonOf } from '../testing/server.ts';
import { integrated, levelsOf, windowsOf } from './block-levels.ts';
import { exportVideo } from './export.ts';
import { piecesOf } from './pieces.ts';

const footage = footageFolder();
const folders = ['cache', 'work'].map((name) =>
  mkdtempSync(path.join(os.tmpdir(), `zest-${name}-`)),
) as [string, string];
/**
 * Words of half a second with pauses between them, at so many decibels of full scale, over a room
 * 40 dB softer.
 */
const voices = { near: -14, far: -34, room: -60 } as const;
const names = Object.keys(voices) as (keyof typeof voices)[];
const takes = new Map<string, TakeFacts>(
  names.map((id) => [id, { id, frames: 240, marked: null }]),
);
const media = new Map(names.map((id) => [id, { sha: id, hasSound: true }]));

beforeAll(() => {
  for (const name of names) {
    const level = 10 ** (voices[name] / 20);
    const sound =
      `aevalsrc=${level}` +
      '*(if(lt(mod(t\\,0.8)\\,0.5)\\,sin(2*PI*300*t)+0.4*sin(2*PI*900*t)\\,0)*' +
      `${name === 'room' ? 0 : 1}+0.01*(random(0)-0.5)):s=48000:d=8`;
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'testsrc=size=320x180:rate=30:duration=8',
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
      '-b:a',
      '192k',
      footage.at(`${name}.mp4`),
    ]);
  }
});
afterAll(() => {
  footage.remove();
  for (const folder of folders) rmSync(folder, { recursive: true, force: true });
});

const block = (takeId: string, script: string) => ({
  kind: 'intervals' as const,
  workMs: 6_000,
  rounds: 1,
  leadInMs: 0,
  script,
  footage: { takeId, startsAtMs: 500 },
});
const cut = assemble(
  lessonOf([block('near', 'Here we go.'), block('far', 'And once more.'), block('room', '')]),
  takes,
);

it('blocks in which somebody speaks are within 1 LU of each other, filmed near or far', async () => {
  const { video } = await exportVideo(
    cut,
    media,
    {
      cacheDir: folders[0],
      workDir: folders[1],
      takePath: (sha) => footage.at(`${sha}.mp4`),
      onProgress: () => undefined,
    },
    { width: 320, height: 180, format: 'mp4', overlays: false, captions: false },
  );
  const loudness = async (fromS: number) => {
    const part = footage.at(`part${fromS}.wav`);
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-ss',
      String(fromS),
      '-t',
      '6',
      '-i',
      video,
      '-vn',
      part,
    ]);
    return (await measureLoudness(part)).integratedLufs ?? -Infinity;
  };
  const [near, far, room] = [await loudness(0), await loudness(6), await loudness(12)];
  expect(Math.abs(near - far)).toBeLessThanOrEqual(1);
  expect(Math.abs(near + 16)).toBeLessThanOrEqual(1);
  // Where nobody speaks, nothing is lifted to the level of a voice.
  expect(room).toBeLessThan(near - 15);
});

it('a room without a voice goes along with the voices', async () => {
  const raw = footage.at('voice.pcm');
  execFileSync('ffmpeg', [
    '-y',
    '-v',
    'error',
    ...names.flatMap((name) => ['-ss', '0.5', '-t', '6', '-i', footage.at(`${name}.mp4`)]),
    '-filter_complex',
    '[0:a][1:a][2:a]concat=n=3:v=0:a=1,aformat=channel_layouts=mono',
    '-ar',
    '48000',
    '-f',
    's16le',
    raw,
  ]);
  const levels = levelsOf(piecesOf(cut, media), cut, await windowsOf(raw));
  const gain = (frame: number) =>
    levels.find(({ from, to }) => from <= frame && frame < to)?.gainDb ?? NaN;
  expect(Math.abs(gain(200) - gain(10) - 20)).toBeLessThan(1);
  expect(gain(400)).toBeCloseTo((gain(10) + gain(200)) / 2, 1);
});

it('loudness of windows is what the meter says of the whole (ITU-R BS.1770-4, as ffmpeg measures it)', async () => {
  const { integratedLufs } = await measureLoudness(footage.at('near.mp4'));
  const words = execFileSync(
    'ffmpeg',
    [
      '-v',
      'error',
      '-i',
      footage.at('near.mp4'),
      '-af',
      'ebur128=metadata=1:dualmono=true,ametadata=mode=print:key=lavfi.r128.M:file=-',
      '-f',
      'null',
      '-',
    ],
    { encoding: 'utf8' },
  );
  const windows = [...words.matchAll(/lavfi\.r128\.M=(\S+)/g)].map(([, value]) => Number(value));
  expect(Math.abs((integrated(windows.slice(3)) ?? 0) - (integratedLufs ?? 0))).toBeLessThan(0.2);
  expect(integrated(windows.map(() => -80))).toBeNull();
});
