import { AsyncLocalStorage } from 'node:async_hooks';
import type { Sequelize } from 'sequelize';

const reading = new AsyncLocalStorage<true>();
const replicated = new WeakSet<Sequelize>();

/** Whether what is read now may come from a replica, and be some seconds old. */
export const readsReplica = (): boolean => reading.getStore() !== undefined;

/** Everything is read from the main database but for what says that it may be read elsewhere. */
export function mindReplicas(sequelize: Sequelize): void {
  replicated.add(sequelize);
  sequelize.addHook('beforePoolAcquire', (options) => {
    if (options) Object.assign(options, { useMaster: !readsReplica() });
  });
}

/**
 * Reads from a replica, where there is one. What that does not have yet, or while it is away, is read
 * from the main database. @param task only reads
 */
export async function fromReplica<T>(sequelize: Sequelize, task: () => Promise<T>): Promise<T> {
  if (!replicated.has(sequelize)) return task();
  try {
    return await reading.run(true, task);
  } catch {
    return task();
  }
}
