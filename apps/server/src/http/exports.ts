import { firstFrameFrom } from '@zest/core/time';
import { lessonAt } from '../db/lessons.ts';
import { JobRow, TakeRow } from '../db/models.ts';
import { refuse } from '../errors.ts';
import { cutWith, exportOutcomeSchema, type ExportInput } from '../jobs/handlers.ts';
import type { JobQueue } from '../jobs/queue.ts';
import type { MediaStore } from '../media/store.ts';
import type { AddRoute } from './guard.ts';
import { sendContent } from './takes.ts';
import { jobView } from './views.ts';

/** Puts an export of the lesson's newest revision in line. @throws Refusal 422 for a lesson without length */
export async function orderExport(queue: JobQueue, ownerId: string, lessonId: string, revision: number): Promise<JobRow> {
  const takes = await TakeRow.findAll({ where: { lessonId } });
  const { assembly, media } = cutWith(await lessonAt(lessonId, revision), takes);
  if (firstFrameFrom(assembly.durationMs) === 0) {
    throw refuse(422, 'empty-lesson', 'There is nothing to export yet: the lesson has no blocks with a length. Add a block on the Plan bench first.');
  }
  // Where a take lies by its marks decides the video as much as its content does.
  const used = Object.fromEntries(takes.flatMap(({ id, markStartMs }) => (media.has(id) ? [[id, `${media.get(id)?.sha} ${markStartMs ?? ''}`]] : [])));
  const input: ExportInput = { lessonId, revision, takes: used };
  return queue.add({ ownerId, kind: 'export', subjectId: lessonId, input });
}

export function addExportRoutes(route: AddRoute, queue: JobQueue, store: MediaStore): void {
  route('GET', '/api/lessons/:lessonId/exports', async (_req, res, { lesson }) => {
    const jobs = await JobRow.findAll({ where: { kind: 'export', subjectId: lesson.id }, order: [['createdAt', 'DESC']], limit: 20 });
    res.json(jobs.map(jobView));
  });

  route('POST', '/api/lessons/:lessonId/exports', async (_req, res, { userId, lesson }) => {
    res.status(202).json(jobView(await orderExport(queue, userId, lesson.id, lesson.revision)));
  });

  route('DELETE', '/api/jobs/:jobId', async (_req, res, { job }) => {
    await queue.cancel(job);
    res.json(jobView(await job.reload()));
  });

  const finished = (job: JobRow) => {
    if (job.kind !== 'export' || !job.result) throw refuse(404, 'not-ready', 'This export is not finished.');
    return exportOutcomeSchema.parse(JSON.parse(job.result));
  };
  route('GET', '/api/jobs/:jobId/video', (_req, res, { job }) => sendContent(res, store, finished(job).videoSha, 'video/mp4', 'lesson.mp4'));
  route('GET', '/api/jobs/:jobId/captions', (_req, res, { job }) =>
    sendContent(res, store, finished(job).captionsSha, 'text/vtt; charset=utf-8', 'lesson.vtt'),
  );
}
