import { copyFile } from 'node:fs/promises';
import path from 'node:path';
import { demoClasses, demoEntries } from '@zest/demo/classes';
import { demoClips, demoLesson } from '@zest/demo/lesson';
import { demoPlan } from '@zest/demo/plan';
import { demoCues, demoSeriesAt } from '@zest/demo/series';
import { demoWeeks } from '@zest/demo/weeks';
import { hash } from '@node-rs/argon2';
import type { Lesson } from '@zest/core/lesson';
import { layOutWeeks } from '@zest/core/schedule';
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

/** A class with what it has brought home in the term, and a link to each of its lessons. */
async function loadClass(
  sequelize: Sequelize,
  teamId: string,
  demoClass: (typeof demoClasses)[number],
  weeks: readonly { id: string; lesson: Lesson; startsAt: number }[],
): Promise<void> {
  const row = await createClass(teamId, demoClass.plan);
  const students = await addStudents(sequelize, row, { nicknames: [...demoClass.nicknames] });
  const entries = demoEntries(demoClass, weeks, Date.now());
  for (const by of ['student', 'teacher'] as const)
    await keepEntries(
      row,
      by,
      entries
        .filter((entry) => entry.by === by)
        .map(({ student, lessonId, at, body }) => ({
          ...{ id: nanoid(), lessonId, at, body },
          studentId: students[student]?.id ?? '',
        })),
    );
  for (const { id: lessonId } of weeks)
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
  const series = demoSeriesAt(Date.now());
  const lessonId = nanoid();
  const planned = [demoPlan(), ...demoWeeks(nanoid)];
  const lessons = [
    { id: lessonId, lesson: demoLesson(takeIds) },
    ...planned.map((lesson) => ({ id: nanoid(), lesson })),
  ];
  for (const { id, lesson } of lessons) await createLesson(sequelize, id, user.id, lesson);
  const weeks = layOutWeeks(series).flatMap(({ week, dates: [first] }) => {
    const found = lessons.find(({ lesson }) => lesson.series?.week === week);
    return found && first ? [{ ...found, startsAt: Date.parse(`${first}T09:00:00Z`) }] : [];
  });
  for (const demoClass of demoClasses) await loadClass(sequelize, user.id, demoClass, weeks);
  await createSeries(user.id, series);
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
