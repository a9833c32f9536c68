import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { assemble, type TakeFacts } from '@zest/core/assembly';
import type { RepsBlock, Side } from '@zest/core/lesson';
import { placesOf, sceneAt, type SceneItem } from '@zest/core/overlay';
import { EVERY_MS, evenClip, watchedClip } from '@zest/core/testing';
import { firstFrameFrom } from '@zest/core/time';
import { looksAt } from '@zest/performer/proof';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { footageFolder } from '../testing/footage.ts';
import { lessonOf } from '../testing/server.ts';
import { exportVideo } from './export.ts';
import { pixelsOf } from './frame-size.ts';
import { sceneRgba } from './paint.ts';

const footage = footageFolder();
const [cacheDir, workDir] = ['cache', 'work'].map((name) =>
  mkdtempSync(path.join(os.tmpdir(), `zest-${name}-`)),
) as [string, string];
const SIZE = { width: 640, height: 360 };
const FRAMES = 900;

/** Knees lifted in turn, left first, four times each, from the second second on. */
const clip = evenClip('knee-lift', { turns: 4, periodMs: 4_000 });
const { poses } = looksAt(clip, EVERY_MS);
const watched = watchedClip(clip, {
  pictures: poses.map(() => ({ luma: 120, light: null, sharp: 1, change: 1, moved: 0 })),
});

const plan = (
  reps: number,
  sides: RepsBlock['sides'],
  startSide: Side,
  sideChangeMs = 4_000,
): Partial<RepsBlock> => ({
  kind: 'reps',
  title: '',
  reps,
  sides,
  startSide,
  sideChangeMs,
  sets: 1,
  leadInMs: 0,
  demo: null,
  parts: null,
  cues: [],
  tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
});
const every = (count: number, fromMs = 1_400) =>
  Array.from({ length: count }, (_, i) => fromMs + i * 2_000);
const other = (side: Side): Side => (side === 'left' ? 'right' : 'left');
const tapped = (block: Partial<RepsBlock>, moments: readonly number[]): Partial<RepsBlock> => ({
  ...block,
  footage: { takeId: 'take', startsAtMs: 0 },
  edits: [
    { id: 't', kind: 'taps', taps: moments.map((atMs) => ({ atMs, side: null, missed: false })) },
  ],
});

/**
 * One repetition after the other: its number, read once it is done, and its side, read until then.
 */
type Done = readonly [rep: number, side: Side | null];
const inTurn = (first: Side): Done[] =>
  Array.from({ length: 8 }, (_, i) => [Math.floor(i / 2) + 1, i % 2 === 0 ? first : other(first)]);
const oneByOne = (count: number, side: Side | null): Done[] =>
  Array.from({ length: count }, (_, i) => [i + 1, side]);

/** A little slower than it was done, so that the last one is over before the block. */
const tempo = { downMs: 1_050, holdMs: 0, upMs: 1_050, topHoldMs: 0 };
const ways: readonly (readonly [string, Partial<RepsBlock>, readonly Done[]])[] = [
  ['tapped, both sides together', tapped(plan(4, 'both', 'left'), every(4)), oneByOne(4, null)],
  [
    'tapped, one side after the other, right first',
    tapped(plan(3, 'each', 'right'), [...every(3), ...every(3, 11_400)]),
    [...oneByOne(3, 'right'), ...oneByOne(3, 'left')],
  ],
  ['tapped in turn, left first', tapped(plan(4, 'alternating', 'left'), every(8)), inTurn('left')],
  [
    'tapped in turn, right first',
    tapped(plan(4, 'alternating', 'right'), every(8)),
    inTurn('right'),
  ],
  [
    'seen in turn, left first',
    { ...plan(4, 'alternating', 'left'), tempo, footage: { takeId: 'seen', startsAtMs: 2_000 } },
    inTurn('left'),
  ],
  [
    'seen, both sides together',
    { ...plan(8, 'both', 'left'), tempo, footage: { takeId: 'seen', startsAtMs: 2_000 } },
    oneByOne(8, null),
  ],
];

const takes = new Map<string, TakeFacts>([
  ['take', { id: 'take', frames: FRAMES, marked: null }],
  ['seen', { id: 'seen', frames: FRAMES, marked: null, watched }],
]);
const media = new Map(['take', 'seen'].map((id) => [id, { sha: 'clip', hasSound: false }]));

beforeAll(() => {
  footage.make(
    'clip.mp4',
    FRAMES / 30,
    ['-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p', '-g', '15', '-bf', '0'],
    { size: '320x180', sound: false },
  );
});
afterAll(() => {
  footage.remove();
  for (const folder of [cacheDir, workDir]) rmSync(folder, { recursive: true, force: true });
});

describe('the count burned in', () => {
  it.each(ways)('is read off the frames as it was done: %s', async (_name, block, wanted) => {
    const cut = assemble(lessonOf([block]), takes);
    const { video } = await exportVideo(
      cut,
      media,
      {
        cacheDir,
        workDir,
        takePath: (sha) => footage.at(`${sha}.mp4`),
        onProgress: () => undefined,
      },
      { ...SIZE, format: 'mp4', overlays: true, captions: false },
    );
    const numbers = cut.lanes.counter;
    expect(numbers).toHaveLength(wanted.length);
    /**
     * Which of the pictures, each as the painter draws it in the slot's place, a frame looks most
     * like.
     */
    const reader = <T>(
      slot: 'counter' | 'side',
      all: readonly T[],
      itemOf: (item: SceneItem, one: T) => SceneItem,
    ) => {
      const place = placesOf(cut)[0]?.[slot];
      if (!place) throw new Error(`The ${slot} has no place.`);
      const { left, top, width, height } = pixelsOf(place, SIZE);
      const area = width * height;
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
        { maxBuffer: 256 * 1024 * 1024 },
      );
      return (frame: number): T | null => {
        const scene = sceneAt(cut, (frame * 1_000) / 30);
        const item = scene.items.find((item) => item.slot === slot);
        if (!item) return null;
        let best: { one: T | null; apart: number } = { one: null, apart: Infinity };
        for (const one of all) {
          const rgba = sceneRgba(
            { ...scene, card: null, rising: null, items: [itemOf(item, one)] },
            SIZE,
          );
          let apart = 0;
          for (let i = 0; i < area; i += 1) {
            const at = ((top + Math.floor(i / width)) * SIZE.width + left + (i % width)) * 4;
            if (rgba[at + 3] === 255)
              apart += Math.abs(
                0.2126 * (rgba[at] ?? 0) +
                  0.7152 * (rgba[at + 1] ?? 0) +
                  0.0722 * (rgba[at + 2] ?? 0) -
                  (burned[frame * area + i] ?? 0),
              );
          }
          if (apart < best.apart) best = { one, apart };
        }
        return best.one;
      };
    };
    const reps = block.reps ?? 0;
    const numberOn = reader(
      'counter',
      [1, 2, 3, 4, 5, 6, 7, 8],
      (item, rep) =>
        ({ ...item, rep, shown: rep, tail: `of ${reps}`, reached: rep === reps }) as SceneItem,
    );
    const hasSides = wanted.some(([, side]) => side !== null);
    const sideOn = hasSides
      ? reader(
          'side',
          ['left', 'right'] as const,
          (item, side) =>
            ({
              ...item,
              side,
              word: side === 'left' ? 'Left' : 'Right',
              seen: side === 'left' ? 'right' : 'left',
              reading: side === 'left' ? 'on the right here' : 'on the left here',
            }) as SceneItem,
        )
      : () => null;
    for (const [i, { startMs, endMs }] of numbers.entries()) {
      const [first, last] = [
        firstFrameFrom(startMs),
        Math.min(firstFrameFrom(endMs), firstFrameFrom(cut.durationMs)) - 1,
      ];
      for (const frame of [first, Math.floor((first + last) / 2), last])
        expect([i, frame, numberOn(frame)]).toEqual([i, frame, wanted[i]?.[0]]);
      // No number flashes by.
      expect(endMs - startMs).toBeGreaterThanOrEqual(500);
      // A little before it is done, its side is still at it.
      expect([i, sideOn(first - 10)]).toEqual([i, wanted[i]?.[1]]);
    }
  });
});
