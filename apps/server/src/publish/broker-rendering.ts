import { rename, rm } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Job, JobsOptions } from 'bullmq';
import { nanoid } from 'nanoid';
import { messageOf } from '../errors.ts';
import type { Broker } from '../jobs/broker.ts';
import { patiently } from '../jobs/patience.ts';
import { CancelledError } from '../media/run.ts';
import type { PartStore, TakePath } from '../media/store.ts';
import { partOf } from '../media/unfinished.ts';
import type { Piece, RenderSettings } from './pieces.ts';
import { partPaths, renderPiece } from './render.ts';
import { filesIn, sideBySide, type Rendering, type RenderOrder } from './rendering.ts';

const QUEUE = 'pieces';
const LOOK_AGAIN_MS = 250;
const BEAT_MS = 3_000;

/** What whoever renders a piece is told. */
interface Ordered {
  piece: Piece;
  settings: RenderSettings;
}

interface Tools {
  broker: Broker;
  parts: PartStore;
  /** Where this machine keeps what it rendered, and what it fetched. */
  cacheDir: string;
  takePath: TakePath;
}

/** The same piece of two exports is one. */
const idOf = ({ hash }: Piece) => `piece-${hash}`;

/** Those of these files that lie in the bucket, by their names. */
async function inBucket(
  { parts }: Tools,
  files: readonly string[],
): Promise<(file: string) => boolean> {
  const there = await parts.has(files.map((file) => path.basename(file)));
  return (file) => there.has(path.basename(file));
}

/** Fetches files of parts that are not here; gives whether all of them are now. */
async function fetched(tools: Tools, files: readonly string[]): Promise<boolean> {
  const here = await filesIn(tools.cacheDir, files);
  const missing = files.filter((file) => !here.has(file));
  if (!missing.every(await inBucket(tools, missing))) return false;
  for (const file of missing) {
    const part = partOf(file);
    try {
      await tools.parts.get(path.basename(file), part);
      await rename(part, file);
    } finally {
      await rm(part, { force: true });
    }
  }
  return true;
}

/** Renders a piece that was handed out, unless it is there, and lays its parts where all find them. */
async function renderHanded(
  tools: Tools,
  job: Job<Ordered>,
  token: string,
  onProgress: (doneMs: number) => void,
  signal?: AbortSignal,
): Promise<void> {
  const { broker, parts, cacheDir, takePath } = tools;
  const { piece, settings } = job.data;
  const beat = setInterval(
    () => void job.extendLock(token, broker.lockMs).catch(() => undefined),
    Math.min(BEAT_MS, broker.lockMs / 3),
  );
  try {
    const files = partPaths(piece, settings, cacheDir);
    await patiently(async () => {
      if (files.every(await inBucket(tools, files))) return;
      await renderPiece(piece, settings, cacheDir, takePath, onProgress, signal);
      for (const file of files) await parts.put(path.basename(file), file);
    }, signal);
    // Another one has it by now, where the broker was away for long, and finds it done.
    await job.moveToCompleted(true, token, false).catch(() => undefined);
  } catch (error) {
    const given = error instanceof CancelledError;
    await (
      given ? job.moveToWait(token) : job.moveToFailed(new Error(messageOf(error)), token, false)
    ).catch(() => undefined);
    throw error;
  } finally {
    clearInterval(beat);
  }
}

/** The pieces one export still waits for. */
class Waiting {
  readonly #pieces: Map<string, Piece>;
  #looking: Promise<void> | null = null;

  constructor(
    private readonly tools: Tools,
    private readonly order: RenderOrder,
  ) {
    this.#pieces = new Map(order.pieces.map((piece) => [idOf(piece), piece]));
  }

  get isOver(): boolean {
    return this.#pieces.size === 0;
  }
  piece(id: string): Piece | undefined {
    return this.#pieces.get(id);
  }

  async #offer(id: string, piece: Piece): Promise<void> {
    const { broker } = this.tools;
    const { settings, exportId } = this.order;
    const options: JobsOptions = {
      jobId: id,
      removeOnComplete: true,
      removeDependencyOnFailure: true,
    };
    const data: Ordered = { piece, settings };
    const queue = broker.queue(QUEUE);
    const parent =
      exportId === null ? undefined : { id: exportId, queue: `${broker.prefix}:export` };
    // Without its parent, where the broker has forgotten that one.
    await queue
      .add(QUEUE, data, parent ? { ...options, parent } : options)
      .catch(() => queue.add(QUEUE, data, options));
  }

  async offerAll(): Promise<void> {
    for (const [id, piece] of this.#pieces) {
      // What failed for another export is tried again for this one.
      const job = (await this.tools.broker.queue(QUEUE).getJob(id)) as Job | undefined;
      if (job && (await job.isFailed())) await job.remove();
      await this.#offer(id, piece);
    }
  }

  /** Takes back what nobody has begun. */
  async takeBack(): Promise<void> {
    for (const id of this.#pieces.keys())
      await this.tools.broker
        .queue(QUEUE)
        .remove(id)
        .catch(() => undefined);
  }

  /** Notes which pieces are done, by whomever. @throws what one of them failed by */
  look(): Promise<void> {
    this.#looking ??= this.#look().finally(() => (this.#looking = null));
    return this.#looking;
  }

  async #look(): Promise<void> {
    const { settings, onPiece } = this.order;
    for (const [id, piece] of this.#pieces) {
      const job = (await this.tools.broker.queue(QUEUE).getJob(id)) as Job<Ordered> | undefined;
      if (job && (await job.isFailed())) {
        const why = job.failedReason;
        await job.remove().catch(() => undefined);
        throw new Error(why);
      }
      if (job) continue;
      const files = partPaths(piece, settings, this.tools.cacheDir);
      if (await fetched(this.tools, files)) {
        this.#pieces.delete(id);
        onPiece(piece, Infinity);
      } else await this.#offer(id, piece); // Taken back by another export, or forgotten.
    }
  }
}

/**
 * Among workers of any machines: each piece is a job of its own, a child of its export's, which
 * whoever has time takes; its parts come into the bucket, and from there to who joins them.
 */
export function brokerRendering(tools: Tools): Rendering {
  const { broker, cacheDir } = tools;
  const next = async (token: string) =>
    (await (await broker.worker(QUEUE)).getNextJob(token, { block: false })) as
      Job<Ordered> | undefined;

  return {
    async kept(files) {
      const here = await filesIn(cacheDir, files);
      const isThere = await inBucket(
        tools,
        files.filter((file) => !here.has(file)),
      );
      return new Set(files.filter((file) => here.has(file) || isThere(file)));
    },
    async renderAll(order) {
      const waiting = new Waiting(tools, order);
      await waiting.offerAll();
      try {
        await sideBySide(order.beside, async () => {
          const token = nanoid();
          while (!waiting.isOver) {
            if (order.signal?.aborted) throw new CancelledError('Cancelled.');
            const job = await next(token);
            const own = job?.id === undefined ? undefined : waiting.piece(job.id);
            const onProgress = (doneMs: number) => own && order.onPiece(own, doneMs);
            if (job) await renderHanded(tools, job, token, onProgress, order.signal);
            else await sleep(LOOK_AGAIN_MS);
            await waiting.look();
          }
        });
      } finally {
        await waiting.takeBack();
      }
    },
    async gather(files) {
      if (!(await fetched(tools, files))) throw new Error('Parts of the video are missing.');
    },
    async help(signal) {
      const token = nanoid();
      const job = await next(token);
      if (!job) return false;
      await renderHanded(tools, job, token, () => undefined, signal);
      return true;
    },
  };
}
