import { copyTakesSchema, makeTakeSchema } from '@zest/contract';
import type { Response } from 'express';
import { nanoid } from 'nanoid';
import { Op } from 'sequelize';
import { copyTakes } from '../db/lessons.ts';
import { JobRow, TakeRow } from '../db/models.ts';
import { refuse } from '../errors.ts';
import type { JobQueue } from '../jobs/queue.ts';
import type { MediaStore } from '../media/store.ts';
import { readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';
import { ingestUnready } from './uploads.ts';
import { takeView } from './views.ts';

/** Sends stored content; range requests are answered, the content's hash is its tag. */
export function sendContent(res: Response, store: MediaStore, sha: string | null, type: string, downloadName?: string): void {
  if (!sha) throw refuse(404, 'not-ready', 'This is not ready yet. Wait for its working copy.');
  if (downloadName) res.attachment(downloadName);
  res.set({ 'Content-Type': type, 'Cache-Control': 'private, max-age=3600', ETag: `"${sha}"` });
  res.sendFile(store.pathOf(sha), { cacheControl: false, lastModified: false, etag: false, dotfiles: 'allow' });
}

export function addTakeRoutes(route: AddRoute, queue: JobQueue, store: MediaStore): void {
  route('GET', '/api/lessons/:lessonId/takes', async (_req, res, { lesson }) => {
    const takes = await TakeRow.findAll({ where: { lessonId: lesson.id }, order: [['createdAt', 'ASC']] });
    const jobs = await JobRow.findAll({
      where: { kind: 'ingest', subjectId: { [Op.in]: takes.map((take) => take.id) } },
      order: [['createdAt', 'ASC']],
    });
    const newest = new Map(jobs.map((job) => [job.subjectId, job]));
    res.json(takes.map((take) => takeView(take, newest.get(take.id))));
  });

  route('POST', '/api/lessons/:lessonId/takes', async (req, res, { userId, lesson }) => {
    const { blockId, name, source } = readBody(makeTakeSchema, req.body);
    const take = await TakeRow.create({ id: nanoid(), ownerId: userId, lessonId: lesson.id, blockId, name, source });
    res.status(201).json(takeView(take, undefined));
  });

  route('POST', '/api/lessons/:lessonId/takes/copies', async (req, res, { userId, lesson }) => {
    const copies = await copyTakes(lesson.id, userId, readBody(copyTakesSchema, req.body).takes);
    await ingestUnready(queue, [...copies.values()]);
    res.status(201).json([...copies].map(([from, { id }]) => ({ from, takeId: id })));
  });

  route('DELETE', '/api/takes/:takeId', async (_req, res, { take }) => {
    for (const job of await JobRow.findAll({ where: { kind: 'ingest', subjectId: take.id } })) await queue.cancel(job);
    await take.destroy();
    res.status(204).end();
  });

  route('GET', '/api/takes/:takeId/video', (_req, res, { take }) => sendContent(res, store, take.workingSha, 'video/mp4'));
  route('GET', '/api/takes/:takeId/thumbs', (_req, res, { take }) => sendContent(res, store, take.thumbsSha, 'image/jpeg'));
  route('GET', '/api/takes/:takeId/wave', (_req, res, { take }) => sendContent(res, store, take.waveSha, 'application/octet-stream'));
}
