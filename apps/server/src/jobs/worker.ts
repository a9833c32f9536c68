import { setTimeout as sleep } from 'node:timers/promises';
import { nanoid } from 'nanoid';
import { textToSay } from '@zest/core/words';
import type { Folders } from '../config.ts';
import type { JobKind, JobRow } from '../db/models.ts';
import { messageOf, wordsOf } from '../errors.ts';
import type { Log } from '../log.ts';
import { CancelledError } from '../media/run.ts';
import type { Arrivals } from '../media/arrivals.ts';
import type { MediaStore } from '../media/store.ts';
import type { WorkerMetrics } from '../metrics.ts';
import type { Rendering } from '../publish/rendering.ts';
import { handlers } from './handlers.ts';
import { patiently } from './patience.ts';
import type { JobQueue } from './queue.ts';

const IDLE_MS = 300;
const BEAT_MS = 1_000;

export interface WorkerTools {
  queue: JobQueue;
  folders: Folders;
  store: MediaStore;
  arrivals: Arrivals;
  rendering: Rendering;
  log: Log;
  /** See `JobTools`. */
  watchesAtOnce: boolean;
  metrics: WorkerMetrics;
  /** Which jobs it does. */
  kinds: readonly JobKind[];
}

/**
 * Does jobs one after the other until `stop` fires; a job being done is then left for the next
 * worker.
 */
export async function work(tools: WorkerTools, stop: AbortSignal): Promise<void> {
  const workerId = nanoid();
  while (!stop.aborted) {
    let job: JobRow | null = null;
    try {
      job = await tools.queue.lease(workerId, tools.kinds);
    } catch (error) {
      tools.log.error(`The queue did not answer: ${wordsOf(error)}`);
      await sleep(2_000);
    }
    if (job) await doJob(job, workerId, tools, stop);
    else if (!tools.kinds.includes('export') || !(await renderForOthers(tools, stop)))
      await sleep(IDLE_MS, undefined, { signal: stop }).catch(() => undefined);
  }
}

/** With nothing of its own to do, a worker renders a piece of another one's export. */
async function renderForOthers(
  { rendering, log }: Pick<WorkerTools, 'rendering' | 'log'>,
  stop: AbortSignal,
): Promise<boolean> {
  try {
    return await rendering.help(stop);
  } catch (error) {
    // Whoever began the export meets the same fault and tells it.
    if (!(error instanceof CancelledError))
      log.error(`Helping with an export failed: ${wordsOf(error)}`);
    return false;
  }
}

/** Renders pieces of others' exports, and does nothing else, until `stop` fires. */
export async function renderOnly(
  tools: Pick<WorkerTools, 'rendering' | 'log'>,
  stop: AbortSignal,
): Promise<void> {
  while (!stop.aborted)
    if (!(await renderForOthers(tools, stop)))
      await sleep(IDLE_MS, undefined, { signal: stop }).catch(() => undefined);
}

async function doJob(
  job: JobRow,
  workerId: string,
  tools: WorkerTools,
  stop: AbortSignal,
): Promise<void> {
  const { queue, folders, store, arrivals, rendering, watchesAtOnce, metrics } = tools;
  const beganMs = performance.now();
  let videoMs: number | null = null;
  const ended = (end: string) =>
    metrics.job(job.kind, end, (performance.now() - beganMs) / 1_000, videoMs);
  const abort = new AbortController();
  const onStop = () => abort.abort();
  stop.addEventListener('abort', onStop);
  const patient = <T>(task: () => Promise<T>) =>
    patiently(task, stop, (why) =>
      tools.log.error(`${job.kind} waits: ${wordsOf(why)}`, { kind: job.kind, job: job.id }),
    );
  let at = { part: 0, message: textToSay('job.starting') };
  let lost = false;
  const beat = setInterval(() => {
    queue
      .beat(job, workerId, at.part, at.message)
      .then((ours) => {
        if (ours) return;
        lost = true;
        abort.abort();
      })
      .catch((error: unknown) =>
        tools.log.error(`Progress could not be stored: ${wordsOf(error)}`),
      );
  }, BEAT_MS);
  try {
    const result = await patient(() =>
      handlers[job.kind](job, {
        folders,
        store,
        arrivals,
        rendering,
        queue,
        watchesAtOnce,
        signal: abort.signal,
        onProgress: (part, message) => (at = { part, message }),
        onVideo: (ms) => (videoMs = ms),
      }),
    );
    await patient(() => queue.finish(job, workerId, 'done', textToSay('job.ready'), result));
    ended('done');
  } catch (error) {
    const cancelled = error instanceof CancelledError;
    if (cancelled && !lost) return await patient(() => queue.release(job, workerId)); // We are stopping.
    if (cancelled && (await patient(() => queue.isHeld(job))))
      return await patient(() => queue.rest(job, workerId));
    if (!cancelled)
      tools.log.error(`${job.kind} failed: ${wordsOf(error)}`, { kind: job.kind, job: job.id });
    const end = cancelled ? 'cancelled' : 'failed';
    const message = cancelled ? textToSay('job.cancelled') : messageOf(error);
    await patient(() => queue.finish(job, workerId, end, message));
    ended(end);
  } finally {
    clearInterval(beat);
    stop.removeEventListener('abort', onStop);
  }
}
