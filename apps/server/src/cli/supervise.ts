import { fork, type ChildProcess } from 'node:child_process';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { foldersOf } from '../config.ts';
import { databaseAddressText, ownDatabase, type DatabaseAddress } from '../db/address.ts';
import { connect } from '../db/connect.ts';
import { migrate } from '../db/migrations.ts';
import { wordsOf } from '../errors.ts';
import { diskStore } from '../media/store.ts';
import { sweepUnfinished } from '../media/unfinished.ts';
import { backUp, keepNewest } from './backup.ts';
import { KeptDatabase } from './kept-database.ts';
import { certificateIn, type Certificate } from './certificate.ts';
import { loadDemo } from './load-demo.ts';
import { forgetRunning, noteRunning, runningOn, secretsOf } from './installation.ts';

export interface ServeOptions {
  dataDir: string;
  host: string;
  port: number;
  demo: boolean;
  /** The project's folder: the pages are built into it, the demo's clips lie in it. */
  root: string;
  /** Folder of the bundled processes. */
  distDir: string;
  say: (line: string) => void;
  /** Programs that render and ingest, side by side. */
  workers: number;
  /** Where others open it; null: an owner says so on its pages. */
  address: string | null;
  /** Addresses of proxies that are believed, with commas between. */
  trustProxy: string;
  /** HTTPS by a certificate given, or one of its own; null: plain HTTP. */
  https: Certificate | 'own' | null;
  /** Where it is backed up to once a day, and how many days are kept; null: nowhere. */
  backup: { to: string; keep: number } | null;
}

const RESTART_MS = 1_000;
const DAY_MS = 86_400_000;

/** Backs up once a day; what goes wrong is said and tried again the next day. */
function backUpDaily(
  { to, keep }: NonNullable<ServeOptions['backup']>,
  database: DatabaseAddress,
  dataDir: string,
  say: ServeOptions['say'],
): NodeJS.Timeout {
  const run = async () => {
    const sequelize = await connect(database, 1);
    try {
      const { folder } = await backUp(sequelize, database, diskStore(foldersOf(dataDir).media), to);
      await keepNewest(to, keep);
      say(`Backed up into ${folder}.`);
    } finally {
      await sequelize.close();
    }
  };
  const tried = () =>
    void run().catch((error: unknown) => say(`The backup failed: ${wordsOf(error)}`));
  tried();
  return setInterval(tried, DAY_MS);
}

/** One of our processes, started again when it dies unasked. */
class Kept {
  private child: ChildProcess | null = null;
  private stopping = false;

  constructor(
    private readonly script: string,
    private readonly env: NodeJS.ProcessEnv,
    private readonly onMessage: (message: unknown) => void,
  ) {
    this.start();
  }

  private start(): void {
    const child = fork(this.script, [], {
      env: this.env,
      execArgv: [],
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    });
    this.child = child;
    child.on('message', this.onMessage);
    child.once('exit', (code, signal) => {
      if (this.stopping) return;
      process.stderr.write(
        `${path.basename(this.script)} ended (${signal ?? code}); starting it again.\n`,
      );
      setTimeout(() => !this.stopping && this.start(), RESTART_MS);
    });
  }

  async stop(): Promise<void> {
    this.stopping = true;
    const { child } = this;
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
    child.kill('SIGTERM');
    // A child that has ended leaves nothing to wait for.
    await Promise.race([
      ended,
      sleep(8_000, undefined, { ref: false }).then(() => child.kill('SIGKILL')),
    ]);
  }
}

/**
 * Starts database, web server and worker and keeps them running until a signal ends them in order.
 * A second call on the same data folder finds the first and gives its address.
 * @returns the exit code: 1 when the database was lost for good
 */
export async function serve(options: ServeOptions): Promise<number> {
  const { dataDir, host, demo, root, distDir, say } = options;
  const found = runningOn(dataDir);
  if (found) {
    say(
      found.url
        ? `Zest Frame is running already: ${found.url}`
        : 'Zest Frame is just starting in another window.',
    );
    return 0;
  }
  noteRunning(dataDir, { pid: process.pid, url: null, dbPort: null });
  let askedToStop: () => void = () => undefined;
  const asked = new Promise<void>((resolve) => (askedToStop = resolve));
  process.on('SIGINT', askedToStop);
  process.on('SIGTERM', askedToStop);
  process.on('SIGHUP', askedToStop);

  const secrets = secretsOf(dataDir);
  say('Starting the database …');
  const db = await KeptDatabase.start(path.join(dataDir, 'db'), secrets.dbPassword, say).catch(
    (error: unknown) => {
      forgetRunning(dataDir);
      throw error;
    },
  );
  void asked.then(() => db.expectEnd());
  const database = ownDatabase(db.port, secrets.dbPassword);
  const kept: Kept[] = [];
  let backing: NodeJS.Timeout | undefined;
  let code = 0;
  try {
    const tls =
      options.https === 'own' ? await certificateIn(dataDir, options.address) : options.https;
    const env: NodeJS.ProcessEnv = {
      ...process.env,
      ZEST_DATA: dataDir,
      ZEST_DATABASE: databaseAddressText(database),
      ZEST_SECRET: secrets.sessionSecret,
      ZEST_HOST: host,
      ZEST_PORT: String(options.port),
      ZEST_DEMO: demo ? '1' : '0',
      ZEST_WEB: path.join(root, 'dist', 'web'),
      ...(options.address !== null && { ZEST_ADDRESS: options.address }),
      ZEST_TRUST_PROXY: options.trustProxy,
      ...(tls && { ZEST_TLS_CERT: tls.cert, ZEST_TLS_KEY: tls.key }),
    };
    const sequelize = await connect(database, 2);
    await migrate(sequelize);
    // Before anybody works here: exports and working copies a kill broke off are begun anew.
    await sweepUnfinished(foldersOf(dataDir));
    if (demo) await loadDemo(sequelize, dataDir, path.join(root, 'demo', 'clips'), say);
    await sequelize.close();

    const listening = new Promise<number>((resolve, reject) => {
      kept.push(
        new Kept(path.join(distDir, 'http.js'), env, (message) => {
          const { port, fault } = message as { port?: number; fault?: string };
          if (fault) reject(new Error(fault));
          else if (port) {
            // Started again, it keeps the address that was printed.
            env['ZEST_PORT'] = String(port);
            resolve(port);
          }
        }),
      );
    });
    for (let n = 0; n < options.workers; n += 1)
      kept.push(new Kept(path.join(distDir, 'worker.js'), env, () => undefined));
    const stopped = asked.then(() => null);
    const port = await Promise.race([listening, stopped]);
    if (port !== null) {
      const shown =
        host === '0.0.0.0' || host === '::' ? 'localhost' : host.includes(':') ? `[${host}]` : host;
      const url = `${tls ? 'https' : 'http'}://${shown}:${port}`;
      noteRunning(dataDir, { pid: process.pid, url, dbPort: db.port });
      if (options.backup) backing = backUpDaily(options.backup, database, dataDir, say);
      say(`Zest Frame is ready: ${url}`);
      say(
        demo
          ? 'Choose "Look around the demo" there. Ctrl-C stops it.'
          : "The first visit makes the owner's account. Ctrl-C stops it.",
      );
      const why = await Promise.race([stopped, db.lost]);
      if (why !== null) {
        code = 1;
        say(
          `The database cannot be started again: ${why}\nWhat it wrote is in ` +
            `${path.join(dataDir, 'db', 'zest-error.log')}. Nothing was deleted. Restore a ` +
            'backup if its files are damaged.',
        );
      }
    }
    say('Stopping …');
  } finally {
    clearInterval(backing);
    await Promise.all(kept.map((process) => process.stop()));
    await db.stop();
    forgetRunning(dataDir);
  }
  return code;
}
