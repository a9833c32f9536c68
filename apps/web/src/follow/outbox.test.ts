import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { EntryBody } from '@zest/core/results';
import {
  choicesOf,
  keepTicks,
  keepWaiting,
  readChosen,
  readMe,
  readTicks,
  readWaiting,
} from './device.ts';
import { entryId, Outbox, type OutboxState } from './outbox.ts';

const effort = (value: number): EntryBody => ({ kind: 'effort', value });
/** What reached the server, each id once as it keeps them. */
let server: Map<string, EntryBody>;
let answers: (ids: string[]) => number;
let told: OutboxState[];
let box: Outbox;

beforeEach(() => {
  const store = new Map<string, string>();
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => store.get(key) ?? null,
    setItem: (key: string, value: string) => void store.set(key, value),
    removeItem: (key: string) => void store.delete(key),
  });
  vi.stubGlobal('addEventListener', () => undefined);
  vi.stubGlobal('removeEventListener', () => undefined);
  server = new Map();
  answers = () => 204;
  told = [];
  vi.stubGlobal('fetch', (_url: string, init: RequestInit) => {
    const { entries } = JSON.parse(String(init.body)) as {
      entries: { id: string; body: EntryBody }[];
    };
    const status = answers(entries.map(({ id }) => id));
    if (status === 0) return Promise.reject(new TypeError('offline'));
    if (status === 204) for (const { id, body } of entries) server.set(id, body);
    return Promise.resolve(
      new Response(status === 204 ? null : JSON.stringify({ message: `no ${status}` }), { status }),
    );
  });
  box = new Outbox({ code: 'code', title: 'Ropes' }, (state) => told.push(state));
});
afterEach(() => {
  box.stop();
  vi.unstubAllGlobals();
});

describe('what is on its way to the teacher', () => {
  it('waits on the device without a connection, and goes once there is one', async () => {
    answers = () => 0;
    box.put('token', effort(2));
    box.put('token', effort(3));
    await box.flush();
    expect([server.size, readWaiting().length, told.at(-1)?.waiting]).toEqual([0, 2, 2]);
    answers = () => 204;
    await box.flush();
    expect([...server.values()]).toEqual([effort(2), effort(3)]);
    expect(told.at(-1)).toEqual({ waiting: 0, stuck: [] });
  });

  it('is replaced by what is said under the same id, and by nothing else', async () => {
    answers = () => 0;
    const visit = entryId();
    box.put('token', { kind: 'reached', atMs: 1, totalMs: 9 }, visit);
    box.put('token', { kind: 'reached', atMs: 5, totalMs: 9 }, visit);
    box.put('token', effort(1));
    await box.flush();
    expect(readWaiting()).toHaveLength(2);
    answers = () => 204;
    await box.flush();
    expect(server.get(visit)).toEqual({ kind: 'reached', atMs: 5, totalMs: 9 });
  });

  it('goes although one of it is refused for good, which stays with the reason until it is given up', async () => {
    answers = () => 0;
    for (const value of [1, 2, 3]) box.put('token', effort(value));
    await box.flush();
    const bad = readWaiting()[1]?.id ?? '';
    answers = (ids) => (ids.includes(bad) ? 400 : 204);
    await box.flush();
    expect([...server.values()]).toEqual([effort(1), effort(3)]);
    expect(readWaiting().map(({ id }) => id)).toEqual([bad]);
    expect(told.at(-1)).toEqual({
      waiting: 0,
      stuck: [{ code: 'code', title: 'Ropes', count: 1, message: 'no 400' }],
    });
    // It is not sent again by itself.
    answers = () => 204;
    await box.flush();
    expect(server.size).toBe(2);
    box.tryAgain('code');
    await box.flush();
    expect([server.size, readWaiting().length, told.at(-1)?.stuck]).toEqual([3, 0, []]);
  });

  it.each([401, 403, 404])(
    'stays when its link answers %s, holds up no other lesson, and is said so',
    async (status) => {
      keepWaiting([
        { code: 'old', token: 'token', id: 'a'.repeat(20), at: 1, body: effort(1), title: 'Discs' },
      ]);
      answers = (ids) => (ids.includes('a'.repeat(20)) ? status : 204);
      box.put('token', effort(2));
      await box.flush();
      expect([...server.values()]).toEqual([effort(2)]);
      expect(readWaiting().map(({ code }) => code)).toEqual(['old']);
      expect(told.at(-1)).toEqual({
        waiting: 0,
        stuck: [{ code: 'old', title: 'Discs', count: 1, message: `no ${status}` }],
      });
      box.discard('old');
      expect([readWaiting(), told.at(-1)?.stuck]).toEqual([[], []]);
    },
  );

  it('is kept apart where the server takes only a part of it', async () => {
    answers = () => 0;
    for (const value of [1, 2]) box.put('token', effort(value));
    await box.flush();
    const [late] = readWaiting();
    vi.stubGlobal('fetch', () =>
      Promise.resolve(
        new Response(
          JSON.stringify({ refused: [{ id: late?.id, code: 'odd', message: 'too late' }] }),
        ),
      ),
    );
    await box.flush();
    expect(readWaiting().map(({ id, refused }) => [id, refused])).toEqual([[late?.id, 'too late']]);
    expect(told.at(-1)?.stuck.map(({ message }) => message)).toEqual(['too late']);
  });

  it('has ids nobody has twice', () => {
    expect(new Set(Array.from({ length: 1_000 }, entryId)).size).toBe(1_000);
    expect(entryId()).toMatch(/^[\w-]{20}$/);
  });
});

describe('what a device keeps', () => {
  it('is read back, and rubbish is nothing', () => {
    keepTicks('code', ['kit rope']);
    expect(readTicks('code')).toEqual(['kit rope']);
    localStorage.setItem('zest-ticks-other', '{');
    localStorage.setItem('zest-me-class', '{"token":"t"}');
    localStorage.setItem('zest-choices', '{"larger":true}');
    expect([
      readTicks('other'),
      readMe('class'),
      choicesOf(readChosen(), null, null).larger,
      choicesOf(readChosen(), null, null).captions,
    ]).toEqual([[], null, true, true]);
    keepWaiting([]);
    expect(readWaiting()).toEqual([]);
  });

  it('follows the card in hand, language and ways of the page until something else is chosen', () => {
    const left = {
      hand: 'left' as const,
      language: 'es-MX',
      page: ['calm' as const, 'strip' as const],
    };
    const shown = ({ hand, language }: ReturnType<typeof choicesOf>) => [hand, language];
    expect(shown(choicesOf({}, null, 'es'))).toEqual(['as filmed', 'first']);
    expect(shown(choicesOf({}, left, 'es'))).toEqual(['other hand', 'second']);
    expect(shown(choicesOf({}, left, 'de'))).toEqual(['other hand', 'first']);
    expect(shown(choicesOf({}, left, null))).toEqual(['other hand', 'first']);
    expect(shown(choicesOf({ hand: 'as filmed', language: 'first' }, left, 'es'))).toEqual([
      'as filmed',
      'first',
    ]);
    const ways = ({ calm, partByPart, strip }: ReturnType<typeof choicesOf>) => [
      calm,
      partByPart,
      strip,
    ];
    expect(ways(choicesOf({}, null, null))).toEqual([false, false, false]);
    expect(ways(choicesOf({ strip: false }, left, null))).toEqual([true, false, false]);
  });
});
