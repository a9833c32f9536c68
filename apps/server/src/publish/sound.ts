import { createReadStream } from 'node:fs';
import type { Writable } from 'node:stream';
import { ffmpeg, SAMPLE_RATE } from '../media/ffmpeg.ts';
import { run, write } from '../media/run.ts';
import { SOUND_BYTES_PER_FRAME, type RenderedPiece } from './render.ts';

/** Voice of recorded lessons: -16 LUFS integrated, true peak under -1 dBTP (a common level for speech on the web). */
export const TARGET_LUFS = -16;
export const PEAK_LIMIT_DB = -1;
/** More gain than this only lifts the noise of a near-silent recording. */
const MOST_GAIN_DB = 30;
const CLOSE_ENOUGH_LU = 0.3;
const ATTEMPTS = 4;

/** Integrated loudness (ITU-R BS.1770 as ffmpeg's ebur128 measures it) and true peak; null for silence. */
export interface Loudness {
  integratedLufs: number | null;
  truePeakDb: number | null;
}

function readLoudness(words: string): Loudness {
  const last = (pattern: RegExp) => {
    const value = Number([...words.matchAll(pattern)].at(-1)?.[1] ?? NaN);
    return Number.isFinite(value) ? value : null;
  };
  const integratedLufs = last(/I:\s+(-?[\d.]+) LUFS/g);
  const silent = integratedLufs === null || integratedLufs <= -69.9;
  return { integratedLufs: silent ? null : integratedLufs, truePeakDb: silent ? null : last(/Peak:\s+(-?[\d.]+|-?inf) dBFS/g) };
}

/** Measures a file's first sound track. */
export async function measureLoudness(file: string, signal?: AbortSignal): Promise<Loudness> {
  const { errors } = await run(
    'ffmpeg',
    ['-hide_banner', '-nostats', '-i', file, '-map', '0:a:0', '-af', 'ebur128=peak=true:framelog=verbose', '-f', 'null', '-'],
    { signal },
  );
  return readLoudness(errors);
}

/** Writes the sound of all pieces one after the other, silence where a piece has none, in exact samples. */
function soundOf(pieces: readonly RenderedPiece[]): (to: Writable) => Promise<void> {
  return async (to) => {
    for (const { piece, sound } of pieces) {
      const bytes = piece.frames * SOUND_BYTES_PER_FRAME;
      let written = 0;
      if (sound) {
        for await (const chunk of createReadStream(sound, { end: bytes - 1 })) {
          written += (chunk as Buffer).length;
          await write(to, chunk as Buffer);
        }
      }
      if (written < bytes) await write(to, Buffer.alloc(bytes - written));
    }
  };
}

/**
 * Encodes the sound of all pieces as one AAC track at the target loudness with its true peak below the limit:
 * gain, then a limiter working at four times the rate, measured on the encoded result and corrected.
 */
export async function encodeSound(pieces: readonly RenderedPiece[], target: string, signal?: AbortSignal): Promise<Loudness> {
  let gainDb = 0;
  let ceilingDb = -2;
  let measured: Loudness = { integratedLufs: null, truePeakDb: null };
  for (let attempt = 0; attempt < ATTEMPTS; attempt += 1) {
    const chain = [
      `volume=${gainDb.toFixed(2)}dB`,
      `aresample=${SAMPLE_RATE * 4}`,
      `alimiter=limit=${(10 ** (ceilingDb / 20)).toFixed(4)}:attack=5:release=60:level=0`,
      `aresample=${SAMPLE_RATE}`,
    ].join(',');
    await ffmpeg(
      ['-f', 's16le', '-ar', String(SAMPLE_RATE), '-ac', '2', '-i', 'pipe:0', '-af', chain, '-c:a', 'aac', '-b:a', '160k', '-f', 'mp4', target],
      { signal, feed: { stdin: soundOf(pieces) } },
    );
    measured = await measureLoudness(target, signal);
    if (measured.integratedLufs === null) break;
    const missingLu = TARGET_LUFS - measured.integratedLufs;
    const over = (measured.truePeakDb ?? -Infinity) - PEAK_LIMIT_DB;
    if (Math.abs(missingLu) <= CLOSE_ENOUGH_LU && over < 0) break;
    gainDb = Math.min(MOST_GAIN_DB, gainDb + missingLu);
    if (over >= 0) ceilingDb -= over + 0.3;
  }
  return measured;
}
