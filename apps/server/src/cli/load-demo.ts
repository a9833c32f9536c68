import { copyFile } from 'node:fs/promises';
import path from 'node:path';
import { demoClass, demoEntries } from '@zest/demo/classes';
import { demoClips, demoLesson } from '@zest/demo/lesson';
import { demoPlan } from '@zest/demo/plan';
import { demoCues, demoSeries } from '@zest/demo/series';
import { demoWeeks } from '@zest/demo/weeks';
import { hash } from '@node-rs/argon2';
import type { Lesson } from '@zest/core/lesson';
import { nanoid } from 'nanoid';
import type { Sequelize } from 'sequelize';
import { foldersOf } from '../config.ts';
import { DEMO_LOGIN } from '../demo.ts';
import { addStudents, createClass, keepEntries } from '../db/classes.ts';
import { createLesson } from '../db/lessons.ts';
import { createShare } from '../db/shares.ts';
import { createSeries } from '../db/series.ts';
import { CueEntryRow, TakeRow, User } from '../db/models.ts';
import { queueIngest } from '../http/uploads.ts';
import { databaseQueue } from '../jobs/queue.ts';
import { diskStore } from '../media/store.ts';
import { workFolder } from '../media/unfinished.ts';

/** A class with what it has brought home, and a link to its first lesson. */
async function loadClass(
  sequelize: Sequelize,
  teamId: string,
  lessons: readonly { id: string; lesson: Lesson }[],
): Promise<void> {
  const row = await createClass(teamId, {
    ...demoClass.plan,
    credits: demoClass.plan.credits.map((level) => ({ ...level, criteria: [...level.criteria] })),
  });
  const students = await addStudents(sequelize, row, { nicknames: [...demoClass.nicknames] });
  const entries = demoEntries(lessons, Date.now()).map(({ student, ...entry }) => ({
    ...entry,
    id: nanoid(),
    studentId: students[student]?.id ?? '',
  }));
  await keepEntries(row, 'student', entries);
  for (const { id: lessonId } of lessons)
    await createShare(sequelize, {
      teamId,
      lessonId,
      revision: 1,
      classId: row.id,
      opensAt: null,
      closesAt: null,
    });
}

/**
 * Loads the demo's account, a lesson with its footage and a series of planned ones, once. The
 * worker makes the working copies after start.
 */
export async function loadDemo(
  sequelize: Sequelize,
  dataDir: string,
  clipsDir: string,
  say: (line: string) => void,
): Promise<void> {
  if (await User.findOne({ where: { login: DEMO_LOGIN } })) return;
  say('Loading the demo lessons …');
  const folders = foldersOf(dataDir);
  const store = diskStore(folders.media);
  const queue = databaseQueue(sequelize);
  const id = nanoid();
  const user = await User.create({
    id,
    login: DEMO_LOGIN,
    passwordHash: await hash(nanoid(40)),
    teamId: id,
    role: 'owner',
  });
  const takeIds = new Map(demoClips.map((clip) => [clip.blockId, nanoid()]));
  const lessonId = nanoid();
  await createLesson(sequelize, lessonId, user.id, demoLesson(takeIds));
  const planId = nanoid();
  await createLesson(sequelize, planId, user.id, demoPlan());
  for (const lesson of demoWeeks(nanoid)) await createLesson(sequelize, nanoid(), user.id, lesson);
  await loadClass(sequelize, user.id, [
    { id: lessonId, lesson: demoLesson(takeIds) },
    { id: planId, lesson: demoPlan() },
  ]);
  await createSeries(user.id, demoSeries);
  await CueEntryRow.bulkCreate(
    demoCues.map(({ id, ...entry }) => ({ id, teamId: user.id, document: JSON.stringify(entry) })),
  );
  const folder = await workFolder(folders, 'demo');
  for (const clip of demoClips) {
    // The store takes files over, so it gets a copy.
    const copy = path.join(folder, clip.file);
    await copyFile(path.join(clipsDir, clip.file), copy);
    const take = await TakeRow.create({
      id: takeIds.get(clip.blockId) ?? nanoid(),
      teamId: user.id,
      lessonId,
      blockId: clip.blockId,
      name: clip.name,
      source: 'practice',
      originalSha: await store.take(copy),
    });
    await queueIngest(queue, take);
  }
}
