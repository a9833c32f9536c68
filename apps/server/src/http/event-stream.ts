import type { Request, Response } from 'express';
import { goesOn } from './ending.ts';

const KEEP_ALIVE_MS = 20_000;

/**
 * A stream of messages to one page (server-sent events), until either side leaves. When it cannot
 * be joined it ends, and the page connects again.
 * @param join tells messages, with a name where they are not of the usual kind
 * @param isLast a message that ends it
 */
export function eventStream<T>(
  req: Request,
  res: Response,
  join: (tell: (message: T, name?: string) => void) => Promise<() => void>,
  isLast: (message: T) => boolean = () => false,
): void {
  res.set({
    'Content-Type': 'text/event-stream',
    'Cache-Control': 'no-store',
    'X-Accel-Buffering': 'no',
  });
  goesOn(res);
  res.flushHeaders();
  res.write(': hello\n\n');
  const joined = join((message, name) => {
    if (res.writableEnded) return;
    res.write(
      `${name === undefined ? '' : `event: ${name}\n`}data: ${JSON.stringify(message)}\n\n`,
    );
    if (isLast(message)) res.end();
  });
  const alive = setInterval(() => res.write(': here\n\n'), KEEP_ALIVE_MS);
  req.on('close', () => {
    clearInterval(alive);
    void joined.then((leave) => leave()).catch(() => undefined);
  });
  joined.catch(() => res.end());
}
