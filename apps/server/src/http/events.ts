import { mayAsMuchAs, routes, type Job } from '@zest/contract';
import { Op } from 'sequelize';
import { JobRow } from '../db/models.ts';
import { eventStream } from './event-stream.ts';
import type { Hub } from '../hub/hub.ts';
import type { AddRoute } from './guard.ts';
import { onLogNews, type LogNews } from './log-news.ts';
import { jobView } from './views.ts';

const LOOK_EVERY_MS = 500;

/**
 * Pushes the caller's jobs as they change (server-sent events, one JSON job each), and, named
 * `log`, of which class and lessons results came in.
 */
export function addEventRoutes(route: AddRoute, hub: Hub): void {
  route(routes.events, (req, res, { teamId, person }) => {
    eventStream<Job | LogNews>(req, res, async (tell) => {
      // Results are for teachers.
      const leave = mayAsMuchAs(person.role, 'teacher')
        ? await onLogNews(hub, teamId, (told) => tell(told, 'log'))
        : () => undefined;
      // A little back in time, so that nothing falls between the page's first read and this.
      let since = new Date(Date.now() - 5_000);
      let sent = new Map<string, number>();
      let busy = false;
      const look = async () => {
        if (busy) return;
        busy = true;
        try {
          const jobs = await JobRow.findAll({
            where: { teamId, updatedAt: { [Op.gte]: since } },
            order: [['updatedAt', 'ASC']],
          });
          const seen = new Map<string, number>();
          for (const job of jobs) {
            const at = job.updatedAt.getTime();
            seen.set(job.id, at);
            if (sent.get(job.id) !== at) tell(jobView(job));
          }
          since = jobs.at(-1)?.updatedAt ?? since;
          sent = new Map([...sent, ...seen]);
        } catch {
          res.end(); // The page connects again.
        } finally {
          busy = false;
        }
      };
      const looking = setInterval(() => void look(), LOOK_EVERY_MS);
      return () => {
        clearInterval(looking);
        leave();
      };
    });
  });
}
