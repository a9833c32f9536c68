import { spawn } from 'node:child_process';
import { createReadStream, createWriteStream } from 'node:fs';
import { pipeline } from 'node:stream/promises';
import { createGunzip, createGzip } from 'node:zlib';
import type { Sequelize } from 'sequelize';
import { QueryTypes } from 'sequelize';
import type { DatabaseAddress } from './address.ts';

const place = ({ host, port, user, name }: DatabaseAddress) => [
  '--no-defaults',
  '--protocol=tcp',
  `--host=${host}`,
  `--port=${port}`,
  `--user=${user}`,
  '--default-character-set=utf8mb4',
  name,
];
/** The password goes by the environment: arguments are seen by everybody on the machine. */
const envOf = ({ password }: DatabaseAddress) => ({ ...process.env, MYSQL_PWD: password });

function ended(child: ReturnType<typeof spawn>, name: string): Promise<void> {
  let words = '';
  child.stderr?.on(
    'data',
    (chunk: Buffer) => (words = (words + chunk.toString('utf8')).slice(-2_000)),
  );
  return new Promise((resolve, reject) => {
    child.once('error', (error) =>
      reject(
        new Error(
          `${name} could not be started: ${error.message}. It comes with Debian's mariadb-server.`,
        ),
      ),
    );
    child.once('exit', (code) =>
      code === 0
        ? resolve()
        : reject(new Error(`${name} failed: ${words.trim().split('\n').at(-1) ?? ''}`)),
    );
  });
}

/**
 * Writes the whole database at one instant, as SQL, packed; work on it goes on meanwhile.
 * @throws with the program's words
 */
export async function dumpDatabase(database: DatabaseAddress, file: string): Promise<void> {
  // Sessions are not kept: whoever restores signs in anew.
  const child = spawn(
    'mariadb-dump',
    [
      ...place(database).slice(0, -1),
      '--single-transaction',
      '--skip-lock-tables',
      '--skip-comments',
      `--ignore-table-data=${database.name}.sessions`,
      database.name,
    ],
    { env: envOf(database), stdio: ['ignore', 'pipe', 'pipe'] },
  );
  await Promise.all([
    ended(child, 'mariadb-dump'),
    pipeline(child.stdout, createGzip(), createWriteStream(file, { mode: 0o600 })),
  ]);
}

/** Reads a dump into an empty database. @throws with the program's words */
export async function loadDump(database: DatabaseAddress, file: string): Promise<void> {
  const child = spawn('mariadb', place(database), {
    env: envOf(database),
    stdio: ['pipe', 'ignore', 'pipe'],
  });
  await Promise.all([
    ended(child, 'mariadb'),
    pipeline(createReadStream(file), createGunzip(), child.stdin),
  ]);
}

/** Rows of every table but sessions, by its name. */
export async function countRows(sequelize: Sequelize): Promise<Record<string, number>> {
  const tables = await sequelize.query<{ name: string }>(
    'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ' +
      "DATABASE() AND table_name <> 'sessions' ORDER BY table_name",
    { type: QueryTypes.SELECT },
  );
  const counts: Record<string, number> = {};
  for (const { name } of tables) counts[name] = await countIn(sequelize, name);
  return counts;
}

async function countIn(sequelize: Sequelize, table: string): Promise<number> {
  const [row] = await sequelize.query<{ rows: number }>(
    `SELECT COUNT(*) AS \`rows\` FROM \`${table}\``,
    { type: QueryTypes.SELECT },
  );
  return row?.rows ?? 0;
}

/** A table of more rows than this is not counted, which would read it whole. */
const COUNTED = 1_000;

/** Rows of tables, by name: of large ones as the database estimates them. */
export async function countRoughly(
  sequelize: Sequelize,
  names: readonly string[],
): Promise<Record<string, number>> {
  const tables = await sequelize.query<{ name: string; estimate: number | null }>(
    'SELECT table_name AS name, table_rows AS estimate FROM information_schema.tables WHERE ' +
      'table_schema = DATABASE() AND table_name IN (:names)',
    { type: QueryTypes.SELECT, replacements: { names } },
  );
  const counts: Record<string, number> = {};
  for (const { name, estimate } of tables)
    counts[name] = (estimate ?? 0) > COUNTED ? Number(estimate) : await countIn(sequelize, name);
  return counts;
}
