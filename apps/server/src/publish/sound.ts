import { createReadStream } from 'node:fs';
import { copyFile, readFile, rename, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Writable } from 'node:stream';
import type { Assembly } from '@zest/core/assembly';
import type { Finish } from '@zest/core/lesson';
import { toneSamples } from '@zest/core/script';
import { OUTPUT_FPS } from '@zest/core/time';
import { z } from 'zod';
import { ffmpeg, GUARDED_INPUT, SAMPLE_RATE } from '../media/ffmpeg.ts';
import { run, write } from '../media/run.ts';
import { hashOf } from '../media/store.ts';
import type { Piece } from './pieces.ts';
import { seekTo } from './picture-graph.ts';

/** Samples of one frame; exact, so that sound and picture cannot drift apart. */
const SAMPLES_PER_FRAME = SAMPLE_RATE / OUTPUT_FPS;
/** Bytes of one frame of sound: stereo, 16 bits. */
const BYTES_PER_FRAME = SAMPLES_PER_FRAME * 4;
const PCM_INPUT = ['-f', 's16le', '-ar', String(SAMPLE_RATE), '-ac', '2', '-i', 'pipe:0'] as const;

/** True peak of recorded lessons stays under this, in dBTP (EBU R 128). */
export const PEAK_LIMIT_DB = -1;
/** More gain than this only lifts the noise of a near-silent recording. */
const MOST_GAIN_DB = 30;
const CLOSE_ENOUGH_LU = 0.3;
/** Encoding lifts peaks a little; closer to the limit than this the limiter steps in. */
const PEAK_MARGIN_DB = 0.7;
const ATTEMPTS = 4;

/** Integrated loudness (ITU-R BS.1770 as ffmpeg's ebur128 measures it) and true peak; null for silence. */
const loudnessSchema = z.object({ integratedLufs: z.number().nullable(), truePeakDb: z.number().nullable() });
export type Loudness = z.infer<typeof loudnessSchema>;

function readLoudness(words: string): Loudness {
  const last = (pattern: RegExp) => {
    const value = Number([...words.matchAll(pattern)].at(-1)?.[1] ?? NaN);
    return Number.isFinite(value) ? value : null;
  };
  const integratedLufs = last(/I:\s+(-?[\d.]+) LUFS/g);
  const silent = integratedLufs === null || integratedLufs <= -69.9;
  return { integratedLufs: silent ? null : integratedLufs, truePeakDb: silent ? null : last(/Peak:\s+(-?[\d.]+|-?inf) dBFS/g) };
}

/** Says nothing but that it goes on, and what it measured. */
const QUIET = ['-hide_banner', '-nostats', '-progress', 'pipe:1'] as const;
const METER = ['-af', 'ebur128=peak=true:framelog=verbose', '-f', 'null', '-'] as const;

/** Measures a file's first sound track. */
export async function measureLoudness(file: string, signal?: AbortSignal): Promise<Loudness> {
  const { errors } = await run('ffmpeg', [...QUIET, '-i', file, '-map', '0:a:0', ...METER], { signal });
  return readLoudness(errors);
}

/** Raised when the filters change what is heard. */
const SOUND = 1;
/** A lowered sound is this much softer. */
const LOW_DB = -12;

/** Filters that play faster or slower: the pitch is kept, but for the tiny differences of clocks, which nobody hears. */
function atSpeed(speed: number): string[] {
  if (speed === 1) return [];
  if (Math.abs(speed - 1) < 0.01) return [`asetrate=${SAMPLE_RATE * speed}`, `aresample=${SAMPLE_RATE}`];
  // The filter goes down to one half; slower is done twice over.
  return speed < 0.5 ? [...atSpeed(0.5), ...atSpeed(speed / 0.5)] : [`atempo=${speed}`];
}

/** The raw sound of a piece in `cacheDir`, made if it is not there yet; null for silence. */
async function pieceSound({ sound, frames }: Piece, cacheDir: string, takePath: (sha: string) => string, signal?: AbortSignal): Promise<string | null> {
  if (!sound) return null;
  const { shot } = sound;
  const file = path.join(cacheDir, `${hashOf([SOUND, sound, frames])}.pcm`);
  const samples = frames * SAMPLES_PER_FRAME;
  const known = await stat(file).catch(() => null);
  if (known) return file;
  const filters = [
    `aresample=${SAMPLE_RATE}:async=1:first_pts=0`,
    `atrim=end_sample=${shot.available * SAMPLES_PER_FRAME}`,
    ...atSpeed(shot.speed),
    ...(sound.low ? [`volume=${LOW_DB}dB`] : []),
    `apad=whole_len=${samples}`,
    `atrim=end_sample=${samples}`,
  ].join(',');
  await ffmpeg(
    [...seekTo(shot.inFrame), ...GUARDED_INPUT, '-vn', '-i', takePath(shot.sha), '-af', filters, '-ac', '2', '-f', 's16le', `${file}.part`],
    { signal },
  );
  await rename(`${file}.part`, file);
  return file;
}

type SoundFinish = Finish['sound'];

interface SoundPart {
  file: string | null;
  bytes: number;
}

/** Writes the sound of all pieces one after the other, silence where a piece has none, in exact samples. */
function soundOf(parts: readonly SoundPart[]): (to: Writable) => Promise<void> {
  return async (to) => {
    for (const { file, bytes } of parts) {
      let written = 0;
      if (file) {
        for await (const chunk of createReadStream(file, { end: bytes - 1 })) {
          written += (chunk as Buffer).length;
          await write(to, chunk as Buffer);
        }
      }
      if (written < bytes) await write(to, Buffer.alloc(bytes - written));
    }
  };
}

/** Loudness of the tones in the finished sound, of what the pacer plays while filming. */
const TONE_PART = 0.4;

/** The tones as one track of mono samples, written a second at a time. */
function toneTrack(tones: Assembly['tones'], samples: number): (to: Writable) => Promise<void> {
  const placed = tones.map(({ atMs, tone }) => ({ from: Math.round((atMs * SAMPLE_RATE) / 1_000), sound: toneSamples(tone, SAMPLE_RATE) }));
  return async (to) => {
    for (let from = 0; from < samples; from += SAMPLE_RATE) {
      const chunk = new Int16Array(Math.min(SAMPLE_RATE, samples - from));
      for (const { from: begin, sound } of placed) {
        for (let i = Math.max(from, begin); i < Math.min(from + chunk.length, begin + sound.length); i += 1) {
          const sum = (chunk[i - from] ?? 0) + Math.round(32_767 * TONE_PART * (sound[i - begin] ?? 0));
          chunk[i - from] = Math.max(-32_768, Math.min(32_767, sum));
        }
      }
      await write(to, Buffer.from(chunk.buffer));
    }
  };
}

/** How the voice is cleaned: rumble cut, a steady noise taken off as far as it does not hurt the voice. */
function cleaning({ lowCut, noise }: SoundFinish): string[] {
  // Decibels taken off a steady noise: the more, the more of the voice goes along.
  const taken = { 'left as it is': 0, gently: 6, strongly: 14 }[noise];
  return [...(lowCut ? ['highpass=f=80'] : []), ...(taken > 0 ? [`afftdn=nr=${taken}:nf=-45:tn=1`] : [])];
}

/** Gain, and where the peaks would come too high a limiter working at four times the rate. */
function chain(clean: readonly string[], gainDb: number, ceilingDb: number | null, withTones: boolean): string {
  const voice = [...clean, `volume=${gainDb.toFixed(2)}dB`].join(',');
  const gain = withTones ? `[0:a]${voice}[voice];[1:a]aformat=channel_layouts=stereo[tones];[voice][tones]amix=inputs=2:duration=first:normalize=0` : voice;
  if (ceilingDb === null) return gain;
  const limit = (10 ** (ceilingDb / 20)).toFixed(4);
  return `${gain},aresample=${SAMPLE_RATE * 4},alimiter=limit=${limit}:attack=5:release=60:level=0,aresample=${SAMPLE_RATE}`;
}

/**
 * Encodes the sound of all pieces as one track, AAC in MP4 or Opus in WebM, at the target loudness with its true peak below the limit. The
 * raw sound is measured first, so that one encoding is enough as a rule; the encoded result is measured and corrected.
 */
export async function encodeSound(
  pieces: readonly Piece[],
  tones: Assembly['tones'],
  finish: SoundFinish,
  target: string,
  format: 'mp4' | 'webm',
  tools: { cacheDir: string; takePath: (sha: string) => string; signal?: AbortSignal },
): Promise<Loudness> {
  const { cacheDir, takePath, signal } = tools;
  // What nobody changed is not levelled again.
  const kept = path.join(cacheDir, `${hashOf([SOUND, pieces.map(({ sound, frames }) => [sound, frames]), tones, finish, format])}.${format === 'webm' ? 'opus' : 'aac'}`);
  const known = await readFile(`${kept}.json`, 'utf8').catch(() => null);
  const isThere = known !== null && (await copyFile(kept, target).then(
    () => true,
    () => false,
  ));
  if (isThere) return loudnessSchema.parse(JSON.parse(known));
  const parts: SoundPart[] = [];
  for (const piece of pieces) parts.push({ file: await pieceSound(piece, cacheDir, takePath, signal), bytes: piece.frames * BYTES_PER_FRAME });
  const withTones = tones.length > 0;
  const totalFrames = pieces.reduce((sum, { frames }) => sum + frames, 0);
  const feed = { stdin: soundOf(parts), ...(withTones && { pipes: [toneTrack(tones, totalFrames * SAMPLES_PER_FRAME)] }) };
  const toneInput = withTones ? ['-f', 's16le', '-ar', String(SAMPLE_RATE), '-ac', '1', '-i', 'pipe:3'] : [];
  const clean = cleaning(finish);
  const meter = clean.length > 0 ? ['-af', [...clean, METER[1]].join(','), ...METER.slice(2)] : METER;
  const raw = readLoudness((await run('ffmpeg', [...QUIET, ...PCM_INPUT, ...meter], { signal, feed: { stdin: feed.stdin } })).errors);
  let gainDb = raw.integratedLufs === null ? 0 : Math.min(MOST_GAIN_DB, finish.lufs - raw.integratedLufs);
  const peakDb = (raw.truePeakDb ?? -Infinity) + gainDb;
  let ceilingDb = peakDb > PEAK_LIMIT_DB - PEAK_MARGIN_DB ? PEAK_LIMIT_DB - 1 : null;
  let measured = raw;
  for (let attempt = 0; attempt < ATTEMPTS; attempt += 1) {
    await ffmpeg([...PCM_INPUT, ...toneInput, withTones ? '-filter_complex' : '-af', chain(clean, gainDb, ceilingDb, withTones), ...(format === 'webm' ? ['-c:a', 'libopus', '-b:a', '128k'] : ['-c:a', 'aac', '-b:a', '160k']), '-f', format, target], { signal, feed });
    measured = await measureLoudness(target, signal);
    if (measured.integratedLufs === null) break;
    const missingLu = finish.lufs - measured.integratedLufs;
    const over = (measured.truePeakDb ?? -Infinity) - PEAK_LIMIT_DB;
    if ((Math.abs(missingLu) <= CLOSE_ENOUGH_LU || gainDb >= MOST_GAIN_DB) && over < 0) break;
    gainDb = Math.min(MOST_GAIN_DB, gainDb + missingLu);
    if (over >= 0) ceilingDb = (ceilingDb ?? PEAK_LIMIT_DB - 0.7) - over - 0.3;
  }
  await copyFile(target, kept);
  // Written last: its presence says that the sound is whole.
  await writeFile(`${kept}.json`, JSON.stringify(measured));
  return measured;
}
