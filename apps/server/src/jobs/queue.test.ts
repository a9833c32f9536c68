import { sayStored } from '@zest/core/words';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { JobRow } from '../db/models.ts';
import { testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
let teamId: string;
beforeAll(async () => {
  server = await testServer();
  teamId = await server.client().signUp();
});
beforeEach(() => JobRow.destroy({ where: {} }));
afterAll(() => server.stop());

const order = (n: number) => ({
  teamId,
  kind: 'ingest' as const,
  subjectId: `take-${n}`,
  input: { n },
});

describe('the queue', () => {
  it('gives each job to one worker only, oldest first, however many ask at once', async () => {
    for (let n = 0; n < 8; n += 1) await server.queue.add(order(n));
    const taken = await Promise.all(
      Array.from({ length: 12 }, (_, i) => server.queue.lease(`worker-${i}`)),
    );
    const ids = taken.flatMap((job) => (job ? [job.subjectId] : []));
    expect([...ids].sort()).toEqual(Array.from({ length: 8 }, (_, n) => `take-${n}`));
    expect(await server.queue.lease('late')).toBeNull();
  });

  it('does not do equal work twice, but again after a failure', async () => {
    const first = await server.queue.add(order(1));
    expect((await server.queue.add(order(1))).id).toBe(first.id);
    const leased = await server.queue.lease('w');
    if (!leased) throw new Error('A job should wait.');
    await server.queue.finish(leased, 'w', 'failed', 'Broken');
    expect((await server.queue.add(order(1))).id).not.toBe(first.id);
  });

  it('passes a job on when its worker has gone, and takes no news from the old one', async () => {
    await server.queue.add(order(1));
    const old = await server.queue.lease('gone');
    if (!old) throw new Error('A job should wait.');
    expect(await server.queue.lease('next')).toBeNull();
    await old.update({ leaseUntil: new Date(Date.now() - 1) });
    expect((await server.queue.lease('next'))?.id).toBe(old.id);
    expect(await server.queue.beat(old, 'gone', 0.9, 'late')).toBe(false);
    await server.queue.finish(old, 'gone', 'done', 'late');
    expect((await old.reload()).state).toBe('running');
    expect(await server.queue.beat(old, 'next', 0.5, 'half')).toBe(true);
  });

  it('gives a job up that keeps ending its workers', async () => {
    await server.queue.add(order(1));
    for (let i = 0; i < 4; i += 1) {
      const job = await server.queue.lease(`w${i}`);
      expect(job).not.toBeNull();
      await job?.update({ leaseUntil: new Date(Date.now() - 1) });
    }
    expect(await server.queue.lease('w5')).toBeNull();
    const [job] = await JobRow.findAll();
    expect([job?.state, sayStored(job?.message ?? '')]).toEqual([
      'failed',
      expect.stringContaining('Given up after 4 attempts'),
    ]);
  });

  it('cancels what waits at once and what runs at its next beat; a released job waits again', async () => {
    const waiting = await server.queue.add(order(1));
    await server.queue.cancel(waiting);
    expect((await waiting.reload()).state).toBe('cancelled');
    await server.queue.add(order(2));
    const running = await server.queue.lease('w');
    if (!running) throw new Error('A job should wait.');
    await server.queue.release(running, 'w');
    expect((await running.reload()).state).toBe('queued');
    const again = await server.queue.lease('w');
    if (!again) throw new Error('A job should wait.');
    await server.queue.cancel(again);
    expect(await server.queue.beat(again, 'w', 0.1, '')).toBe(false);
  });

  it('holds back what waits at once and what runs at its next beat, and lets it go on where it was', async () => {
    const waiting = await server.queue.add(order(1));
    await server.queue.hold(waiting, true);
    expect(await server.queue.lease('w')).toBeNull();
    await server.queue.hold(waiting, false);
    const running = await server.queue.lease('w');
    if (!running) throw new Error('A job should wait.');
    await server.queue.hold(running, true);
    expect(await server.queue.beat(running, 'w', 0.4, '')).toBe(false);
    expect(await server.queue.isHeld(running)).toBe(true);
    await server.queue.rest(running, 'w');
    expect(await running.reload()).toMatchObject({ state: 'held', attempts: 0 });
    // A held job counts as the same work.
    expect((await server.queue.add(order(1))).id).toBe(running.id);
    await server.queue.hold(running, false);
    expect((await server.queue.lease('next'))?.id).toBe(running.id);
    await server.queue.hold(running, true);
    await server.queue.cancel(running);
    expect(await server.queue.isHeld(running)).toBe(false);
  });

  it('takes what was made next before older jobs', async () => {
    for (let n = 0; n < 3; n += 1) await server.queue.add(order(n));
    const last = await server.queue.add(order(3));
    await server.queue.first(last);
    expect((await server.queue.lease('w'))?.subjectId).toBe('take-3');
    expect((await server.queue.lease('w'))?.subjectId).toBe('take-0');
  });
});
