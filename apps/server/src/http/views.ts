import { exportResultSchema, isMaterial, type Job, type Take } from '@zest/contract';
import { sayStored, teacherText } from '@zest/core/words';
import { exportInput, exportOutcomeSchema } from '../jobs/handlers.ts';
import { WORKING_BY } from '../media/ingest.ts';
import { markedOf, saidOf, soundTracksOf } from '../db/takes.ts';
import type { JobRow, PerformanceRow, TakeRow } from '../db/models.ts';

/** Time to go from the pace so far; null in the first moments, when it would only jump about. */
function leftMs(job: JobRow): number | null {
  if (job.state !== 'running' || !job.startedAt || job.progress < 0.02) return null;
  const spentMs = job.updatedAt.getTime() - job.startedAt.getTime();
  return spentMs < 1_500 ? null : Math.round((spentMs * (1 - job.progress)) / job.progress);
}

const saidOrNull = (text: string | null) => (text === null ? null : sayStored(text));

export function jobView(job: JobRow, changedSince: string[] | null = null): Job {
  const outcome =
    job.kind === 'export' && job.result ? exportOutcomeSchema.parse(JSON.parse(job.result)) : null;
  return {
    id: job.id,
    kind: job.kind,
    subjectId: job.subjectId,
    state: job.state,
    progress: job.progress,
    leftMs: leftMs(job),
    message:
      job.cancelRequested && job.state === 'running'
        ? teacherText('job.stopping')
        : sayStored(job.message),
    createdAt: job.createdAt.toISOString(),
    order: job.kind === 'export' ? exportInput.parse(JSON.parse(job.input)).order : null,
    result: outcome && exportResultSchema.parse(outcome),
    changedSince,
  };
}

/** What a take's view needs beside its row. */
export interface TakeFacts {
  /** Its newest ingest. */
  job?: JobRow | undefined;
  /** Its newest watching. */
  watching?: JobRow | undefined;
  performance?: PerformanceRow | undefined;
  duplicateOf?: string | undefined;
  bytes?: number;
}

export function takeView(
  take: TakeRow,
  { job, watching, performance, duplicateOf, bytes = 0 }: TakeFacts = {},
): Take {
  return {
    id: take.id,
    lessonId: take.lessonId,
    blockId: take.blockId,
    name: take.name,
    source: take.source,
    createdAt: take.createdAt.toISOString(),
    frames: take.workingSha ? take.frames : 0,
    state: stateOf(take, job),
    fault: saidOrNull(take.fault ?? (job?.state === 'failed' ? job.message : null)),
    damage: saidOrNull(take.damage),
    progress: job?.progress ?? 0,
    thumbs: take.thumbs,
    hasSound: take.hasSound,
    size: take.width && take.height ? { width: take.width, height: take.height } : null,
    soundTracks: soundTracksOf(take),
    soundTrack: take.soundTrack,
    performance: performance
      ? { id: performance.id, number: performance.number, shotId: performance.shotId }
      : null,
    marked: markedOf(take),
    reason: take.reason,
    note: take.note,
    inBin: take.binnedAt !== null,
    duplicateOf: duplicateOf ?? null,
    watching: watchingView(take, watching),
    said: saidOf(take),
    renewal: renewalOf(take, job),
    bytes,
  };
}

function renewalOf(take: TakeRow, job: JobRow | undefined): Take['renewal'] {
  if (!take.workingSha || isMaterial(take)) return 'none';
  if (job?.state === 'queued' || job?.state === 'running') return 'under way';
  return take.workingBy === WORKING_BY ? 'none' : 'offered';
}

function watchingView({ watchedSha }: TakeRow, job: JobRow | undefined): Take['watching'] {
  const states = {
    queued: 'waiting',
    held: 'waiting',
    running: 'working',
    done: 'no',
    failed: 'failed',
    cancelled: 'no',
  } as const;
  const state = job ? states[job.state] : 'no';
  const isBusy = state === 'waiting' || state === 'working';
  return {
    state: isBusy || !watchedSha ? state : 'ready',
    key: watchedSha,
    progress: isBusy ? (job?.progress ?? 0) : 0,
    fault: state === 'failed' ? (job?.message ?? null) : null,
  };
}

function stateOf(take: TakeRow, job: JobRow | undefined): Take['state'] {
  if (take.workingSha) return 'ready';
  if (take.fault) return 'failed';
  switch (job?.state) {
    case undefined:
      return 'uploading';
    case 'queued':
    case 'held':
      return 'waiting';
    case 'running':
    case 'done':
      return 'working';
    case 'failed':
    case 'cancelled':
      return 'failed';
  }
}
