import { findMarks, MARK_RATE_HZ, type FoundMark } from '@zest/core/signal';
import { GUARDED_INPUT } from './ffmpeg.ts';
import { run } from './run.ts';

/** Sound is looked through in pieces, so that hours of it need no more room than minutes. */
const PIECE_S = 60;
/** Pieces overlap by more than the longest mark, so that none is cut in two. */
const OVERLAP_S = 3;
const BYTES = Float32Array.BYTES_PER_ELEMENT;
/** A mark in the overlap is found twice. */
const SAME_MS = 50;

/**
 * The sync marks in a file's sound, their places in milliseconds of the file; none when it has no
 * sound.
 * @throws ProgramError when the file cannot be read
 */
export async function marksIn(file: string, signal?: AbortSignal): Promise<FoundMark[]> {
  const found: FoundMark[] = [];
  const pieceBytes = PIECE_S * MARK_RATE_HZ * BYTES;
  const keepBytes = OVERLAP_S * MARK_RATE_HZ * BYTES;
  let held = Buffer.alloc(0);
  let heldAtMs = 0;
  const frame = (bytes: Buffer) => {
    const sound = new Float32Array(Math.floor(bytes.length / BYTES));
    for (let i = 0; i < sound.length; i += 1) sound[i] = bytes.readFloatLE(i * BYTES);
    for (const mark of findMarks(sound)) {
      const atMs = heldAtMs + mark.atMs;
      if (!found.some((other) => other.kind === mark.kind && Math.abs(other.atMs - atMs) < SAME_MS))
        found.push({ ...mark, atMs });
    }
  };
  const chunks: Buffer[] = [];
  let waiting = 0;
  await run(
    'ffmpeg',
    [
      '-v',
      'error',
      ...GUARDED_INPUT,
      '-i',
      file,
      '-map',
      '0:a:0?',
      '-vn',
      '-ac',
      '1',
      '-ar',
      String(MARK_RATE_HZ),
      '-f',
      'f32le',
      'pipe:1',
    ],
    {
      signal,
      onOutput: (chunk) => {
        chunks.push(chunk);
        waiting += chunk.length;
        if (held.length + waiting < pieceBytes) return;
        held = Buffer.concat([held, ...chunks.splice(0)]);
        waiting = 0;
        const whole = held.subarray(0, held.length - (held.length % BYTES));
        frame(whole);
        heldAtMs += ((whole.length - keepBytes) / BYTES / MARK_RATE_HZ) * 1000;
        held = Buffer.from(held.subarray(whole.length - keepBytes));
      },
    },
  ).catch((error: unknown) => {
    // A file without sound gives nothing to write.
    if (!(error instanceof Error) || !/does not contain any stream/i.test(error.message))
      throw error;
  });
  frame(Buffer.concat([held, ...chunks]));
  return found.sort((a, b) => a.atMs - b.atMs);
}
