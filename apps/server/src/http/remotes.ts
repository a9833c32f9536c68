import { randomInt } from 'node:crypto';
import type { RemoteMessage, RemoteScreen } from '@zest/contract';

type Listener = (message: RemoteMessage) => void;

/** Letters that are not taken for each other when read off a screen across a room. */
const LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
const LENGTH = 8;
/** A film view that has shown nothing for so long is gone. */
const IDLE_MS = 6 * 3_600_000;
const MOST = 200;

/**
 * A film view that second devices look at and drive. Lives as long as this process: nothing of it
 * is worth keeping.
 */
export class FilmRemote {
  #screen: RemoteScreen | null = null;
  readonly #devices = new Set<Listener>();
  readonly #view = new Set<Listener>();
  usedAt = Date.now();

  constructor(
    readonly code: string,
    readonly teamId: string,
  ) {}

  show(screen: RemoteScreen): void {
    this.usedAt = Date.now();
    this.#screen = screen;
    for (const tell of this.#devices) tell({ kind: 'screen', screen });
  }

  /** Passes a wish on to the film view. @returns whether a film view is there to hear it */
  command(message: Extract<RemoteMessage, { kind: 'command' }>): boolean {
    for (const tell of this.#view) tell(message);
    return this.#view.size > 0;
  }

  /** Adds a second device; it gets the screen at once. @returns what takes it off again */
  join(tell: Listener): () => void {
    this.#devices.add(tell);
    if (this.#screen) tell({ kind: 'screen', screen: this.#screen });
    this.#count();
    return () => {
      this.#devices.delete(tell);
      this.#count();
    };
  }

  /** The film view listens for wishes. @returns what ends it */
  listen(tell: Listener): () => void {
    this.#view.add(tell);
    tell({ kind: 'devices', count: this.#devices.size });
    return () => void this.#view.delete(tell);
  }

  close(): void {
    for (const tell of [...this.#devices, ...this.#view]) tell({ kind: 'closed' });
  }

  #count(): void {
    for (const tell of this.#view) tell({ kind: 'devices', count: this.#devices.size });
  }
}

/** The film views open on this server, by their code. */
class FilmRemotes {
  readonly #open = new Map<string, FilmRemote>();

  get(code: string): FilmRemote | undefined {
    return this.#open.get(code.toUpperCase());
  }

  open(teamId: string): FilmRemote {
    for (const { code, usedAt } of [...this.#open.values()].sort((a, b) => a.usedAt - b.usedAt)) {
      if (Date.now() - usedAt > IDLE_MS || this.#open.size >= MOST) this.close(code);
    }
    const code = Array.from({ length: LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join('');
    const made = new FilmRemote(code, teamId);
    this.#open.set(code, made);
    return made;
  }

  close(code: string): void {
    this.#open.get(code)?.close();
    this.#open.delete(code);
  }
}

export const remotes = new FilmRemotes();
