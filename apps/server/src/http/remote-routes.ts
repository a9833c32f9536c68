import { remoteCommandSchema, remoteScreenSchema, type RemoteMessage } from '@zest/contract';
import type { Request, Response } from 'express';
import rateLimit from 'express-rate-limit';
import { refuse } from '../errors.ts';
import { readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';
import { remotes } from './remotes.ts';

const KEEP_ALIVE_MS = 20_000;

/** A stream of messages to one page, until either side leaves. */
function stream(req: Request, res: Response, join: (tell: (message: RemoteMessage) => void) => () => void): void {
  res.set({ 'Content-Type': 'text/event-stream', 'Cache-Control': 'no-store', 'X-Accel-Buffering': 'no' });
  res.flushHeaders();
  const leave = join((message) => {
    res.write(`data: ${JSON.stringify(message)}\n\n`);
    if (message.kind === 'closed') res.end();
  });
  const alive = setInterval(() => res.write(': here\n\n'), KEEP_ALIVE_MS);
  req.on('close', () => {
    clearInterval(alive);
    leave();
  });
}

/** The film view's remote: a second device looks at it and drives it, by a code and without an account. */
export function addRemoteRoutes(route: AddRoute): void {
  // 31^8 codes: at this pace nobody finds one by trying.
  const guesses = rateLimit({ windowMs: 60_000, limit: 240, standardHeaders: true, legacyHeaders: false, message: { code: 'too-many', message: 'Too many tries. Wait a minute.' } });

  route('POST', '/api/lessons/:lessonId/remotes', (_req, res, { teamId }) => void res.status(201).json({ remote: remotes.open(teamId).code }));
  route('GET', '/api/remotes/:remote/inbox', (req, res, { remote }) => stream(req, res, (tell) => remote.listen(tell)));
  route('PUT', '/api/remotes/:remote/screen', (req, res, { remote }) => {
    remote.show(readBody(remoteScreenSchema, req.body));
    res.status(204).end();
  });
  route('DELETE', '/api/remotes/:remote', (_req, res, { remote }) => {
    remotes.close(remote.code);
    res.status(204).end();
  });
  route('GET', '/api/remotes/:remote/screen', (req, res, { remote }) => stream(req, res, (tell) => remote.join(tell)), guesses);
  route(
    'POST',
    '/api/remotes/:remote/commands',
    (req, res, { remote }) => {
      const heard = remote.command({ kind: 'command', ...readBody(remoteCommandSchema, req.body) });
      if (!heard) throw refuse(409, 'no-view', 'The film view is closed. Open it again on the other device.');
      res.status(204).end();
    },
    guesses,
  );
}
