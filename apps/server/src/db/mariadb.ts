import { spawn, spawnSync, type ChildProcess } from 'node:child_process';
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';

/** A MariaDB server of our own: loopback only, its data below our folder, known only to us. */
export interface MariaDb {
  port: number;
  pid: number;
  /** Shuts the server down cleanly; resolves when it has gone. */
  stop(): Promise<void>;
  /** Resolves when the server ends, asked or not. */
  ended: Promise<void>;
}

const START_LIMIT_MS = 60_000;
const MOST_LOG_BYTES = 4_000_000;

/** A port nobody listens on at the moment. */
export async function freePort(host = '127.0.0.1'): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = net.createServer();
    probe.once('error', reject);
    probe.listen(0, host, () => {
      const { port } = probe.address() as net.AddressInfo;
      probe.close(() => resolve(port));
    });
  });
}

/** Whether somebody listens on the port of this machine. */
export function accepts(port: number): Promise<boolean> {
  return new Promise((resolve) => {
    const socket = net.connect(port, '127.0.0.1');
    socket.once('connect', () => {
      socket.destroy();
      resolve(true);
    });
    socket.once('error', () => resolve(false));
  });
}

/** Debian keeps server programs in sbin, which is not on everybody's path. */
const programEnv = { ...process.env, PATH: `${process.env['PATH'] ?? ''}:/usr/sbin:/sbin` };

function asRoot(): string[] {
  return process.getuid?.() === 0 ? ['--user=root'] : [];
}

/** Sets up an empty database; gives what went wrong, or null. */
function setUp(dataDir: string): string | null {
  mkdirSync(dataDir, { recursive: true, mode: 0o700 });
  const done = spawnSync(
    'mariadb-install-db',
    [
      '--no-defaults',
      '--auth-root-authentication-method=socket',
      '--skip-test-db',
      // Setting up needs no fast disk, and several at once use up what the system gives for one.
      '--innodb-use-native-aio=0',
      `--datadir=${dataDir}`,
      ...asRoot(),
    ],
    { env: programEnv, encoding: 'utf8' },
  );
  if (done.status === 0) return null;
  const errors = `${done.stdout}\n${done.stderr}`
    .split('\n')
    .filter((line) => line.includes('[ERROR]'));
  return done.error?.message ?? (errors.join('\n') || done.stderr.trim());
}

function install(dataDir: string): void {
  const before = new Set(existsSync(dataDir) ? readdirSync(dataDir) : []);
  if (setUp(dataDir) === null) return;
  // The server's own bootstrap sometimes aborts where several are set up at once: what it began
  // is cleared away for a second try.
  for (const name of readdirSync(dataDir))
    if (!before.has(name)) rmSync(path.join(dataDir, name), { recursive: true, force: true });
  const why = setUp(dataDir);
  if (why !== null) throw new Error(`The database could not be set up in ${dataDir}: ${why}`);
}

/** The process of a server that runs on this data folder; null when none does. */
function pidOn(dataDir: string): number | null {
  const pidFile = path.join(dataDir, 'mariadb.pid');
  if (!existsSync(pidFile)) return null;
  const pid = Number(readFileSync(pidFile, 'utf8').trim());
  const command = existsSync(`/proc/${pid}/cmdline`)
    ? readFileSync(`/proc/${pid}/cmdline`, 'utf8')
    : '';
  return command.includes(`--datadir=${dataDir}`) ? pid : null;
}

/**
 * Ends a server that an earlier run left behind on this data folder; gives whether there was one.
 */
export async function endLeftover(dataDir: string): Promise<boolean> {
  const pid = pidOn(dataDir);
  if (pid === null) return false;
  process.kill(pid, 'SIGTERM');
  for (let i = 0; i < 300 && existsSync(`/proc/${pid}`); i += 1) await sleep(100);
  if (existsSync(`/proc/${pid}`))
    throw new Error(`The database (process ${pid}) does not end. Look again in a moment.`);
  return true;
}

function quoted(text: string): string {
  return `'${text.replace(/[\\']/g, '\\$&')}'`;
}

/** What the server wrote into its log since; a log that has grown large begins anew. */
function logOf(dataDir: string): { file: string; since: () => string } {
  const file = path.join(dataDir, 'zest-error.log');
  const size = existsSync(file) ? statSync(file).size : 0;
  const isFull = size > MOST_LOG_BYTES;
  if (isFull) renameSync(file, `${file}.old`);
  return {
    file,
    since: () =>
      existsSync(file)
        ? readFileSync(file)
            .subarray(isFull ? 0 : size)
            .toString('utf8')
        : '',
  };
}

/**
 * Starts MariaDB on `dataDir` (set up when new), on 127.0.0.1 and the port given or a free one,
 * with databases `names` and a user `zest` of the given password.
 * @throws with the server's own last words when it does not come up
 */
export async function startMariaDb(
  dataDir: string,
  password: string,
  names: readonly string[] = ['zest'],
  wanted?: number,
): Promise<MariaDb> {
  if (!existsSync(path.join(dataDir, 'mysql'))) install(dataDir);
  await endLeftover(dataDir);
  const port = wanted ?? (await freePort());
  // A socket's path has a short limit, so it does not live below the data folder.
  const socketDir = mkdtempSync(path.join(os.tmpdir(), 'zest-db-'));
  const initFile = path.join(dataDir, 'zest-init.sql');
  const user = `'zest'@'127.0.0.1'`;
  const statements = [
    `CREATE USER IF NOT EXISTS ${user} IDENTIFIED BY ${quoted(password)};`,
    `ALTER USER ${user} IDENTIFIED BY ${quoted(password)};`,
    ...names.flatMap((name) => [
      `CREATE DATABASE IF NOT EXISTS \`${name}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_ci;`,
      `GRANT ALL ON \`${name}\`.* TO ${user};`,
    ]),
  ];
  writeFileSync(initFile, `${statements.join('\n')}\n`, { mode: 0o600 });
  const errorLog = logOf(dataDir);
  const child: ChildProcess = spawn(
    'mariadbd',
    [
      '--no-defaults',
      `--datadir=${dataDir}`,
      '--bind-address=127.0.0.1',
      `--port=${port}`,
      `--socket=${path.join(socketDir, 's.sock')}`,
      `--pid-file=${path.join(dataDir, 'mariadb.pid')}`,
      `--init-file=${initFile}`,
      `--log-error=${errorLog.file}`,
      '--skip-name-resolve',
      '--innodb-buffer-pool-size=64M',
      '--max-connections=60',
      '--transaction-isolation=READ-COMMITTED',
      ...asRoot(),
    ],
    // Its own process group: Ctrl-C reaches us first, and we shut it down in order.
    { env: programEnv, stdio: 'ignore', detached: true },
  );
  let gone = false;
  const ended = new Promise<void>((resolve) => {
    const finish = () => {
      gone = true;
      rmSync(socketDir, { recursive: true, force: true });
      resolve();
    };
    child.once('exit', finish);
    child.once('error', finish);
  });
  const untilMs = Date.now() + START_LIMIT_MS;
  while (!(await accepts(port))) {
    if (gone || Date.now() > untilMs) {
      child.kill('SIGKILL');
      const words = errorLog.since().trim().split('\n').slice(-3).join('\n');
      throw new Error(`The database did not start on ${dataDir}. Its last words:\n${words}`);
    }
    await sleep(50);
  }
  return {
    port,
    pid: child.pid ?? 0,
    ended,
    async stop() {
      if (!gone) child.kill('SIGTERM');
      await ended;
    },
  };
}
