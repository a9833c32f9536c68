import { createReadStream } from 'node:fs';
import { copyFile, readFile, rename, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Writable } from 'node:stream';
import type { Finish } from '@zest/core/lesson';
import { OUTPUT_FPS } from '@zest/core/time';
import { ffmpeg, GUARDED_INPUT, RAW_SOUND, SAMPLE_RATE } from '../media/ffmpeg.ts';
import { run, write } from '../media/run.ts';
import { hashOf } from '../media/store.ts';
import { partOf } from '../media/unfinished.ts';
import {
  levelledVoice,
  levelsOf,
  MOST_GAIN_DB,
  spokenBlocks,
  windowsOf,
  type Levelled,
  type SpokenPlan,
} from './block-levels.ts';
import { LOW_DB, type Piece } from './pieces.ts';
import {
  accompanied,
  accompaniment,
  type Feed,
  type SoundPlan,
  type SoundTools,
} from './accompaniment.ts';
import {
  loudnessSchema,
  measureLoudness,
  METER,
  NEVER_STILL,
  QUIET,
  readLoudness,
  type Loudness,
} from '../media/loudness.ts';
import { seekTo } from './picture-graph.ts';

/** Samples of one frame; exact, so that sound and picture cannot drift apart. */
const SAMPLES_PER_FRAME = SAMPLE_RATE / OUTPUT_FPS;
/** Bytes of one frame of sound: one channel, 16 bits. */
const BYTES_PER_FRAME = SAMPLES_PER_FRAME * 2;

/** True peak of recorded lessons stays under this, in dBTP (EBU R 128). */
export const PEAK_LIMIT_DB = -1;
const CLOSE_ENOUGH_LU = 0.3;
/** Encoding lifts peaks a little; closer to the limit than this the limiter steps in. */
const PEAK_MARGIN_DB = 0.7;
/** Between samples a voice goes so much higher, rarely more. */
const BETWEEN_SAMPLES_DB = 0.5;
const ATTEMPTS = 4;

/** Raised when the filters change what is heard. */
const SOUND = 7;

/**
 * Filters that play faster or slower: the pitch is kept, but for the tiny differences of clocks,
 * which nobody hears.
 */
function atSpeed(speed: number): string[] {
  if (speed === 1) return [];
  if (Math.abs(speed - 1) < 0.01)
    return [`asetrate=${SAMPLE_RATE * speed}`, `aresample=${SAMPLE_RATE}`];
  // The filter goes down to one half; slower is done twice over.
  return speed < 0.5 ? [...atSpeed(0.5), ...atSpeed(speed / 0.5)] : [`atempo=${speed}`];
}

/**
 * The voice of all pieces as it was recorded, one after the other, cleaned: one file of raw
 * samples, kept.
 */
async function cleanedVoice(
  parts: readonly SoundPart[],
  clean: readonly string[],
  cacheDir: string,
  signal?: AbortSignal,
): Promise<string> {
  const file = path.join(cacheDir, `${hashOf([SOUND, parts, clean])}.voice.pcm`);
  if (await stat(file).catch(() => null)) return file;
  const part = partOf(file);
  await ffmpeg(
    [
      ...RAW_SOUND,
      '-i',
      'pipe:0',
      ...(clean.length > 0 ? ['-af', clean.join(',')] : []),
      '-f',
      's16le',
      part,
    ],
    { signal, feed: { stdin: soundOf(parts) } },
  );
  await rename(part, file);
  return file;
}

/** A piece in which something of a take is heard. */
type HeardPiece = Piece & { sound: NonNullable<Piece['sound']> };
const isHeard = (piece: Piece): piece is HeardPiece => piece.sound !== null;

const pieceFile = ({ sound, frames }: Piece, cacheDir: string) =>
  path.join(cacheDir, `${hashOf([SOUND, sound, frames])}.pcm`);

/** What brings a shot's sound to exactly the samples of its piece. */
function pieceFilters({ sound: { shot, low }, frames }: HeardPiece): string {
  const samples = frames * SAMPLES_PER_FRAME;
  return [
    `aresample=${SAMPLE_RATE}:async=1:first_pts=0`,
    `atrim=end_sample=${shot.available * SAMPLES_PER_FRAME}`,
    ...atSpeed(shot.speed),
    ...(low ? [`volume=${LOW_DB}dB`] : []),
    // One channel: a microphone on one side only, or a phone's one loudspeaker, lose nothing.
    'aformat=channel_layouts=stereo',
    'pan=mono|c0=0.5*c0+0.5*c1',
    `apad=whole_len=${samples}`,
    `atrim=end_sample=${samples}`,
  ].join(',');
}

/** So many pieces are cut by one program: starting it costs more than the cutting. */
const CUT_AT_ONCE = 8;

/** The raw sound of pieces in `cacheDir`, made where it is not there yet; null for silence. */
async function pieceSounds(
  pieces: readonly Piece[],
  { cacheDir, takePath, signal }: SoundTools,
): Promise<(string | null)[]> {
  const files = pieces.map((piece) => (isHeard(piece) ? pieceFile(piece, cacheDir) : null));
  const lacking = new Map<string, HeardPiece>();
  for (const [i, piece] of pieces.entries()) {
    const file = files[i];
    if (file && isHeard(piece) && !(await stat(file).catch(() => null))) lacking.set(file, piece);
  }
  const all = [...lacking].map(([file, piece]) => ({ file, part: partOf(file), piece }));
  for (let from = 0; from < all.length; from += CUT_AT_ONCE) {
    const batch = all.slice(from, from + CUT_AT_ONCE);
    const inputs: string[] = [];
    for (const { piece } of batch) {
      const { sha, inFrame } = piece.sound.shot;
      inputs.push(...seekTo(inFrame), ...GUARDED_INPUT, '-vn', '-i', await takePath(sha));
    }
    const outputs = batch.flatMap(({ part, piece }, i) => [
      ...['-map', `${i}:a:0`, '-af', pieceFilters(piece)],
      ...['-f', 's16le', part],
    ]);
    await ffmpeg([...inputs, ...outputs], { signal });
    for (const { file, part } of batch) await rename(part, file);
  }
  return files;
}
type SoundFinish = Finish['sound'];

interface SoundPart {
  file: string | null;
  bytes: number;
}

/**
 * Writes the sound of all pieces one after the other, silence where a piece has none, in exact
 * samples.
 */
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

/** Samples by which the noise filter is late, measured: 25 ms. */
const DENOISE_LATE = 1_200;

/**
 * How the voice is cleaned: rumble cut, a steady noise taken off as far as it does not hurt the
 * voice.
 */
function cleaning({ lowCut, noise }: Pick<SoundFinish, 'lowCut' | 'noise'>): string[] {
  // Decibels taken off a steady noise: the more, the more of the voice goes along.
  const taken = { 'left as it is': 0, gently: 6, strongly: 14 }[noise];
  // The filter hands everything on late; what it is late is cut off again.
  const onTime = [
    `apad=pad_len=${DENOISE_LATE}`,
    `afftdn=nr=${taken}:nf=-45:tn=1`,
    `atrim=start_sample=${DENOISE_LATE}`,
    `asetpts=N/${SAMPLE_RATE}/TB`,
  ];
  return [...(lowCut ? [NEVER_STILL, 'highpass=f=80'] : []), ...(taken > 0 ? onTime : [])];
}

/**
 * Gain, and a limiter where the peaks would come too high: what goes higher between samples has room
 * above its ceiling, and is measured after.
 */
function chain(
  clean: readonly string[],
  gainDb: number,
  ceilingDb: number | null,
  isAccompanied: boolean,
): string {
  const voice = [...clean, `volume=${gainDb.toFixed(2)}dB`].join(',');
  const gain = isAccompanied
    ? `[0:a]${voice}[voice];[voice][1:a]amix=inputs=2:duration=first:normalize=0`
    : voice;
  if (ceilingDb === null) return gain;
  const limit = (10 ** (ceilingDb / 20)).toFixed(4);
  return `${gain},alimiter=limit=${limit}:attack=5:release=60:level=0:latency=1`;
}

/** Gain that brings a measured sound to its target, and the ceiling its peaks then need. */
function levelling(measured: Loudness, lufs: number): { gainDb: number; ceilingDb: number | null } {
  const gainDb =
    measured.integratedLufs === null ? 0 : Math.min(MOST_GAIN_DB, lufs - measured.integratedLufs);
  const peakDb = (measured.truePeakDb ?? -Infinity) + gainDb;
  return { gainDb, ceilingDb: peakDb > PEAK_LIMIT_DB - PEAK_MARGIN_DB ? PEAK_LIMIT_DB - 1 : null };
}

const meterOf = (clean: readonly string[]) =>
  clean.length > 0 ? ['-af', [...clean, METER[1]].join(','), ...METER.slice(2)] : METER;

/**
 * At this many bits the quicker way of the encoder is the better one: of a synthetic voice it comes
 * 6 to 13 dB nearer, measured, in half the time.
 */
const AAC = ['-c:a', 'aac', '-aac_coder', 'fast', '-b:a', '112k'] as const;
const OPUS = ['-c:a', 'libopus', '-b:a', '80k'] as const;

/** What is encoded: the levelled voice, and what is heard beside it. */
interface Encoding {
  voice: Levelled;
  beside: Feed | null;
  lufs: number;
  format: 'mp4' | 'webm';
  target: string;
  signal?: AbortSignal | undefined;
}

function encodeOnce(
  { voice, beside, format, target, signal }: Encoding,
  gainDb: number,
  ceilingDb: number | null,
): Promise<string> {
  return ffmpeg(
    [
      ...RAW_SOUND,
      '-i',
      voice.file,
      ...(beside ? [...RAW_SOUND, '-i', 'pipe:3'] : []),
      beside ? '-filter_complex' : '-af',
      chain([], gainDb, ceilingDb, beside !== null),
      ...(format === 'webm' ? OPUS : AAC),
      '-f',
      format,
      target,
    ],
    { signal, feed: beside ? { pipes: [beside] } : {} },
  );
}

/** Encodes at the loudness asked for, once more where the encoder has moved it; as measured. */
async function encodeToLevel(encoding: Encoding): Promise<Loudness> {
  const { voice, beside, lufs, target, signal } = encoding;
  const { integratedLufs, samplePeakDb } = voice;
  const truePeakDb = samplePeakDb === null ? null : samplePeakDb + BETWEEN_SAMPLES_DB;
  let measured: Loudness = { integratedLufs, truePeakDb };
  let { gainDb, ceilingDb } = levelling(measured, lufs);
  for (let attempt = 0; attempt < ATTEMPTS; attempt += 1) {
    await encodeOnce(encoding, gainDb, ceilingDb);
    measured = await measureLoudness(target, signal);
    // Nobody speaks: there is nothing to bring to a level.
    if (measured.integratedLufs === null || integratedLufs === null) break;
    // Beside tones and music it is the voice that has its level, and that is known.
    const missingLu = beside ? 0 : lufs - measured.integratedLufs;
    const over = (measured.truePeakDb ?? -Infinity) - PEAK_LIMIT_DB;
    if ((Math.abs(missingLu) <= CLOSE_ENOUGH_LU || gainDb >= MOST_GAIN_DB) && over < 0) break;
    gainDb = Math.min(MOST_GAIN_DB, gainDb + missingLu);
    if (over >= 0) ceilingDb = (ceilingDb ?? PEAK_LIMIT_DB - 0.7) - over - 0.3;
  }
  return measured;
}

/**
 * Encodes the sound of all pieces as one track, AAC in MP4 or Opus in WebM, at the target loudness
 * with its true peak below the limit. It is known before how loud the raw sound is, so that one
 * encoding is enough as a rule; the encoded result is measured and corrected.
 */
export async function encodeSound(
  pieces: readonly Piece[],
  plan: SoundPlan & SpokenPlan,
  target: string,
  format: 'mp4' | 'webm',
  tools: SoundTools,
): Promise<Loudness> {
  const { cacheDir, signal } = tools;
  const { tones, spoken, sound: finish } = plan;
  const musicSha = finish.music && tools.shaOf(finish.music.takeId);
  // What nobody changed is not levelled again.
  const name = hashOf([
    SOUND,
    pieces.map(({ sound, frames }) => [sound, frames]),
    tones,
    spoken,
    finish,
    musicSha,
    format,
    spokenBlocks(plan),
  ]);
  const kept = path.join(cacheDir, `${name}.${format === 'webm' ? 'opus' : 'aac'}`);
  const known = await readFile(`${kept}.json`, 'utf8').catch(() => null);
  const isThere =
    known !== null &&
    (await copyFile(kept, target).then(
      () => true,
      () => false,
    ));
  if (isThere) return loudnessSchema.parse(JSON.parse(known));
  const files = await pieceSounds(pieces, tools);
  const parts = pieces.map(({ frames }, i): SoundPart => ({
    file: files[i] ?? null,
    bytes: frames * BYTES_PER_FRAME,
  }));
  const totalFrames = pieces.reduce((sum, { frames }) => sum + frames, 0);
  // Cleaned once; whatever the level, it is the same.
  const cleaned = await cleanedVoice(parts, cleaning(finish), cacheDir, signal);
  const windows = await windowsOf(cleaned, signal);
  const levels = levelsOf(pieces, plan, windows);
  const voice = await levelledVoice(cleaned, levels, windows, cacheDir, signal);
  const beside = accompanied(plan)
    ? await accompaniment(plan, totalFrames * SAMPLES_PER_FRAME, voice.file, tools)
    : null;
  const measured = await encodeToLevel({
    voice,
    beside,
    lufs: finish.lufs,
    format,
    target,
    signal,
  });
  await copyFile(target, kept);
  // Written last: its presence says that the sound is whole.
  await writeFile(`${kept}.json`, JSON.stringify(measured));
  return measured;
}

/**
 * A take's sound as it comes to be heard, cleaned and levelled, as a file that is made once. For
 * hearing the difference before an export.
 */
export async function finishedTake(
  sha: string,
  { lufs, lowCut, noise }: Pick<SoundFinish, 'lufs' | 'lowCut' | 'noise'>,
  tools: Pick<SoundTools, 'cacheDir' | 'takePath' | 'signal'>,
): Promise<string> {
  const file = path.join(
    tools.cacheDir,
    `${hashOf([SOUND, sha, lufs, lowCut, noise])}.finished.m4a`,
  );
  if (await stat(file).catch(() => null)) return file;
  const source = await tools.takePath(sha);
  const clean = cleaning({ lowCut, noise });
  const raw = readLoudness(
    (
      await run(
        'ffmpeg',
        [...QUIET, ...GUARDED_INPUT, '-i', source, '-map', '0:a:0', ...meterOf(clean)],
        { signal: tools.signal },
      )
    ).errors,
  );
  const { gainDb, ceilingDb } = levelling(raw, lufs);
  const part = partOf(file);
  await ffmpeg(
    [
      ...GUARDED_INPUT,
      '-i',
      source,
      '-map',
      '0:a:0',
      '-af',
      chain(clean, gainDb, ceilingDb, false),
      '-c:a',
      'aac',
      '-b:a',
      '160k',
      '-movflags',
      '+faststart',
      '-f',
      'mp4',
      part,
    ],
    { signal: tools.signal },
  );
  await rename(part, file);
  return file;
}
