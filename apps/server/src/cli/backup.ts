import { copyFile, mkdir, readdir, readFile, rename, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Sequelize } from 'sequelize';
import { z } from 'zod';
import { foldersOf } from '../config.ts';
import { connect } from '../db/connect.ts';
import { contentNamed } from '../db/content.ts';
import { ownDatabase, type DatabaseAddress } from '../db/address.ts';
import { countRows, dumpDatabase, loadDump } from '../db/dump.ts';
import { startMariaDb } from '../db/mariadb.ts';
import { migrate } from '../db/migrations.ts';
import { diskStore, hashFile, type DiskStore } from '../media/store.ts';
import { secretsOf } from './installation.ts';

/** What a backup holds: one state among others of the same folder, which share their media. */
const stateSchema = z.object({
  format: z.literal('zest-backup'),
  version: z.literal(1),
  at: z.string(),
  database: z.object({ sha256: z.string() }),
  /** Content hashes of all media of this state. */
  media: z.array(z.string().regex(/^[0-9a-f]{64}$/)),
  bytes: z.number(),
});

const STATE = 'state.json';
const DUMP = 'database.sql.gz';

const stamp = (date: Date) => date.toISOString().replace(/[:.]/g, '-');

/**
 * Copies content that is not there yet, whole or not at all; gives how much was there. What was
 * emptied from the bin a moment ago is not missed.
 */
async function copyContent(
  shas: readonly string[],
  from: DiskStore,
  to: DiskStore,
): Promise<number> {
  let known = 0;
  for (const sha of shas) {
    if (await to.has(sha)) known += 1;
    else if (await from.has(sha)) {
      await mkdir(path.dirname(to.pathOf(sha)), { recursive: true, mode: 0o700 });
      await copyFile(from.pathOf(sha), `${to.pathOf(sha)}.part`);
      await rename(`${to.pathOf(sha)}.part`, to.pathOf(sha));
    }
  }
  return known;
}

export interface BackedUp {
  folder: string;
  files: number;
  bytes: number;
  /** Files that an earlier backup in the same folder had already. */
  known: number;
}

/**
 * Copies everything of an installation, while it serves or not: the database at one instant, then
 * the content it names, which never changes. States lie side by side and share their media. Half a
 * backup never looks like a whole one.
 */
export async function backUp(
  sequelize: Sequelize,
  database: DatabaseAddress,
  store: DiskStore,
  to: string,
): Promise<BackedUp> {
  const now = new Date();
  const states = path.join(to, 'states');
  const folder = path.join(states, stamp(now));
  const part = `${folder}.part`;
  const kept = diskStore(path.join(to, 'media'));
  await mkdir(part, { recursive: true, mode: 0o700 });
  try {
    // Content comes before its name and goes after it: what is named before or after the dump is
    // all the dump can name.
    const before = await contentNamed(sequelize);
    const known = await copyContent(before, store, kept);
    await dumpDatabase(database, path.join(part, DUMP));
    const after = await contentNamed(sequelize);
    await copyContent(after, store, kept);
    const media: string[] = [];
    let bytes = 0;
    for (const sha of new Set([...before, ...after])) {
      if (!(await kept.has(sha))) continue;
      media.push(sha);
      bytes += await kept.sizeOf(sha);
    }
    const state: z.infer<typeof stateSchema> = {
      format: 'zest-backup',
      version: 1,
      at: now.toISOString(),
      database: { sha256: await hashFile(path.join(part, DUMP)) },
      media,
      bytes,
    };
    await writeFile(path.join(part, STATE), JSON.stringify(state, null, 2), { mode: 0o600 });
    await rename(part, folder);
    return { folder, files: media.length, bytes, known };
  } catch (error) {
    await rm(part, { recursive: true, force: true });
    throw error;
  }
}

/** Removes all but the newest states, and media no state needs any more. */
export async function keepNewest(to: string, count: number): Promise<void> {
  const folder = path.join(to, 'states');
  const states = (await readdir(folder)).filter((name) => !name.endsWith('.part')).sort();
  for (const old of states.slice(0, -count)) await rm(path.join(folder, old), { recursive: true });
  const needed = new Set<string>();
  for (const name of states.slice(-count))
    for (const sha of (await readState(path.join(folder, name))).media) needed.add(sha);
  const media = path.join(to, 'media');
  for (const entry of await readdir(media, { recursive: true, withFileTypes: true }).catch(
    () => [],
  )) {
    if (entry.isFile() && !needed.has(entry.name))
      await rm(path.join(entry.parentPath, entry.name));
  }
}

async function readState(folder: string): Promise<z.infer<typeof stateSchema>> {
  const text = await readFile(path.join(folder, STATE), 'utf8').catch(() => {
    throw new Error(
      `${folder} is no backup: there is no ${STATE} in it. Name one of the folders below "states".`,
    );
  });
  const read = stateSchema.safeParse(JSON.parse(text));
  if (!read.success)
    throw new Error(
      `The ${STATE} of ${folder} cannot be read by this version. Restore it with the ` +
        'version that made it, or a newer one.',
    );
  return read.data;
}

/**
 * Brings a backup back into an empty data folder; every file is checked against its hash before
 * anything counts as restored.
 * @throws with words when the folder is not empty, or something is missing or damaged
 */
export async function restore(
  stateFolder: string,
  dataDir: string,
  say: (line: string) => void,
): Promise<void> {
  const there = await readdir(dataDir).catch(() => []);
  if (there.length > 0)
    throw new Error(
      `${dataDir} is not empty. Name a new folder with --data: nothing is ever written over.`,
    );
  const state = await readState(stateFolder);
  const dump = path.join(stateFolder, DUMP);
  if ((await hashFile(dump).catch(() => '')) !== state.database.sha256)
    throw new Error(`The database in ${stateFolder} is missing or damaged. Use another state.`);
  const from = diskStore(path.join(stateFolder, '../../media'));
  say(`Checking ${state.media.length} files …`);
  for (const sha of state.media) {
    if (!(await from.has(sha)))
      throw new Error(
        `A file of the backup is missing: ${from.pathOf(sha)}. Use another state, or ` +
          'copy the whole backup folder again.',
      );
    if ((await hashFile(from.pathOf(sha))) !== sha)
      throw new Error(
        `A file of the backup is damaged: ${from.pathOf(sha)}. Use another state, or ` +
          'copy the whole backup folder again.',
      );
  }
  const secrets = secretsOf(dataDir);
  const folders = foldersOf(dataDir);
  const store = diskStore(folders.media);
  say('Copying …');
  await copyContent(state.media, from, store);
  say('Restoring the database …');
  const db = await startMariaDb(path.join(dataDir, 'db'), secrets.dbPassword);
  try {
    const database = ownDatabase(db.port, secrets.dbPassword);
    await loadDump(database, dump);
    const sequelize = await connect(database, 2);
    await migrate(sequelize);
    const rows = await countRows(sequelize);
    await sequelize.close();
    say(
      `Restored: ${rows['lessons'] ?? 0} lessons, ${rows['takes'] ?? 0} takes, ` +
        `${rows['students'] ?? 0} students, ${rows['log_entries'] ?? 0} entries, ` +
        `${state.media.length} files. Everybody signs in anew.`,
    );
  } finally {
    await db.stop();
  }
}
