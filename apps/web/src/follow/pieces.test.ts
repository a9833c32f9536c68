import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { KEPT_HEADER, PIECE_BYTES, pieceUrl, PieceStore } from './pieces.ts';

const URL = 'https://club.example/api/follow/c/takes/t?lines=360&v=1';

/** A server that knows ranges, counted, and a device that keeps answers. */
function withFile(length: number) {
  const file = Uint8Array.from({ length }, (_, i) => (i * 31 + (i >> 8)) % 256);
  const asked: string[] = [];
  const kept = new Map<string, Response>();
  const device = {
    match: (key: string) => Promise.resolve(kept.get(key)?.clone()),
    put: (key: string, answer: Response) => Promise.resolve(void kept.set(key, answer)),
  };
  const server = (_url: string, { range = '' }: Record<string, string>) => {
    asked.push(range);
    const [, from = 0, to = 0] = /bytes=(\d+)-(\d+)/.exec(range)?.map(Number) ?? [];
    const body = file.subarray(from, to + 1);
    return Promise.resolve(
      new Response(body, {
        status: 206,
        headers: { 'content-range': `bytes ${from}-${from + body.length - 1}/${length}` },
      }),
    );
  };
  const store = new PieceStore(() => Promise.resolve(device as unknown as Cache), server);
  return { file, asked, kept, store };
}

const bodyOf = async (answer: Response) => Buffer.from(await answer.arrayBuffer());

describe('footage in pieces', () => {
  it('answers any range with its bytes, and asks for every piece once', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 3 * PIECE_BYTES + 17 }),
        fc.array(fc.tuple(fc.nat(), fc.nat()), { minLength: 1, maxLength: 6 }),
        async (length, wanted) => {
          const { file, asked, store } = withFile(length);
          await Promise.all(
            wanted.map(async ([a, b]) => {
              const [from, to] = [
                Math.min(a % length, b % length),
                Math.max(a % length, b % length),
              ];
              const answer = await store.answer(URL, `bytes=${from}-${to}`);
              expect([answer.status, answer.headers.get('content-range')]).toEqual([
                206,
                `bytes ${from}-${to}/${length}`,
              ]);
              expect((await bodyOf(answer)).equals(file.subarray(from, to + 1))).toBe(true);
            }),
          );
          expect(new Set(asked).size).toBe(asked.length);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('gives who wants the rest a piece at a time, up to the end', async () => {
    const { file, store } = withFile(2 * PIECE_BYTES + 100);
    const got: Buffer[] = [];
    for (let from = 50; from < file.length;) {
      const answer = await store.answer(URL, `bytes=${from}-`);
      const bytes = await bodyOf(answer);
      expect(answer.headers.get('content-range')).toBe(
        `bytes ${from}-${from + bytes.length - 1}/${file.length}`,
      );
      expect(bytes.length).toBeLessThanOrEqual(PIECE_BYTES);
      got.push(bytes);
      from += bytes.length;
    }
    expect(Buffer.concat(got).equals(file.subarray(50))).toBe(true);
  });

  it('answers without a range with all of it, and says what was on the device', async () => {
    const { file, asked, store } = withFile(PIECE_BYTES + 5);
    const first = await store.answer(URL, null);
    expect([first.status, first.headers.get(KEPT_HEADER)]).toEqual([200, null]);
    expect((await bodyOf(first)).equals(file)).toBe(true);
    const again = await store.answer(URL, null);
    expect(again.headers.get(KEPT_HEADER)).toBe('1');
    expect((await bodyOf(again)).equals(file)).toBe(true);
    expect(asked).toHaveLength(2);
  });

  it('passes on what the server says instead, to each who waits, and keeps nothing of it', async () => {
    const kept = new Map<string, Response>();
    const device = {
      match: () => Promise.resolve(undefined),
      put: (key: string, answer: Response) => Promise.resolve(void kept.set(key, answer)),
    };
    const store = new PieceStore(
      () => Promise.resolve(device as unknown as Cache),
      () => Promise.resolve(new Response('{"message":"Closed"}', { status: 403 })),
    );
    const both = await Promise.all([store.answer(URL, 'bytes=0-'), store.answer(URL, 'bytes=0-')]);
    expect(
      await Promise.all(both.map(async (answer) => [answer.status, await answer.text()])),
    ).toEqual([
      [403, '{"message":"Closed"}'],
      [403, '{"message":"Closed"}'],
    ]);
    expect(kept.size).toBe(0);
    const behind = withFile(10).store;
    expect((await behind.answer(URL, 'bytes=10-')).status).toBe(416);
  });

  it('plays on a device that is full', async () => {
    const { file } = withFile(10);
    const device = {
      match: () => Promise.resolve(undefined),
      put: () => Promise.reject(new DOMException('full', 'QuotaExceededError')),
    };
    const store = new PieceStore(
      () => Promise.resolve(device as unknown as Cache),
      () =>
        Promise.resolve(
          new Response(file, { status: 206, headers: { 'content-range': 'bytes 0-9/10' } }),
        ),
    );
    expect((await bodyOf(await store.answer(URL, 'bytes=0-'))).equals(file)).toBe(true);
  });

  it('keeps pieces apart by the address they are of', () => {
    expect(pieceUrl('/a', 2)).toBe('/a?piece=2');
    expect(pieceUrl('/a?v=1', 2)).toBe('/a?v=1&piece=2');
  });
});
