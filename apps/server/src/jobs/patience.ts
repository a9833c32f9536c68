import { setTimeout as sleep } from 'node:timers/promises';

/** What connections say that may be there again in a moment. */
const CODES = new Set([
  ...['ECONNREFUSED', 'ECONNRESET', 'ETIMEDOUT', 'EPIPE', 'EHOSTUNREACH', 'ENETUNREACH'],
  ...['EAI_AGAIN', 'PROTOCOL_CONNECTION_LOST'],
]);
const AGAIN_MS = 2_000;
const LONGEST_MS = 10 * 60_000;

interface Told {
  name?: string;
  code?: string;
  /** Of a bucket's answer. */
  $metadata?: { httpStatusCode?: number };
  cause?: unknown;
  parent?: unknown;
  errors?: unknown;
}

/** Whether a task failed because the database or the bucket is away for now, and not by itself. */
export function isAway(error: unknown): boolean {
  if (typeof error !== 'object' || error === null) return false;
  const { name, code, $metadata, cause, parent, errors } = error as Told;
  return (
    (code !== undefined && CODES.has(code)) ||
    (name?.startsWith('SequelizeConnection') ?? false) ||
    ($metadata?.httpStatusCode ?? 0) >= 500 ||
    [cause, parent, ...(Array.isArray(errors) ? (errors as unknown[]) : [])].some(isAway)
  );
}

/**
 * Does a task again while what it needs is away, for some minutes at most.
 * @param onWait told each time why it has to wait
 * @param againMs how long it waits
 */
export async function patiently<T>(
  task: () => Promise<T>,
  signal: AbortSignal | undefined,
  onWait: (error: unknown) => void = () => undefined,
  againMs = AGAIN_MS,
): Promise<T> {
  const untilMs = Date.now() + LONGEST_MS;
  for (;;) {
    try {
      return await task();
    } catch (error) {
      if (!isAway(error) || signal?.aborted || Date.now() > untilMs) throw error;
      onWait(error);
      await sleep(againMs, undefined, { signal }).catch(() => undefined);
    }
  }
}
