import { readFileSync } from 'node:fs';
import { readdir } from 'node:fs/promises';
import { buffer } from 'node:stream/consumers';
import {
  ARCHIVE_LIMITS,
  LESSON_NAME,
  MANIFEST_NAME,
  mediaName,
  type ArchiveManifest,
} from '@zest/core/formats';
import { LESSON_VERSION } from '@zest/core/lesson';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import yazl from 'yazl';
import { TakeRow } from '../db/models.ts';
import {
  lessonOf,
  sha256,
  signUpSecond,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

let server: TestServer;
let teacher: TestClient;
let other: TestClient;
const free = { bytes: 1e12 };
const clip = readFileSync(new URL('../../../../demo/clips/welcome.mp4', import.meta.url));

beforeAll(async () => {
  server = await testServer({ freeBytes: () => Promise.resolve(free.bytes) });
  void server.startWorker();
  teacher = server.client();
  await teacher.signUp();
  other = await signUpSecond(server);
});
afterAll(() => server.stop());

const takeIn = (zip: Uint8Array, who = teacher) =>
  who.send('POST', '/api/archives', zip, { 'content-type': 'application/zip' });

/** A zip of the files given, in that order. */
async function zipOf(files: readonly (readonly [string, string | Buffer])[]): Promise<Buffer> {
  const zip = new yazl.ZipFile();
  for (const [name, content] of files) zip.addBuffer(Buffer.from(content), name);
  zip.end();
  return buffer(zip.outputStream as NodeJS.ReadableStream);
}

const document = JSON.stringify(lessonOf([{ kind: 'intervals', title: 'Ropes' }]));
/** Packs to a thousandth. */
const bomb = Buffer.alloc(30_000_000);
const footage = Buffer.from('not really a video, but of this content');

/** As version 1 wrote it, without what came later. */
function manifestOf(
  change: (manifest: ArchiveManifest) => unknown = (manifest) => manifest,
): string {
  return JSON.stringify(
    change({
      format: 'zest-archive',
      version: 1,
      lesson: { sha256: sha256(Buffer.from(document)), bytes: Buffer.byteLength(document) },
      media: [{ sha256: sha256(footage), bytes: footage.length }],
      takes: [
        { takeId: 't', blockId: 'b', name: 'Take', source: 'upload', sha256: sha256(footage) },
      ],
    } as unknown as ArchiveManifest),
  );
}
const media = mediaName(sha256(footage));
const good = (manifest = manifestOf()) =>
  [
    [MANIFEST_NAME, manifest],
    [LESSON_NAME, document],
    [media, footage],
  ] as const;

/** Bytes of a zip with every occurrence of one text replaced by another of the same length. */
function patched(zip: Buffer, from: Buffer | string, to: Buffer | string): Buffer {
  const out = Buffer.from(zip);
  for (let at = out.indexOf(from); at >= 0; at = out.indexOf(from, at + 1))
    Buffer.from(to).copy(out, at);
  return out;
}

describe('a lesson archive', () => {
  it('brings lesson and footage to another teacher as they were', async () => {
    const made = await teacher.makeLesson(
      lessonOf([{ kind: 'talk', title: 'Welcome', fixedMs: 3_000, script: 'Hello 🤸 “all”.' }]),
    );
    const block = made.lesson.sections[0]?.blocks[0];
    const takeId = await teacher.makeTake(made.id, block?.id);
    expect((await teacher.upload(takeId, clip)).status).toBe(204);
    await until(
      () => teacher.get(`/api/lessons/${made.id}/takes`),
      ({ body }) => body[0].state === 'ready',
    );
    if (block) block.footage = { takeId, startsAtMs: 500 };
    await teacher.send('PUT', `/api/lessons/${made.id}`, { baseRevision: 1, lesson: made.lesson });

    await TakeRow.update(
      { markStartMs: 750, markEndMs: 1_500, note: 'Good.' },
      { where: { id: takeId } },
    );
    const zip = await teacher.bytes(`/api/lessons/${made.id}/archive`);
    expect(zip.length).toBeGreaterThan(clip.length);
    const answer = await takeIn(zip, other);
    expect(answer.status).toBe(201);
    const own = answer.body.lesson.sections[0].blocks[0].footage;
    expect(own.takeId).not.toBe(takeId);
    expect(answer.body.lesson).toEqual(
      JSON.parse(JSON.stringify(made.lesson).replaceAll(takeId, own.takeId)),
    );
    const [take] = (
      await until(
        () => other.get(`/api/lessons/${answer.body.id}/takes`),
        ({ body }) => body[0].state === 'ready',
      )
    ).body;
    expect(take).toMatchObject({
      id: own.takeId,
      blockId: block?.id,
      name: 'Take',
      note: 'Good.',
      marked: { startMs: 750, endMs: 1_500, rate: null },
    });
    expect((await other.get(`/api/takes/${own.takeId}/video`)).status).toBe(200);

    const light = await teacher.bytes(`/api/lessons/${made.id}/archive?media=0`);
    expect(light.length).toBeLessThan(10_000);
    const without = await takeIn(light, other);
    expect([without.status, without.body.lesson.sections[0].blocks[0].footage]).toEqual([
      201,
      null,
    ]);
  });

  it('stores no footage that none of its takes is made of', async () => {
    const extra = Buffer.from('footage of nobody');
    const manifest = manifestOf((m) => ({
      ...m,
      media: [...m.media, { sha256: sha256(extra), bytes: extra.length }],
    }));
    expect(
      (await takeIn(await zipOf([...good(manifest), [mediaName(sha256(extra)), extra]]))).status,
    ).toBe(201);
    expect([
      await server.store.has(sha256(extra)),
      await server.store.has(sha256(footage)),
    ]).toEqual([false, true]);
  });

  it('leaves nothing behind of what it refuses', async () => {
    expect((await takeIn(await zipOf(good()))).status).toBe(201);
    const before = (await teacher.get('/api/lessons')).body.length;
    await takeIn(await zipOf(good().slice(0, 2)));
    expect((await teacher.get('/api/lessons')).body).toHaveLength(before);
    // A job may be at work on footage of the one that was taken in.
    expect(
      (await readdir(server.folders.work)).filter((name) => name.startsWith('archive-')),
    ).toEqual([]);
  });

  const faults: [string, () => Promise<Buffer>, string][] = [
    ['no zip', () => Promise.resolve(Buffer.from('hello')), 'cannot be read'],
    [
      'that unpacks to far more than footage could',
      () =>
        zipOf([
          [
            MANIFEST_NAME,
            manifestOf((m) => ({
              ...m,
              media: [{ sha256: sha256(bomb), bytes: bomb.length }],
              takes: m.takes.map((take) => ({ ...take, sha256: sha256(bomb) })),
            })),
          ],
          good()[1],
          [mediaName(sha256(bomb)), bomb],
        ]),
      'no footage is packed like that',
    ],
    ['cut short', async () => (await zipOf(good())).subarray(0, 300), 'cannot be read'],
    ['a zip of something else', () => zipOf([['photo.jpg', 'x']]), 'not a lesson archive'],
    [
      'of a newer version',
      () => zipOf(good(manifestOf((m) => ({ ...m, version: 99 })))),
      'Update the program',
    ],
    [
      'with a manifest that is no JSON',
      () => zipOf([[MANIFEST_NAME, '{'], ...good().slice(1)]),
      'damaged',
    ],
    [
      'with a manifest of wrong types',
      () => zipOf(good(manifestOf((m) => ({ ...m, media: 7 })))),
      'wrong at media',
    ],
    [
      'with footage nobody listed',
      () => zipOf([...good(), ['media/extra', 'x']]),
      'does not belong',
    ],
    ['with a file twice', () => zipOf([...good(), [LESSON_NAME, document]]), 'there twice'],
    ['without its footage', () => zipOf(good().slice(0, 2)), 'lacks “media/'],
    [
      'with a take of footage that is not listed',
      () =>
        zipOf(
          good(
            manifestOf((m) => ({
              ...m,
              takes: m.takes.map((take) => ({ ...take, sha256: 'a'.repeat(64) })),
            })),
          ),
        ),
      'footage of “Take” is not in the archive',
    ],
    [
      'with a lesson that was changed',
      () => zipOf([good()[0], [LESSON_NAME, document.replace('Ropes', 'Discs')], good()[2]]),
      'changed or damaged',
    ],
    [
      'with footage of another content',
      () => zipOf([good()[0], good()[1], [media, footage.toString().toUpperCase()]]),
      'damaged on its way',
    ],
    [
      'with a lesson of a newer version',
      () => {
        const newer = JSON.stringify({ format: 'zest-lesson', version: LESSON_VERSION + 1 });
        return zipOf([
          [
            MANIFEST_NAME,
            manifestOf((m) => ({
              ...m,
              lesson: { sha256: sha256(Buffer.from(newer)), bytes: newer.length },
            })),
          ],
          [LESSON_NAME, newer],
          good()[2],
        ]);
      },
      'Update the program',
    ],
    [
      'with a path out of its folder',
      async () => patched(await zipOf(good()), media, `../../${'x'.repeat(media.length - 6)}`),
      'invalid relative path',
    ],
    [
      'with an absolute path',
      async () => patched(await zipOf(good()), media, `/${'x'.repeat(media.length - 1)}`),
      'absolute path',
    ],
    [
      'with a path of another system',
      async () => patched(await zipOf(good()), media, `..\\${'x'.repeat(media.length - 3)}`),
      'invalid characters',
    ],
    [
      'with too many files',
      () =>
        zipOf([
          ...good(),
          ...Array.from({ length: ARCHIVE_LIMITS.entries }, (_, i) => [`f${i}`, 'x'] as const),
        ]),
      'a lesson’s has at most',
    ],
    [
      'that says it is larger than the disk',
      () =>
        zipOf(
          good(
            manifestOf((m) => ({ ...m, media: m.media.map((file) => ({ ...file, bytes: 9e15 })) })),
          ),
        ),
      'bytes where 9000000000000000 are listed',
    ],
    [
      // 40 MB of zeros in 40 kB, said to be 100 bytes.
      'that unpacks to more than it says',
      async () => {
        const zeros = Buffer.alloc(40_000_000);
        const zip = await zipOf([
          [
            MANIFEST_NAME,
            manifestOf((m) => ({
              ...m,
              media: [{ sha256: sha256(zeros), bytes: 100 }],
              takes: m.takes.map((take) => ({ ...take, sha256: sha256(zeros) })),
            })),
          ],
          [LESSON_NAME, document],
          [mediaName(sha256(zeros)), zeros],
        ]);
        const size = (n: number) => Buffer.from(Uint32Array.of(n).buffer);
        return patched(zip, size(zeros.length), size(100));
      },
      'The archive cannot be read',
    ],
    [
      'with a manifest that unpacks without end',
      () =>
        zipOf([
          [MANIFEST_NAME, Buffer.alloc(ARCHIVE_LIMITS.documentBytes + 1, 32)],
          ...good().slice(1),
        ]),
      'unpacks to more',
    ],
    [
      'locked with a password',
      async () => {
        const zip = await zipOf(good());
        // The first flag of each entry, in its own and in the central header.
        for (const [mark, flags] of [
          ['PK\x03\x04', 6],
          ['PK\x01\x02', 8],
        ] as const)
          for (let at = zip.indexOf(mark); at >= 0; at = zip.indexOf(mark, at + 1))
            zip[at + flags] = (zip[at + flags] ?? 0) | 1;
        return zip;
      },
      'locked with a password',
    ],
  ];
  it.each(faults)('%s is refused in words', async (_name, make, words) => {
    const { status, body } = await takeIn(await make());
    expect([status, body.message]).toEqual([400, expect.stringContaining(words)]);
  });

  it('is not taken in where there is no room for it', async () => {
    free.bytes = 512 * 1024 ** 2 + 1_200;
    const zip = await zipOf(good());
    expect((await takeIn(zip)).body.message).toContain('MB there is room for');
    free.bytes = 512 * 1024 ** 2 + zip.length;
    const more = Buffer.alloc(zip.length + 1);
    const large = await zipOf([
      [
        MANIFEST_NAME,
        manifestOf((m) => ({
          ...m,
          media: [{ sha256: sha256(more), bytes: more.length }],
          takes: m.takes.map((take) => ({ ...take, sha256: sha256(more) })),
        })),
      ],
      [LESSON_NAME, document],
      [mediaName(sha256(more)), more],
    ]);
    expect((await takeIn(large)).body.message).toContain('more than there is room for');
    free.bytes = 1e12;
  });
});
