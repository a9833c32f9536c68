import { copyFile, mkdtemp } from 'node:fs/promises';
import path from 'node:path';
import { demoClips, demoLesson } from '@zest/demo/lesson';
import { demoPlan } from '@zest/demo/plan';
import { demoCues, demoSeries } from '@zest/demo/series';
import { hash } from '@node-rs/argon2';
import { nanoid } from 'nanoid';
import type { Sequelize } from 'sequelize';
import { foldersOf } from '../config.ts';
import { DEMO_LOGIN } from '../demo.ts';
import { createLesson } from '../db/lessons.ts';
import { createSeries } from '../db/series.ts';
import { CueEntryRow, TakeRow, User } from '../db/models.ts';
import { queueIngest } from '../http/uploads.ts';
import { databaseQueue } from '../jobs/queue.ts';
import { diskStore } from '../media/store.ts';

/** Loads the demo's account, a lesson with its footage and a planned one, once. The worker makes the working copies after start. */
export async function loadDemo(sequelize: Sequelize, dataDir: string, clipsDir: string, say: (line: string) => void): Promise<void> {
  if (await User.findOne({ where: { login: DEMO_LOGIN } })) return;
  say('Loading the demo lessons …');
  const folders = foldersOf(dataDir);
  const store = diskStore(folders.media);
  const queue = databaseQueue(sequelize);
  const user = await User.create({ id: nanoid(), login: DEMO_LOGIN, passwordHash: await hash(nanoid(40)) });
  const takeIds = new Map(demoClips.map((clip) => [clip.blockId, nanoid()]));
  const lessonId = nanoid();
  await createLesson(sequelize, lessonId, user.id, demoLesson(takeIds));
  await createLesson(sequelize, nanoid(), user.id, demoPlan());
  await createSeries(user.id, demoSeries);
  await CueEntryRow.bulkCreate(demoCues.map(({ id, ...entry }) => ({ id, ownerId: user.id, document: JSON.stringify(entry) })));
  const folder = await mkdtemp(path.join(folders.work, 'demo-'));
  for (const clip of demoClips) {
    // The store takes files over, so it gets a copy.
    const copy = path.join(folder, clip.file);
    await copyFile(path.join(clipsDir, clip.file), copy);
    const take = await TakeRow.create({
      id: takeIds.get(clip.blockId) ?? nanoid(),
      ownerId: user.id,
      lessonId,
      blockId: clip.blockId,
      name: clip.name,
      source: 'practice',
      originalSha: await store.take(copy),
    });
    await queueIngest(queue, take);
  }
}
