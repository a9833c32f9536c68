import { execFileSync } from 'node:child_process';
import {
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { assemble, type Assembly } from '@zest/core/assembly';
import { makeCue, type IntervalsBlock, type RepsBlock } from '@zest/core/lesson';
import { SLOT_BOXES, sceneAt } from '@zest/core/overlay';
import { firstFrameFrom, instantOfFrame } from '@zest/core/time';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { ffmpeg } from '../media/ffmpeg.ts';
import { picturePackets, probe } from '../media/probe.ts';
import { CancelledError, ProgramError } from '../media/run.ts';
import { claimOf } from '../media/unfinished.ts';
import { footageFolder, frameOf } from '../testing/footage.ts';
import { lessonOf } from '../testing/server.ts';
import { ExportFault, exportVideo, type ExportedVideo } from './export.ts';
import { sceneRgba } from './paint.ts';
import { piecesOf } from './pieces.ts';
import { helpOut } from './shared-pieces.ts';
import { measureLoudness } from '../media/loudness.ts';

const footage = footageFolder();
const cacheDir = mkdtempSync(path.join(os.tmpdir(), 'zest-cache-'));
const workDir = mkdtempSync(path.join(os.tmpdir(), 'zest-work-'));
const media = new Map([['take', { sha: 'clip', hasSound: true }]]);
const TAKE_FRAMES = 240;
const footageAt = (startsAtMs: number) => ({ takeId: 'take', startsAtMs });

const work: Partial<IntervalsBlock> = {
  kind: 'intervals',
  title: 'Skip',
  workMs: 5_000,
  restMs: 2_000,
  rounds: 1,
  leadInMs: 2_000,
  footage: footageAt(500),
  script: 'Land softly. Keep your elbows close.',
};
const reps: Partial<RepsBlock> = {
  kind: 'reps',
  title: 'Pull',
  reps: 3,
  sides: 'each',
  tempo: { downMs: 400, holdMs: 0, upMs: 300, topHoldMs: 33 },
  sideChangeMs: 1_000,
  leadInMs: 0,
};

function cutOf(change: Partial<IntervalsBlock> = {}): Assembly {
  return assemble(
    lessonOf([{ ...work, ...change } as Partial<IntervalsBlock>, reps]),
    new Map([['take', { id: 'take', frames: TAKE_FRAMES, marked: null }]]),
  );
}

const make = (
  assembly: Assembly,
  signal?: AbortSignal,
  onProgress: (part: number) => void = () => undefined,
): Promise<ExportedVideo> =>
  exportVideo(assembly, media, {
    cacheDir,
    workDir,
    takePath: (sha) => footage.at(`${sha}.mp4`),
    onProgress,
    ...(signal && { signal }),
  });

beforeAll(() => {
  footage.make(
    'clip.mp4',
    TAKE_FRAMES / 30,
    [
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-pix_fmt',
      'yuv420p',
      '-vf',
      'scale=out_color_matrix=bt709:out_range=tv',
      '-colorspace',
      'bt709',
      '-color_range',
      'tv',
      '-g',
      '15',
      '-bf',
      '0',
      '-c:a',
      'aac',
    ],
    { size: '1280x720' },
  );
});
afterAll(() => {
  footage.remove();
  for (const folder of [cacheDir, workDir]) rmSync(folder, { recursive: true, force: true });
});

/**
 * Largest mean difference of a slot's box between a burned-in frame and the painter's own picture.
 */
function boxDifference(
  video: string,
  assembly: Assembly,
  frame: number,
  slot: 'clock' | 'counter',
  paintedFrame = frame,
): number {
  const burned = frameOf(video, frame);
  const painted = sceneRgba({
    ...sceneAt(assembly, instantOfFrame(paintedFrame)),
    card: null,
    rising: null,
  });
  const { x, y, width, height } = SLOT_BOXES[slot];
  let sum = 0;
  let count = 0;
  for (let row = y + 20; row < y + height - 60; row += 1) {
    for (let column = x + 20; column < x + width - 20; column += 1) {
      const at = row * 1280 + column;
      if (painted[at * 4 + 3] !== 255) continue;
      count += 3;
      for (let c = 0; c < 3; c += 1)
        sum += Math.abs((burned[at * 3 + c] ?? 0) - (painted[at * 4 + c] ?? 0));
    }
  }
  return sum / count;
}

describe('an exported lesson', () => {
  const assembly = cutOf();
  let made: ExportedVideo;
  beforeAll(async () => {
    made = await make(assembly);
  });

  it('has the planned length to the frame, picture, sound and captions', async () => {
    const frames = firstFrameFrom(assembly.durationMs);
    const facts = await probe(made.video, true);
    expect(facts.video).toMatchObject({
      codec: 'h264',
      width: 1280,
      height: 720,
      rate: '30/1',
      packets: frames,
    });
    expect(facts.video?.durationMs).toBe(Math.round((frames * 1000) / 30));
    expect(facts.audio?.codec).toBe('aac');
    expect(Math.abs((facts.durationMs ?? 0) - assembly.durationMs)).toBeLessThan(60);
    expect(readFileSync(made.captions, 'utf8')).toContain('Land softly.');
  });

  it(
    'has a key frame at least every two seconds and at each chapter, and its ' +
      'captions as a track that is offered',
    async () => {
      const keys = (await picturePackets(made.video)).flatMap(({ key }, frame) =>
        key ? [frame] : [],
      );
      expect(
        Math.max(
          ...[...keys.slice(1), firstFrameFrom(assembly.durationMs)].map(
            (frame, i) => frame - (keys[i] ?? 0),
          ),
        ),
      ).toBeLessThanOrEqual(60);
      for (const { startMs } of assembly.chapters) expect(keys).toContain(firstFrameFrom(startMs));
      for (const { startMs } of assembly.blocks) expect(keys).toContain(firstFrameFrom(startMs));
      const track = (file: string) =>
        execFileSync(
          'ffmpeg',
          ['-v', 'error', '-i', file, '-map', '0:s:0', '-f', 'webvtt', 'pipe:1'],
          { encoding: 'utf8' },
        );
      const facts = (file: string) =>
        (
          JSON.parse(
            execFileSync(
              'ffprobe',
              ['-v', 'error', '-of', 'json', '-select_streams', 's', '-show_streams', file],
              { encoding: 'utf8' },
            ),
          ) as { streams: { codec_name: string; tags?: { language?: string } }[] }
        ).streams.map(({ codec_name: codec, tags }) => [codec, tags?.language]);
      const texts = (vtt: string) =>
        vtt.split('\n').filter((line) => line !== '' && !/-->|^WEBVTT|^\d+$/.test(line));
      expect(facts(made.video)).toEqual([['mov_text', 'eng']]);
      expect(texts(track(made.video))).toEqual(assembly.captions.flatMap(({ lines }) => lines));
      const { video } = await exportVideo(
        assembly,
        media,
        {
          cacheDir,
          workDir: mkdtempSync(path.join(workDir, 'webm-')),
          takePath: (sha) => footage.at(`${sha}.mp4`),
          onProgress: () => undefined,
        },
        { width: 320, height: 180, format: 'webm', overlays: true, captions: false },
      );
      expect(facts(video).map(([codec]) => codec)).toEqual(['webvtt']);
      expect(texts(track(video))).toEqual(assembly.captions.flatMap(({ lines }) => lines));
    },
  );

  it('changes the digit on the very frame of the second, as the painter draws it', () => {
    // Work runs from 2 s to 7 s: the digit goes from 4 to 3 at 4 s.
    const change = firstFrameFrom(4_000);
    for (const frame of [change - 1, change]) {
      const difference = boxDifference(made.video, assembly, frame, 'clock');
      const neighbour = boxDifference(
        made.video,
        assembly,
        frame,
        'clock',
        frame === change ? change - 1 : change,
      );
      expect(difference).toBeLessThan(6);
      expect(neighbour).toBeGreaterThan(difference * 1.5);
    }
  });

  it('counts repetitions whose length is no whole number of frames on their own frames', () => {
    const [, second] = assembly.lanes.counter;
    const change = firstFrameFrom(second?.startMs ?? 0);
    for (const frame of [change - 1, change]) {
      const difference = boxDifference(made.video, assembly, frame, 'counter');
      expect(difference).toBeLessThan(6);
      expect(
        boxDifference(
          made.video,
          assembly,
          frame,
          'counter',
          frame === change ? change - 1 : change,
        ),
      ).toBeGreaterThan(difference * 1.5);
    }
  });

  it('shows the take from its mark on, frame for frame', () => {
    // Bottom left of the picture is free of overlays: the test picture there is that of the take's
    // own frame.
    const region = (pixels: Buffer) =>
      Buffer.concat(
        Array.from({ length: 100 }, (_, row) =>
          pixels.subarray(((600 + row) * 1280 + 100) * 3, ((600 + row) * 1280 + 1180) * 3),
        ),
      );
    const apart = (a: Buffer, b: Buffer) =>
      a.reduce((sum, value, i) => sum + Math.abs(value - (b[i] ?? 0)), 0) / a.length;
    const burned = region(frameOf(made.video, 90));
    const distance = [14, 15, 16].map((shift) =>
      apart(burned, region(frameOf(footage.at('clip.mp4'), 90 + shift))),
    );
    expect(distance[1]).toBe(Math.min(...distance));
    expect(distance[1]).toBeLessThan(8);
  });

  it('has its voice at -16 LUFS and a true peak under -1 dBTP, measured on the file', async () => {
    const { integratedLufs, truePeakDb } = await measureLoudness(made.video);
    expect(Math.abs((integratedLufs ?? 0) + 16)).toBeLessThanOrEqual(0.5);
    expect(truePeakDb).toBeLessThan(-1);
    expect(made).toMatchObject({ integratedLufs, truePeakDb });
  });

  it('costs only the changed parts after a small change', async () => {
    const before = new Map(
      readdirSync(cacheDir).map((name) => [name, statSync(path.join(cacheDir, name)).mtimeMs]),
    );
    await make(cutOf({ title: 'Skip', cues: [makeCue('Soft knees', () => 'c')] }));
    const after = readdirSync(cacheDir);
    // The cue's five seconds, in parts of two.
    expect(after.filter((name) => !before.has(name)).map((name) => path.extname(name))).toEqual([
      '.mp4',
      '.mp4',
      '.mp4',
    ]);
    expect(
      [...before].every(([name, at]) => statSync(path.join(cacheDir, name)).mtimeMs === at),
    ).toBe(true);
  });

  it('mirrors the footage, not the overlays, where the lesson says so', async () => {
    const mirrored: Assembly = {
      ...assembly,
      segments: assembly.segments.map((segment) => ({
        ...segment,
        look: { ...segment.look, mirrored: true },
      })),
    };
    const plain = frameOf((await make(assembly)).video, 130);
    const other = (await make(mirrored)).video;
    expect(boxDifference(other, mirrored, 130, 'clock')).toBeLessThan(6);
    const turned = frameOf(other, 130);
    const row = (pixels: Buffer, x: (i: number) => number) =>
      Array.from({ length: 1000 }, (_, i) => pixels[(660 * 1280 + x(i + 100)) * 3] ?? 0);
    const apart = (a: number[], b: number[]) =>
      a.reduce((sum, value, i) => sum + Math.abs(value - (b[i] ?? 0)), 0) / a.length;
    const straight = row(plain, (x) => x);
    expect(
      apart(
        straight,
        row(turned, (x) => 1279 - x),
      ),
    ).toBeLessThan(6);
    expect(
      apart(
        straight,
        row(turned, (x) => x),
      ),
    ).toBeGreaterThan(12);
  });
});

describe('several workers', () => {
  const takePath = (sha: string) => footage.at(`${sha}.mp4`);

  it('render pieces of one export side by side, and the result is the same', async () => {
    // Six pieces: the first worker renders two at a time.
    const blocks = Array.from(
      { length: 6 },
      (_, i) => ({ ...work, id: `side-${i}`, workMs: 2_000 + 100 * i }) as Partial<IntervalsBlock>,
    );
    const assembly = assemble(
      lessonOf(blocks),
      new Map([['take', { id: 'take', frames: TAKE_FRAMES, marked: null }]]),
    );
    const settings = {
      width: 854,
      height: 480,
      format: 'mp4',
      overlays: true,
      captions: false,
    } as const;
    const folder = mkdtempSync(path.join(workDir, 'own-'));
    const stop = new AbortController();
    let helped = 0;
    const exporting = exportVideo(
      assembly,
      media,
      { cacheDir: folder, workDir, takePath, onProgress: () => undefined },
      settings,
    ).finally(() => stop.abort());
    // A second worker that has nothing else to do.
    while (!stop.signal.aborted) {
      if (await helpOut(folder, takePath, stop.signal).catch(() => false)) helped += 1;
      else await new Promise((done) => setTimeout(done, 20));
    }
    expect((await exporting).frames).toBe(firstFrameFrom(assembly.durationMs));
    expect(helped).toBeGreaterThan(0);
    // Nothing of the working together is left behind.
    expect(readdirSync(folder).filter((name) => /wanted|claim|part/.test(name))).toEqual([]);
  });

  it('take over what a killed one had begun', async () => {
    const assembly = cutOf({ title: 'Taken over', workMs: 1_000 });
    const folder = mkdtempSync(path.join(workDir, 'own-'));
    for (const piece of piecesOf(assembly, media)) {
      const claim = claimOf(folder, piece);
      writeFileSync(claim, '');
      utimesSync(claim, new Date(0), new Date(0));
    }
    const made = await exportVideo(assembly, media, {
      cacheDir: folder,
      workDir,
      takePath,
      onProgress: () => undefined,
    });
    expect(made.frames).toBe(firstFrameFrom(assembly.durationMs));
  });
});

describe('exports that cannot be', () => {
  it('refuses an empty lesson in words', async () => {
    await expect(make(assemble(lessonOf([]), new Map()))).rejects.toThrow(ExportFault);
  });

  it('says so when ffmpeg dies on a broken working copy, and leaves no half piece behind', async () => {
    const broken = new Map([['take', { sha: 'broken', hasSound: true }]]);
    writeFileSync(footage.at('broken.mp4'), footage.read('clip.mp4').subarray(0, 4_000));
    const running = exportVideo(cutOf(), broken, {
      cacheDir,
      workDir,
      takePath: (sha) => footage.at(`${sha}.mp4`),
      onProgress: () => undefined,
    });
    await expect(running).rejects.toBeInstanceOf(ProgramError);
    await expect(make(cutOf())).resolves.toMatchObject({
      frames: firstFrameFrom(cutOf().durationMs),
    });
  });

  it('stops when cancelled and goes on later from what it had', async () => {
    const stop = new AbortController();
    const assembly = cutOf({ workMs: 6_000 });
    await expect(
      make(assembly, stop.signal, (part) => part > 0 && stop.abort()),
    ).rejects.toBeInstanceOf(CancelledError);
    expect((await make(assembly)).frames).toBe(firstFrameFrom(assembly.durationMs));
  });
});

describe('the loudness meter', () => {
  it.each([-23, -33])(
    'reads a stereo 1 kHz sine at %i dBFS as that many LUFS (EBU Tech 3341, tests 1 and 2)',
    async (level) => {
      const file = footage.at(`sine${level}.wav`);
      execFileSync('ffmpeg', [
        '-y',
        '-v',
        'error',
        '-f',
        'lavfi',
        '-i',
        `aevalsrc=${10 ** (level / 20)}*sin(2*PI*1000*t)|${10 ** (level / 20)}*sin(2*PI*1000*t):s=48000:d=20`,
        '-c:a',
        'pcm_s24le',
        file,
      ]);
      expect(
        Math.abs(((await measureLoudness(file)).integratedLufs ?? 0) - level),
      ).toBeLessThanOrEqual(0.1);
    },
  );

  it('finds no loudness in silence', async () => {
    const file = footage.at('silence.wav');
    await ffmpeg(['-f', 'lavfi', '-i', 'anullsrc=r=48000:cl=stereo', '-t', '3', file]);
    expect(await measureLoudness(file)).toEqual({ integratedLufs: null, truePeakDb: null });
  });
});
