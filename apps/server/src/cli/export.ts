import { copyFile, mkdir, stat } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Sequelize } from 'sequelize';
import { foldersOf } from '../config.ts';
import { connect } from '../db/connect.ts';
import { startMariaDb } from '../db/mariadb.ts';
import { migrate } from '../db/migrations.ts';
import { LessonRow } from '../db/models.ts';
import { orderExport } from '../http/exports.ts';
import { exportOutcomeSchema } from '../jobs/handlers.ts';
import { databaseQueue } from '../jobs/queue.ts';
import { work } from '../jobs/worker.ts';
import { diskStore } from '../media/store.ts';
import { runningOn, secretsOf } from './installation.ts';

async function withDatabase<T>(dataDir: string, use: (sequelize: Sequelize) => Promise<T>): Promise<T> {
  await stat(dataDir).catch(() => {
    throw new Error(`There is no data folder ${dataDir}. Name the right one with --data.`);
  });
  const { dbPassword } = secretsOf(dataDir);
  const running = runningOn(dataDir);
  const own = running?.dbPort ? null : await startMariaDb(path.join(dataDir, 'db'), dbPassword);
  const port = running?.dbPort ?? own?.port ?? 0;
  try {
    const sequelize = await connect({ port, password: dbPassword, name: 'zest' }, 4);
    try {
      await migrate(sequelize);
      return await use(sequelize);
    } finally {
      await sequelize.close();
    }
  } finally {
    await own?.stop();
  }
}

/**
 * Exports a lesson's newest revision into a folder: lesson.mp4 and lesson.vtt. Uses the running server's
 * database when there is one, and lends a hand as a worker either way.
 * @throws with words when the lesson is unknown or the export fails
 */
export async function exportTo(dataDir: string, lessonId: string, outDir: string, say: (line: string) => void): Promise<void> {
  await withDatabase(dataDir, async (sequelize) => {
    const folders = foldersOf(dataDir);
    const store = diskStore(folders.media);
    const queue = databaseQueue(sequelize);
    const lesson = await LessonRow.findOne({ where: { id: lessonId, deletedAt: null } });
    if (!lesson) {
      const known = await LessonRow.findAll({ where: { deletedAt: null } });
      const list = known.map((row) => row.id).join(', ') || 'none yet';
      throw new Error(`There is no lesson ${lessonId}. Lessons here: ${list}. A lesson's id stands in its page address.`);
    }
    const job = await orderExport(queue, lesson.ownerId, lesson.id, lesson.revision);
    const done = new AbortController();
    const working = work({ queue, folders, store, log: say }, done.signal);
    let shown = '';
    while (['queued', 'running'].includes((await job.reload()).state)) {
      const line = `${Math.round(job.progress * 100)} % ${job.message}`;
      if (line !== shown) say(line);
      shown = line;
      await sleep(500);
    }
    done.abort();
    await working;
    if (job.state !== 'done' || !job.result) throw new Error(job.message);
    const { videoSha, captionsSha } = exportOutcomeSchema.parse(JSON.parse(job.result));
    await mkdir(outDir, { recursive: true });
    await copyFile(store.pathOf(videoSha), path.join(outDir, 'lesson.mp4'));
    await copyFile(store.pathOf(captionsSha), path.join(outDir, 'lesson.vtt'));
    say(`Written to ${outDir}: lesson.mp4, lesson.vtt`);
  });
}
