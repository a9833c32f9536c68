import type { EntryBody } from '@zest/core/results';
import { sendEntries } from './asks.ts';
import { keepWaiting, readWaiting, type Waiting } from './device.ts';
import { sayOr } from './words/index.ts';

const AT_ONCE = 100;
const AGAIN_MS = 20_000;
/** What the server cannot take however often it is sent. */
const REFUSED = new Set([400, 413, 422]);

const ID_LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789_-';
/** 20 of 64 letters, 120 bits. */
export function entryId(): string {
  return Array.from(
    crypto.getRandomValues(new Uint8Array(20)),
    (byte) => ID_LETTERS[byte % ID_LETTERS.length],
  ).join('');
}

/** Numbers of one lesson that do not arrive, and why. */
export interface Stuck {
  code: string;
  title: string;
  count: number;
  message: string;
}

export interface OutboxState {
  /** Entries of this lesson that are still to arrive and nothing is wrong with. */
  waiting: number;
  /** Of any lesson on this device. */
  stuck: Stuck[];
}

const groupOf = ({ code, token }: Waiting) => `${code} ${token}`;

/**
 * Carries entries to the server: kept on the device until it has them, sent again as often as
 * needed. The server keeps each id once, so nothing counts twice. What one lesson's link does not
 * take stays, with the reason, and holds up no other.
 */
export class Outbox {
  #sending: Promise<void> | null = null;
  /** Why the entries of a link and student do not go, as the server said last. */
  readonly #held = new Map<string, string>();
  readonly #timer: ReturnType<typeof setInterval>;
  readonly #onLine = () => void this.flush();
  readonly #onHide = () => void this.flush(true);

  /** @param onChange told what has not arrived */
  constructor(
    private readonly lesson: { code: string; title: string },
    private readonly onChange: (state: OutboxState) => void,
  ) {
    this.#timer = setInterval(this.#onLine, AGAIN_MS);
    addEventListener('online', this.#onLine);
    addEventListener('pagehide', this.#onHide);
    this.#tell();
    void this.flush();
  }

  stop(): void {
    clearInterval(this.#timer);
    removeEventListener('online', this.#onLine);
    removeEventListener('pagehide', this.#onHide);
  }

  /** Puts an entry in; one with the id of a waiting entry takes its place. */
  put(token: string, body: EntryBody, id = entryId()): void {
    const others = readWaiting().filter((waiting) => waiting.id !== id);
    keepWaiting([...others, { ...this.lesson, token, id, at: Date.now(), body }]);
    this.#tell();
    void this.flush();
  }

  /** Sends once more what a link did not take. */
  tryAgain(code: string): void {
    keepWaiting(
      readWaiting().map(({ refused, ...waiting }) =>
        waiting.code === code || refused === undefined ? waiting : { ...waiting, refused },
      ),
    );
    this.#tell();
    void this.flush();
  }

  /** Gives up what a link does not take. */
  discard(code: string): void {
    keepWaiting(
      readWaiting().filter((waiting) => waiting.code !== code || !this.#isStuck(waiting)),
    );
    this.#tell();
  }

  async flush(isLeaving = false): Promise<void> {
    // A page that goes away cannot wait for what is under way.
    if (isLeaving) return this.#send(true);
    this.#sending ??= this.#send(false).finally(() => (this.#sending = null));
    return this.#sending;
  }

  async #send(keepalive: boolean): Promise<void> {
    const groups = new Set(readWaiting().map(groupOf));
    // This lesson's first: somebody waits for them.
    const order = [...groups].sort(
      (a, b) =>
        Number(b.startsWith(`${this.lesson.code} `)) - Number(a.startsWith(`${this.lesson.code} `)),
    );
    for (const group of order) if (!(await this.#sendGroup(group, keepalive))) return;
  }

  /**
   * Sends what waits for one link; false where there is no connection, so that nothing else can go
   * either.
   */
  async #sendGroup(group: string, keepalive: boolean): Promise<boolean> {
    for (;;) {
      const batch = readWaiting()
        .filter((waiting) => groupOf(waiting) === group && waiting.refused === undefined)
        .slice(0, AT_ONCE);
      const [first] = batch;
      if (!first) return true;
      const answer = await sendEntries(
        first.code,
        first.token,
        batch.map(({ id, at, body }) => ({ id, at, body })),
        keepalive,
      );
      if (answer.kind === 'ready') {
        this.#held.delete(group);
        const refused = new Map(
          answer.value?.refused.map(({ id, code, message }) => [
            id,
            sayOr(`refused.${code}`, message),
          ]),
        );
        this.#refuse(refused);
        this.#drop(batch.filter(({ id }) => !refused.has(id)));
      } else if (answer.status === 0) return false;
      else if (REFUSED.has(answer.status)) {
        // One bad entry must not hold up the others.
        if (batch.length === 1) this.#refuse(new Map([[first.id, answer.message]]));
        else for (const entry of batch) await this.#alone(entry);
      } else {
        this.#held.set(group, answer.message);
        this.#tell();
        return true;
      }
    }
  }

  async #alone(waiting: Waiting): Promise<void> {
    const answer = await sendEntries(
      waiting.code,
      waiting.token,
      [{ id: waiting.id, at: waiting.at, body: waiting.body }],
      false,
    );
    const refused = answer.kind === 'ready' && answer.value?.refused[0];
    if (refused) this.#refuse(new Map([[waiting.id, refused.message]]));
    else if (answer.kind === 'ready') this.#drop([waiting]);
    else if (REFUSED.has(answer.status)) this.#refuse(new Map([[waiting.id, answer.message]]));
  }

  /** Marks what the server will never take. */
  #refuse(messages: ReadonlyMap<string, string>): void {
    if (messages.size === 0) return;
    keepWaiting(
      readWaiting().map((waiting) =>
        messages.has(waiting.id)
          ? { ...waiting, refused: messages.get(waiting.id) ?? '' }
          : waiting,
      ),
    );
    this.#tell();
  }

  /** What has arrived goes, unless it has grown meanwhile. */
  #drop(batch: readonly Waiting[]): void {
    const sent = new Map(batch.map((entry) => [entry.id, entry.at]));
    keepWaiting(readWaiting().filter(({ id, at }) => sent.get(id) !== at));
    this.#tell();
  }

  #isStuck(waiting: Waiting): boolean {
    return waiting.refused !== undefined || this.#held.has(groupOf(waiting));
  }

  #tell(): void {
    const all = readWaiting();
    const stuck = new Map<string, Stuck>();
    for (const waiting of all) {
      if (!this.#isStuck(waiting)) continue;
      const known = stuck.get(waiting.code);
      const message = waiting.refused ?? this.#held.get(groupOf(waiting)) ?? '';
      stuck.set(waiting.code, {
        code: waiting.code,
        title: waiting.title ?? '',
        count: (known?.count ?? 0) + 1,
        message: known?.message ?? message,
      });
    }
    this.onChange({
      waiting: all.filter((waiting) => waiting.code === this.lesson.code && !this.#isStuck(waiting))
        .length,
      stuck: [...stuck.values()],
    });
  }
}
