import { readLesson, type Lesson } from '@zest/core/lesson';
import type { Sequelize } from 'sequelize';
import { refuse } from '../errors.ts';
import { LessonRow, RevisionRow } from './models.ts';

/** The lesson as it was at a revision. @throws Refusal 404 */
export async function lessonAt(lessonId: string, revision: number): Promise<Lesson> {
  return readLesson(JSON.parse((await revisionAt(lessonId, revision)).document));
}

export async function revisionAt(lessonId: string, revision: number): Promise<RevisionRow> {
  const row = await RevisionRow.findOne({ where: { lessonId, revision } });
  if (!row) throw refuse(404, 'not-found', `This lesson has no revision ${revision}.`);
  return row;
}

/** Stores a new lesson as revision 1. */
export async function createLesson(sequelize: Sequelize, id: string, ownerId: string, lesson: Lesson): Promise<RevisionRow> {
  return sequelize.transaction(async (transaction) => {
    await LessonRow.create({ id, ownerId, revision: 1 }, { transaction });
    return RevisionRow.create({ lessonId: id, revision: 1, document: JSON.stringify(lesson) }, { transaction });
  });
}

/**
 * Stores the next revision, if `baseRevision` is still the newest.
 * @throws Refusal 409 `stale` with the newest revision otherwise
 */
export async function saveLesson(sequelize: Sequelize, lessonId: string, baseRevision: number, lesson: Lesson): Promise<RevisionRow> {
  return sequelize.transaction(async (transaction) => {
    const row = await LessonRow.findByPk(lessonId, { lock: transaction.LOCK.UPDATE, transaction });
    if (!row) throw refuse(404, 'not-found', 'There is no such lesson.');
    if (row.revision !== baseRevision) {
      throw refuse(409, 'stale', 'This lesson was changed in another window since you opened it. Choose which version to keep; both stay in its history.', {
        revision: row.revision,
      });
    }
    const revision = baseRevision + 1;
    await row.update({ revision }, { transaction });
    return RevisionRow.create({ lessonId, revision, document: JSON.stringify(lesson) }, { transaction });
  });
}
