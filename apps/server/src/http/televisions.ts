import {
  routes,
  televisionCommandSchema,
  televisionStateSchema,
  type TelevisionMessage,
} from '@zest/contract';
import { readSpoken, spokenCode } from '@zest/core/results';
import { chance } from '../db/classes.ts';
import { refuse } from '../errors.ts';
import { readBody } from './answer.ts';
import { eventStream } from './event-stream.ts';
import type { AddRoute } from './guard.ts';

type Listener = (message: TelevisionMessage) => void;
const ends = ['television', 'remote'] as const;
type End = (typeof ends)[number];
const otherEnd = (end: End): End => (end === 'television' ? 'remote' : 'television');

/**
 * A television on which a shared lesson plays, and the phones that drive it. Lives as long as this
 * process.
 */
interface Television {
  shareCode: string;
  listeners: Record<End, Set<Listener>>;
  last: TelevisionMessage | null;
  usedAt: number;
}

const IDLE_MS = 6 * 3_600_000;
/** Televisions on one link at a time: a large school's rooms. */
const MOST_PER_LINK = 40;
const televisions = new Map<string, Television>();

function opened(shareCode: string): string {
  const isOn = ({ listeners }: Television) => listeners.television.size > 0;
  for (const [code, television] of televisions)
    if (!isOn(television) && Date.now() - television.usedAt > IDLE_MS) televisions.delete(code);
  const ofLink = [...televisions].filter(([, television]) => television.shareCode === shareCode);
  if (ofLink.length >= MOST_PER_LINK) {
    // One that shows the lesson keeps its place, whoever wants another.
    const [unused] = ofLink
      .filter(([, television]) => !isOn(television))
      .sort(([, a], [, b]) => a.usedAt - b.usedAt);
    if (!unused)
      throw refuse(
        429,
        'televisions',
        `${MOST_PER_LINK} televisions show this lesson already. Use one of them, or close the lesson on one.`,
      );
    televisions.delete(unused[0]);
  }
  let code: string;
  do code = spokenCode(chance);
  while (televisions.has(code));
  televisions.set(code, {
    shareCode,
    listeners: { television: new Set(), remote: new Set() },
    last: null,
    usedAt: Date.now(),
  });
  return code;
}

/**
 * A lesson on a television, driven from a phone that has the same link; by the code the television
 * shows.
 */
export function addTelevisionRoutes(route: AddRoute): void {
  const find = (shareCode: string, params: Record<string, unknown>) => {
    const television = televisions.get(readSpoken(String(params['screen'])));
    const end = ends.find((known) => known === params['end']);
    // A code is good with the link of the lesson it plays only.
    if (!television || !end || television.shareCode !== shareCode)
      throw refuse(
        404,
        'no-television',
        'No television shows that code for this lesson. Look at it again.',
      );
    television.usedAt = Date.now();
    return { television, end };
  };
  route(
    routes.openTelevision,
    (_req, res, { share }) => void res.status(201).json({ screen: opened(share.code) }),
  );
  route(routes.televisionNews, (req, res, { share }) => {
    const { television, end } = find(share.code, req.params);
    const { listeners } = television;
    const count = (of: End) => {
      for (const tell of listeners[of])
        tell({ kind: 'others', count: listeners[otherEnd(of)].size });
    };
    eventStream<TelevisionMessage>(req, res, (tell) => {
      listeners[end].add(tell);
      tell({ kind: 'others', count: listeners[otherEnd(end)].size });
      if (end === 'remote' && television.last) tell(television.last);
      count(otherEnd(end));
      return () => {
        listeners[end].delete(tell);
        count(otherEnd(end));
      };
    });
  });
  route(routes.tellTelevision, (req, res, { share }) => {
    const { television, end } = find(share.code, req.params);
    const message =
      end === 'television'
        ? readBody(televisionStateSchema, req.body)
        : readBody(televisionCommandSchema, req.body);
    if (message.kind === 'state') television.last = message;
    for (const tell of television.listeners[otherEnd(end)]) tell(message);
    res.status(204).end();
  });
}
