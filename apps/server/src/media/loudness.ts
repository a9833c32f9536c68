import { z } from 'zod';
import { GUARDED_INPUT } from './ffmpeg.ts';
import { run } from './run.ts';

/**
 * Integrated loudness (ITU-R BS.1770 as ffmpeg's ebur128 measures it) and true peak; null for
 * silence.
 */
export const loudnessSchema = z.object({
  integratedLufs: z.number().nullable(),
  truePeakDb: z.number().nullable(),
});
export type Loudness = z.infer<typeof loudnessSchema>;

/** Reads what the meter said. */
export function readLoudness(words: string): Loudness {
  const last = (pattern: RegExp) => {
    const value = Number([...words.matchAll(pattern)].at(-1)?.[1] ?? NaN);
    return Number.isFinite(value) ? value : null;
  };
  const integratedLufs = last(/I:\s+(-?[\d.]+) LUFS/g);
  const silent = integratedLufs === null || integratedLufs <= -69.9;
  return {
    integratedLufs: silent ? null : integratedLufs,
    truePeakDb: silent ? null : last(/Peak:\s+(-?[\d.]+|-?inf) dBFS/g),
  };
}

/** Says nothing but that it goes on, and what it measured. */
export const QUIET = ['-hide_banner', '-nostats', '-progress', 'pipe:1'] as const;
/**
 * Dithered to 16 bits: in digital silence the meter's filters run down to numbers so small that the
 * processor takes ten times as long for them. It is far under what the meter counts as silence.
 */
export const NEVER_STILL = 'aresample=osf=flt,aresample=osf=s16:dither_method=triangular';

/** Measures, and writes nothing. One channel is measured as it is heard, from both loudspeakers. */
const meter = (framelog: 'verbose' | 'info') =>
  [
    ...['-af', `${NEVER_STILL},ebur128=peak=true:dualmono=true:framelog=${framelog}`],
    ...['-f', 'null', '-'],
  ] as const;
export const METER = meter('verbose');

/** Measures a file's first sound track. */
export async function measureLoudness(file: string, signal?: AbortSignal): Promise<Loudness> {
  const { errors } = await run('ffmpeg', [...QUIET, '-i', file, '-map', '0:a:0', ...METER], {
    signal,
  });
  return readLoudness(errors);
}

/**
 * The greatest short-term loudness, over three seconds (EBU Tech 3341); null for silence or less
 * than that.
 */
function readShortTerm(words: string): number | null {
  const values = [...words.matchAll(/\sS:\s*(-?[\d.]+)/g)]
    .map((match) => Number(match[1]))
    .filter((value) => value > -69.9);
  return values.length > 0 ? values.reduce((most, value) => Math.max(most, value)) : null;
}

/** What the meter says moment by moment of hours of sound, in characters. */
const KEPT_WORDS = 4_000_000;

/** Measures a file from outside, its loudest moments too. */
export async function measureMoments(
  file: string,
  signal?: AbortSignal,
): Promise<Loudness & { shortTermLufs: number | null }> {
  const { errors } = await run(
    'ffmpeg',
    [...QUIET, ...GUARDED_INPUT, '-i', file, '-map', '0:a:0', ...meter('info')],
    { signal, keepErrors: KEPT_WORDS },
  );
  return { ...readLoudness(errors), shortTermLufs: readShortTerm(errors) };
}
