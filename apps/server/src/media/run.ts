import { spawn } from 'node:child_process';
import type { Readable, Writable } from 'node:stream';
import { textToSay } from '@zest/core/words';

/** A media program ended badly; `lastWords` is the end of what it said. */
export class ProgramError extends Error {
  override readonly name = 'ProgramError';
  constructor(
    readonly program: string,
    readonly lastWords: string,
    readonly outOfDisk: boolean,
  ) {
    super(
      outOfDisk
        ? textToSay('server.disk-full')
        : textToSay('server.program-ended', { program, words: lastWords || '?' }),
    );
  }
}

export class CancelledError extends Error {
  override readonly name = 'CancelledError';
}

export interface RunOptions {
  signal?: AbortSignal | undefined;
  /** Ends the program when it has said nothing for so long. */
  stallMs?: number;
  /** Reads standard output; without it output is collected and returned. */
  onOutput?: (chunk: Buffer) => void;
  /** How much of what it says is kept, from the end, in characters. */
  keepErrors?: number;
  /** Reads standard output at its own pace: the program waits when it is ahead. */
  read?: (from: AsyncIterable<Buffer>) => Promise<void>;
  /**
   * Writes to standard input and to extra pipes from descriptor 3 on; each gets its stream and ends
   * it.
   */
  feed?: { stdin?: (to: Writable) => Promise<void>; pipes?: ((to: Writable) => Promise<void>)[] };
}

export interface RunResult {
  output: Buffer;
  errors: string;
}

/**
 * Pictures are allocated and freed many times a second: memory given back to the system each time
 * costs a third of the time of laying overlays over a video.
 */
const KEEP_MEMORY = { MALLOC_MMAP_THRESHOLD_: '33554432', MALLOC_TRIM_THRESHOLD_: '134217728' };

const STALL_MS = 120_000;
const KEPT_ERRORS = 16_000;

/**
 * Runs a program with a fixed argument list, without a shell, with a limit on silence.
 * @throws ProgramError when it fails or stalls, CancelledError when the signal fires
 */
export async function run(
  program: string,
  args: readonly string[],
  options: RunOptions = {},
): Promise<RunResult> {
  const { signal, feed = {}, stallMs = STALL_MS } = options;
  if (signal?.aborted) throw new CancelledError('Cancelled.');
  const pipes = feed.pipes ?? [];
  const child = spawn(program, [...args], {
    env: { ...process.env, ...KEEP_MEMORY },
    stdio: [feed.stdin ? 'pipe' : 'ignore', 'pipe', 'pipe', ...pipes.map(() => 'pipe' as const)],
  });
  let errors = '';
  let stalled = false;
  const output: Buffer[] = [];
  let watch: NodeJS.Timeout | undefined;
  const alive = () => {
    clearTimeout(watch);
    watch = setTimeout(() => {
      stalled = true;
      child.kill('SIGKILL');
    }, stallMs);
  };
  alive();
  const stdout = child.stdout as Readable;
  async function* chunks(): AsyncGenerator<Buffer> {
    for await (const chunk of stdout) {
      alive();
      yield chunk as Buffer;
      alive();
    }
  }
  const reader = options.read?.(chunks());
  if (!reader) {
    stdout.on('data', (chunk: Buffer) => {
      alive();
      if (options.onOutput) options.onOutput(chunk);
      else output.push(chunk);
    });
  }
  (child.stderr as Readable).on('data', (chunk: Buffer) => {
    alive();
    errors = (errors + chunk.toString('utf8')).slice(-(options.keepErrors ?? KEPT_ERRORS));
  });
  const cancel = () => child.kill('SIGKILL');
  signal?.addEventListener('abort', cancel);
  const ended = new Promise<number | null>((resolve, reject) => {
    child.once('error', reject);
    child.once('close', resolve);
  });
  const writers = [
    ...(feed.stdin ? [{ to: child.stdio[0] as Writable, write: feed.stdin }] : []),
    ...pipes.map((write, i) => ({ to: child.stdio[i + 3] as Writable, write })),
  ].map(async ({ to, write }) => {
    // The program may close a pipe early; its exit code says whether that was a fault.
    to.on('error', () => undefined);
    await write(to);
    to.end();
  });
  try {
    const [code] = await Promise.all([
      ended,
      reader,
      ...writers.map((writer) => writer.catch(rejectUnlessClosed)),
    ]);
    if (signal?.aborted) throw new CancelledError('Cancelled.');
    if (stalled)
      throw new ProgramError(program, `no progress for ${Math.round(stallMs / 1000)} s`, false);
    if (code !== 0)
      throw new ProgramError(program, lastLines(errors), /No space left on device/i.test(errors));
    return { output: Buffer.concat(output), errors };
  } finally {
    clearTimeout(watch);
    signal?.removeEventListener('abort', cancel);
    if (child.exitCode === null && child.signalCode === null) child.kill('SIGKILL');
  }
}

function rejectUnlessClosed(error: unknown): void {
  const code = (error as NodeJS.ErrnoException).code;
  if (code !== 'EPIPE' && code !== 'ERR_STREAM_DESTROYED' && code !== 'ERR_STREAM_PREMATURE_CLOSE')
    throw error;
}

function lastLines(text: string): string {
  return text.trim().split('\n').slice(-3).join(' / ');
}

/** Writes a chunk and waits when the reader is behind. Throws when the reader has gone. */
export function write(to: Writable, chunk: Uint8Array): Promise<void> {
  return new Promise((resolve, reject) => {
    to.write(chunk, (error) => (error ? reject(error) : resolve()));
  });
}
