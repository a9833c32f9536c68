import type { EntryBody } from '@zest/core/results';
import { sendEntries } from './asks.ts';
import { keepWaiting, readWaiting, type Waiting } from './device.ts';

const AT_ONCE = 100;
const AGAIN_MS = 20_000;
/** What the server cannot take however often it is sent. */
const REFUSED = new Set([400, 404, 413, 422]);

const ID_LETTERS = 'ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789_-';
/** 20 of 64 letters, 120 bits. */
export function entryId(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(20)), (byte) => ID_LETTERS[byte % ID_LETTERS.length]).join('');
}

/**
 * Carries entries to the server: kept on the device until it has them, sent again as often as needed. The server keeps
 * each id once, so nothing counts twice.
 */
export class Outbox {
  #sending: Promise<void> | null = null;
  readonly #timer: ReturnType<typeof setInterval>;
  readonly #onLine = () => void this.flush();
  readonly #onHide = () => void this.flush(true);

  /** @param onChange told how many wait, and of a refusal in words */
  constructor(private readonly onChange: (waiting: number, fault: string | null) => void) {
    this.#timer = setInterval(this.#onLine, AGAIN_MS);
    addEventListener('online', this.#onLine);
    addEventListener('pagehide', this.#onHide);
    this.#tell(null);
    void this.flush();
  }

  stop(): void {
    clearInterval(this.#timer);
    removeEventListener('online', this.#onLine);
    removeEventListener('pagehide', this.#onHide);
  }

  /** Puts an entry in; one with the id of a waiting entry takes its place. */
  put(code: string, token: string, body: EntryBody, id = entryId()): void {
    const others = readWaiting().filter((waiting) => waiting.id !== id);
    keepWaiting([...others, { code, token, id, at: Date.now(), body }]);
    this.#tell(null);
    void this.flush();
  }

  async flush(isLeaving = false): Promise<void> {
    // A page that goes away cannot wait for what is under way.
    if (isLeaving) return this.#send(true);
    this.#sending ??= this.#send(false).finally(() => (this.#sending = null));
    return this.#sending;
  }

  async #send(keepalive: boolean): Promise<void> {
    for (;;) {
      const first = readWaiting()[0];
      if (!first) return;
      const batch = readWaiting()
        .filter(({ code, token }) => code === first.code && token === first.token)
        .slice(0, AT_ONCE);
      const answer = await sendEntries(first.code, first.token, batch.map(({ id, at, body }) => ({ id, at, body })), keepalive);
      if (answer.kind === 'ready') this.#drop(batch);
      else if (REFUSED.has(answer.status)) {
        // One bad entry must not hold up the others.
        if (batch.length === 1) this.#drop(batch);
        else for (const own of batch) await this.#alone(own);
        this.#tell(answer.message);
      } else {
        this.#tell(answer.status === 401 ? answer.message : null);
        return;
      }
    }
  }

  async #alone(waiting: Waiting): Promise<void> {
    const answer = await sendEntries(waiting.code, waiting.token, [{ id: waiting.id, at: waiting.at, body: waiting.body }], false);
    if (answer.kind === 'ready' || REFUSED.has(answer.status)) this.#drop([waiting]);
  }

  /** What has arrived goes, unless it has grown meanwhile. */
  #drop(batch: readonly Waiting[]): void {
    const sent = new Map(batch.map((own) => [own.id, own.at]));
    keepWaiting(readWaiting().filter(({ id, at }) => sent.get(id) !== at));
    this.#tell(null);
  }

  #tell(fault: string | null): void {
    this.onChange(readWaiting().length, fault);
  }
}
