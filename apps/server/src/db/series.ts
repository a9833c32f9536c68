import { LessonError, seriesSchema, type Series } from '@zest/core/lesson';
import { layOutWeeks } from '@zest/core/schedule';
import { nanoid } from 'nanoid';
import { UniqueConstraintError, type Sequelize } from 'sequelize';
import { teacherText } from '@zest/core/words';
import { refuse } from '../errors.ts';
import { newestLessons, saveLesson } from './lessons.ts';
import { SeriesRow } from './models.ts';

export const seriesOf = (row: SeriesRow): Series => seriesSchema.parse(JSON.parse(row.document));

/**
 * Weeks that go on from each other in a circle are refused here, so that nothing stored cannot be
 * laid out.
 */
function inOrder(series: Series): Series {
  try {
    layOutWeeks(series);
    return series;
  } catch (error) {
    if (error instanceof LessonError) throw refuse(400, 'invalid', error.message);
    throw error;
  }
}

async function unlessTaken<T>(name: string, store: () => Promise<T>): Promise<T> {
  try {
    return await store();
  } catch (error) {
    if (!(error instanceof UniqueConstraintError)) throw error;
    throw refuse(409, 'taken', teacherText('server.series-taken', { name }));
  }
}

/** @throws Refusal 409 when the teacher has one of that name, 400 when it cannot be laid out */
export async function createSeries(teamId: string, series: Series): Promise<SeriesRow> {
  inOrder(series);
  return unlessTaken(series.name, () =>
    SeriesRow.create({
      id: nanoid(),
      teamId,
      name: series.name,
      revision: 1,
      document: JSON.stringify(series),
    }),
  );
}

/**
 * Stores the next revision. Under another name its lessons go with it, each in a new revision.
 * @throws Refusal 409 `stale` or `taken`, 400 when it cannot be laid out
 */
export async function saveSeries(
  sequelize: Sequelize,
  seriesId: string,
  baseRevision: number,
  series: Series,
): Promise<SeriesRow> {
  inOrder(series);
  return unlessTaken(series.name, () =>
    sequelize.transaction(async (transaction) => {
      const row = await SeriesRow.findByPk(seriesId, {
        lock: transaction.LOCK.UPDATE,
        transaction,
        rejectOnEmpty: true,
      });
      if (row.revision !== baseRevision) {
        throw refuse(409, 'stale', teacherText('server.series-stale'), { revision: row.revision });
      }
      const before = row.name;
      await row.update(
        { name: series.name, revision: baseRevision + 1, document: JSON.stringify(series) },
        { transaction },
      );
      if (before !== series.name) {
        for (const { id, revision, lesson } of await newestLessons(sequelize, row.teamId)) {
          if (lesson.series.name === before)
            await saveLesson(
              sequelize,
              id,
              revision,
              { ...lesson, series: { ...lesson.series, name: series.name } },
              { within: transaction },
            );
        }
      }
      return row;
    }),
  );
}
