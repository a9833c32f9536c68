import { setTimeout as sleep } from 'node:timers/promises';
import { Redis } from 'ioredis';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { startRedis, type TestRedis } from '../testing/redis.ts';
import { until } from '../testing/server.ts';
import type { Hub } from './hub.ts';
import { Line } from './line.ts';
import { ownHub } from './own-hub.ts';
import { redisHub } from './redis-hub.ts';

let redis: TestRedis;
beforeAll(async () => {
  redis = await startRedis();
});
afterAll(() => redis.stop());

const namesIn = async (hub: Hub, book: string) => (await hub.list(book)).map(({ name }) => name);
const seen = <T>(values: T[], done: (values: T[]) => boolean) =>
  until(() => Promise.resolve(values), done, 20_000);

/** Two servers' hubs; with one server, the same one twice. */
const kinds = {
  'of one server': () => {
    const hub = ownHub();
    return Promise.resolve([hub, hub] as const);
  },
  'over Redis': async () =>
    [await redisHub(new Redis(redis.address)), await redisHub(new Redis(redis.address))] as const,
};

for (const [kind, open] of Object.entries(kinds))
  describe(`a hub ${kind}`, () => {
    let hubs: readonly [Hub, Hub];
    beforeAll(async () => {
      hubs = await open();
    });
    afterAll(() => Promise.all(hubs.map((hub) => hub.close())));

    it('tells whoever hears the channel, in order, until they leave', async () => {
      const [here, there] = hubs;
      const heard: unknown[] = [];
      const leave = await there.hear('news', (message) => heard.push(message));
      const others: unknown[] = [];
      await there.hear('other news', (message) => others.push(message));
      for (const n of [1, 2, 3]) await here.tell('news', { n, text: 'Zwölf “Quay”' });
      await seen(heard, ({ length }) => length === 3);
      leave();
      await here.tell('news', { n: 4 });
      await here.tell('other news', null);
      await seen(others, ({ length }) => length === 1);
      expect(heard).toEqual([1, 2, 3].map((n) => ({ n, text: 'Zwölf “Quay”' })));
      expect(others).toEqual([null]);
    });

    it('goes on telling one who hears a channel when another one leaves it', async () => {
      const [here, there] = hubs;
      const heard: unknown[] = [];
      const leave = await there.hear('shared', () => undefined);
      await there.hear('shared', (message) => heard.push(message));
      leave();
      await here.tell('shared', 'still there');
      await seen(heard, ({ length }) => length === 1);
      expect(heard).toEqual(['still there']);
    });

    it('keeps entries as long as they are written again, in the order they came', async () => {
      const [here, there] = hubs;
      await here.keep('book', 'b|1', { at: '5|5' }, 20_000);
      await sleep(5);
      await there.keep('book', 'a', [1], 300);
      await sleep(5);
      await there.keep('book', 'b|1', { at: '6|6' }, 20_000);
      expect(await here.list('book')).toEqual([
        { name: 'b|1', value: { at: '6|6' } },
        { name: 'a', value: [1] },
      ]);
      expect(await there.find('book', 'a')).toEqual([1]);
      await sleep(320);
      expect(await here.find('book', 'a')).toBeUndefined();
      expect(await namesIn(there, 'book')).toEqual(['b|1']);
      await there.forget('book', 'b|1');
      expect(await here.list('book')).toEqual([]);
    });

    it('gives a name to one of those who want it', async () => {
      const won = await Promise.all(
        Array.from({ length: 20 }, (_, i) =>
          (hubs[i % 2] as Hub).keepNew('names', 'code', i, 20_000),
        ),
      );
      expect(won.filter((isMine) => isMine)).toHaveLength(1);
      expect(await hubs[0].find('names', 'code')).toBe(won.indexOf(true));
      // What is gone may be had again.
      await hubs[0].keep('names', 'short', 1, 20);
      await sleep(40);
      expect(await hubs[1].keepNew('names', 'short', 2, 20_000)).toBe(true);
    });

    it('holds a line: what is said at one end is heard at the other, and who is there is counted', async () => {
      const [here, there] = hubs;
      const lines = hubs.map((hub) => new Line<'top' | 'end', string>(hub, 'line', ['top', 'end']));
      const [first, second] = [lines[0] as (typeof lines)[0], lines[1] as (typeof lines)[0]];
      const told: string[] = [];
      const counts: number[] = [];
      await first.join(
        'top',
        (message) => told.push(message),
        (count) => counts.push(count),
      );
      const leave = await second.join('end', () => undefined);
      await seen(counts, (all) => all.at(-1) === 1);
      await second.say('top', 'hello');
      await seen(told, ({ length }) => length === 1);
      leave();
      await seen(counts, (all) => all.at(-1) === 0);
      expect(counts).toEqual([0, 1, 0]);
      expect(told).toEqual(['hello']);
      await first.remember('last word', 20_000);
      expect(await second.last()).toBe('last word');
      expect(here === there).toBe(kind === 'of one server');
    });
  });

it('over Redis, what was kept is there after Redis died, and channels are heard again', async () => {
  const [connection, other] = [new Redis(redis.address), new Redis(redis.address)];
  for (const one of [connection, other]) one.on('error', () => undefined);
  const unheard = vi.spyOn(console, 'error');
  const [here, there] = [await redisHub(connection, 'gap'), await redisHub(other, 'gap')];
  const heard: unknown[] = [];
  await there.hear('news', (message) => heard.push(message));
  await here.keep('book', 'entry', 'kept', 60_000);
  const restarted = redis.restart(500);
  // Asked while it is away, and answered once it is back.
  expect(await here.find('book', 'entry')).toBe('kept');
  await restarted;
  await until(
    async () => {
      await here.tell('news', 'after');
      return heard.length;
    },
    (count) => count > 0,
    20_000,
  );
  expect(new Set(heard)).toEqual(new Set(['after']));
  expect(unheard.mock.calls).toEqual([]);
  unheard.mockRestore();
  await Promise.all([here.close(), there.close()]);
});
