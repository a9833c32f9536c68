import os from 'node:os';
import { foldersOf, readRendererConfig } from './config.ts';
import { openRendering } from './jobs/open.ts';
import { renderOnly } from './jobs/worker.ts';
import { logger } from './log.ts';
import { openStore } from './media/open.ts';
import { surviveClosedOutput } from './output.ts';

/** Renders pieces of exports, and nothing else: it knows no database. */
os.setPriority(10);
surviveClosedOutput();
const config = readRendererConfig();
const folders = foldersOf(config.dataDir);
const log = logger('renderer', config.logLevel);
const { rendering, close } = await openRendering(
  config.redis,
  await openStore(config.s3, folders),
  folders,
  log,
);
const stop = new AbortController();
process.once('SIGTERM', () => stop.abort());
process.once('SIGINT', () => stop.abort());
await renderOnly({ rendering, log }, stop.signal);
await close();
process.exit(0);
