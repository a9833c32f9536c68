import compression from 'compression';
import express, { type Express } from 'express';
import type { Sequelize } from 'sequelize';
import { contentOrigins, type Config, type Folders } from '../config.ts';
import type { JobQueue } from '../jobs/queue.ts';
import { inTheirLanguage } from '../language.ts';
import type { Hub } from '../hub/hub.ts';
import type { Log } from '../log.ts';
import type { Arrivals } from '../media/arrivals.ts';
import type { MediaStore } from '../media/store.ts';
import { WebMetrics } from '../metrics.ts';
import { makePrinter } from '../publish/prints/printer.ts';
import { addAccountRoutes } from './accounts.ts';
import { addAddressRoutes } from './address.ts';
import { answerErrors, nothingHere } from './answer.ts';
import { addArchiveRoutes } from './archives.ts';
import { addCardRoutes } from './cards.ts';
import { addClassRoutes } from './classes.ts';
import { addCueRoutes } from './cues.ts';
import { addEventRoutes } from './events.ts';
import { addFollowRoutes } from './follow.ts';
import { addFilmingRoutes } from './filming.ts';
import { addRemoteRoutes } from './remote-routes.ts';
import { FilmRemotes } from './remotes.ts';
import { addExportRoutes } from './exports.ts';
import { guarded } from './guard.ts';
import { addInstallationRoutes } from './installation.ts';
import { addLessonRoutes } from './lessons.ts';
import type { Limits } from './limits.ts';
import { addPackageRoutes } from './packages.ts';
import { pages } from './pages.ts';
import { endSlowBodies } from './patience.ts';
import { addPrintRoutes } from './prints.ts';
import { addSeriesRoutes } from './series.ts';
import { headers, nonce, onlyKnownNames, sameOriginWrites } from './safety.ts';
import { sessions } from './session.ts';
import { addShareRoutes } from './shares.ts';
import { addStoredRoutes } from './stored.ts';
import { addTakeRoutes } from './takes.ts';
import { addTeamRoutes } from './team.ts';
import { addTelevisionRoutes } from './televisions.ts';
import { uploads, type UploadTools } from './uploads.ts';
import { UPLOADS_PATH } from '@zest/contract';

export interface AppTools {
  config: Config;
  sequelize: Sequelize;
  queue: JobQueue;
  store: MediaStore;
  arrivals: Arrivals;
  folders: Folders;
  log: Log;
  hub: Hub;
  limits: Limits;
  freeBytes?: UploadTools['freeBytes'];
}

/**
 * The whole HTTP interface; `reconcile` picks up uploads that were complete when an earlier server
 * ended.
 */
export function makeApp(tools: AppTools): { app: Express; reconcile: () => Promise<void> } {
  const { config, sequelize, queue, store, folders, log, hub, limits } = tools;
  const app = express();
  app.disable('x-powered-by');
  // Addresses and schemes that others than these claim are not believed.
  app.set('trust proxy', config.trustProxy.length > 0 && config.trustProxy);
  const metrics = new WebMetrics(sequelize);
  // By whatever name its machine is called by the program that collects them.
  app.get('/metrics', (req, res) => metrics.answer(config.metricsToken, req, res));
  app.use(
    endSlowBodies(),
    nonce,
    headers(contentOrigins(config.s3)),
    inTheirLanguage,
    onlyKnownNames(config),
  );
  // Streams of events go out line by line.
  app.use(
    compression({
      filter: (req, res) =>
        !String(res.getHeader('Content-Type')).startsWith('text/event-stream') &&
        compression.filter(req, res),
    }),
  );
  app.use('/api', sameOriginWrites, sessions(sequelize, config.sessionSecret));
  const upload = uploads({
    arrivals: tools.arrivals,
    hub,
    queue,
    log,
    ...(tools.freeBytes && { freeBytes: tools.freeBytes }),
  });
  app.all([UPLOADS_PATH, `${UPLOADS_PATH}/*id`], upload.handle);
  app.use('/api', express.json({ limit: '4mb' }), (_req, res, next) => {
    res.set('Cache-Control', 'no-store');
    next();
  });
  const remotes = new FilmRemotes(hub);
  const route = guarded(app, remotes, metrics);
  const printer = makePrinter();
  addInstallationRoutes(route, sequelize, folders);
  addAccountRoutes(route, sequelize, limits, config.demo);
  addEventRoutes(route, hub);
  addLessonRoutes(route, sequelize, queue, store, folders);
  addSeriesRoutes(route, sequelize);
  addCueRoutes(route, sequelize);
  addPrintRoutes(route, store, printer);
  addCardRoutes(route, config, printer);
  addAddressRoutes(route, config);
  addArchiveRoutes(route, {
    sequelize,
    queue,
    store,
    folders,
    ...(tools.freeBytes && { freeBytes: tools.freeBytes }),
  });
  addTakeRoutes(route, queue, store, folders.segments);
  addFilmingRoutes(route, sequelize, store, folders);
  addRemoteRoutes(route, remotes, limits);
  addExportRoutes(route, queue, store, folders);
  addStoredRoutes(route, sequelize, store);
  addShareRoutes(route, sequelize, queue, store);
  addFollowRoutes(route, { sequelize, queue, store, hub, limits, metrics });
  addPackageRoutes(route, store, config.webDir);
  addClassRoutes(route, sequelize, hub);
  addTeamRoutes(route, sequelize, hub, limits);
  addTelevisionRoutes(route, hub);
  app.use('/api', nothingHere);
  if (config.webDir) app.use(pages(config.webDir));
  app.use(answerErrors(log, metrics));
  return { app, reconcile: upload.reconcile };
}
