import { setTimeout as sleep } from 'node:timers/promises';
import { Redis } from 'ioredis';
import { afterAll, afterEach, beforeAll, beforeEach, expect, it } from 'vitest';
import { JobRow } from '../db/models.ts';
import type { Log } from '../log.ts';
import { startRedis, type TestRedis } from '../testing/redis.ts';
import { testServer, until, type TestServer } from '../testing/server.ts';
import { Broker } from './broker.ts';
import { brokerQueue, type Between, type BrokerQueue } from './broker-queue.ts';

let redis: TestRedis;
let server: TestServer;
let teamId: string;
beforeAll(async () => {
  redis = await startRedis();
  server = await testServer();
  teamId = await server.client().signUp();
});
afterAll(async () => {
  await server.stop();
  await redis.stop();
});

const quiet: Log = { info: () => undefined, error: () => undefined };
const open: (() => Promise<void>)[] = [];
let prefix = 'p';
let round = 0;
beforeEach(async () => {
  round += 1;
  prefix = `test-${round}`;
  await JobRow.destroy({ where: {} });
});
afterEach(async () => {
  for (const close of open.splice(0)) await close();
});

/** The queue as a process of its own has it. */
function started(between?: Between): BrokerQueue {
  const connection = new Redis(redis.address, { maxRetriesPerRequest: null });
  connection.on('error', () => undefined);
  const broker = new Broker(connection, prefix, 600, quiet);
  const queue = brokerQueue(server.sequelize, broker, quiet, {
    onItsWayMs: 0,
    ...(between && { between }),
  });
  open.push(async () => {
    await broker.close();
    connection.disconnect();
  });
  return queue;
}

const order = (subjectId: string, priority = 0) => ({
  ...{ teamId, kind: 'export' as const, subjectId, priority },
  input: { subjectId },
});
const stateOf = async (id: string) => (await JobRow.findByPk(id))?.state;

/** Does what there is to do until `done` holds, looking after the broker meanwhile. */
async function workUntil(queue: BrokerQueue, done: () => Promise<boolean>): Promise<string[]> {
  const did: string[] = [];
  await until(
    async () => {
      await queue.keepInStep();
      const job = await queue.lease('rescuer', ['export']);
      if (job) {
        did.push(job.subjectId);
        await queue.finish(job, 'rescuer', 'done', 'ready', { by: 'rescuer' });
      }
      return done();
    },
    (is) => is,
    30_000,
  );
  return did;
}

it('hands each job to one of many workers, those made next and urgent ones first', async () => {
  const [here, there] = [started(), started()];
  for (let i = 0; i < 10; i += 1) await here.add(order(`lesson-${i}`));
  const urgent = await there.add(order('urgent', 5));
  const next = await there.add(order('next'));
  await there.first(next);
  const given: string[] = [];
  for (const [i, queue] of [here, there, here, there].entries())
    given.push((await queue.lease(`worker-${i}`))?.subjectId ?? '');
  expect(given).toEqual([next.subjectId, urgent.subjectId, 'lesson-0', 'lesson-1']);
  const rest = await Promise.all(
    Array.from({ length: 12 }, (_, i) => (i % 2 ? here : there).lease(`other-${i}`)),
  );
  const all = rest.flatMap((job) => job?.subjectId ?? []);
  expect(all.sort()).toEqual(Array.from({ length: 8 }, (_, i) => `lesson-${i + 2}`));
});

it('takes a job over whose worker is silent, not one that goes on', async () => {
  const [gone, here] = [started(), started()];
  const [lost, kept] = [await here.add(order('lost')), await here.add(order('kept'))];
  expect((await gone.lease('gone'))?.id).toBe(lost.id);
  const mine = await here.lease('mine');
  expect(mine?.id).toBe(kept.id);
  const beating = setInterval(() => void here.beat(kept, 'mine', 0.5, 'half'), 100);
  open.push(() => Promise.resolve(clearInterval(beating)));
  const next = started();
  const taken = await until(
    () => next.lease('next'),
    (job) => job !== null,
    20_000,
  );
  expect([taken?.id, taken?.attempts]).toEqual([lost.id, 2]);
  await next.finish(lost, 'next', 'done', 'ready');
  await sleep(1_500);
  expect(await next.lease('next')).toBeNull();
  expect(await gone.beat(lost, 'gone', 0.9, 'late')).toBe(false);
});

/** What a process does with a job, up to its end, and what becomes of the job then. */
const lives: Record<
  string,
  {
    live: (queue: BrokerQueue) => Promise<void>;
    ends: 'done' | 'held' | 'cancelled';
    steps: string[];
  }
> = {
  'does it': {
    ends: 'done',
    steps: ['added', 'handed out', 'leased', 'finished'],
    async live(queue) {
      await queue.add(order('one'));
      const job = await queue.lease('dying', ['export']);
      if (job) await queue.finish(job, 'dying', 'done', 'ready', { by: 'dying' });
    },
  },
  'gives it back': {
    ends: 'done',
    steps: ['released'],
    async live(queue) {
      await queue.add(order('one'));
      const job = await queue.lease('dying', ['export']);
      if (job) await queue.release(job, 'dying');
    },
  },
  'puts it first': {
    ends: 'done',
    steps: ['put first'],
    live: async (queue) => queue.first(await queue.add(order('one'))),
  },
  'holds it back': {
    ends: 'held',
    steps: ['held'],
    live: async (queue) => queue.hold(await queue.add(order('one')), true),
  },
  'lays it aside': {
    ends: 'held',
    steps: ['laid aside'],
    async live(queue) {
      await queue.add(order('one'));
      const job = await queue.lease('dying', ['export']);
      if (job) await queue.rest(job, 'dying');
    },
  },
  'calls it off': {
    ends: 'cancelled',
    steps: ['cancelled'],
    live: async (queue) => queue.cancel(await queue.add(order('one'))),
  },
};

for (const [what, { live, ends, steps }] of Object.entries(lives))
  for (const at of steps)
    it(`a process that ${what} and dies once it is ${at}: the job is done once, or as it was told`, async () => {
      const dying = started((step) => {
        if (step === at) throw new Error('killed');
      });
      await expect(live(dying)).rejects.toThrow('killed');
      const [row] = await JobRow.findAll();
      const rescuer = started();
      // One more, so that there is an end to wait for.
      const other = await rescuer.add(order('other'));
      const did = await workUntil(
        rescuer,
        async () => (await stateOf(other.id)) === 'done' && (await stateOf(row?.id ?? '')) === ends,
      );
      // Nobody gets it once more.
      await sleep(1_200);
      await rescuer.keepInStep();
      expect(await rescuer.lease('late', ['export'])).toBeNull();
      const isDoneBefore = at === 'finished' || ends !== 'done';
      expect(did.sort()).toEqual(isDoneBefore ? ['other'] : ['one', 'other']);
      expect(await stateOf(row?.id ?? '')).toBe(ends);
    });

it('a job that was held goes on when it is let go, wherever it was', async () => {
  const queue = started();
  const job = await queue.add(order('one'));
  await queue.hold(job, true);
  expect(await queue.lease('w')).toBeNull();
  await queue.hold(job, false);
  const running = await queue.lease('w');
  expect(running?.id).toBe(job.id);
  await queue.hold(job, true);
  expect(await queue.beat(job, 'w', 0.5, 'half')).toBe(false);
  await queue.rest(job, 'w');
  await queue.hold(job, false);
  expect((await queue.lease('w'))?.id).toBe(job.id);
});

it('loses nothing when Redis dies, or forgets everything', async () => {
  const queue = started();
  const first = await queue.add(order('before'));
  const restarted = redis.restart(300);
  const added = queue.add(order('meanwhile'));
  await restarted;
  const second = await added;
  const forgetting = new Redis(redis.address);
  await forgetting.flushall();
  await forgetting.quit();
  const third = await queue.add(order('after'));
  const all = [first, second, third];
  const did = await workUntil(queue, async () =>
    (await Promise.all(all.map(({ id }) => stateOf(id)))).every((state) => state === 'done'),
  );
  expect(did.sort()).toEqual(['after', 'before', 'meanwhile']);
});
