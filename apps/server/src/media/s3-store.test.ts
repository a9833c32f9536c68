import { randomBytes } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { foldersOf } from '../config.ts';
import { startS3, type TestS3 } from '../testing/s3.ts';
import { sha256 } from '../testing/server.ts';
import { FileCache } from './file-cache.ts';
import { openStore } from './open.ts';
import type { MediaStore } from './store.ts';

let s3: TestS3;
let folder: string;
/** Two machines. */
let here: MediaStore;
let there: MediaStore;

beforeAll(async () => {
  s3 = await startS3();
  folder = mkdtempSync(path.join(os.tmpdir(), 'zest-test-store-'));
  const open = async (name: string) =>
    (await openStore(s3.settings, foldersOf(path.join(folder, name)))).store;
  [here, there] = [await open('here'), await open('there')];
});
afterAll(async () => {
  await s3.stop();
  rmSync(folder, { recursive: true, force: true });
});

const written = (bytes: Uint8Array) => {
  const file = path.join(folder, 'brought');
  writeFileSync(file, bytes);
  return file;
};

it('what one machine took another one has, also in several parts', async () => {
  // More than one part of the upload.
  for (const bytes of [Buffer.from('a cue'), randomBytes(20_000_000)]) {
    const file = written(bytes);
    const sha = await here.take(file);
    expect(sha).toBe(sha256(bytes));
    expect(existsSync(file)).toBe(false);
    expect([await there.has(sha), await there.sizeOf(sha)]).toEqual([true, bytes.length]);
    expect(await there.here(sha)).toBeNull();
    // Asked for twice at a time, it comes once.
    const [first, second] = await Promise.all([there.fileOf(sha), there.fileOf(sha)]);
    expect(first).toBe(second);
    expect(readFileSync(first).equals(bytes)).toBe(true);
    expect(await there.here(sha)).toBe(first);
  }
});

it('the same content once more is there once, and counts as new', async () => {
  const bytes = Buffer.from('brought twice');
  const sha = await here.take(written(bytes));
  const later = new Date(Date.now() + 60_000);
  const old = async () => {
    const all: string[] = [];
    for await (const one of here.untouchedSince(later)) all.push(one);
    return all;
  };
  expect((await old()).filter((one) => one === sha)).toHaveLength(1);
  expect(await there.take(written(bytes))).toBe(sha);
  expect((await old()).filter((one) => one === sha)).toHaveLength(1);
  for await (const one of here.untouchedSince(new Date(Date.now() - 60_000)))
    expect(one).not.toBe(sha);
});

it('gives a stretch, says what is not there, and drops content everywhere', async () => {
  const bytes = randomBytes(1_000);
  const sha = await here.take(written(bytes));
  const stretch = await here.remote?.read(sha, 'bytes=10-19');
  expect([stretch?.bytes, stretch?.contentRange]).toEqual([10, 'bytes 10-19/1000']);
  expect(Buffer.concat(await (stretch?.body.toArray() as Promise<Buffer[]>))).toEqual(
    bytes.subarray(10, 20),
  );
  await expect(here.remote?.read(sha, 'bytes=5000-')).rejects.toMatchObject({ status: 416 });
  await here.drop(sha);
  expect([await there.has(sha), await there.sizeOf(sha), await here.here(sha)]).toEqual([
    false,
    0,
    null,
  ]);
  await expect(there.fileOf(sha)).rejects.toThrow();
});

it('content that was spoilt on its way is not kept', async () => {
  const cache = new FileCache(path.join(folder, 'spoilt'), 1_000);
  const sha = sha256(Buffer.from('whole'));
  await expect(cache.get(sha, async (file) => writeFileSync(file, 'half'))).rejects.toThrow(
    'It was not kept',
  );
  expect(await cache.find(sha)).toBeNull();
  expect(await cache.get(sha, async (file) => writeFileSync(file, 'whole'))).toBe(
    await cache.find(sha),
  );
});

it('a machine keeps what is in use near, and of the rest no more than it may', async () => {
  let now = Date.now();
  const cache = new FileCache(path.join(folder, 'near'), 2_500, () => now);
  const shas: string[] = [];
  for (let i = 0; i < 4; i += 1) {
    const bytes = Buffer.alloc(1_000, i);
    shas.push(sha256(bytes));
    await cache.get(sha256(bytes), async (file) => writeFileSync(file, bytes));
    now += 1_000;
  }
  // All of it was asked for just now.
  expect(await Promise.all(shas.map((sha) => cache.find(sha)))).not.toContain(null);
  const longAgo = (now - 7_200_000) / 1_000;
  for (const [i, sha] of shas.entries()) utimesSync(cache.pathOf(sha), longAgo + i, longAgo + i);
  await cache.prune();
  const kept = shas.map((sha) => existsSync(cache.pathOf(sha)));
  expect(kept).toEqual([false, false, true, true]);
});

it('says at once that a bucket is not there', async () => {
  const folders = foldersOf(path.join(folder, 'wrong'));
  await expect(openStore({ ...s3.settings, bucket: 'another' }, folders)).rejects.toThrow();
});

it('goes on once a store that refused for a while is back', async () => {
  const bytes = randomBytes(100_000);
  // More at once than the client by itself would ask again for.
  const [sha, answers] = await Promise.all([
    here.take(written(bytes)),
    Promise.all(Array.from({ length: 40 }, () => there.has(sha256(Buffer.from('not there'))))),
    s3.refuse(5_000),
  ]);
  expect(readFileSync(await there.fileOf(sha)).equals(bytes)).toBe(true);
  expect(new Set(answers)).toEqual(new Set([false]));
});
