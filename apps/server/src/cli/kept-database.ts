import { setTimeout as sleep } from 'node:timers/promises';
import { startMariaDb, type MariaDb } from '../db/mariadb.ts';
import { wordsOf } from '../errors.ts';

const AGAIN_MS = 500;
/** A database that dies this often in a minute has something that starting again does not mend. */
const MOST_A_MINUTE = 5;
const MINUTE_MS = 60_000;

/** The database, started again where it was when it dies unasked. */
export class KeptDatabase {
  #stopping = false;
  #stop: () => void = () => undefined;
  readonly #stopped = new Promise<void>((resolve) => (this.#stop = resolve));
  #deaths: number[] = [];
  #lose: (why: string) => void = () => undefined;
  #watching: Promise<void>;
  /** Resolves, with the reason, when it cannot be had again. */
  readonly lost = new Promise<string>((resolve) => (this.#lose = resolve));

  private constructor(
    private database: MariaDb,
    private readonly again: () => Promise<MariaDb>,
    private readonly say: (line: string) => void,
  ) {
    this.#watching = this.#watch();
  }

  /** @throws when it does not come up the first time */
  static async start(
    dataDir: string,
    password: string,
    say: (line: string) => void,
  ): Promise<KeptDatabase> {
    const first = await startMariaDb(dataDir, password);
    return new KeptDatabase(
      first,
      () => startMariaDb(dataDir, password, undefined, first.port),
      say,
    );
  }

  get port(): number {
    return this.database.port;
  }

  /**
   * From now on its end is expected: whoever ends everything at once, as an init system does, ends
   * it before us.
   */
  expectEnd(): void {
    this.#stopping = true;
  }

  async stop(): Promise<void> {
    this.expectEnd();
    this.#stop();
    await this.#watching;
    await this.database.stop();
  }

  async #watch(): Promise<void> {
    let why = 'it ended by itself';
    for (;;) {
      await Promise.race([this.database.ended, this.#stopped]);
      for (;;) {
        if (this.#stopping) return;
        this.#deaths = [...this.#deaths.filter((at) => at > Date.now() - MINUTE_MS), Date.now()];
        if (this.#deaths.length > MOST_A_MINUTE) {
          this.#lose(why);
          return;
        }
        this.say('The database ended unexpectedly; starting it again.');
        await sleep(AGAIN_MS);
        try {
          this.database = await this.again();
          break;
        } catch (error) {
          why = wordsOf(error);
        }
      }
    }
  }
}
