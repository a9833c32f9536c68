import { MAX_UPLOAD_BYTES, UPLOADS_PATH } from '@zest/contract';
import { Server } from '@tus/server';
import type { RequestHandler, Response } from 'express';
import { nanoid } from 'nanoid';
import { teacherText } from '@zest/core/words';
import { TakeRow } from '../db/models.ts';
import { wordsOf } from '../errors.ts';
import type { Log } from '../log.ts';
import type { Hub } from '../hub/hub.ts';
import type { JobQueue } from '../jobs/queue.ts';
import { WORKING_BY } from '../media/ingest.ts';
import type { Arrivals } from '../media/arrivals.ts';
import { freeOnDisk, RESERVE_BYTES } from '../media/room.ts';
import { signedIn } from './guard.ts';
import { uploadLocks } from './upload-locks.ts';

export interface UploadTools {
  arrivals: Arrivals;
  hub: Hub;
  queue: JobQueue;
  log: Log;
  /** Free bytes where uploads go; injected by tests. */
  freeBytes?: (folder: string) => Promise<number>;
}

/** An error the upload protocol passes on with its status and body. */
function tusError(status_code: number, code: string, message: string): Error {
  return Object.assign(new Error(message), {
    status_code,
    body: JSON.stringify({ code, message }),
  });
}

const wordsOfFull = () => teacherText('server.disk-full-upload');

/**
 * The session middleware's `end` takes a lone callback for a body; the upload server ends answers
 * that way.
 */
function endWithCallback(res: Response): void {
  const end = res.end.bind(res) as (...args: unknown[]) => Response;
  res.end = ((...args: unknown[]) => {
    const [only] = args;
    if (typeof only !== 'function') return end(...args);
    res.once('finish', only as () => void);
    return end();
  }) as Response['end'];
}

export function queueIngest(queue: JobQueue, take: TakeRow) {
  return queue.add({
    teamId: take.teamId,
    kind: 'ingest',
    subjectId: take.id,
    input: { takeId: take.id },
  });
}

/**
 * Puts a take in line for a working copy as they are made today; `track`: with another of its
 * file's sound tracks.
 */
export function queueAnew(queue: JobQueue, take: TakeRow, track?: number) {
  // Going back to a track is not the order that was carried out before.
  const choice = track === undefined ? {} : { track, order: nanoid() };
  return queue.add({
    teamId: take.teamId,
    kind: 'ingest',
    subjectId: take.id,
    input: { takeId: take.id, anew: WORKING_BY, ...choice },
  });
}

/** Puts takes whose working copy is still to be made in line. */
export async function ingestUnready(queue: JobQueue, takes: readonly TakeRow[]): Promise<void> {
  for (const take of takes) if (!take.workingSha) await queueIngest(queue, take);
}

/**
 * The resumable upload endpoint: an upload carries its take's id, and only the take's owner reaches
 * it.
 */
export function uploads(tools: UploadTools): {
  handle: RequestHandler;
  reconcile: () => Promise<void>;
} {
  const { queue, hub, log, freeBytes = freeOnDisk } = tools;
  const { uploads: store, folder } = tools.arrivals;
  // Elsewhere there is room.
  const free = () => (folder === null ? Promise.resolve(Infinity) : freeBytes(folder));
  const assertRoom = async (bytes: number) => {
    if ((await free()) - bytes < RESERVE_BYTES) throw tusError(507, 'disk-full', wordsOfFull());
  };
  const tus = new Server({
    path: UPLOADS_PATH,
    datastore: store,
    locker: uploadLocks(hub),
    relativeLocation: true,
    maxSize: MAX_UPLOAD_BYTES,
    allowedOrigins: [],
    namingFunction: (_req, metadata) => metadata?.['takeId'] ?? '',
    async onIncomingRequest(req) {
      if (req.method === 'PATCH') await assertRoom(Number(req.headers.get('content-length') ?? 0));
    },
    async onUploadCreate(_req, upload) {
      if (upload.size === 0) throw tusError(400, 'empty-file', teacherText('server.file-empty'));
      const take = await TakeRow.findByPk(upload.id);
      if (take?.originalSha) throw tusError(409, 'arrived', teacherText('server.arrived'));
      const begun = await store.getUpload(upload.id).catch(() => null);
      if (begun) throw tusError(409, 'begun', teacherText('server.upload-begun'));
      await assertRoom(upload.size ?? 0);
      return {};
    },
    async onUploadFinish(_req, upload) {
      const take = await TakeRow.findByPk(upload.id);
      if (take) await queueIngest(queue, take);
      return {};
    },
    async onResponseError(_req, error) {
      const left = await free().catch(() => Infinity);
      if ('body' in error && String(error.body).startsWith('{')) return undefined;
      if (left < RESERVE_BYTES / 8)
        return {
          status_code: 507,
          body: JSON.stringify({ code: 'disk-full', message: wordsOfFull() }),
        };
      return undefined;
    },
  });

  const takeIdOf = (req: Parameters<RequestHandler>[0]): string => {
    const inPath = req.path.slice(UPLOADS_PATH.length + 1);
    if (inPath) return inPath;
    const pair = String(req.headers['upload-metadata'] ?? '')
      .split(',')
      .map((entry) => entry.trim().split(' '))
      .find(([key]) => key === 'takeId');
    return Buffer.from(pair?.[1] ?? '', 'base64').toString('utf8');
  };

  return {
    async handle(req, res) {
      const { teamId } = await signedIn(req, 'helper');
      const takeId = takeIdOf(req);
      const take = /^[\w-]{1,40}$/.test(takeId)
        ? await TakeRow.findOne({ where: { id: takeId, teamId } })
        : null;
      if (!take || req.method === 'GET') {
        res.status(404).json({ code: 'not-found', message: teacherText('server.no-upload') });
        return;
      }
      endWithCallback(res);
      await tus.handle(req, res);
    },
    async reconcile() {
      for (const take of await TakeRow.findAll({ where: { originalSha: null, fault: null } })) {
        const upload = await store.getUpload(take.id).catch(() => null);
        if (upload && upload.size !== undefined && upload.offset === upload.size)
          await queueIngest(queue, take);
      }
      await tus
        .cleanUpExpiredUploads()
        .catch((error: unknown) => log.error(`Old uploads were not cleared: ${wordsOf(error)}`));
    },
  };
}
