import { Redis } from 'ioredis';
import type { Sequelize } from 'sequelize';
import type { Folders } from '../config.ts';
import { wordsOf } from '../errors.ts';
import type { Log } from '../log.ts';
import type { Kept } from '../media/open.ts';
import { folderRendering, type Rendering } from '../publish/rendering.ts';
import { databaseQueue, LEASE_MS, type JobQueue } from './queue.ts';

const KEEP_IN_STEP_EVERY_MS = 5_000;
const PREFIX = 'zest-jobs';

/** Jobs, and how the pieces of exports are shared. */
export interface Jobs {
  queue: JobQueue;
  rendering: Rendering;
  close: () => Promise<void>;
}

/** How pieces of exports are shared over the Redis server at `redis`; without the database. */
export async function openRendering(
  redis: string,
  { store, parts }: Pick<Kept, 'store' | 'parts'>,
  folders: Folders,
  log: Log,
) {
  const { Broker } = await import('./broker.ts');
  const { brokerRendering } = await import('../publish/broker-rendering.ts');
  // What it is asked waits for as long as it is away.
  const connection = new Redis(redis, { maxRetriesPerRequest: null });
  connection.on('error', () => undefined);
  const broker = new Broker(connection, PREFIX, LEASE_MS, log);
  const cacheDir = folders.segments;
  const takePath = (sha: string) => store.fileOf(sha);
  return {
    broker,
    rendering: parts
      ? brokerRendering({ broker, parts, cacheDir, takePath })
      : folderRendering(cacheDir, takePath),
    async close() {
      await broker.close();
      connection.disconnect();
    },
  };
}

/** In the database, or handed out over the Redis server at `redis`, where there is one. */
export async function openJobs(
  sequelize: Sequelize,
  redis: string | null,
  kept: Pick<Kept, 'store' | 'parts'>,
  folders: Folders,
  log: Log,
): Promise<Jobs> {
  if (redis === null)
    return {
      queue: databaseQueue(sequelize),
      rendering: folderRendering(folders.segments, (sha) => kept.store.fileOf(sha)),
      close: () => Promise.resolve(),
    };
  const { brokerQueue } = await import('./broker-queue.ts');
  const { broker, rendering, close } = await openRendering(redis, kept, folders, log);
  const queue = brokerQueue(sequelize, broker, log);
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
    rendering,
    async close() {
      clearInterval(keeping);
      await close();
    },
  };
}
