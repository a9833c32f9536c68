import { Queue, Worker } from 'bullmq';
import type { Redis } from 'ioredis';
import type { Log } from '../log.ts';

/** Jobs whose worker is silent are looked for this often. */
const LOOK_FOR_STALLED_MS = 5_000;
/** How often a job may be begun is said elsewhere; the broker goes on handing it out. */
const NO_LIMIT = 1_000_000;

/** BullMQ's queues, and who hands out what is in them, made when they are first needed. */
export class Broker {
  readonly #queues = new Map<string, Queue>();
  readonly #workers = new Map<string, Worker>();

  /**
   * @param connection to Redis, with requests that wait for it as long as it is away
   * @param lockMs a job whose worker says nothing for so long is given to the next one
   */
  constructor(
    private readonly connection: Redis,
    readonly prefix: string,
    readonly lockMs: number,
    private readonly log: Log,
  ) {}

  #told = (error: Error) => this.log.error(`The queue: ${error.message}`);

  queue(name: string): Queue {
    const known = this.#queues.get(name);
    if (known) return known;
    const made = new Queue(name, { connection: this.connection, prefix: this.prefix });
    made.on('error', this.#told);
    this.#queues.set(name, made);
    return made;
  }

  /** Hands jobs out; who gets one keeps it by saying so. */
  async worker(name: string): Promise<Worker> {
    const known = this.#workers.get(name);
    if (known) return known;
    const made = new Worker(name, null, {
      connection: this.connection,
      prefix: this.prefix,
      autorun: false,
      lockDuration: this.lockMs,
      stalledInterval: Math.min(LOOK_FOR_STALLED_MS, this.lockMs),
      maxStalledCount: NO_LIMIT,
    });
    made.on('error', this.#told);
    this.#workers.set(name, made);
    await made.startStalledCheckTimer();
    return made;
  }

  async close(): Promise<void> {
    for (const one of [...this.#workers.values(), ...this.#queues.values()]) await one.close();
  }
}
