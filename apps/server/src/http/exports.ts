import { rm } from 'node:fs/promises';
import { pipeline } from 'node:stream/promises';
import {
  bodies,
  cutFiles,
  exportOrderSchema,
  handOverFootage,
  routes,
  soundFile,
  type ExportOrder,
} from '@zest/contract';
import { videoChanges } from '@zest/core/lesson';
import { firstFrameFrom } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import type { Folders } from '../config.ts';
import { lessonAt } from '../db/lessons.ts';
import { JobRow, TakeRow } from '../db/models.ts';
import { refuse } from '../errors.ts';
import { exportInput, exportOutcomeSchema, type ExportInput } from '../jobs/handlers.ts';
import type { JobQueue } from '../jobs/queue.ts';
import type { MediaStore } from '../media/store.ts';
import { workFolder } from '../media/unfinished.ts';
import { cutFor, stateOf } from '../cut/cut.ts';
import { makeCutFile } from '../publish/cut-files.ts';
import { packHandOver } from '../publish/hand-over.ts';
import { answer, readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';
import { sendContent } from './content.ts';
import { jobView } from './views.ts';

const LONGEST_GIF_MS = 60_000;

/**
 * Puts an export of the lesson's newest revision in line.
 * @throws Refusal 422 for what has no length, no second language, or is too long
 */
export async function orderExport(
  queue: JobQueue,
  store: MediaStore,
  teamId: string,
  lessonId: string,
  revision: number,
  order: ExportOrder,
): Promise<JobRow> {
  const takes = await TakeRow.findAll({ where: { lessonId } });
  const lesson = await lessonAt(lessonId, revision);
  if (order.language === 'second' && !lesson.second)
    throw refuse(422, 'no-second-language', teacherText('server.no-second-language'));
  const { assembly, media } = await cutFor(lesson, takes, order.blockId, store);
  if (order.format === 'gif' && (order.blockId === null || assembly.durationMs > LONGEST_GIF_MS)) {
    throw refuse(422, 'too-long', teacherText('server.gif-long', { most: LONGEST_GIF_MS / 1000 }));
  }
  if (firstFrameFrom(assembly.durationMs) === 0) {
    throw refuse(422, 'empty-lesson', teacherText('server.nothing-to-export'));
  }
  // Where a take lies by its marks decides the video as much as its content does.
  const used = Object.fromEntries(
    takes.flatMap((take) => (media.has(take.id) ? [[take.id, stateOf(take)]] : [])),
  );
  const input: ExportInput = { lessonId, revision, takes: used, order };
  return queue.add({ teamId, kind: 'export', subjectId: lessonId, input });
}

export function addExportRoutes(
  route: AddRoute,
  queue: JobQueue,
  store: MediaStore,
  folders: Pick<Folders, 'work'>,
): void {
  route(routes.exports, async (_req, res, { lesson }) => {
    const jobs = await JobRow.findAll({
      where: { kind: 'export', subjectId: lesson.id },
      order: [['createdAt', 'DESC']],
      limit: 20,
    });
    const now = await lessonAt(lesson.id, lesson.revision);
    const views = jobs.map(async (job) => {
      const made =
        job.state === 'done' && job.result
          ? exportOutcomeSchema.parse(JSON.parse(job.result)).revision
          : null;
      return jobView(
        job,
        made === null
          ? null
          : made === lesson.revision
            ? []
            : videoChanges(await lessonAt(lesson.id, made), now),
      );
    });
    answer(res, 'exports', await Promise.all(views));
  });

  route(routes.makeExport, async (req, res, { teamId, lesson }) => {
    const order = readBody(exportOrderSchema, req.body ?? {});
    res
      .status(202)
      .json(jobView(await orderExport(queue, store, teamId, lesson.id, lesson.revision, order)));
  });

  route(routes.cutFile, async (req, res, { lesson }) => {
    const name = cutFiles.find((known) => known === req.params['file']);
    if (!name)
      throw refuse(
        404,
        'no-file',
        teacherText('server.no-such-file', { known: cutFiles.join(', ') }),
      );
    const ms = Number(req.query['ms'] ?? 0);
    if (name === 'frame.png' && !(ms >= 0))
      throw refuse(422, 'no-moment', 'Say which moment: ms is a number of milliseconds from 0 on.');
    const document = await lessonAt(lesson.id, lesson.revision);
    const takes = await TakeRow.findAll({ where: { lessonId: lesson.id } });
    const { type, content } = await makeCutFile(name, document, takes, ms, store);
    res.attachment(name).set('Cache-Control', 'no-cache').type(type).send(content);
  });

  route(routes.handOver, async (req, res, { lesson }) => {
    const footage = handOverFootage.find((known) => known === req.params['footage']);
    if (!footage)
      throw refuse(404, 'no-footage', `A cut goes with ${handOverFootage.join(' or ')}.`);
    const folder = await workFolder(folders, 'hand-over');
    try {
      const zip = await packHandOver(
        await lessonAt(lesson.id, lesson.revision),
        await TakeRow.findAll({ where: { lessonId: lesson.id } }),
        footage,
        store,
        folder,
      );
      res.attachment('cut.zip').type('application/zip');
      await pipeline(zip, res);
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });

  route(routes.changeJob, async (req, res, { job }) => {
    const { held, first } = readBody(bodies.changeJob, req.body);
    if (held !== undefined) await queue.hold(job, held);
    if (first) await queue.first(job);
    answer(res, 'changeJob', jobView(await job.reload()));
  });

  route(routes.cancelJob, async (_req, res, { job }) => {
    await queue.cancel(job);
    answer(res, 'cancelJob', jobView(await job.reload()));
  });

  const finished = (job: JobRow) => {
    if (job.kind !== 'export' || !job.result)
      throw refuse(404, 'not-ready', teacherText('server.export-unfinished'));
    return exportOutcomeSchema.parse(JSON.parse(job.result));
  };
  const formatOf = (job: JobRow) => exportInput.parse(JSON.parse(job.input)).order.format;
  const soundOf = (job: JobRow) => (formatOf(job) === 'webm' ? 'audio/webm' : 'audio/mp4');
  const videoOf = (job: JobRow) =>
    formatOf(job) === 'gif' ? 'image/gif' : `video/${formatOf(job)}`;
  route(routes.exportVideo, (_req, res, { job }) =>
    sendContent(res, store, finished(job).videoSha, videoOf(job), `lesson.${formatOf(job)}`),
  );
  route(routes.exportSound, (_req, res, { job }) =>
    sendContent(res, store, finished(job).soundSha, soundOf(job), soundFile(formatOf(job))),
  );
  route(routes.exportPoster, (_req, res, { job }) =>
    sendContent(res, store, finished(job).posterSha, 'image/png', 'lesson-poster.png'),
  );
  route(routes.exportCaptions, (_req, res, { job }) =>
    sendContent(res, store, finished(job).captionsSha, 'text/vtt; charset=utf-8', 'lesson.vtt'),
  );
}
