import {
  routes,
  televisionCommandSchema,
  televisionStateSchema,
  type TelevisionMessage,
} from '@zest/contract';
import { readSpoken, spokenCode } from '@zest/core/results';
import { chance } from '../db/classes.ts';
import { refuse } from '../errors.ts';
import type { Hub } from '../hub/hub.ts';
import { Line } from '../hub/line.ts';
import { readBody } from './answer.ts';
import { eventStream } from './event-stream.ts';
import type { AddRoute } from './guard.ts';

const ends = ['television', 'remote'] as const;
type End = (typeof ends)[number];
const otherEnd = (end: End): End => (end === 'television' ? 'remote' : 'television');

const IDLE_MS = 6 * 3_600_000;
/** Televisions on one link at a time: a large school's rooms. */
const MOST_PER_LINK = 40;

/** Televisions on which a shared lesson plays, each with the phones that drive it. */
class Televisions {
  readonly #book: string;

  constructor(
    private readonly hub: Hub,
    private readonly shareCode: string,
  ) {
    this.#book = `televisions:${shareCode}`;
  }

  lineOf(screen: string): Line<End, TelevisionMessage> {
    return new Line(this.hub, `television:${this.shareCode}:${screen}`, ends);
  }

  /** Whether the code is one of this link's; it then stays good. */
  async use(screen: string): Promise<boolean> {
    if ((await this.hub.find(this.#book, screen)) === undefined) return false;
    await this.hub.keep(this.#book, screen, Date.now(), IDLE_MS);
    return true;
  }

  /** Makes room for another one. One that shows the lesson keeps its place, whoever wants another. */
  async #makeRoom(): Promise<void> {
    const known = await this.hub.list(this.#book);
    if (known.length < MOST_PER_LINK) return;
    const byUse = known.sort((a, b) => Number(a.value) - Number(b.value));
    for (const { name } of byUse) {
      if ((await this.lineOf(name).count('television')) > 0) continue;
      await this.hub.forget(this.#book, name);
      return;
    }
    throw refuse(
      429,
      'televisions',
      `${MOST_PER_LINK} televisions show this lesson already. Use one of them, or close the lesson on one.`,
    );
  }

  /** @returns its code */
  async open(): Promise<string> {
    await this.#makeRoom();
    for (;;) {
      const screen = spokenCode(chance);
      if (await this.hub.keepNew(this.#book, screen, Date.now(), IDLE_MS)) return screen;
    }
  }
}

/**
 * A lesson on a television, driven from a phone that has the same link; by the code the television
 * shows.
 */
export function addTelevisionRoutes(route: AddRoute, hub: Hub): void {
  const find = async (shareCode: string, params: Record<string, unknown>) => {
    const televisions = new Televisions(hub, shareCode);
    const screen = readSpoken(String(params['screen']));
    const end = ends.find((known) => known === params['end']);
    // A code is good with the link of the lesson it plays only.
    if (!end || !(await televisions.use(screen)))
      throw refuse(
        404,
        'no-television',
        'No television shows that code for this lesson. Look at it again.',
      );
    return { line: televisions.lineOf(screen), end };
  };
  route(routes.openTelevision, async (_req, res, { share }) => {
    res.status(201).json({ screen: await new Televisions(hub, share.code).open() });
  });
  route(routes.televisionNews, async (req, res, { share }) => {
    const { line, end } = await find(share.code, req.params);
    eventStream<TelevisionMessage>(req, res, async (tell) => {
      const leave = await line.join(end, tell, (count) => tell({ kind: 'others', count }));
      const last = end === 'remote' ? await line.last() : undefined;
      if (last) tell(last);
      return leave;
    });
  });
  route(routes.tellTelevision, async (req, res, { share }) => {
    const { line, end } = await find(share.code, req.params);
    const message =
      end === 'television'
        ? readBody(televisionStateSchema, req.body)
        : readBody(televisionCommandSchema, req.body);
    if (message.kind === 'state') await line.remember(message, IDLE_MS);
    await line.say(otherEnd(end), message);
    res.status(204).end();
  });
}
