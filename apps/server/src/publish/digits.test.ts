import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { assemble } from '@zest/core/assembly';
import { placesOf, SLOT_BOXES, sceneAt } from '@zest/core/overlay';
import { firstFrameFrom, instantOfFrame } from '@zest/core/time';
import { afterAll, expect, it } from 'vitest';
import { makeWorkingCopy } from '../media/ingest.ts';
import { footageFolder } from '../testing/footage.ts';
import { lessonOf } from '../testing/server.ts';
import { exportVideo } from './export.ts';
import { pixelsOf } from './frame-size.ts';
import { sceneRgba } from './paint.ts';
import { piecesOf } from './pieces.ts';

const footage = footageFolder();
const cacheDir = mkdtempSync(path.join(os.tmpdir(), 'zest-cache-'));
const workDir = mkdtempSync(path.join(os.tmpdir(), 'zest-work-'));
afterAll(() => {
  footage.remove();
  for (const folder of [cacheDir, workDir]) rmSync(folder, { recursive: true, force: true });
});

const SIZE = { width: 640, height: 360 };
const SECONDS = 60;

it.each(['30', '30000/1001'])(
  'every second of a minute changes on its own frame, in pieces joined again, over footage of %s frames a second',
  async (rate) => {
    const source = footage.at(`source-${rate.replace('/', '-')}.mp4`);
    execFileSync('ffmpeg', [
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      `testsrc2=size=160x90:rate=${rate}:duration=${SECONDS + 1}`,
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-pix_fmt',
      'yuv420p',
      source,
    ]);
    const take = await makeWorkingCopy(
      source,
      mkdtempSync(path.join(workDir, 'take-')),
      () => undefined,
    );
    const lesson = lessonOf([
      {
        kind: 'intervals',
        title: '',
        workMs: SECONDS * 1_000,
        rounds: 1,
        leadInMs: 0,
        footage: { takeId: 'take', startsAtMs: 0 },
      },
    ]);
    const cut = assemble(
      { ...lesson, finish: { ...lesson.finish, look: { ...lesson.finish.look, clock: 'digits' } } },
      new Map([['take', { id: 'take', frames: take.frames, marked: null }]]),
    );
    const media = new Map([['take', { sha: `take-${rate}`, hasSound: false }]]);
    const settings = { ...SIZE, format: 'mp4', overlays: true, captions: false } as const;
    expect(piecesOf(cut, media, settings)).toHaveLength(3);
    const { video } = await exportVideo(
      cut,
      media,
      { cacheDir, workDir, takePath: () => take.video, onProgress: () => undefined },
      settings,
    );
    const { left, top, width, height } = pixelsOf(
      placesOf(cut)[0]?.clock ?? SLOT_BOXES.clock,
      SIZE,
    );
    const burned = execFileSync(
      'ffmpeg',
      [
        '-v',
        'error',
        '-i',
        video,
        '-vf',
        `crop=${width}:${height}:${left}:${top},scale=in_range=tv:out_range=pc,format=gray`,
        '-f',
        'rawvideo',
        'pipe:1',
      ],
      { maxBuffer: 512 * 1024 * 1024 },
    );
    const area = width * height;
    expect(burned.length).toBe(area * firstFrameFrom(cut.durationMs));
    const painted = Array.from({ length: SECONDS }, (_, second) => {
      const rgba = sceneRgba(sceneAt(cut, second * 1_000), SIZE);
      return Uint8Array.from({ length: area }, (_unused, i) => {
        const at = ((top + Math.floor(i / width)) * SIZE.width + left + (i % width)) * 4;
        return (
          0.2126 * (rgba[at] ?? 0) + 0.7152 * (rgba[at + 1] ?? 0) + 0.0722 * (rgba[at + 2] ?? 0)
        );
      });
    });
    /** The second whose picture a frame looks most like, of those around the one expected. */
    const secondOn = (frame: number, around: number) => {
      const burnedBox = burned.subarray(frame * area, (frame + 1) * area);
      let [best, least] = [-1, Infinity];
      for (
        let second = Math.max(0, around - 2);
        second <= Math.min(SECONDS - 1, around + 1);
        second += 1
      ) {
        const picture = painted[second] ?? burnedBox;
        let apart = 0;
        for (let i = 0; i < area; i += 1)
          apart += Math.abs((picture[i] ?? 0) - (burnedBox[i] ?? 0));
        if (apart < least) [best, least] = [second, apart];
      }
      return best;
    };
    for (let second = 1; second < SECONDS; second += 1) {
      const change = firstFrameFrom(second * 1_000);
      expect([second, secondOn(change - 1, second), secondOn(change, second)]).toEqual([
        second,
        second - 1,
        second,
      ]);
      expect(instantOfFrame(change)).toBeGreaterThanOrEqual(second * 1_000);
    }
  },
  300_000,
);
