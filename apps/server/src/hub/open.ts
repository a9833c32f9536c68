import { Redis } from 'ioredis';
import { RedisStore } from 'rate-limit-redis';
import type { Limits } from '../http/limits.ts';
import type { Log } from '../log.ts';
import type { Hub } from './hub.ts';
import { ownHub } from './own-hub.ts';
import { redisHub } from './redis-hub.ts';

/** Says once that Redis is away, and once that it is back. */
function tellOfGaps(connection: Redis, log: Log): void {
  let isAway = false;
  connection.on('error', (error: Error) => {
    if (!isAway) log.error(`Redis is away: ${error.message}`);
    isAway = true;
  });
  connection.on('ready', () => {
    if (isAway) log.info('Redis is back.');
    isAway = false;
  });
}

/**
 * What the web servers share: over the Redis server at `address`, or nothing but this process.
 * @throws when there is no Redis server at the address
 */
export async function openHub(
  address: string | null,
  log: Log,
): Promise<{ hub: Hub; limits: Limits }> {
  if (address === null) return { hub: ownHub(), limits: () => undefined };
  const connection = new Redis(address, { enableAutoPipelining: true });
  tellOfGaps(connection, log);
  const hub = await redisHub(connection);
  return {
    hub,
    limits: (name) =>
      new RedisStore({
        prefix: `zest:limit:${name}:`,
        sendCommand: (command: string, ...args: string[]) =>
          connection.call(command, ...args) as Promise<never>,
      }),
  };
}
