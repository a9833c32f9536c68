import { readFileSync } from 'node:fs';
import { foldersOf, readConfig } from './config.ts';
import { eraseOld } from './db/classes.ts';
import { connect } from './db/connect.ts';
import { wordsOf } from './errors.ts';
import { makeApp } from './http/app.ts';
import { makeServer, PATIENCE } from './http/patience.ts';
import { databaseQueue } from './jobs/queue.ts';
import { answerEachInTheirs } from './language.ts';
import { logger } from './log.ts';
import { surviveClosedOutput } from './output.ts';
import { diskStore } from './media/store.ts';
import { sweepContent } from './db/content.ts';
import { sweepWork } from './media/sweep.ts';

const ERASE_EVERY_MS = 6 * 3_600_000;

/** The process that answers HTTP. Started by the supervisor; tells it the port once it listens. */
surviveClosedOutput();
await answerEachInTheirs();
const log = logger('http');
const config = readConfig();
const folders = foldersOf(config.dataDir);
const sequelize = await connect(config.db);
const store = diskStore(folders.media);
const { app, reconcile } = makeApp({
  config,
  sequelize,
  queue: databaseQueue(sequelize),
  store,
  folders,
  log,
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
  process.send?.({ fault: why });
  process.exitCode = 1;
  process.disconnect?.();
});
server.listen(config.port, config.host, () => {
  const address = server.address();
  process.send?.({ port: typeof address === 'object' && address ? address.port : config.port });
});

// Entries are kept as long as their class says, and not a day longer.
const erase = () =>
  void eraseOld().then(
    (entries) => entries > 0 && log(`erased ${entries} entries that were kept long enough`),
    (error: unknown) => log(`erasing old entries failed: ${wordsOf(error)}`),
  );
erase();
const sweep = () => {
  const failed = (error: unknown) => log(`sweeping failed: ${wordsOf(error)}`);
  void sweepWork(folders.work).then(
    (swept) => swept > 0 && log(`removed ${swept} work folders that were left behind`),
    failed,
  );
  void sweepContent(sequelize, store).then(
    (swept) => swept > 0 && log(`removed ${swept} media files that nothing names`),
    failed,
  );
};
sweep();
const erasing = setInterval(() => {
  erase();
  sweep();
}, ERASE_EVERY_MS);

async function stop(): Promise<void> {
  clearInterval(erasing);
  server.close();
  server.closeAllConnections();
  await sequelize.close();
  process.exit(0);
}
process.once('SIGTERM', () => void stop());
process.once('disconnect', () => void stop());
// Ctrl-C reaches the whole group; the supervisor decides when we stop.
process.on('SIGINT', () => undefined);
process.on('SIGHUP', () => undefined);
