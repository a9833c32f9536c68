import { bodies, routes, sharePlanSchema, type Share } from '@zest/contract';
import { videoChanges } from '@zest/core/lesson';
import type { Sequelize } from 'sequelize';
import { teacherText } from '@zest/core/words';
import { lessonAt } from '../db/lessons.ts';
import { ClassRow } from '../db/log-models.ts';
import { LessonRow, ShareRow } from '../db/models.ts';
import { createShare, renewShare } from '../db/shares.ts';
import { refuse } from '../errors.ts';
import type { JobQueue } from '../jobs/queue.ts';
import { queueRenditions } from '../jobs/renditions.ts';
import type { MediaStore } from '../media/store.ts';
import { sharedCut } from '../cut/shared-cut.ts';
import { answer, readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';

async function shareView(share: ShareRow, newest: number): Promise<Share> {
  const { code, classId, spoken, revision, version, createdAt, opensAt, closesAt, revokedAt } =
    share;
  const changed =
    revision === newest
      ? []
      : videoChanges(
          await lessonAt(share.lessonId, revision),
          await lessonAt(share.lessonId, newest),
        );
  return {
    code,
    classId,
    spoken,
    revision,
    version,
    createdAt: createdAt.toISOString(),
    opensAt: opensAt?.toISOString() ?? null,
    closesAt: closesAt?.toISOString() ?? null,
    revokedAt: revokedAt?.toISOString() ?? null,
    changed,
  };
}

const dateOf = (moment: string | null) => (moment === null ? null : new Date(moment));

/**
 * What students get must have something in it; its takes are made ready for slow lines.
 * @throws Refusal 422
 */
async function getReady(lesson: LessonRow, queue: JobQueue, store: MediaStore): Promise<void> {
  const { assembly, takes } = await sharedCut(lesson.id, lesson.revision, store);
  if (assembly.segments.length === 0)
    throw refuse(422, 'empty-lesson', teacherText('server.nothing-to-share'));
  await queueRenditions(queue, takes.values());
}

export function addShareRoutes(
  route: AddRoute,
  sequelize: Sequelize,
  queue: JobQueue,
  store: MediaStore,
): void {
  route(routes.shares, async (_req, res, { lesson }) => {
    const shares = await ShareRow.findAll({
      where: { lessonId: lesson.id },
      order: [['createdAt', 'DESC']],
    });
    answer(
      res,
      'shares',
      await Promise.all(shares.map((share) => shareView(share, lesson.revision))),
    );
  });

  route(routes.makeShare, async (req, res, { teamId, lesson }) => {
    const { classId, opensAt, closesAt } = readBody(
      sharePlanSchema,
      req.body ?? { classId: null, opensAt: null, closesAt: null },
    );
    if (classId !== null && !(await ClassRow.findOne({ where: { id: classId, teamId } })))
      throw refuse(422, 'no-class', teacherText('server.class-gone'));
    await getReady(lesson, queue, store);
    const share = await createShare(sequelize, {
      teamId,
      lessonId: lesson.id,
      revision: lesson.revision,
      classId,
      opensAt: dateOf(opensAt),
      closesAt: dateOf(closesAt),
    });
    answer(res.status(201), 'makeShare', await shareView(share, lesson.revision));
  });

  route(routes.changeShare, async (req, res, { share }) => {
    const { toNewest, ...dates } = readBody(bodies.changeShare, req.body);
    const opensAt = dates.opensAt === undefined ? share.opensAt : dateOf(dates.opensAt);
    const closesAt = dates.closesAt === undefined ? share.closesAt : dateOf(dates.closesAt);
    if (opensAt && closesAt && opensAt >= closesAt)
      throw refuse(400, 'invalid', teacherText('server.link-closes'));
    const lesson = await LessonRow.findByPk(share.lessonId, { rejectOnEmpty: true });
    if (toNewest) await getReady(lesson, queue, store);
    await share.update({ opensAt, closesAt });
    if (toNewest) await renewShare(sequelize, share, lesson.revision);
    answer(res, 'changeShare', await shareView(share, lesson.revision));
  });

  route(routes.closeShare, async (_req, res, { share }) => {
    await share.update({ revokedAt: share.revokedAt ?? new Date() });
    const lesson = await LessonRow.findByPk(share.lessonId, { rejectOnEmpty: true });
    answer(res, 'closeShare', await shareView(share, lesson.revision));
  });
}
