import type { Job } from 'bullmq';
import { Op, type Sequelize } from 'sequelize';
import { jobKinds, JobRow, type JobKind } from '../db/models.ts';
import { wordsOf } from '../errors.ts';
import type { Log } from '../log.ts';
import type { Broker } from './broker.ts';
import { databaseQueue, type JobQueue, type RowQueue } from './queue.ts';

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

interface Ways {
  rows: RowQueue;
  broker: Broker;
  between: Between;
  /** What the broker is not told now it is told by `keepInStep`, or finds out. */
  tell: (what: Promise<unknown>) => Promise<void>;
}

async function send(broker: Broker, { id, kind, priority }: JobRow): Promise<void> {
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
}

/** Jobs as they are ordered, put before others, held and called off. */
const orderedJobs = ({
  rows,
  broker,
  between,
  tell,
}: Ways): Pick<JobQueue, 'add' | 'cancel' | 'hold' | 'first'> => ({
  async add(order) {
    const row = await rows.add(order);
    between('added');
    if (row.state === 'queued') await tell(send(broker, row));
    return row;
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
    else if ((await job.reload()).state === 'queued') await tell(send(broker, job));
  },
  async first(job) {
    await rows.first(job);
    between('put first');
    const { kind, priority } = await job.reload();
    const known = (await broker.queue(kind).getJob(job.id)) as Job | undefined;
    if (known) await tell(known.changePriority({ priority: brokerPriority(priority) }));
  },
});

/** Jobs in the hands of this process, as the broker knows them. */
function handedJobs({
  rows,
  broker,
  between,
  tell,
}: Ways): Pick<JobQueue, 'lease' | 'beat' | 'finish' | 'release' | 'rest'> {
  const inHand = new Map<string, Job>();
  const outOfHand = (id: string): Job | undefined => {
    const job = inHand.get(id);
    inHand.delete(id);
    return job;
  };
  const drop = async (id: string, workerId: string): Promise<void> => {
    const job = outOfHand(id);
    if (job) await tell(job.moveToCompleted(null, workerId, false));
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
      await drop(job.id, workerId);
    },
    async release(job, workerId) {
      await rows.release(job, workerId);
      between('released');
      const handed = outOfHand(job.id);
      if (handed) await tell(handed.moveToWait(workerId));
    },
    async rest(job, workerId) {
      await rows.rest(job, workerId);
      between('laid aside');
      await drop(job.id, workerId);
    },
  };
}

/** Tells the broker what it should know; gives how many jobs that were. */
async function keepInStep(broker: Broker, onItsWayMs: number): Promise<number> {
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
    else await send(broker, row);
    told += 1;
  }
  return told;
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
  const tell = (what: Promise<unknown>): Promise<void> =>
    what.then(
      () => undefined,
      (error: unknown) => log.error(`The queue was not told: ${wordsOf(error)}`),
    );
  const ways = { rows, broker, between, tell };
  return {
    ...orderedJobs(ways),
    ...handedJobs(ways),
    isHeld: (job) => rows.isHeld(job),
    keepInStep: () => keepInStep(broker, onItsWayMs),
  };
}
