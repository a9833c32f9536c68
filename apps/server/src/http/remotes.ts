import { randomInt } from 'node:crypto';
import type { RemoteMessage, RemoteScreen } from '@zest/contract';
import type { Hub } from '../hub/hub.ts';
import { Line } from '../hub/line.ts';

/** Letters that are not taken for each other when read off a screen across a room. */
const LETTERS = 'ABCDEFGHJKMNPQRSTUVWXYZ23456789';
const LENGTH = 8;
/** A film view that has shown nothing for so long is gone. */
const IDLE_MS = 6 * 3_600_000;
/** Film views of a team at a time; with another one the oldest goes. */
const MOST_OF_TEAM = 40;

type Tell = (message: RemoteMessage) => void;

/** A film view that second devices look at and drive, for as long as it shows something. */
export class FilmRemote {
  readonly #line: Line<'view' | 'devices', RemoteMessage>;

  constructor(
    private readonly hub: Hub,
    readonly code: string,
    readonly teamId: string,
  ) {
    this.#line = new Line(hub, `remote:${code}`, ['view', 'devices']);
  }

  async show(screen: RemoteScreen): Promise<void> {
    const message = { kind: 'screen', screen } as const;
    await this.stay();
    await this.#line.remember(message, IDLE_MS);
    await this.#line.say('devices', message);
  }

  /** Goes on for as long as it may without being used. */
  async stay(): Promise<void> {
    await this.hub.keep('remotes', this.code, this.teamId, IDLE_MS);
    await this.hub.keep(`remotes:${this.teamId}`, this.code, true, IDLE_MS);
  }

  /** Passes a wish on to the film view. @returns whether a film view is there to hear it */
  async command(message: Extract<RemoteMessage, { kind: 'command' }>): Promise<boolean> {
    await this.#line.say('view', message);
    return (await this.#line.count('view')) > 0;
  }

  /** Adds a second device; it gets the screen at once. @returns what takes it off again */
  async join(tell: Tell): Promise<() => void> {
    const leave = await this.#line.join('devices', tell);
    const screen = await this.#line.last();
    if (screen) tell(screen);
    return leave;
  }

  /** The film view listens for wishes. @returns what ends it */
  listen(tell: Tell): Promise<() => void> {
    return this.#line.join('view', tell, (count) => tell({ kind: 'devices', count }));
  }

  async close(): Promise<void> {
    await this.hub.forget('remotes', this.code);
    await this.hub.forget(`remotes:${this.teamId}`, this.code);
    for (const end of ['devices', 'view'] as const) await this.#line.say(end, { kind: 'closed' });
  }
}

/** The film views that are open, by their code. */
export class FilmRemotes {
  constructor(private readonly hub: Hub) {}

  async get(code: string): Promise<FilmRemote | null> {
    const known = code.toUpperCase();
    const teamId = await this.hub.find('remotes', known);
    return typeof teamId === 'string' ? new FilmRemote(this.hub, known, teamId) : null;
  }

  async open(teamId: string): Promise<FilmRemote> {
    const open = await this.hub.list(`remotes:${teamId}`);
    for (const { name } of open.slice(0, Math.max(0, open.length - MOST_OF_TEAM + 1)))
      await new FilmRemote(this.hub, name, teamId).close();
    for (;;) {
      const code = Array.from({ length: LENGTH }, () => LETTERS[randomInt(LETTERS.length)]).join(
        '',
      );
      if (!(await this.hub.keepNew('remotes', code, teamId, IDLE_MS))) continue;
      const made = new FilmRemote(this.hub, code, teamId);
      await made.stay();
      return made;
    }
  }
}
