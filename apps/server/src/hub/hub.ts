/** An entry of a book, with what was written into it. */
export interface Kept {
  name: string;
  value: unknown;
}

/**
 * What the web servers of an installation tell each other, and remember for each other for a while.
 * A port: within the process where there is one server, over Redis where there are several. Values
 * and messages are plain JSON.
 */
export interface Hub {
  /** Tells everybody who hears this channel, on whichever server. */
  tell(channel: string, message: unknown): Promise<void>;
  /** Hears a channel from when this resolves, until the function given back is called. */
  hear(channel: string, run: (message: unknown) => void): Promise<() => void>;
  /** Writes an entry, which is gone after `forMs` unless it is written again. */
  keep(book: string, name: string, value: unknown, forMs: number): Promise<void>;
  /** The same unless there is such an entry. @returns whether it was written */
  keepNew(book: string, name: string, value: unknown, forMs: number): Promise<boolean>;
  /** What was written into an entry; undefined when there is none. */
  find(book: string, name: string): Promise<unknown>;
  /** All entries of a book, those that came first before the others. */
  list(book: string): Promise<Kept[]>;
  forget(book: string, name: string): Promise<void>;
  close(): Promise<void>;
}
