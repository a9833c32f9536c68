import { routes, type Stored } from '@zest/contract';
import { Op, type Sequelize } from 'sequelize';
import { teacherText } from '@zest/core/words';
import { dropUnnamed, hashesIn, sizeOfAll } from '../db/content.ts';
import { lessonAt } from '../db/lessons.ts';
import { JobRow, LessonRow, TakeRow } from '../db/models.ts';
import { contentOf, eraseTakes, putInBin } from '../db/takes.ts';
import { refuse } from '../errors.ts';
import { exportInput } from '../jobs/handlers.ts';
import type { MediaStore } from '../media/store.ts';
import type { AddRoute } from './guard.ts';
import { answer } from './answer.ts';

/** What takes up room, and deleting it. */
export function addStoredRoutes(route: AddRoute, sequelize: Sequelize, store: MediaStore): void {
  route(routes.stored, async (_req, res, { teamId }) => {
    const lessons = await LessonRow.findAll({ where: { teamId, deletedAt: null } });
    const titles = new Map(
      await Promise.all(
        lessons.map(
          async ({ id, revision }) => [id, (await lessonAt(id, revision)).title] as const,
        ),
      ),
    );
    const ids = [...titles.keys()];
    const exports = (
      await JobRow.findAll({
        where: { kind: 'export', subjectId: ids, state: 'done', result: { [Op.not]: null } },
      })
    ).map(async ({ id, subjectId, input, result, createdAt }) => {
      const { size, format } = exportInput.parse(JSON.parse(input)).order;
      return {
        jobId: id,
        lessonId: subjectId,
        lesson: titles.get(subjectId) ?? '',
        what: `${format.toUpperCase()}, ${size} lines`,
        bytes: await sizeOfAll(hashesIn(result ?? ''), store),
        at: createdAt.toISOString(),
      };
    });
    const footage = (await TakeRow.findAll({ where: { lessonId: ids } })).map(async (take) => ({
      takeId: take.id,
      lessonId: take.lessonId,
      lesson: titles.get(take.lessonId) ?? '',
      name: take.name,
      bytes: await sizeOfAll(contentOf(take), store),
      at: take.createdAt.toISOString(),
      inBin: take.binnedAt !== null,
    }));
    const largest = (a: { bytes: number }, b: { bytes: number }) => b.bytes - a.bytes;
    const body: Stored = {
      exports: (await Promise.all(exports)).sort(largest),
      footage: (await Promise.all(footage)).sort(largest),
    };
    answer(res, 'stored', body);
  });

  route(routes.deleteExport, async (_req, res, { job }) => {
    if (
      job.kind !== 'export' ||
      job.state === 'running' ||
      job.state === 'queued' ||
      job.state === 'held'
    )
      throw refuse(409, 'not-done', teacherText('server.export-running'));
    await job.destroy();
    await dropUnnamed(sequelize, hashesIn(job.result ?? ''), store);
    res.status(204).end();
  });

  route(routes.deleteTake, async (_req, res, { take }) => {
    if (!take.binnedAt) await putInBin(take);
    await eraseTakes(sequelize, [take], store);
    res.status(204).end();
  });
}
