import { teacherText } from '@zest/core/words';
import { problemSchema, UPLOADS_PATH } from '@zest/contract';
import { DetailedError, Upload, type UploadOptions } from 'tus-js-client';

const CHUNK_BYTES = 4 * 1024 * 1024;
/** Small enough that a recording's chunks are sent within a second or two. */
const LIVE_CHUNK_BYTES = 192 * 1024;
/** Goes on trying through a restart of the server. */
const RETRY_MS = [300, 1_000, 2_000, 4_000, 4_000, 8_000, 8_000, 15_000, 15_000, 30_000];

/** The words of a failed upload; the server's own when it gave any. */
export function uploadFault(error: unknown): string {
  return problemOf(error)?.message ?? teacherText('filming.connection-server-was-lost');
}

function problemOf(error: unknown) {
  if (!(error instanceof DetailedError)) return null;
  try {
    return problemSchema.parse(JSON.parse(error.originalResponse?.getBody() ?? ''));
  } catch {
    return null;
  }
}

interface Running {
  /** Resolves when the server has all of it. Rejects with the cause; what arrived stays there. */
  done: Promise<void>;
  stop: () => void;
}

function run(
  data: ConstructorParameters<typeof Upload>[0],
  takeId: string,
  options: UploadOptions,
  resume: boolean,
): Running {
  let upload: Upload | undefined;
  const done = new Promise<void>((resolve, reject) => {
    upload = new Upload(data, {
      endpoint: UPLOADS_PATH,
      metadata: { takeId },
      retryDelays: RETRY_MS,
      storeFingerprintForResuming: false,
      removeFingerprintOnSuccess: true,
      ...(resume && { uploadUrl: `${UPLOADS_PATH}/${takeId}` }),
      onShouldRetry: (error) => {
        // A refusal in words does not get better by asking again; a begun upload is found by its
        // address.
        if (problemOf(error)) return false;
        const status = error.originalResponse?.getStatus() ?? 0;
        return (
          status === 0 || status === 423 || status === 409 || (status >= 500 && status !== 507)
        );
      },
      onSuccess: () => resolve(),
      onError: (error) => {
        // Everything had arrived before the last answer was lost.
        if (problemOf(error)?.code === 'arrived') resolve();
        else reject(error);
      },
      ...options,
    });
    upload.start();
  });
  return { done, stop: () => void upload?.abort() };
}

/** Sends a file; with `resume`, goes on where an earlier attempt of the same take stopped. */
export function sendFile(
  takeId: string,
  file: Blob,
  onProgress: (part: number) => void,
  resume = false,
): Running {
  return run(
    file,
    takeId,
    { chunkSize: CHUNK_BYTES, onProgress: (sent, total) => onProgress(total ? sent / total : 0) },
    resume,
  );
}

/** Sends what is left of a recording whose length was not known when it began. */
export function sendRest(takeId: string, recording: Blob): Running {
  return run(recording, takeId, { chunkSize: CHUNK_BYTES, uploadLengthDeferred: true }, true);
}

/** Sends a recording while it is being made: chunks are pushed as they come, `end` closes it. */
export function sendLive(
  takeId: string,
): Running & { push: (chunk: Blob) => void; end: () => void } {
  let controller: ReadableStreamDefaultController<Uint8Array> | undefined;
  const stream = new ReadableStream<Uint8Array>({
    start(stream) {
      controller = stream;
    },
  });
  // Blobs are read one after the other, so that they stay in order.
  let queue = Promise.resolve();
  const running = run(
    stream.getReader() as never,
    takeId,
    { chunkSize: LIVE_CHUNK_BYTES, uploadLengthDeferred: true, retryDelays: RETRY_MS },
    false,
  );
  return {
    ...running,
    push: (chunk) => {
      queue = queue.then(async () =>
        controller?.enqueue(new Uint8Array(await chunk.arrayBuffer())),
      );
    },
    end: () => {
      queue = queue.then(() => controller?.close());
    },
  };
}
