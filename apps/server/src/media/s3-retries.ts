import { setTimeout as sleep } from 'node:timers/promises';
import type { S3ClientConfig } from '@aws-sdk/client-s3';

type Retries = Extract<
  NonNullable<S3ClientConfig['retryStrategy']>,
  { refreshRetryTokenForRetry: unknown }
>;

const FIRST_WAIT_MS = 250;
const LONGEST_WAIT_MS = 8_000;
/** With the waits above, half a minute in all. */
const MOST_RETRIES = 8;

const after = (retries: number) => ({
  getRetryCount: () => retries,
  getRetryDelay: () => 0,
});

/**
 * Asks a store that is away for a moment again for about half a minute, each request by itself: the
 * client's own way gives up after six seconds on average, sooner where many ask at once.
 */
export const patientRetries: Retries = {
  acquireInitialRetryToken: () => Promise.resolve(after(0)),
  async refreshRetryTokenForRetry(token, { errorType }) {
    const done = token.getRetryCount();
    // The client then throws the error it has.
    if (errorType === 'CLIENT_ERROR' || done >= MOST_RETRIES) throw new Error('Not again.');
    const wait = Math.min(FIRST_WAIT_MS * 2 ** done, LONGEST_WAIT_MS);
    // Not all of them at the same moment.
    await sleep(wait * (0.75 + Math.random() / 2));
    return after(done + 1);
  },
  recordSuccess: () => undefined,
};
