import http from 'node:http';
import os from 'node:os';
import { foldersOf, readConfig } from './config.ts';
import { connect } from './db/connect.ts';
import { openJobs } from './jobs/open.ts';
import { work } from './jobs/worker.ts';
import { logger } from './log.ts';
import { surviveClosedOutput } from './output.ts';
import { openStore } from './media/open.ts';
import { WorkerMetrics } from './metrics.ts';

/** The process that does the long work. Several may run beside each other. */
// Whoever films or plays on this machine comes first; what is started from here goes on at the same
// priority.
os.setPriority(10);
surviveClosedOutput();
const config = readConfig();
const folders = foldersOf(config.dataDir);
const sequelize = await connect(config.db, Math.min(config.dbPool, 4));
const log = logger('worker', config.logLevel);
const kept = await openStore(config.s3, folders);
const jobs = await openJobs(sequelize, config.redis, kept, folders, log);
const stop = new AbortController();
process.once('SIGTERM', () => stop.abort());
process.once('disconnect', () => stop.abort());
process.on('SIGINT', () => undefined);
process.on('SIGHUP', () => undefined);
const metrics = new WorkerMetrics();
if (config.metricsPort !== null)
  http
    .createServer((req, res) => void metrics.answer(config.metricsToken, req, res))
    .listen(config.metricsPort, config.host)
    .unref();
await work(
  {
    queue: jobs.queue,
    folders,
    ...kept,
    rendering: jobs.rendering,
    log,
    watchesAtOnce: config.watchesAtOnce,
    metrics,
    kinds: config.kinds,
  },
  stop.signal,
);
await jobs.close();
await sequelize.close();
process.exit(0);
