import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import {
  clipOfBlock,
  assemble,
  takeFrameAt,
  type Assembly,
  type TakeFacts,
} from '@zest/core/assembly';
import type { Edit, IntervalsBlock, Lesson } from '@zest/core/lesson';
import { firstFrameFrom } from '@zest/core/time';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { probe } from '../media/probe.ts';
import { footageFolder, frameOf } from '../testing/footage.ts';
import { lessonOf } from '../testing/server.ts';
import { exportVideo } from './export.ts';
import { measureLoudness } from '../media/loudness.ts';

const footage = footageFolder();
const cacheDir = mkdtempSync(path.join(os.tmpdir(), 'zest-cache-'));
const workDir = mkdtempSync(path.join(os.tmpdir(), 'zest-work-'));
const FRAMES = 300;
const BITS = 9;
/**
 * Every frame bears its number in dark and bright fields, eight rows of them one below the other,
 * the left end of each row red.
 */
const numbered = (offset: number) =>
  `nullsrc=size=320x180:rate=30:duration=${FRAMES / 30}` +
  `,geq=lum='if(lt(X,20),80,if(mod(floor((N+${offset}` +
  `)/pow(2,floor((X-20)/32))),2),220,30))':cb=128:cr='if(lt(X,20),230,128)'`;
const takes = new Map<string, TakeFacts>(
  ['front', 'side'].map((id) => [id, { id, frames: FRAMES, marked: null }]),
);
const media = new Map(['front', 'side'].map((id) => [id, { sha: id, hasSound: true }]));

const work = (edits: Edit[], more: Partial<IntervalsBlock> = {}): Partial<IntervalsBlock> => ({
  kind: 'intervals',
  title: '',
  workMs: 4_000,
  rounds: 1,
  leadInMs: 0,
  footage: { takeId: 'front', startsAtMs: 1_000 },
  edits,
  ...more,
});
const cutOf = (...blocks: Partial<IntervalsBlock>[]): Assembly => assemble(lessonOf(blocks), takes);

beforeAll(() => {
  for (const [name, offset, hz] of [
    ['front', 0, 440],
    ['side', 100, 880],
  ] as const) {
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      numbered(offset),
      '-f',
      'lavfi',
      '-i',
      `sine=frequency=${hz}:sample_rate=48000:duration=${FRAMES / 30}`,
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-crf',
      '10',
      '-pix_fmt',
      'yuv420p',
      '-g',
      '15',
      '-bf',
      '0',
      '-c:a',
      'aac',
      footage.at(`${name}.mp4`),
    ]);
  }
});
afterAll(() => {
  footage.remove();
  for (const folder of [cacheDir, workDir]) rmSync(folder, { recursive: true, force: true });
});

async function made(assembly: Assembly): Promise<string> {
  const { video } = await exportVideo(assembly, media, {
    cacheDir,
    workDir,
    takePath: (sha) => footage.at(`${sha}.mp4`),
    onProgress: () => undefined,
  });
  const kept = footage.at(`made-${Math.random()}.mp4`);
  execFileSync('cp', [video, kept]);
  return kept;
}

const levelAt = (pixels: Buffer, x: number, y: number) => pixels[(y * 1280 + x) * 3 + 1] ?? 0;
/** The number a frame bears, read in its lowest part, where no overlay lies. */
const numberIn = (pixels: Buffer, y = 690) =>
  Array.from({ length: BITS }, (_, bit) =>
    levelAt(pixels, 80 + bit * 128 + 64, y) > 125 ? 2 ** bit : 0,
  ).reduce((sum, value) => sum + value, 0);

function heard(video: string, fromMs: number, toMs: number): Float32Array {
  const raw = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', video, '-vn', '-ac', '1', '-ar', '48000', '-f', 'f32le', 'pipe:1'],
    { maxBuffer: 256 * 1024 * 1024 },
  );
  return new Float32Array(
    raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength),
  ).subarray(fromMs * 48, toMs * 48);
}

/** Mean power of a stretch of the sound. */
const powerOf = (video: string, fromMs: number, toMs: number) =>
  heard(video, fromMs, toMs).reduce((sum, value, _i, all) => sum + value ** 2 / all.length, 0);

/** Strength of a tone in a stretch of the sound. */
function tone(video: string, hz: number, fromMs: number, toMs: number): number {
  const sound = heard(video, fromMs, toMs);
  let [re, im] = [0, 0];
  sound.forEach((value, i) => {
    re += value * Math.cos((2 * Math.PI * hz * i) / 48_000);
    im += value * Math.sin((2 * Math.PI * hz * i) / 48_000);
  });
  return Math.hypot(re, im) / sound.length;
}

describe('an export with changes by hand', () => {
  it('leaves out, shows again slowly and stands still, on the frames the assembly says', async () => {
    const assembly = cutOf(
      work([
        { id: 'a', kind: 'leave-out', fromMs: 500, toMs: 1_000 },
        { id: 'b', kind: 'again', fromMs: 2_000, toMs: 3_000, speed: 50, times: 1, sound: 'off' },
        {
          id: 'c',
          kind: 'freeze',
          atMs: 3_000,
          lengthMs: 1_000,
          point: { x: 300, y: 300 },
          text: 'Elbow',
        },
      ]),
    );
    const video = await made(assembly);
    expect((await probe(video, true)).video?.packets).toBe(195);
    // 15 frames, 60 more from behind what is left out, 60 at half speed, 30 standing still, 30 to
    // the end.
    for (const [frame, wanted] of [
      [0, 30],
      [14, 44],
      [15, 60],
      [74, 119],
      [75, 90],
      [76, 90],
      [77, 91],
      [134, 119],
      [135, 120],
      [164, 120],
      [165, 120],
      [194, 149],
    ] as const) {
      const segment = assembly.segments.find(
        ({ startMs, endMs }) => firstFrameFrom(startMs) <= frame && frame < firstFrameFrom(endMs),
      );
      if (segment?.source.kind !== 'take') throw new Error('There should be footage.');
      expect(takeFrameAt(segment, segment.source, frame)).toBe(wanted);
      expect(numberIn(frameOf(video, frame)), `frame ${frame}`).toBe(wanted);
    }
    expect(tone(video, 440, 100, 2_400)).toBeGreaterThan(0.02);
    expect(tone(video, 440, 2_600, 5_300)).toBeLessThan(0.002);
    expect(tone(video, 440, 5_600, 6_400)).toBeGreaterThan(0.02);
  });

  it('keeps the pitch of what is shown again slowly', async () => {
    const video = await made(
      cutOf(
        work([
          { id: 'b', kind: 'again', fromMs: 0, toMs: 2_000, speed: 25, times: 1, sound: 'kept' },
        ]),
      ),
    );
    expect((await probe(video, true)).video?.packets).toBe(120 + 240);
    expect(tone(video, 440, 3_000, 9_000)).toBeGreaterThan(5 * tone(video, 110, 3_000, 9_000));
  });

  it('takes picture, sound or a second view from another take, in step', async () => {
    const other = { takeId: 'side', startsAtMs: 1_000 };
    const video = await made(
      cutOf(
        work([
          {
            id: 'a',
            kind: 'instead',
            fromMs: 0,
            toMs: 1_000,
            ...other,
            picture: true,
            sound: false,
          },
          {
            id: 'b',
            kind: 'instead',
            fromMs: 1_000,
            toMs: 2_000,
            ...other,
            picture: false,
            sound: true,
          },
          { id: 'c', kind: 'beside', fromMs: 2_000, toMs: 3_000, ...other, layout: 'halves' },
          { id: 'd', kind: 'beside', fromMs: 3_000, toMs: 4_000, ...other, layout: 'inset right' },
        ]),
      ),
    );
    // The side view's frames are numbered from 100.
    expect([10, 45].map((frame) => numberIn(frameOf(video, frame)))).toEqual([140, 75]);
    expect(tone(video, 440, 100, 900)).toBeGreaterThan(5 * tone(video, 880, 100, 900));
    expect(tone(video, 880, 1_100, 1_900)).toBeGreaterThan(5 * tone(video, 440, 1_100, 1_900));
    // Each half shows the middle of its picture: fields 2 to 5 of the number, 128 pixels each.
    const halves = frameOf(video, 75);
    const fields = (from: number) =>
      [2, 3, 4, 5, 6].map((bit) =>
        levelAt(halves, from + 80 + bit * 128 + 64 - 320, 690) > 125 ? 1 : 0,
      );
    const bits = (n: number) => [2, 3, 4, 5, 6].map((bit) => (n >> bit) & 1);
    expect(fields(0).slice(0, 4)).toEqual(bits(105).slice(0, 4));
    expect(fields(640).slice(0, 4)).toEqual(bits(205).slice(0, 4));
    // The small view at x 800, 416 wide: field k lies at 800 + (80 + 128 k + 64) * 0.325.
    const inset = frameOf(video, 100);
    const small = Array.from({ length: BITS }, (_, bit) =>
      levelAt(inset, Math.round(800 + (80 + bit * 128 + 64) * 0.325), 640) > 125 ? 2 ** bit : 0,
    ).reduce((sum, value) => sum + value, 0);
    expect(small).toBe(230);
    expect(numberIn(inset, 710) & 63).toBe(130 & 63);
  });

  it('comes closer, mirrors, turns and blurs where it is told to', async () => {
    const middle = { x: 500, y: 500 };
    const video = await made(
      cutOf(
        work([
          {
            id: 'a',
            kind: 'closer',
            fromMs: 0,
            toMs: 1_000,
            zoom: 200,
            from: middle,
            to: middle,
            path: [],
          },
          { id: 'b', kind: 'mirror', fromMs: 1_000, toMs: 2_000 },
          { id: 'c', kind: 'turn', fromMs: 2_000, toMs: 3_000, quarters: 1 },
          {
            id: 'd',
            kind: 'blur',
            fromMs: 3_000,
            toMs: 4_000,
            x: 0,
            y: 900,
            width: 1_000,
            height: 100,
          },
        ]),
      ),
    );
    // Twice as large, the red end of the rows is out of the picture, and fields are 256 wide; field
    // 3 began at 464.
    const closer = frameOf(video, 10);
    const red = (pixels: Buffer, x: number) =>
      (pixels[(690 * 1280 + x) * 3] ?? 0) - levelAt(pixels, x, 690) > 60;
    expect(red(closer, 20)).toBe(false);
    expect(
      [3, 4, 5].map((bit) => (levelAt(closer, (80 + bit * 128 + 64 - 320) * 2, 690) > 125 ? 1 : 0)),
    ).toEqual([3, 4, 5].map((bit) => (40 >> bit) & 1));
    const mirrored = frameOf(video, 45);
    expect([red(mirrored, 20), red(mirrored, 1_260)]).toEqual([false, true]);
    // Turned clockwise the left end is on top, and what was wide is narrow: bars beside it.
    const turned = frameOf(video, 75);
    expect(
      (turned[(10 * 1280 + 640) * 3] ?? 0) - (turned[(10 * 1280 + 640) * 3 + 1] ?? 0),
    ).toBeGreaterThan(60);
    expect(
      [0, 1, 2]
        .map((c) => turned[(300 * 1280 + 100) * 3 + c] ?? 0)
        .every((value, c) => Math.abs(value - [0x26, 0x21, 0x1c][c]!) < 6),
    ).toBe(true);
    // Where fields of unlike brightness meet, the blurred part has no hard edge.
    const blurred = frameOf(video, 100);
    const steps = (y: number) =>
      Math.max(
        ...Array.from({ length: 1_100 }, (_, i) =>
          Math.abs(levelAt(blurred, 100 + i, y) - levelAt(blurred, 104 + i, y)),
        ),
      );
    expect(steps(690)).toBeLessThan(steps(630) / 2);
  });

  it('moves a closer view evenly, by parts of pixels, on the place it says', async () => {
    // Dark left of the middle, bright right of it.
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      `color=c=black:size=1280x720:rate=30:duration=${FRAMES / 30},geq=lum='if(lt(X,640),40,200)':cb=128:cr=128`,
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-crf',
      '10',
      '-pix_fmt',
      'yuv420p',
      '-g',
      '15',
      '-bf',
      '0',
      footage.at('edge.mp4'),
    ]);
    const cut = assemble(
      lessonOf([
        work(
          [
            {
              id: 'a',
              kind: 'closer',
              fromMs: 0,
              toMs: 2_000,
              zoom: 400,
              from: { x: 480, y: 500 },
              to: { x: 520, y: 500 },
              path: [],
            },
          ],
          { footage: { takeId: 'edge', startsAtMs: 0 } },
        ),
      ]),
      new Map([['edge', { id: 'edge', frames: FRAMES, marked: null }]]),
    );
    const { video } = await exportVideo(
      cut,
      new Map([['edge', { sha: 'edge', hasSound: false }]]),
      {
        cacheDir,
        workDir,
        takePath: (sha) => footage.at(`${sha}.mp4`),
        onProgress: () => undefined,
      },
    );
    /** Where dark turns to bright, to a part of a pixel, in a row free of overlays. */
    const edgeIn = (pixels: Buffer) => {
      const x =
        Array.from({ length: 1_200 }, (_, i) => 40 + i).find(
          (at) => levelAt(pixels, at, 600) > 120,
        ) ?? NaN;
      const [before, after] = [levelAt(pixels, x - 1, 600), levelAt(pixels, x, 600)];
      return x - (after - 120) / Math.max(1, after - before);
    };
    const frames = [0, 1, 2, 3, 10, 11, 12, 30, 31, 57, 58, 59];
    const edges = frames.map((frame) => edgeIn(frameOf(video, frame)));
    // The view's middle goes from 480 to 520 thousandths of 1280 in 60 frames; four times as large,
    // the edge goes 204.8 pixels to the left.
    for (const [i, frame] of frames.entries())
      expect(
        Math.abs((edges[i] ?? NaN) - (742.4 - (204.8 * frame) / 60)),
        `frame ${frame}: ${edges[i]}`,
      ).toBeLessThan(1.2);
  });

  it('fades in over the last picture before it', async () => {
    const video = await made(
      cutOf(
        work([]),
        work([{ id: 'f', kind: 'fade', lengthMs: 1_000 }], {
          footage: { takeId: 'side', startsAtMs: 0 },
        }),
      ),
    );
    // From frame 149 of the front to frame 100 upwards of the side: fields that differ go from one
    // to the other.
    const level = (frame: number, bit: number) =>
      levelAt(frameOf(video, frame), 80 + bit * 128 + 64, 690);
    // 149 has field 7 bright; 100 to 127 have it dark.
    expect(level(119, 7)).toBeGreaterThan(200);
    expect(Math.abs(level(135, 7) - 125)).toBeLessThan(40);
    expect(level(127, 7)).toBeGreaterThan(level(135, 7) + 20);
    expect(level(143, 7)).toBeLessThan(level(135, 7) - 20);
    expect(numberIn(frameOf(video, 155))).toBe(135);
  });

  it(
    'has the loudness asked for, no rumble, and the pacer’s tones at their moments ' +
      'where they are wanted',
    async () => {
      const block = work([{ id: 'a', kind: 'leave-out', fromMs: 1_000, toMs: 2_000 }], {
        leadInMs: 2_000,
      });
      const lesson = lessonOf([block]);
      const make = (sound: Partial<Lesson['finish']['sound']>) =>
        made(
          assemble(
            {
              ...lesson,
              finish: { ...lesson.finish, sound: { ...lesson.finish.sound, ...sound } },
            },
            takes,
          ),
        );
      const plain = await make({ lowCut: false, noise: 'left as it is' });
      const quieter = await make({ lufs: -24, pacer: 'tones' });
      expect(
        Math.abs(((await measureLoudness(plain)).integratedLufs ?? 0) + 16),
      ).toBeLessThanOrEqual(0.5);
      expect(
        Math.abs(((await measureLoudness(quieter)).integratedLufs ?? 0) + 24),
      ).toBeLessThanOrEqual(0.5);
      // "Go" (1320 Hz) sounds when the work begins: at 2 s of the block, of which a second is left
      // out.
      expect(tone(quieter, 1_320, 1_000, 1_400)).toBeGreaterThan(
        10 * tone(quieter, 1_320, 2_000, 2_400),
      );
      expect(tone(plain, 1_320, 1_000, 1_400)).toBeLessThan(
        tone(quieter, 1_320, 1_000, 1_400) / 10,
      );
    },
  );

  it.each([
    [
      '480 lines in WebM without overlays',
      { width: 854, height: 480, format: 'webm', overlays: false, captions: true },
      'vp9',
      'opus',
    ],
    [
      '1080 lines in MP4',
      { width: 1920, height: 1080, format: 'mp4', overlays: true, captions: false },
      'h264',
      'aac',
    ],
  ] as const)(
    'is made with %s, its chapters in the file, sound and poster beside it',
    async (_name, settings, codec, sound) => {
      const assembly = cutOf(work([], { workMs: 2_000, script: 'Land softly.' }));
      const made = await exportVideo(
        assembly,
        media,
        {
          cacheDir,
          workDir,
          takePath: (sha) => footage.at(`${sha}.mp4`),
          onProgress: () => undefined,
        },
        settings,
      );
      const facts = await probe(made.video, true);
      expect(facts.video).toMatchObject({
        codec,
        width: settings.width,
        height: settings.height,
        packets: 60,
      });
      expect(facts.audio?.codec).toBe(sound);
      const read = (file: string, ...args: string[]) =>
        execFileSync('ffprobe', ['-v', 'error', '-of', 'json', ...args, file], {
          encoding: 'utf8',
        });
      expect(
        (
          JSON.parse(read(made.video, '-show_chapters')) as {
            chapters: { tags: { title: string } }[];
          }
        ).chapters.map(({ tags }) => tags.title),
      ).toEqual(assembly.chapters.map(({ title }) => title));
      expect(read(made.sound, '-show_streams')).toContain(`"codec_name": "${sound}"`);
      expect(JSON.parse(read(made.poster, '-show_streams'))).toMatchObject({
        streams: [{ codec_name: 'png', width: settings.width, height: settings.height }],
      });
      // The clock stands top right: dark there with overlays, the fields of the picture without.
      const frame = execFileSync(
        'ffmpeg',
        [
          '-v',
          'error',
          '-i',
          made.video,
          '-vf',
          'select=eq(n\\,10),scale=1280:720,format=rgb24',
          '-frames:v',
          '1',
          '-f',
          'rawvideo',
          'pipe:1',
        ],
        { maxBuffer: 16 * 1024 * 1024 },
      );
      expect(numberIn(frame)).toBe(40);
      expect(levelAt(frame, 748, 150) < 60).toBe(settings.overlays);
      // A caption burned in is white on black in the middle below; else the file has a track of
      // them.
      const below = Array.from({ length: 300 }, (_, i) => levelAt(frame, 490 + i, 660));
      expect(below.filter((level) => level < 10 || level > 245).length > 80).toBe(
        settings.captions,
      );
      expect(read(made.video, '-show_streams').includes('"codec_type": "subtitle"')).toBe(
        !settings.captions,
      );
    },
  );

  it(
    'is made upright, with the picture above and what is said about it below, and as ' +
      'a clip of one block in a GIF',
    async () => {
      const assembly = cutOf(
        work([], { workMs: 2_000 }),
        work([], { workMs: 1_000, id: 'second', title: 'Second' }),
      );
      const tools = {
        cacheDir,
        workDir,
        takePath: (sha: string) => footage.at(`${sha}.mp4`),
        onProgress: () => undefined,
      };
      const upright = await exportVideo(assembly, media, tools, {
        width: 480,
        height: 854,
        format: 'mp4',
        overlays: true,
        captions: false,
      });
      expect((await probe(upright.video, true)).video).toMatchObject({
        width: 480,
        height: 854,
        packets: 90,
      });
      const pixels = execFileSync(
        'ffmpeg',
        [
          '-v',
          'error',
          '-i',
          upright.video,
          '-vf',
          'select=eq(n\\,20)',
          '-frames:v',
          '1',
          '-f',
          'rawvideo',
          '-pix_fmt',
          'rgb24',
          'pipe:1',
        ],
        { maxBuffer: 64 * 1024 * 1024 },
      );
      const red = (x: number, y: number) => pixels[(y * 480 + x) * 3] ?? 0;
      // The red left end of the footage ends where the picture does; below it is the ground, and in
      // the clock's place its panel.
      expect(red(6, 200)).toBeGreaterThan(150);
      expect(red(6, 330)).toBeLessThan(90);
      const clip = clipOfBlock(assembly, assembly.blocks[1]?.blockId ?? '');
      expect(clip?.durationMs).toBe(1_000);
      const gif = await exportVideo(clip ?? assembly, media, tools, {
        width: 854,
        height: 480,
        format: 'gif',
        overlays: true,
        captions: false,
      });
      expect(gif.video).toMatch(/\.gif$/);
      const facts = JSON.parse(
        execFileSync(
          'ffprobe',
          ['-v', 'error', '-of', 'json', '-count_packets', '-show_streams', gif.video],
          { encoding: 'utf8' },
        ),
      ) as { streams: { codec_name: string; width: number; nb_read_packets: string }[] };
      expect(facts.streams).toHaveLength(1);
      expect(facts.streams[0]).toMatchObject({
        codec_name: 'gif',
        width: 480,
        nb_read_packets: '12',
      });
    },
  );

  it.each(['left as it is', 'gently', 'strongly'] as const)(
    'has picture and sound of one moment within 5 ms of each other, noise %s',
    async (noise) => {
      // A flash and a click at 2 s of the take, loud enough that the limiter works as well.
      execFileSync('ffmpeg', [
        ...[
          '-y',
          '-v',
          'error',
          '-f',
          'lavfi',
          '-i',
          "color=c=gray:s=320x180:r=30:d=5,drawbox=c=white:t=fill:enable='between(t,2,3)'",
        ],
        ...[
          '-f',
          'lavfi',
          '-i',
          "aevalsrc='0.005*sin(2*PI*220*t)+if(between(t,2,2.3),0.9*sin(2*PI*1000*t),0)':s=48000:d=5",
          '-c:v',
          'libx264',
          '-pix_fmt',
          'yuv420p',
          '-g',
          '15',
          '-bf',
          '0',
          '-c:a',
          'aac',
          footage.at('clap.mp4'),
        ],
      ]);
      const lesson = lessonOf([
        work([], { workMs: 3_000, footage: { takeId: 'clap', startsAtMs: 1_000 } }),
      ]);
      const cut = assemble(
        { ...lesson, finish: { ...lesson.finish, sound: { ...lesson.finish.sound, noise } } },
        new Map([['clap', { id: 'clap', frames: 150, marked: null }]]),
      );
      const { video } = await exportVideo(
        cut,
        new Map([['clap', { sha: 'clap', hasSound: true }]]),
        {
          cacheDir,
          workDir,
          takePath: (sha) => footage.at(`${sha}.mp4`),
          onProgress: () => undefined,
        },
      );
      const flash =
        Array.from({ length: 6 }, (_, i) => 27 + i).find(
          (frame) => levelAt(frameOf(video, frame), 640, 690) > 200,
        ) ?? NaN;
      const sound = heard(video, 0, 3_000);
      const loudest = sound.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
      const clickMs = sound.findIndex((value) => Math.abs(value) > loudest / 2) / 48;
      expect(Math.abs(clickMs - (flash * 1_000) / 30)).toBeLessThanOrEqual(5);
    },
  );

  it(
    'keeps music at least 20 dB under the voice (WCAG 2.2, 1.4.7), lets it up where ' +
      'nobody speaks, and says counts',
    async () => {
      // The voice (440 Hz) is heard for 2 s of 6; the music is one steady tone that begins anew after
      // 5 s.
      execFileSync('ffmpeg', [
        '-y',
        '-v',
        'error',
        '-i',
        footage.at('front.mp4'),
        '-af',
        "volume='if(between(t,2,4),1,0)':eval=frame",
        '-c:v',
        'copy',
        '-c:a',
        'aac',
        footage.at('spoken.mp4'),
      ]);
      execFileSync('ffmpeg', [
        '-y',
        '-v',
        'error',
        '-f',
        'lavfi',
        '-i',
        'sine=frequency=2000:sample_rate=48000:duration=5',
        '-c:a',
        'aac',
        footage.at('music.mp4'),
      ]);
      const known = new Map<string, TakeFacts>([
        ...takes,
        ['spoken', { id: 'spoken', frames: FRAMES, marked: null }],
        ['music', { id: 'music', frames: 150, marked: null }],
      ]);
      const files = new Map([
        ...media,
        ['spoken', { sha: 'spoken', hasSound: true }],
        ['music', { sha: 'music', hasSound: true }],
      ]);
      const lesson = lessonOf([
        work([], { leadInMs: 4_000, workMs: 2_000, footage: { takeId: 'spoken', startsAtMs: 0 } }),
      ]);
      const make = async (sound: Partial<Lesson['finish']['sound']>) => {
        const cut = assemble(
          {
            ...lesson,
            finish: {
              ...lesson.finish,
              sound: { ...lesson.finish.sound, lowCut: false, noise: 'left as it is', ...sound },
            },
          },
          known,
        );
        const { video } = await exportVideo(cut, files, {
          cacheDir,
          workDir,
          takePath: (sha) => footage.at(`${sha}.mp4`),
          onProgress: () => undefined,
        });
        const kept = footage.at(`made-${Math.random()}.mp4`);
        execFileSync('cp', [video, kept]);
        return { kept, cut };
      };
      const { kept } = await make({ music: { takeId: 'music', licence: 'Own', underDb: 20 } });
      const underDb =
        20 * Math.log10(tone(kept, 440, 2_300, 3_700) / tone(kept, 2_000, 2_300, 3_700));
      // 2 kHz counts for more than 440 Hz in a loudness (K weighting, ITU-R BS.1770: about 2.4 dB),
      // so the amplitudes lie further apart.
      expect(underDb).toBeGreaterThanOrEqual(20);
      expect(underDb).toBeLessThanOrEqual(27);
      const upDb =
        20 * Math.log10(tone(kept, 2_000, 5_200, 5_900) / tone(kept, 2_000, 2_300, 3_700));
      expect(upDb).toBeGreaterThan(5);
      expect(upDb).toBeLessThan(11);

      const spoken = await make({ pacer: 'spoken', heard: ['clock'] });
      expect(spoken.cut.tones).toEqual([]);
      expect(spoken.cut.spoken.calls.slice(0, 3)).toEqual([
        { atMs: 1_000, say: 'three' },
        { atMs: 2_000, say: 'two' },
        { atMs: 3_000, say: 'one' },
      ]);
      const silent = await make({ pacer: 'spoken', heard: ['sides'] });
      expect(silent.cut.spoken.calls).toEqual([]);
      // Nobody speaks in the footage before 2 s: what is heard there is the count.
      expect(powerOf(spoken.kept, 1_000, 1_600)).toBeGreaterThan(1e-4);
      expect(powerOf(silent.kept, 1_000, 1_600)).toBeLessThan(1e-7);
    },
  );
});
