import { readFileSync } from 'node:fs';
import { setTimeout as sleep } from 'node:timers/promises';
import { foldersOf, readConfig } from './config.ts';
import { eraseOld } from './db/classes.ts';
import { connect } from './db/connect.ts';
import { migrate } from './db/migrations.ts';
import { wordsOf } from './errors.ts';
import { makeApp } from './http/app.ts';
import { endStreams } from './http/ending.ts';
import { makeServer, PATIENCE } from './http/patience.ts';
import { openJobs } from './jobs/open.ts';
import { answerEachInTheirs } from './language.ts';
import { openHub } from './hub/open.ts';
import { logger } from './log.ts';
import { surviveClosedOutput } from './output.ts';
import { openStore } from './media/open.ts';
import { sweepContent } from './db/content.ts';
import { sweepWork } from './media/sweep.ts';

const ERASE_EVERY_MS = 6 * 3_600_000;
/** A piece of video over a bad line takes so long; somebody who waits for us has less patience. */
const END_MS = 20_000;
const SUPERVISED_END_MS = 3_000;
const isSupervised = process.send !== undefined;

/** The process that answers HTTP. Started by the supervisor; tells it the port once it listens. */
surviveClosedOutput();
await answerEachInTheirs();
const config = readConfig();
const log = logger('http', config.logLevel);
const folders = foldersOf(config.dataDir);
const sequelize = await connect(config.db, config.dbPool, config.dbReplicas);
// The supervisor has done so before it starts us.
if (!isSupervised) await migrate(sequelize);
const { hub, limits } = await openHub(config.redis, log);
const kept = await openStore(config.s3, folders);
const { store, arrivals } = kept;
const jobs = await openJobs(sequelize, config.redis, kept, folders, log);
const { app, reconcile } = makeApp({
  config,
  sequelize,
  queue: jobs.queue,
  store,
  arrivals,
  folders,
  log,
  hub,
  limits,
});
await reconcile();

const server = makeServer(
  app,
  PATIENCE,
  config.tls && { cert: readFileSync(config.tls.cert), key: readFileSync(config.tls.key) },
);
server.on('error', (error: NodeJS.ErrnoException) => {
  const why =
    error.code === 'EADDRINUSE'
      ? `Port ${config.port} is taken. Choose another with --port.`
      : error.message;
  if (isSupervised) process.send?.({ fault: why });
  else log.error(why);
  process.exitCode = 1;
  if (isSupervised) process.disconnect();
  else process.exit();
});
server.listen(config.port, config.host, () => {
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : config.port;
  if (isSupervised) process.send?.({ port });
  else log.info(`Listening on ${config.host}, port ${port}.`);
});

// Entries are kept as long as their class says, and not a day longer.
const erase = () =>
  void eraseOld().then(
    (entries) => entries > 0 && log.info(`erased ${entries} entries that were kept long enough`),
    (error: unknown) => log.error(`erasing old entries failed: ${wordsOf(error)}`),
  );
erase();
const sweep = () => {
  const failed = (error: unknown) => log.error(`sweeping failed: ${wordsOf(error)}`);
  void sweepWork(folders.work).then(
    (swept) => swept > 0 && log.info(`removed ${swept} work folders that were left behind`),
    failed,
  );
  void sweepContent(sequelize, store).then(
    (swept) => swept > 0 && log.info(`removed ${swept} media files that nothing names`),
    failed,
  );
};
sweep();
const erasing = setInterval(() => {
  erase();
  sweep();
}, ERASE_EVERY_MS);

/** Nobody new is let in; what is being answered is answered to its end, for a while. */
async function stop(): Promise<void> {
  clearInterval(erasing);
  const closed = new Promise((resolve) => server.close(resolve));
  endStreams();
  const closing = setInterval(() => server.closeIdleConnections(), 50);
  await Promise.race([closed, sleep(isSupervised ? SUPERVISED_END_MS : END_MS)]);
  clearInterval(closing);
  server.closeAllConnections();
  await jobs.close();
  await Promise.all([sequelize.close(), hub.close()]);
  process.exit(0);
}
process.once('SIGTERM', () => void stop());
process.once('disconnect', () => void stop());
// Ctrl-C reaches the whole group; the supervisor decides when we stop.
process.on('SIGINT', () => undefined);
process.on('SIGHUP', () => undefined);
