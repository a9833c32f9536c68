import type { Job } from 'bullmq';
import { Op, type Sequelize } from 'sequelize';
import { jobKinds, JobRow, type JobKind } from '../db/models.ts';
import { wordsOf } from '../errors.ts';
import type { Log } from '../log.ts';
import type { Broker } from './broker.ts';
import { databaseQueue, type JobQueue } from './queue.ts';

/** A job in somebody's hands is looked at again after so long. */
const LATER_MS = 1_000;
/** Rows that were changed just now are still on their way to the broker. */
const ON_ITS_WAY_MS = 3_000;
const MOST_AT_ONCE = 500;
/** The broker counts the other way round, from 1 on, and does the lowest first. */
const MIDDLE = 1_000_000;
const MOST_PRIORITY = 2_000_000;

const brokerPriority = (priority: number): number =>
  Math.max(1, Math.min(MOST_PRIORITY, MIDDLE - priority));

/** What kills a process between two steps; for tests. */
export type Between = (step: string) => void;

export interface BrokerQueue extends JobQueue {
  /**
   * Tells the broker of every job that waits, or whose worker has gone, and that it does not know
   * of, or not how urgent it is: whoever should have told it died on the way, or it has lost it.
   * @returns how many
   */
  keepInStep(): Promise<number>;
}

/**
 * Jobs handed out by BullMQ over Redis, to workers on any machine. The rows that pages list stay in
 * the database, and what they say holds: the broker knows only which job waits, by its id. Each
 * change is made in the row first, so that a process that dies between the two leaves a job the
 * broker does not know of, which `keepInStep` tells it, or one it hands out that is to be done no
 * more, which is dropped when it is.
 */
export function brokerQueue(
  sequelize: Sequelize,
  broker: Broker,
  log: Log,
  {
    onItsWayMs = ON_ITS_WAY_MS,
    between = () => undefined,
  }: { onItsWayMs?: number; between?: Between } = {},
): BrokerQueue {
  const rows = databaseQueue(sequelize, broker.lockMs);
  /** Jobs in the hands of this process, as the broker knows them. */
  const inHand = new Map<string, Job>();

  const send = async ({ id, kind, priority }: JobRow): Promise<void> => {
    await broker.queue(kind).add(
      kind,
      {},
      {
        jobId: id,
        priority: brokerPriority(priority),
        removeOnComplete: true,
        removeOnFail: true,
      },
    );
  };
  /** What the broker is not told now it is told by `keepInStep`, or finds out. */
  const tell = (what: Promise<unknown>): Promise<void> =>
    what.then(
      () => undefined,
      (error: unknown) => log.error(`The queue was not told: ${wordsOf(error)}`),
    );
  const dropInHand = async ({ id }: JobRow, workerId: string): Promise<void> => {
    const job = inHand.get(id);
    inHand.delete(id);
    if (job) await tell(job.moveToCompleted(null, workerId, false));
  };
  const sendIfQueued = async (job: JobRow): Promise<void> => {
    const now = await JobRow.findByPk(job.id);
    if (now?.state === 'queued') await tell(send(now));
  };

  /** The next job of a kind that is to be done; the others are dropped, or put off. */
  const leaseOf = async (kind: JobKind, workerId: string): Promise<JobRow | null> => {
    const worker = await broker.worker(kind);
    for (;;) {
      const job = (await worker.getNextJob(workerId, { block: false })) as Job | undefined;
      if (!job?.id) return null;
      between('handed out');
      const row = await rows.leaseOne(job.id, workerId);
      between('leased');
      if (row) {
        inHand.set(row.id, job);
        return row;
      }
      const state = (await JobRow.findByPk(job.id, { attributes: ['state'] }))?.state;
      if (state === 'running' || state === 'queued')
        await job.moveToDelayed(Date.now() + LATER_MS, workerId);
      else await job.moveToCompleted(null, workerId, false);
    }
  };

  return {
    async add(order) {
      const row = await rows.add(order);
      between('added');
      if (row.state === 'queued') await tell(send(row));
      return row;
    },
    async lease(workerId, kinds = jobKinds) {
      for (const kind of kinds) {
        const row = await leaseOf(kind, workerId);
        if (row) return row;
      }
      return null;
    },
    async beat(job, workerId, progress, message) {
      const isOurs = await rows.beat(job, workerId, progress, message);
      const handed = inHand.get(job.id);
      if (isOurs && handed) await tell(handed.extendLock(workerId, broker.lockMs));
      return isOurs;
    },
    async finish(job, workerId, state, message, result) {
      await rows.finish(job, workerId, state, message, result);
      between('finished');
      await dropInHand(job, workerId);
    },
    async release(job, workerId) {
      await rows.release(job, workerId);
      between('released');
      const handed = inHand.get(job.id);
      inHand.delete(job.id);
      if (handed) await tell(handed.moveToWait(workerId));
    },
    isHeld: (job) => rows.isHeld(job),
    async rest(job, workerId) {
      await rows.rest(job, workerId);
      between('laid aside');
      await dropInHand(job, workerId);
    },
    async cancel(job) {
      await rows.cancel(job);
      between('cancelled');
      await tell(broker.queue(job.kind).remove(job.id));
    },
    async hold(job, held) {
      await rows.hold(job, held);
      between('held');
      if (held) await tell(broker.queue(job.kind).remove(job.id));
      else await sendIfQueued(job);
    },
    async first(job) {
      await rows.first(job);
      between('put first');
      const { kind, priority } = await job.reload();
      const known = (await broker.queue(kind).getJob(job.id)) as Job | undefined;
      if (known) await tell(known.changePriority({ priority: brokerPriority(priority) }));
    },
    async keepInStep() {
      const before = new Date(Date.now() - onItsWayMs);
      const waiting = await JobRow.findAll({
        where: {
          [Op.or]: [
            { state: 'queued', updatedAt: { [Op.lt]: before } },
            { state: 'running', leaseUntil: { [Op.lt]: before } },
          ],
        },
        order: [
          ['priority', 'DESC'],
          ['createdAt', 'ASC'],
        ],
        limit: MOST_AT_ONCE,
      });
      let told = 0;
      for (const row of waiting) {
        const known = (await broker.queue(row.kind).getJob(row.id)) as Job | undefined;
        const priority = brokerPriority(row.priority);
        if (known && (row.state === 'running' || known.priority === priority)) continue;
        if (known) await known.changePriority({ priority });
        else await send(row);
        told += 1;
      }
      return told;
    },
  };
}
