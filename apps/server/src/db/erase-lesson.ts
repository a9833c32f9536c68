import { readdir, rm } from 'node:fs/promises';
import type { ErasedLesson } from '@zest/contract';
import { makeLesson, readLesson } from '@zest/core/lesson';
import { nanoid } from 'nanoid';
import { Op, type Sequelize } from 'sequelize';
import type { MediaStore } from '../media/store.ts';
import { dropUnnamed, hashesIn } from './content.ts';
import {
  JobRow,
  PerformanceRow,
  RevisionRow,
  ShareRow,
  TakeRow,
  type LessonRow,
} from './models.ts';
import { contentOf } from './takes.ts';
import { CommentRow } from './team-models.ts';

/**
 * Erases a lesson for good: its revisions, takes, exports, links and comments, and the content that
 * nothing else names. What students reached stays with their class, and with it the lesson's title
 * and week.
 */
export async function eraseLesson(
  sequelize: Sequelize,
  lesson: LessonRow,
  store: MediaStore,
  piecesFolder: string,
): Promise<ErasedLesson> {
  const lessonId = lesson.id;
  const takes = await TakeRow.findAll({ where: { lessonId } });
  const subjects = [lessonId, ...takes.map(({ id }) => id)];
  await JobRow.update(
    { cancelRequested: true },
    { where: { subjectId: subjects, state: ['queued', 'held', 'running'] } },
  );
  const jobs = await JobRow.findAll({ where: { subjectId: subjects, result: { [Op.not]: null } } });
  const content = [
    ...takes.flatMap(contentOf),
    ...jobs.flatMap(({ result }) => hashesIn(result ?? '')),
  ];
  const revisions = await RevisionRow.count({ where: { lessonId } });
  await sequelize.transaction(async (transaction) => {
    const newest = await RevisionRow.findOne({
      where: { lessonId, revision: lesson.revision },
      transaction,
    });
    const { title, series } = newest
      ? readLesson(JSON.parse(newest.document))
      : makeLesson('Deleted', nanoid);
    for (const rows of [CommentRow, PerformanceRow, TakeRow, ShareRow])
      await (rows as typeof CommentRow).destroy({ where: { lessonId }, transaction });
    // A job that runs ends by itself once it sees that it is cancelled.
    await JobRow.destroy({
      where: { subjectId: subjects, state: { [Op.not]: 'running' } },
      transaction,
    });
    await RevisionRow.destroy({
      where: { lessonId, revision: { [Op.ne]: lesson.revision } },
      transaction,
    });
    await newest?.update(
      {
        document: JSON.stringify({
          ...makeLesson(title, nanoid),
          series: { ...series, recap: '', teaser: '' },
        }),
      },
      { transaction },
    );
    await lesson.update({ deletedAt: new Date() }, { transaction });
  });
  const bytes = await dropUnnamed(sequelize, content, store);
  // Rendered pieces do not say whose they are; they are made anew where another lesson needs them.
  if ((await JobRow.count({ where: { kind: 'export', state: 'running' } })) === 0) {
    for (const name of await readdir(piecesFolder).catch(() => []))
      await rm(`${piecesFolder}/${name}`, { recursive: true, force: true });
  }
  return { revisions, takes: takes.length, bytes };
}
