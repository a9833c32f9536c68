import { bodies, routes, type RemoteMessage } from '@zest/contract';
import { teacherText } from '@zest/core/words';
import { refuse } from '../errors.ts';
import { answer, readBody } from './answer.ts';
import { eventStream } from './event-stream.ts';
import type { AddRoute } from './guard.ts';
import { slowed, type Limits } from './limits.ts';
import type { FilmRemotes } from './remotes.ts';

const isLast = ({ kind }: RemoteMessage) => kind === 'closed';

/**
 * The film view's remote: a second device looks at it and drives it, by a code and without an
 * account.
 */
export function addRemoteRoutes(route: AddRoute, remotes: FilmRemotes, limits: Limits): void {
  // 31^8 codes: at this pace nobody finds one by trying.
  const guesses = slowed(limits, 'remote', {
    windowMs: 60_000,
    limit: 240,
    standardHeaders: true,
    handler: () => {
      throw refuse(429, 'too-many', teacherText('server.too-many-tries'));
    },
  });

  route(routes.openRemote, async (_req, res, { teamId }) => {
    answer(res.status(201), 'openRemote', { remote: (await remotes.open(teamId)).code });
  });
  route(routes.remoteInbox, (req, res, { remote }) =>
    eventStream<RemoteMessage>(req, res, (tell) => remote.listen(tell), isLast),
  );
  route(routes.setRemoteScreen, async (req, res, { remote }) => {
    await remote.show(readBody(bodies.setRemoteScreen, req.body));
    res.status(204).end();
  });
  route(routes.closeRemote, async (_req, res, { remote }) => {
    await remote.close();
    res.status(204).end();
  });
  route(
    routes.remoteScreen,
    (req, res, { remote }) =>
      eventStream<RemoteMessage>(req, res, (tell) => remote.join(tell), isLast),
    guesses,
  );
  route(
    routes.commandRemote,
    async (req, res, { remote }) => {
      const heard = await remote.command({
        kind: 'command',
        ...readBody(bodies.commandRemote, req.body),
      });
      if (!heard) throw refuse(409, 'no-view', teacherText('server.film-view-closed'));
      res.status(204).end();
    },
    guesses,
  );
}
