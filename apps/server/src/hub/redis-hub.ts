import type { Redis } from 'ioredis';
import type { Hub } from './hub.ts';

/**
 * Books are hashes of `cameMs|untilMs|JSON`, by the clock of the Redis server: servers whose clocks
 * are apart agree on what is gone. A script is one step for everybody else.
 */
const CLOCK = `
  local clock = redis.call('TIME')
  local now = tonumber(clock[1]) * 1000 + math.floor(tonumber(clock[2]) / 1000)
  local function read(text)
    local came, till, value = string.match(text, '^(%d+)|(%d+)|(.*)$')
    return tonumber(came), tonumber(till), value
  end`;

/** ARGV: name, JSON, milliseconds, 1 where it must not be there yet. Gives whether it was written. */
const KEEP = `${CLOCK}
  local came = now
  local there = redis.call('HGET', KEYS[1], ARGV[1])
  if there then
    local before, till = read(there)
    if till > now then
      if ARGV[4] == '1' then return 0 end
      came = before
    end
  end
  redis.call('HSET', KEYS[1], ARGV[1], string.format('%d|%d|', came, now + ARGV[3]) .. ARGV[2])
  if redis.call('PTTL', KEYS[1]) < tonumber(ARGV[3]) then redis.call('PEXPIRE', KEYS[1], ARGV[3]) end
  return 1`;

/** ARGV: name. */
const FIND = `${CLOCK}
  local there = redis.call('HGET', KEYS[1], ARGV[1])
  if not there then return false end
  local _, till, value = read(there)
  return till > now and value`;

/** Gives name, when it came, and JSON of each. */
const LIST = `${CLOCK}
  local all, found = redis.call('HGETALL', KEYS[1]), {}
  for i = 1, #all, 2 do
    local came, till, value = read(all[i + 1])
    if till > now then
      table.insert(found, { all[i], string.format('%d', came), value })
    else
      redis.call('HDEL', KEYS[1], all[i])
    end
  end
  return found`;

/**
 * The hub of an installation with several web servers. Where Redis is away for a while, calls wait
 * for it and channels are heard again once it is back; what was told meanwhile is lost.
 * @param connection used by nobody who waits on it; a second one is made for what is heard
 * @param prefix before each name, so that installations may share a server
 */
export async function redisHub(connection: Redis, prefix = 'zest'): Promise<Hub> {
  const hearing = connection.duplicate();
  // What goes wrong with it goes wrong with the other one too, whose owner hears of it.
  hearing.on('error', () => undefined);
  await Promise.all([connection.ping(), hearing.ping()]);
  const nameOf = (name: string) => `${prefix}:${name}`;
  const listeners = new Map<string, Set<(message: unknown) => void>>();
  hearing.on('message', (channel: string, message: string) => {
    const heard: unknown = JSON.parse(message);
    for (const run of [...(listeners.get(channel) ?? [])]) run(heard);
  });
  const write = async (book: string, name: string, value: unknown, ms: number, onlyNew: boolean) =>
    (await connection.eval(
      KEEP,
      1,
      nameOf(book),
      name,
      JSON.stringify(value),
      Math.ceil(ms),
      onlyNew ? 1 : 0,
    )) === 1;

  return {
    async tell(channel, message) {
      await connection.publish(nameOf(channel), JSON.stringify(message));
    },
    async hear(name, run) {
      const channel = nameOf(name);
      const others = listeners.get(channel) ?? new Set();
      listeners.set(channel, others.add(run));
      // Asked for again by each: the first may not have been heard yet.
      await hearing.subscribe(channel);
      return () => {
        others.delete(run);
        if (others.size > 0 || listeners.get(channel) !== others) return;
        listeners.delete(channel);
        hearing.unsubscribe(channel).catch(() => undefined);
      };
    },
    async keep(book, name, value, forMs) {
      await write(book, name, value, forMs, false);
    },
    keepNew: (book, name, value, forMs) => write(book, name, value, forMs, true),
    async find(book, name) {
      const found = (await connection.eval(FIND, 1, nameOf(book), name)) as string | null;
      return found === null ? undefined : (JSON.parse(found) as unknown);
    },
    async list(book) {
      const found = (await connection.eval(LIST, 1, nameOf(book))) as [string, string, string][];
      return found
        .sort(([, a], [, b]) => Number(a) - Number(b))
        .map(([name, , value]) => ({ name, value: JSON.parse(value) as unknown }));
    },
    async forget(book, name) {
      await connection.hdel(nameOf(book), name);
    },
    async close() {
      listeners.clear();
      hearing.disconnect();
      await connection.quit();
    },
  };
}
