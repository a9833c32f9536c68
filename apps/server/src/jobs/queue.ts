import { nanoid } from 'nanoid';
import { Op, Transaction, type Sequelize } from 'sequelize';
import { textToSay } from '@zest/core/words';
import { jobKinds, JobRow, type JobKind, type JobState } from '../db/models.ts';
import { hashOf } from '../media/store.ts';

/** A worker holds a job this long without renewing; then another may take it over. */
export const LEASE_MS = 15_000;
/**
 * A job that was started this often and never ended is given up: something in it kills its worker.
 */
const MOST_ATTEMPTS = 4;

export interface JobOrder {
  teamId: string;
  kind: JobKind;
  subjectId: string;
  input: unknown;
  /** Higher comes first; 0 when left out. */
  priority?: number;
}

/**
 * What a worker does with the queue. A port: MariaDB now, a broker when one machine is not enough.
 */
export interface JobQueue {
  /** Puts an order in line; an equal one that waits, runs or is done is given back instead. */
  add(order: JobOrder): Promise<JobRow>;
  /**
   * Takes the oldest job of these kinds, or of any, that waits or whose worker has gone; null when there is
   * none.
   */
  lease(workerId: string, kinds?: readonly JobKind[]): Promise<JobRow | null>;
  /**
   * Renews the lease and stores progress.
   * @returns false when the job was cancelled or taken over
   */
  beat(job: JobRow, workerId: string, progress: number, message: string): Promise<boolean>;
  finish(
    job: JobRow,
    workerId: string,
    state: Extract<JobState, 'done' | 'failed' | 'cancelled'>,
    message: string,
    result?: unknown,
  ): Promise<void>;
  /** Gives a job back unfinished, for the next worker. */
  release(job: JobRow, workerId: string): Promise<void>;
  /** Whether a running job was asked to wait. */
  isHeld(job: JobRow): Promise<boolean>;
  /** Lays a job aside until it is let go on. */
  rest(job: JobRow, workerId: string): Promise<void>;
  /** Asks for a stop: at once when the job waits, at its worker's next beat when it runs. */
  cancel(job: JobRow): Promise<void>;
  /**
   * Holds a job back, at once or at its worker's next beat, or lets it go on; what it has made is
   * kept.
   */
  hold(job: JobRow, held: boolean): Promise<void>;
  /** Puts a job before all others that wait. */
  first(job: JobRow): Promise<void>;
}

/** Jobs as they are ordered, put before others, and called off. */
const waitingJobs = (sequelize: Sequelize): Pick<JobQueue, 'add' | 'first' | 'cancel'> => ({
  async add({ teamId, kind, subjectId, input, priority = 0 }) {
    const inputHash = hashOf([kind, subjectId, input]);
    return sequelize.transaction(async (transaction) => {
      const same = await JobRow.findOne({
        where: {
          teamId,
          inputHash,
          state: ['queued', 'running', 'held', 'done'],
          cancelRequested: false,
        },
        order: [['createdAt', 'DESC']],
        lock: transaction.LOCK.UPDATE,
        transaction,
      });
      if (same) return same;
      return JobRow.create(
        {
          id: nanoid(),
          teamId,
          kind,
          subjectId,
          inputHash,
          input: JSON.stringify(input),
          state: 'queued',
          message: textToSay('job.waiting'),
          priority,
        },
        { transaction },
      );
    });
  },

  async first(job) {
    const highest = (await JobRow.max<number | null, JobRow>('priority')) ?? 0;
    await JobRow.update(
      { priority: highest + 1, updatedAt: new Date() },
      { where: { id: job.id, state: ['queued', 'running', 'held'] } },
    );
  },

  async cancel(job) {
    const now = new Date();
    const [waiting] = await JobRow.update(
      {
        state: 'cancelled',
        message: textToSay('job.cancelled'),
        cancelRequested: true,
        updatedAt: now,
      },
      { where: { id: job.id, state: ['queued', 'held'] } },
    );
    if (waiting === 0) {
      await JobRow.update(
        { cancelRequested: true, updatedAt: now },
        { where: { id: job.id, state: 'running' } },
      );
    }
  },
});

/** Whether a job waits for a worker, or its worker has gone. */
const isFree = (now: Date) => ({
  [Op.or]: [{ state: 'queued' }, { state: 'running', leaseUntil: { [Op.lt]: now } }],
});

/** Gives a job that is free to a worker; null where it is to be done no more. */
async function leased(
  job: JobRow,
  workerId: string,
  leaseMs: number,
  transaction: Transaction,
): Promise<JobRow | null> {
  const now = new Date();
  const givenUp = job.attempts >= MOST_ATTEMPTS;
  if (givenUp || job.cancelRequested) {
    const message = givenUp
      ? textToSay('job.given-up', { n: job.attempts })
      : textToSay('job.cancelled');
    await job.update(
      {
        state: givenUp ? 'failed' : 'cancelled',
        message,
        leaseUntil: null,
        updatedAt: now,
      },
      { transaction },
    );
    return null;
  }
  return job.update(
    {
      state: 'running',
      workerId,
      attempts: job.attempts + 1,
      startedAt: now,
      leaseUntil: new Date(now.getTime() + leaseMs),
      updatedAt: now,
    },
    { transaction },
  );
}

/** Jobs in the hands of a worker, who has them for a while. */
const leasedJobs = (
  sequelize: Sequelize,
  leaseMs: number,
): Pick<RowQueue, 'lease' | 'leaseOne' | 'beat' | 'finish' | 'release'> => ({
  async lease(workerId, kinds = jobKinds) {
    return sequelize.transaction(
      { isolationLevel: Transaction.ISOLATION_LEVELS.READ_COMMITTED },
      async (transaction) => {
        const job = await JobRow.findOne({
          where: { kind: [...kinds], ...isFree(new Date()) },
          order: [
            ['priority', 'DESC'],
            ['createdAt', 'ASC'],
          ],
          lock: transaction.LOCK.UPDATE,
          skipLocked: true,
          transaction,
        });
        return job && leased(job, workerId, leaseMs, transaction);
      },
    );
  },

  async leaseOne(id, workerId) {
    return sequelize.transaction(async (transaction) => {
      const job = await JobRow.findOne({
        where: { id, ...isFree(new Date()) },
        lock: transaction.LOCK.UPDATE,
        transaction,
      });
      return job && leased(job, workerId, leaseMs, transaction);
    });
  },

  async beat(job, workerId, progress, message) {
    const now = new Date();
    const [count] = await JobRow.update(
      { progress, message, leaseUntil: new Date(now.getTime() + leaseMs), updatedAt: now },
      {
        where: {
          id: job.id,
          workerId,
          state: 'running',
          cancelRequested: false,
          holdRequested: false,
        },
      },
    );
    return count > 0;
  },

  async finish(job, workerId, state, message, result) {
    await JobRow.update(
      {
        state,
        message,
        ...(state === 'done' && { progress: 1 }),
        result: result === undefined ? null : JSON.stringify(result),
        leaseUntil: null,
        updatedAt: new Date(),
      },
      { where: { id: job.id, workerId, state: 'running' } },
    );
  },

  async release(job, workerId) {
    await JobRow.update(
      { state: 'queued', attempts: job.attempts - 1, leaseUntil: null, updatedAt: new Date() },
      { where: { id: job.id, workerId, state: 'running' } },
    );
  },
});

/** Jobs that are held back. */
const heldJobs = (): Pick<JobQueue, 'isHeld' | 'rest' | 'hold'> => ({
  async isHeld({ id }) {
    return (await JobRow.count({ where: { id, holdRequested: true, cancelRequested: false } })) > 0;
  },

  async rest(job, workerId) {
    await JobRow.update(
      {
        state: 'held',
        message: textToSay('job.paused'),
        attempts: job.attempts - 1,
        leaseUntil: null,
        updatedAt: new Date(),
      },
      { where: { id: job.id, workerId, state: 'running' } },
    );
  },

  async hold(job, held) {
    const now = new Date();
    if (!held) {
      await JobRow.update(
        {
          state: 'queued',
          message: textToSay('job.waiting'),
          holdRequested: false,
          updatedAt: now,
        },
        { where: { id: job.id, state: 'held' } },
      );
      // A hold that its worker has not heard of yet is called off.
      await JobRow.update(
        { holdRequested: false, updatedAt: now },
        { where: { id: job.id, state: 'running' } },
      );
      return;
    }
    const [waiting] = await JobRow.update(
      { state: 'held', message: textToSay('job.paused'), holdRequested: true, updatedAt: now },
      { where: { id: job.id, state: 'queued' } },
    );
    if (waiting === 0)
      await JobRow.update(
        { holdRequested: true, updatedAt: now },
        { where: { id: job.id, state: 'running' } },
      );
  },
});

/** The queue in the database's rows, which pages list whatever hands the jobs out. */
export interface RowQueue extends JobQueue {
  /** Takes one job; null when it is in somebody's hands, or not to be done. */
  leaseOne(id: string, workerId: string): Promise<JobRow | null>;
}

export const databaseQueue = (sequelize: Sequelize, leaseMs = LEASE_MS): RowQueue => ({
  ...waitingJobs(sequelize),
  ...leasedJobs(sequelize, leaseMs),
  ...heldJobs(),
});
