import { EventEmitter } from 'node:events';
import type { Hub } from './hub.ts';

interface Entry {
  /** As JSON: who reads it gets a value of their own, as from another server. */
  value: string;
  untilMs: number;
}

/** The hub of an installation with one web server: all of it lives in this process. */
export function ownHub(now: () => number = Date.now): Hub {
  const channels = new EventEmitter<Record<string, [string]>>();
  // One a page that is open.
  channels.setMaxListeners(0);
  const books = new Map<string, Map<string, Entry>>();

  /** A book without what is gone; gone itself when nothing is left in it. */
  const opened = (name: string): Map<string, Entry> | undefined => {
    const book = books.get(name);
    for (const [entry, { untilMs }] of book ?? []) if (untilMs <= now()) book?.delete(entry);
    if (book?.size === 0) books.delete(name);
    return books.get(name);
  };
  const write = (book: string, name: string, value: unknown, forMs: number) => {
    const entries = opened(book) ?? new Map<string, Entry>();
    books.set(book, entries.set(name, { value: JSON.stringify(value), untilMs: now() + forMs }));
  };
  // Books nobody opens again are forgotten as well.
  const sweeping = setInterval(() => [...books.keys()].forEach(opened), 60_000).unref();

  return {
    tell(channel, message) {
      channels.emit(channel, JSON.stringify(message));
      return Promise.resolve();
    },
    hear(channel, run) {
      const hear = (message: string) => run(JSON.parse(message));
      channels.on(channel, hear);
      return Promise.resolve(() => void channels.off(channel, hear));
    },
    keep(book, name, value, forMs) {
      write(book, name, value, forMs);
      return Promise.resolve();
    },
    keepNew(book, name, value, forMs) {
      const isNew = opened(book)?.has(name) !== true;
      if (isNew) write(book, name, value, forMs);
      return Promise.resolve(isNew);
    },
    find(book, name) {
      const found = opened(book)?.get(name);
      return Promise.resolve(found && (JSON.parse(found.value) as unknown));
    },
    list(book) {
      const entries = [...(opened(book) ?? [])];
      return Promise.resolve(
        entries.map(([name, { value }]) => ({ name, value: JSON.parse(value) as unknown })),
      );
    },
    forget(book, name) {
      books.get(book)?.delete(name);
      return Promise.resolve();
    },
    close() {
      clearInterval(sweeping);
      channels.removeAllListeners();
      return Promise.resolve();
    },
  };
}
