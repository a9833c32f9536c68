import { stat } from 'node:fs/promises';
import path from 'node:path';
import type { Sequelize } from 'sequelize';
import { ownDatabase, type DatabaseAddress } from '../db/address.ts';
import { connect } from '../db/connect.ts';
import { startMariaDb } from '../db/mariadb.ts';
import { migrate } from '../db/migrations.ts';
import { LessonRow } from '../db/models.ts';
import { runningOn, secretsOf } from './installation.ts';

/**
 * Uses the database of a data folder: the running server's, or one started for the time being.
 * @throws with words when there is no such folder
 */
export async function withDatabase<T>(
  dataDir: string,
  use: (sequelize: Sequelize, database: DatabaseAddress) => Promise<T>,
): Promise<T> {
  await stat(dataDir).catch(() => {
    throw new Error(`There is no data folder ${dataDir}. Name the right one with --data.`);
  });
  const { dbPassword } = secretsOf(dataDir);
  const running = runningOn(dataDir);
  const started = running?.dbPort ? null : await startMariaDb(path.join(dataDir, 'db'), dbPassword);
  const port = running?.dbPort ?? started?.port ?? 0;
  try {
    const database = ownDatabase(port, dbPassword);
    const sequelize = await connect(database, 4);
    try {
      await migrate(sequelize);
      return await use(sequelize, database);
    } finally {
      await sequelize.close();
    }
  } finally {
    await started?.stop();
  }
}

/** A lesson by its id. @throws with the ids there are */
export async function lessonRow(lessonId: string): Promise<LessonRow> {
  const lesson = await LessonRow.findOne({ where: { id: lessonId, deletedAt: null } });
  if (lesson) return lesson;
  const known = await LessonRow.findAll({ where: { deletedAt: null } });
  const list = known.map((row) => row.id).join(', ') || 'none yet';
  throw new Error(
    `There is no lesson ${lessonId}. Lessons here: ${list}. A lesson's id stands in its page address.`,
  );
}
