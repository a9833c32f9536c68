import { nanoid } from 'nanoid';
import type { Hub } from './hub.ts';

/** A page on a line says so this often; one that has not for so long is gone with its server. */
const HERE_MS = 10_000;
const GONE_MS = 25_000;

interface Heard<M> {
  /** Somebody came or left at the other end. */
  others?: true;
  message?: M;
}

/**
 * A line between two ends, each held by any number of pages on any servers, such as a television
 * and the phones that drive it.
 */
export class Line<E extends string, M> {
  constructor(
    private readonly hub: Hub,
    private readonly name: string,
    private readonly ends: readonly [E, E],
  ) {}

  private readonly channel = (end: E) => `${this.name}:${end}`;
  private readonly other = (end: E): E => (end === this.ends[0] ? this.ends[1] : this.ends[0]);

  /** Pages at an end. */
  async count(end: E): Promise<number> {
    return (await this.hub.list(this.channel(end))).length;
  }

  /** Says something to all pages at an end. */
  say(end: E, message: M): Promise<void> {
    return this.hub.tell(this.channel(end), { message } satisfies Heard<M>);
  }

  /** Keeps what is said to whoever comes later. */
  remember(message: M, forMs: number): Promise<void> {
    return this.hub.keep(this.name, 'last', message, forMs);
  }

  last(): Promise<M | undefined> {
    return this.hub.find(this.name, 'last') as Promise<M | undefined>;
  }

  /**
   * Puts a page at an end.
   * @param onCount how many there are at the other end, now and when that changes
   * @returns what takes it off again
   */
  async join(
    end: E,
    tell: (message: M) => void,
    onCount: (others: number) => void = () => undefined,
  ): Promise<() => void> {
    const { hub, channel, other } = this;
    const id = nanoid();
    const here = () => hub.keep(channel(end), id, true, GONE_MS);
    let told: number | null = null;
    let counting = Promise.resolve();
    // One after the other, so that the last one told is the newest.
    const recount = () =>
      (counting = counting
        .catch(() => undefined)
        .then(async () => {
          const count = await this.count(other(end));
          if (count === told) return;
          told = count;
          onCount(count);
        }));
    const quietly = (work: Promise<unknown>) => void work.catch(() => undefined);
    const changed = () => hub.tell(channel(other(end)), { others: true } satisfies Heard<M>);
    const deaf = await hub.hear(channel(end), (heard) => {
      const { others, message } = heard as Heard<M>;
      if (message !== undefined) tell(message);
      if (others) quietly(recount());
    });
    await here();
    await recount();
    await changed();
    // A server that died tells nobody that its pages are gone: each looks for itself as well.
    const beat = setInterval(() => quietly(here().then(recount)), HERE_MS);
    return () => {
      clearInterval(beat);
      deaf();
      quietly(hub.forget(channel(end), id).then(changed));
    };
  }
}
