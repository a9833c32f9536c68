import { spawn } from 'node:child_process';
import { copyFileSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { assemble, type Assembly } from '@zest/core/assembly';
import { firstFrameFrom } from '@zest/core/time';
import { Redis } from 'ioredis';
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { foldersOf } from '../config.ts';
import { Broker } from '../jobs/broker.ts';
import type { Log } from '../log.ts';
import { openRendering } from '../jobs/open.ts';
import { openStore } from '../media/open.ts';
import { footageFolder } from '../testing/footage.ts';
import { startRedis, type TestRedis } from '../testing/redis.ts';
import { startS3, type TestS3 } from '../testing/s3.ts';
import { lessonOf, sha256 } from '../testing/server.ts';
import { brokerRendering } from './broker-rendering.ts';
import { exportVideo } from './export.ts';
import { piecesOf } from './pieces.ts';
import type { Rendering } from './rendering.ts';

const footage = footageFolder();
const quiet: Log = { info: () => undefined, error: () => undefined };
const media = new Map([['take', { sha: 'take', hasSound: true }]]);
const SETTINGS = {
  ...{ width: 854, height: 480 },
  ...{ format: 'mp4' as const, overlays: true, captions: false },
};
let redis: TestRedis;
let s3: TestS3;
let folder: string;
let cut: Assembly;
/** What one worker makes by itself. */
let alone: string;
const open: (() => Promise<void>)[] = [];
let round = 0;

beforeAll(async () => {
  [redis, s3] = [await startRedis(), await startS3()];
  folder = mkdtempSync(path.join(os.tmpdir(), 'zest-test-pieces-'));
  footage.make('take.mp4', 9, ['-c:v', 'libx264', '-preset', 'ultrafast', '-g', '30']);
  // Eight pieces.
  const blocks = Array.from({ length: 8 }, (_, i) => ({
    ...{ id: `block-${i}`, kind: 'intervals' as const, rounds: 1, restMs: 0 },
    workMs: 2_000 + 100 * i,
    footage: { takeId: 'take', startsAtMs: 500 },
  }));
  cut = assemble(lessonOf(blocks), new Map([['take', { id: 'take', frames: 270, marked: null }]]));
  alone = await exported('alone');
});
afterAll(async () => {
  await Promise.all([redis.stop(), s3.stop()]);
  footage.remove();
  rmSync(folder, { recursive: true, force: true });
});
beforeEach(() => {
  round += 1;
});
afterEach(async () => {
  for (const close of open.splice(0)) await close();
});

/** A machine of its own: its folders, its connection, and how it shares pieces. */
async function machine(name: string): Promise<Rendering> {
  const { segments, ...folders } = foldersOf(path.join(folder, `${round}-${name}`));
  const connection = new Redis(redis.address, { maxRetriesPerRequest: null });
  connection.on('error', () => undefined);
  const broker = new Broker(connection, `pieces-${round}`, 1_500, quiet);
  open.push(async () => {
    await broker.close();
    connection.disconnect();
  });
  const { parts } = await openStore(s3.settings, { segments, ...folders });
  if (!parts) throw new Error('There is no bucket.');
  return brokerRendering({
    broker,
    // Nothing of an earlier round is found.
    parts: {
      has: async (names) => {
        const own = names.map((one) => `${round}-${one}`);
        const there = await parts.has(own);
        return new Set(names.filter((_, i) => there.has(own[i] ?? '')));
      },
      put: (one, file) => parts.put(`${round}-${one}`, file),
      get: (one, file) => parts.get(`${round}-${one}`, file),
    },
    cacheDir: segments,
    takePath: (sha) => footage.at(`${sha}.mp4`),
  });
}

/** Exports on a machine of this name; gives the video's hash. */
async function exported(
  name: string,
  rendering?: Rendering,
  signal?: AbortSignal,
): Promise<string> {
  const { segments, work } = foldersOf(path.join(folder, `${round}-${name}`));
  const made = await exportVideo(
    cut,
    media,
    {
      ...{ cacheDir: segments, workDir: work, exportId: 'an-export' },
      takePath: (sha) => footage.at(`${sha}.mp4`),
      onProgress: () => undefined,
      ...(rendering && { rendering }),
      ...(signal && { signal }),
    },
    SETTINGS,
  );
  expect(made.frames).toBe(firstFrameFrom(cut.durationMs));
  return sha256(readFileSync(made.video));
}

/** Helps until it is told to stop; gives how many pieces it rendered. */
async function helpUntil(stop: AbortSignal, rendering: Rendering): Promise<number> {
  let helped = 0;
  while (!stop.aborted)
    if (await rendering.help(stop).catch(() => false)) helped += 1;
    else await sleep(20);
  return helped;
}

describe('an export whose pieces any machine takes', () => {
  it('is made by three machines as by one', async () => {
    const done = new AbortController();
    const helping = ['second', 'third'].map(async (name) =>
      helpUntil(done.signal, await machine(name)),
    );
    const video = await exported('first', await machine('first')).finally(() => done.abort());
    const helped = await Promise.all(helping);
    expect(helped.reduce((sum, n) => sum + n, 0)).toBeGreaterThan(0);
    expect(video).toBe(alone);
  });

  it('is made whole when one that had taken a piece dies', async () => {
    const dying = await machine('dying');
    const die = open.pop();
    const first = exported('first', await machine('first'));
    // Takes a piece, and is never heard of again.
    const killed = new AbortController();
    const taken = dying.help(killed.signal).catch(() => false);
    await sleep(200);
    await die?.();
    killed.abort();
    await taken;
    expect(await first).toBe(alone);
  });

  it('goes on from what was rendered, on another machine, when its own worker dies', async () => {
    const killed = new AbortController();
    const rendering = await machine('first');
    const first = exported('first', rendering, killed.signal);
    await sleep(1_500);
    killed.abort();
    await expect(first).rejects.toThrow();
    expect(await exported('second', await machine('second'))).toBe(alone);
  });

  it('is helped by a program that knows of no database', async () => {
    const own = path.join(folder, `${round}-renderer`);
    // The bucket has the take, as it has those of an installation.
    const { store } = await openStore(s3.settings, foldersOf(path.join(folder, 'filled')));
    const copy = path.join(folder, 'copy.mp4');
    copyFileSync(footage.at('take.mp4'), copy);
    const sha = await store.take(copy);
    const child = spawn(
      process.execPath,
      ['--import', 'tsx', path.resolve(import.meta.dirname, '../renderer-process.ts')],
      {
        stdio: ['ignore', 'ignore', 'inherit'],
        env: {
          ...{ PATH: process.env['PATH'], NODE_NO_WARNINGS: '1', ZEST_LOG: 'error' },
          ...{ ZEST_DATA: own, ZEST_REDIS: redis.address },
          ...{ ZEST_S3_BUCKET: s3.settings.bucket, ZEST_S3_ENDPOINT: s3.settings.endpoint },
          ...{ ZEST_S3_KEY: s3.settings.key, ZEST_S3_SECRET: s3.settings.secret },
          ZEST_S3_CHECKSUMS: '0',
        },
      },
    );
    const ended = new Promise((resolve) => child.once('exit', resolve));
    const folders = foldersOf(path.join(folder, `${round}-asking`));
    const quietly = await openRendering(
      redis.address,
      await openStore(s3.settings, folders),
      folders,
      quiet,
    );
    open.push(quietly.close);
    const pieces = piecesOf(cut, new Map([['take', { sha, hasSound: true }]]), SETTINGS);
    // Whoever asks is busy with the sound, and takes one at a time at most.
    const stop = new AbortController();
    void quietly.rendering
      .renderAll({
        ...{ pieces, settings: SETTINGS, exportId: null, signal: stop.signal },
        ...{ beside: new Promise<void>(() => undefined), onPiece: () => undefined },
      })
      .catch(() => undefined);
    const rendered = () => readdirSync(foldersOf(own).segments).length;
    const untilMs = Date.now() + 60_000;
    while (rendered() === 0 && Date.now() < untilMs) await sleep(100);
    stop.abort();
    child.kill('SIGTERM');
    expect(rendered()).toBeGreaterThan(0);
    expect(await ended).toBe(0);
  });

  it('says why a piece cannot be rendered, and can be tried again', async () => {
    const whole = readFileSync(footage.at('take.mp4'));
    footage.write('take.mp4', whole.subarray(0, 4_000));
    await expect(exported('first', await machine('first'))).rejects.toThrow(/ffmpeg/i);
    footage.write('take.mp4', whole);
    expect(await exported('first', await machine('first'))).toBe(alone);
  });
});
