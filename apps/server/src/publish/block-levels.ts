import { readFile, rename, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Assembly } from '@zest/core/assembly';
import { firstFrameFrom, OUTPUT_FPS, overlaps } from '@zest/core/time';
import { z } from 'zod';
import { RAW_SOUND, SAMPLE_RATE } from '../media/ffmpeg.ts';
import { NEVER_STILL, QUIET } from '../media/loudness.ts';
import { run } from '../media/run.ts';
import { hashOf } from '../media/store.ts';
import { partOf } from '../media/unfinished.ts';
import { LOW_DB, type Piece } from './pieces.ts';

/** What levels go by: when somebody speaks in which block. */
export type SpokenPlan = Pick<Assembly, 'blocks' | 'captions'>;

/** A stretch of the voice, in frames, and what it is made louder by. */
export interface Level {
  from: number;
  to: number;
  gainDb: number;
}

/**
 * Voices are brought to this loudness before all else, in LUFS: low enough that no peak is cut off.
 */
const COMMON_LUFS = -26;
/** More gain than this only lifts the noise of a near-silent recording. */
export const MOST_GAIN_DB = 30;
/** A meter's window, and its step (ITU-R BS.1770-4: 400 ms, overlapping by three quarters). */
const STEP_S = 0.1;
const STEPS = 4;
const SILENT_LUFS = -70;
const GATE_LU = 10;
/** Less speech than this has no loudness of its own. */
const LEAST_WINDOWS = 10;

const powerOf = (lufs: number) => 10 ** ((lufs + 0.691) / 10);
const lufsOf = (power: number) => 10 * Math.log10(power) - 0.691;
const mean = (values: readonly number[]) =>
  values.reduce((sum, value) => sum + value, 0) / values.length;

/** Loudness of each window of 400 ms, every 100 ms, as the meter takes it. */
export async function windowsOf(voice: string, signal?: AbortSignal): Promise<number[]> {
  const { output } = await run(
    'ffmpeg',
    [
      '-v',
      'error',
      ...RAW_SOUND,
      '-i',
      voice,
      '-af',
      `${NEVER_STILL},ebur128=metadata=1:dualmono=true,ametadata=mode=print:key=lavfi.r128.M:file=-`,
      '-f',
      'null',
      '-',
    ],
    { signal },
  );
  return [...output.toString('latin1').matchAll(/lavfi\.r128\.M=(\S+)/g)].map(([, value]) =>
    Number(value),
  );
}

/**
 * Integrated loudness of windows (ITU-R BS.1770-4: without silence, then without what lies 10 LU
 * under the rest); null where fewer than `least` are heard.
 */
export function integrated(
  windows: readonly number[],
  least: number = LEAST_WINDOWS,
): number | null {
  const heard = windows.filter((lufs) => lufs > SILENT_LUFS).map(powerOf);
  if (heard.length === 0) return null;
  const gate = lufsOf(mean(heard)) - GATE_LU;
  const kept = heard.filter((power) => lufsOf(power) > gate);
  return kept.length < least ? null : lufsOf(mean(kept));
}

/** The blocks of a cut in frames, and whether somebody speaks in them. */
export const spokenBlocks = ({ blocks, captions }: SpokenPlan) =>
  blocks.map(({ blockId, startMs, endMs }) => ({
    blockId,
    from: firstFrameFrom(startMs),
    to: firstFrameFrom(endMs),
    speaks: captions.some((caption) => overlaps(caption, { startMs, endMs })),
  }));

interface Group {
  sha: string;
  speaks: boolean;
  stretches: { from: number; to: number; low: boolean }[];
  loudness: number | null;
}

/** Sound of one take in one block is one group. */
function groupsOf(pieces: readonly Piece[], plan: SpokenPlan): Group[] {
  const blocks = spokenBlocks(plan);
  const groups = new Map<string, Group>();
  for (const { sound, startFrame: from, frames } of pieces) {
    if (!sound) continue;
    const block = blocks.find((one) => one.from <= from && from < one.to);
    const key = `${sound.shot.sha} ${block?.blockId ?? ''}`;
    const group = groups.get(key) ?? {
      sha: sound.shot.sha,
      speaks: block?.speaks ?? false,
      stretches: [],
      loudness: null,
    };
    group.stretches.push({ from, to: from + frames, low: sound.low });
    groups.set(key, group);
  }
  return [...groups.values()];
}

function ownWindows({ stretches }: Group, windows: readonly number[]): number[] {
  return stretches.flatMap(({ from, to, low }) => {
    const first = Math.ceil(from / OUTPUT_FPS / STEP_S) + STEPS - 1;
    const end = Math.floor(to / OUTPUT_FPS / STEP_S);
    // What is to be heard softer is as loud as the rest before.
    return windows.slice(first, end).map((lufs) => lufs - (low ? LOW_DB : 0));
  });
}

/**
 * What the sound of each take in each block is made louder by, so that all blocks in which somebody
 * speaks are equally loud. Where nobody does, it goes along with what is said in the same take, or
 * in the others: a room's hum is no voice.
 */
export function levelsOf(
  pieces: readonly Piece[],
  plan: SpokenPlan,
  windows: readonly number[],
): Level[] {
  const groups = groupsOf(pieces, plan).map((group) => ({
    ...group,
    loudness: integrated(ownWindows(group, windows)),
  }));
  const gainFor = (loudness: number) => Math.min(MOST_GAIN_DB, COMMON_LUFS - loudness);
  const spoken = groups.flatMap(({ speaks, sha, loudness }) =>
    speaks && loudness !== null ? [{ sha, gainDb: gainFor(loudness) }] : [],
  );
  const all = integrated(windows);
  const gainOf = ({ sha, speaks, loudness }: Group): number => {
    if (speaks && loudness !== null) return gainFor(loudness);
    const ofTake = spoken.filter((one) => one.sha === sha);
    const near = ofTake.length > 0 ? ofTake : spoken;
    return near.length > 0
      ? mean(near.map(({ gainDb }) => gainDb))
      : all === null
        ? 0
        : gainFor(all);
  };
  return groups
    .flatMap((group) =>
      group.stretches.map(({ from, to }) => ({
        from,
        to,
        gainDb: Math.round(gainOf(group) * 100) / 100,
      })),
    )
    .sort((a, b) => a.from - b.from);
}

/** How loud windows are with their levels; silent where nothing is played. */
const levelled = (windows: readonly number[], levels: readonly Level[]): number[] =>
  windows.map((lufs, i) => {
    const middle = (i + 1 - STEPS / 2) * STEP_S * OUTPUT_FPS;
    const level = levels.find(({ from, to }) => from <= middle && middle < to);
    return level ? lufs + level.gainDb : -Infinity;
  });

/** The voice with its levels, as raw samples, and how loud it is with them. */
export interface Levelled {
  file: string;
  integratedLufs: number | null;
  /** Highest sample, in dBFS; null for silence. */
  samplePeakDb: number | null;
}

const peakSchema = z.object({ samplePeakDb: z.number().nullable() });

/**
 * Gives the voice its levels, in the cache.
 * @param windows how loud the voice is without them, as `windowsOf` gives it
 */
export async function levelledVoice(
  voice: string,
  levels: readonly Level[],
  windows: readonly number[],
  cacheDir: string,
  signal?: AbortSignal,
): Promise<Levelled> {
  const file = path.join(cacheDir, `${hashOf([voice, levels])}.level.pcm`);
  const integratedLufs = integrated(levelled(windows, levels), 1);
  const known = await readFile(`${file}.json`, 'utf8').catch(() => null);
  if (known !== null && (await stat(file).catch(() => null)))
    return { file, integratedLufs, ...peakSchema.parse(JSON.parse(known)) };
  const part = partOf(file);
  // In parts of one frame, so that each has its own gain to the sample.
  const factor = levels
    .map(
      ({ from, to, gainDb }) => `between(n,${from},${to - 1})*${(10 ** (gainDb / 20)).toFixed(5)}`,
    )
    .join('+');
  const { errors } = await run(
    'ffmpeg',
    [
      ...QUIET,
      '-y',
      ...RAW_SOUND,
      '-i',
      voice,
      '-af',
      `asetnsamples=n=${SAMPLE_RATE / OUTPUT_FPS}:p=0,` +
        `volume=precision=float:eval=frame:volume='${factor || '1'}',` +
        'astats=measure_perchannel=none:measure_overall=Peak_level',
      '-f',
      's16le',
      part,
    ],
    { signal },
  );
  await rename(part, file);
  const peakDb = Number(/Peak level dB: (-?[\d.]+)/.exec(errors)?.[1] ?? NaN);
  const samplePeakDb = Number.isFinite(peakDb) ? peakDb : null;
  await writeFile(`${file}.json`, JSON.stringify({ samplePeakDb }));
  return { file, integratedLufs, samplePeakDb };
}
