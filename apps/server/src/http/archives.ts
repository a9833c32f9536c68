import { createWriteStream } from 'node:fs';
import { rm } from 'node:fs/promises';
import path from 'node:path';
import { Transform } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { MAX_ARCHIVE_BYTES, retakeReasons, routes } from '@zest/contract';
import { ArchiveFault, type ArchivedTake } from '@zest/core/formats';
import type { Request } from 'express';
import { nanoid } from 'nanoid';
import { Op, type Sequelize } from 'sequelize';
import { teacherText } from '@zest/core/words';
import type { Folders } from '../config.ts';
import { createWithTakes, lessonAt } from '../db/lessons.ts';
import { TakeRow } from '../db/models.ts';
import { markedOf } from '../db/takes.ts';
import { refuse } from '../errors.ts';
import type { JobQueue } from '../jobs/queue.ts';
import { freeOnDisk, RESERVE_BYTES } from '../media/room.ts';
import type { MediaStore } from '../media/store.ts';
import { workFolder } from '../media/unfinished.ts';
import { packArchive, unpackArchive } from '../publish/archive.ts';
import type { AddRoute } from './guard.ts';
import { stored } from './lessons.ts';
import { ingestUnready } from './uploads.ts';
import { answer } from './answer.ts';

export interface ArchiveTools {
  sequelize: Sequelize;
  queue: JobQueue;
  store: MediaStore;
  folders: Folders;
  freeBytes?: (folder: string) => Promise<number>;
}

/** Writes a request's body to a file. @throws Refusal 413 or 507 when it is too much */
async function receive(req: Request, file: string, mostBytes: number): Promise<void> {
  const tooMuch = () =>
    refuse(413, 'too-large', teacherText('archive.larger', { mb: Math.floor(mostBytes / 1e6) }));
  if (Number(req.headers['content-length'] ?? 0) > mostBytes) throw tooMuch();
  let seen = 0;
  const limit = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      seen += chunk.length;
      done(seen > mostBytes ? tooMuch() : null, chunk);
    },
  });
  await pipeline(req, limit, createWriteStream(file));
}

export function addArchiveRoutes(
  route: AddRoute,
  { sequelize, queue, store, folders, freeBytes = freeOnDisk }: ArchiveTools,
): void {
  route(routes.archive, async (req, res, { lesson }) => {
    const rows =
      req.query['media'] === '0'
        ? []
        : await TakeRow.findAll({
            where: { lessonId: lesson.id, originalSha: { [Op.not]: null }, binnedAt: null },
            order: [['createdAt', 'ASC']],
          });
    const takes = rows.map((row): ArchivedTake => ({
      takeId: row.id,
      blockId: row.blockId,
      name: row.name,
      source: row.source,
      sha256: row.originalSha ?? '',
      marked: markedOf(row),
      reason: row.reason,
      note: row.note,
    }));
    const zip = await packArchive(await lessonAt(lesson.id, lesson.revision), takes, store);
    res.attachment('lesson.zest.zip').type('application/zip');
    await pipeline(zip, res);
  });

  route(routes.openArchive, async (req, res, { teamId }) => {
    const folder = await workFolder(folders, 'archive');
    try {
      const room = async () => Math.max(0, (await freeBytes(folder)) - RESERVE_BYTES);
      const file = path.join(folder, 'archive.zip');
      await receive(req, file, Math.min(MAX_ARCHIVE_BYTES, await room()));
      const { lesson, takes, media } = await unpackArchive(file, folder, await room());
      for (const unpacked of media.values()) await store.take(unpacked);
      const made = await createWithTakes(sequelize, teamId, lesson, (lessonId) =>
        takes.map(({ takeId, blockId, name, source, sha256, marked, reason, note }) => ({
          from: takeId,
          take: {
            ...{
              id: nanoid(),
              teamId,
              lessonId,
              blockId,
              name,
              source,
              originalSha: sha256,
              note,
            },
            ...{
              markStartMs: marked?.startMs ?? null,
              markEndMs: marked?.endMs ?? null,
              markRate: marked?.rate ?? null,
            },
            reason: retakeReasons.find((known) => known === reason) ?? null,
          },
        })),
      );
      await ingestUnready(queue, made.takes);
      answer(res.status(201), 'openArchive', stored(made.row, made.lesson));
    } catch (error) {
      if (error instanceof ArchiveFault) throw refuse(400, 'bad-archive', error.message);
      throw error;
    } finally {
      await rm(folder, { recursive: true, force: true });
    }
  });
}
