import http from 'node:http';
import { foldersOf, readConfig } from './config.ts';
import { connect } from './db/connect.ts';
import { makeApp } from './http/app.ts';
import { databaseQueue } from './jobs/queue.ts';
import { logger } from './log.ts';
import { diskStore } from './media/store.ts';

/** The process that answers HTTP. Started by the supervisor; tells it the port once it listens. */
const log = logger('http');
const config = readConfig();
const folders = foldersOf(config.dataDir);
const sequelize = await connect(config.db);
const { app, reconcile } = makeApp({
  config,
  sequelize,
  queue: databaseQueue(sequelize),
  store: diskStore(folders.media),
  folders,
  log,
});
await reconcile();

const server = http.createServer({ requestTimeout: 0 }, app);
server.on('error', (error: NodeJS.ErrnoException) => {
  const why = error.code === 'EADDRINUSE' ? `Port ${config.port} is taken. Choose another with --port.` : error.message;
  process.send?.({ fault: why });
  process.exitCode = 1;
  process.disconnect?.();
});
server.listen(config.port, config.host, () => {
  const address = server.address();
  process.send?.({ port: typeof address === 'object' && address ? address.port : config.port });
});

async function stop(): Promise<void> {
  server.close();
  server.closeAllConnections();
  await sequelize.close();
  process.exit(0);
}
process.once('SIGTERM', () => void stop());
process.once('disconnect', () => void stop());
// Ctrl-C reaches the whole group; the supervisor decides when we stop.
process.on('SIGINT', () => undefined);
