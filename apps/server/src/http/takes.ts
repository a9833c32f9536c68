import { bodies, isMaterial, routes } from '@zest/contract';
import { finishSchema } from '@zest/core/lesson';
import { nanoid } from 'nanoid';
import { Op } from 'sequelize';
import { z } from 'zod';
import { teacherText } from '@zest/core/words';
import { copyTakes } from '../db/lessons.ts';
import { putInBin, soundTracksOf } from '../db/takes.ts';
import { JobRow, PerformanceRow, TakeRow } from '../db/models.ts';
import { refuse } from '../errors.ts';
import type { JobQueue } from '../jobs/queue.ts';
import { queueWatch } from '../jobs/watch.ts';
import type { MediaStore } from '../media/store.ts';
import { finishedTake } from '../publish/sound.ts';
import { answer, readBody } from './answer.ts';
import { sendContent } from './content.ts';
import type { AddRoute } from './guard.ts';
import { ingestUnready, queueAnew } from './uploads.ts';
import { takeView } from './views.ts';

/** How a take's sound is to be finished, as a query. */
const finishedSchema = z.object({
  lufs: z.coerce.number().pipe(finishSchema.shape.sound.shape.lufs),
  lowCut: z.enum(['true', 'false']).transform((word) => word === 'true'),
  noise: finishSchema.shape.sound.shape.noise,
});

export function addTakeRoutes(
  route: AddRoute,
  queue: JobQueue,
  store: MediaStore,
  cacheDir: string,
): void {
  route(routes.takes, async (_req, res, { lesson }) => {
    const takes = await TakeRow.findAll({
      where: { lessonId: lesson.id },
      order: [
        ['createdAt', 'ASC'],
        ['markStartMs', 'ASC'],
      ],
    });
    const jobs = await JobRow.findAll({
      where: { kind: ['ingest', 'watch'], subjectId: { [Op.in]: takes.map((take) => take.id) } },
      order: [['createdAt', 'ASC']],
    });
    const newest = new Map(jobs.map((job) => [`${job.kind} ${job.subjectId}`, job]));
    const performances = await PerformanceRow.findAll({ where: { lessonId: lesson.id } });
    const performanceOf = new Map(performances.map((performance) => [performance.id, performance]));
    const firstWith = new Map<string, string>();
    const views = takes.map(async (take) => {
      const content = take.binnedAt
        ? ''
        : `${take.originalSha ?? take.id} ${take.performanceId ?? ''} ${take.blockId}`;
      const duplicateOf = firstWith.get(content);
      if (!duplicateOf) firstWith.set(content, take.id);
      const bytes = take.originalSha ? await store.sizeOf(take.originalSha) : 0;
      return takeView(take, {
        job: newest.get(`ingest ${take.id}`),
        watching: newest.get(`watch ${take.id}`),
        performance: performanceOf.get(take.performanceId ?? ''),
        duplicateOf,
        bytes,
      });
    });
    answer(res, 'takes', await Promise.all(views));
  });

  route(routes.makeTake, async (req, res, { teamId, lesson }) => {
    const { blockId, performanceId, name, source } = readBody(bodies.makeTake, req.body);
    if (
      performanceId &&
      !(await PerformanceRow.findOne({ where: { id: performanceId, lessonId: lesson.id } }))
    ) {
      throw refuse(422, 'no-performance', teacherText('server.other-performance'));
    }
    const take = await TakeRow.create({
      id: nanoid(),
      teamId,
      lessonId: lesson.id,
      blockId,
      performanceId,
      name,
      source,
    });
    answer(res.status(201), 'makeTake', takeView(take));
  });

  route(routes.changeTake, async (req, res, { take }) => {
    const { inBin, soundTrack, ...change } = readBody(bodies.changeTake, req.body);
    if (soundTrack !== undefined) {
      const { length } = soundTracksOf(take);
      if (soundTrack >= length)
        throw refuse(
          422,
          'no-track',
          length === 0
            ? teacherText('server.no-tracks')
            : teacherText('server.tracks', { most: length }),
        );
      if (soundTrack !== take.soundTrack) await queueAnew(queue, take, soundTrack);
    }
    if (inBin === true) await putInBin(take);
    // Marks and performance belong to the block they were found for.
    const moved =
      change.blockId !== undefined && change.blockId !== take.blockId
        ? { performanceId: null, markStartMs: null, markEndMs: null, markRate: null }
        : {};
    await take.update({
      ...(change as Partial<TakeRow>),
      ...moved,
      ...(inBin === false && { binnedAt: null }),
    });
    const performance = take.performanceId
      ? ((await PerformanceRow.findByPk(take.performanceId)) ?? undefined)
      : undefined;
    answer(
      res,
      'changeTake',
      takeView(take, {
        performance,
        job:
          (await JobRow.findOne({
            where: { kind: 'ingest', subjectId: take.id },
            order: [['createdAt', 'DESC']],
          })) ?? undefined,
      }),
    );
  });

  route(routes.copyTakes, async (req, res, { teamId, lesson }) => {
    const copies = await copyTakes(lesson.id, teamId, readBody(bodies.copyTakes, req.body).takes);
    await ingestUnready(queue, [...copies.values()]);
    answer(
      res.status(201),
      'copyTakes',
      [...copies].map(([from, { id }]) => ({ from, takeId: id })),
    );
  });
  addTakeFileRoutes(route, queue, store, cacheDir);
}

/** The files of a take, and the work that makes them. */
function addTakeFileRoutes(
  route: AddRoute,
  queue: JobQueue,
  store: MediaStore,
  cacheDir: string,
): void {
  route(routes.takeOriginal, (_req, res, { take }) =>
    sendContent(res, store, take.originalSha, 'application/octet-stream', take.name),
  );
  route(routes.takeVideo, (_req, res, { take }) =>
    sendContent(res, store, take.previewSha ?? take.workingSha, 'video/mp4'),
  );
  route(routes.takeFinished, async (req, res, { take }) => {
    const wanted = finishedSchema.safeParse(req.query);
    if (!wanted.success)
      throw refuse(
        422,
        'no-finish',
        'Say how the sound is to be finished: lufs, lowCut and noise.',
      );
    if (!take.workingSha || !take.hasSound)
      throw refuse(404, 'not-ready', teacherText('server.no-take-sound'));
    const file = await finishedTake(take.workingSha, wanted.data, {
      cacheDir,
      takePath: (sha) => store.fileOf(sha),
    });
    res.set({ 'Content-Type': 'audio/mp4', 'Cache-Control': 'private, max-age=3600' });
    res.sendFile(file, { cacheControl: false, dotfiles: 'allow' });
  });
  route(routes.takeWatched, (_req, res, { take }) =>
    sendContent(res, store, take.watchedSha, 'application/json'),
  );
  route(routes.watchTake, async (_req, res, { take }) => {
    if (!take.workingSha || isMaterial(take))
      throw refuse(409, 'not-ready', teacherText('server.nothing-to-watch'));
    await queueWatch(queue, take);
    res.status(202).end();
  });
  route(routes.makeTakeAnew, async (_req, res, { take }) => {
    if (!take.workingSha || !take.originalSha)
      throw refuse(409, 'not-ready', teacherText('server.no-working-copy'));
    await queueAnew(queue, take);
    res.status(202).end();
  });
  route(routes.takeThumbs, (_req, res, { take }) =>
    sendContent(res, store, take.thumbsSha, 'image/jpeg'),
  );
  route(routes.takeWave, (_req, res, { take }) =>
    sendContent(res, store, take.waveSha, 'application/octet-stream'),
  );
}
