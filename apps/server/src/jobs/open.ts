import { Redis } from 'ioredis';
import type { Sequelize } from 'sequelize';
import { wordsOf } from '../errors.ts';
import type { Log } from '../log.ts';
import { databaseQueue, type JobQueue } from './queue.ts';

const KEEP_IN_STEP_EVERY_MS = 5_000;

/**
 * The queue: in the database, or handed out over the Redis server at `redis`, where there is one.
 */
export async function openQueue(
  sequelize: Sequelize,
  redis: string | null,
  log: Log,
): Promise<{ queue: JobQueue; close: () => Promise<void> }> {
  if (redis === null) return { queue: databaseQueue(sequelize), close: () => Promise.resolve() };
  const { brokerQueue } = await import('./broker-queue.ts');
  // What it is asked waits for as long as it is away.
  const connection = new Redis(redis, { maxRetriesPerRequest: null });
  connection.on('error', () => undefined);
  const queue = brokerQueue(sequelize, connection, log);
  let isBusy = false;
  const keeping = setInterval(() => {
    if (isBusy) return;
    isBusy = true;
    queue
      .keepInStep()
      .catch((error: unknown) => log.error(`The queue was not looked after: ${wordsOf(error)}`))
      .finally(() => (isBusy = false));
  }, KEEP_IN_STEP_EVERY_MS);
  return {
    queue,
    async close() {
      clearInterval(keeping);
      await queue.close();
      connection.disconnect();
    },
  };
}
