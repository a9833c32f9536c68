import FFT from 'fft.js';
import { quantile, runsOf } from './numbers.ts';
import { soundHint } from './watch.ts';

/** One look at the sound each. */
export const SOUND_STEP_MS = 100;
const SIZE = 2_048;

/** What is kept of a tenth of a second of sound; levels in dB under full scale. */
export interface SoundFrame {
  level: number;
  /** Greatest sample, 0 to 1. */
  peak: number;
  /** Below 150 Hz, and from 300 to 3,000 Hz. */
  rumble: number;
  voice: number;
  /** The one pitch that makes up nearly all of it, in Hz; 0 when there is none. */
  tone: number;
  /**
   * Part of its power in its five strongest lines: near 1 for tones and held notes, small for
   * noise.
   */
  tonal: number;
}

const SILENT_DB = -100;
const decibels = (power: number) =>
  power > 1e-10 ? Math.round(100 * Math.log10(power)) / 10 : SILENT_DB;
/** A tone has this part of the power in the lines about one. */
const TONE = 0.85;

/** Measures a sound. @param samples -1 to 1 @param rate samples a second */
export function soundFrames(samples: Float32Array, rate: number): SoundFrame[] {
  const fft = new FFT(SIZE);
  const window = Float64Array.from(
    { length: SIZE },
    (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / SIZE),
  );
  const wave = new Array<number>(SIZE).fill(0);
  const spectrum = fft.createComplexArray() as number[];
  const hop = Math.round((SOUND_STEP_MS * rate) / 1_000);
  const line = (hz: number) => Math.round((hz * SIZE) / rate);
  const powers = new Float64Array(SIZE / 2);
  return Array.from({ length: Math.floor(samples.length / hop) }, (_, frame): SoundFrame => {
    let [sum, peak] = [0, 0];
    for (let i = frame * hop; i < (frame + 1) * hop; i += 1) {
      const value = samples[i] as number;
      sum += value * value;
      peak = Math.max(peak, Math.abs(value));
    }
    for (let i = 0; i < SIZE; i += 1)
      wave[i] = (samples[frame * hop + i] ?? 0) * (window[i] as number);
    fft.realTransform(spectrum, wave);
    for (let i = 0; i < powers.length; i += 1)
      powers[i] = (spectrum[2 * i] as number) ** 2 + (spectrum[2 * i + 1] as number) ** 2;
    // A window of this shape lets 3/8 of the power through; both halves of the spectrum count.
    const inBand = (from: number, to: number) =>
      powers.subarray(line(from), line(to)).reduce((all, power) => all + power, 0) /
      (SIZE * SIZE * 0.1875);
    const total = inBand(20, rate / 2);
    const top = powers.reduce((best, power, i) => (power > (powers[best] as number) ? i : best), 0);
    const about =
      powers.subarray(Math.max(0, top - 2), top + 3).reduce((all, power) => all + power, 0) /
      (SIZE * SIZE * 0.1875);
    const strongest =
      Float64Array.from(powers)
        .sort()
        .subarray(-12)
        .reduce((all, power) => all + power, 0) /
      (SIZE * SIZE * 0.1875);
    return {
      level: decibels(sum / hop),
      peak: Math.round(peak * 1_000) / 1_000,
      rumble: decibels(inBand(20, 150)),
      voice: decibels(inBand(300, 3_000)),
      tone: total > 1e-8 && about > TONE * total ? Math.round((top * rate) / SIZE) : 0,
      tonal: total > 0 ? Math.round(Math.min(1, strongest / total) * 100) / 100 : 0,
    };
  });
}

export const soundFaults = ['wind', 'overloaded', 'silence'] as const;
export type SoundFault = (typeof soundFaults)[number];

/** The sound of a take in figures. */
export interface SoundFigures {
  /**
   * Level of speech and of what is heard between it, in dB under full scale; null without speech or
   * without pauses.
   */
  speechDb: number | null;
  betweenDb: number | null;
  /** What is between is music: mostly held notes. */
  isMusic: boolean;
  faults: { fault: SoundFault; startMs: number; endMs: number }[];
  tones: { startMs: number; endMs: number; hz: number }[];
}

const LEAST_MS: Record<SoundFault, number> = { wind: 600, overloaded: 100, silence: 2_000 };
const SILENCE_DB = -62;
/** Between speech, this many frames tell what it is like there. */
const BETWEEN_FRAMES = 5;
/** Softer than this nobody hears music. */
const HEARD_DB = -58;
const MUSIC = 0.75;
const TONE_MS = { from: 80, to: 1_500 } as const;

/** @param speech 1 for each frame in which somebody speaks */
export function soundFigures(frames: readonly SoundFrame[], speech: Uint8Array): SoundFigures {
  const power = (list: readonly SoundFrame[]) =>
    decibels(list.reduce((sum, { level }) => sum + 10 ** (level / 10), 0) / list.length);
  const spoken = frames.filter((_, i) => speech[i] === 1);
  // Right beside a word its echo is still heard.
  const between = frames.filter(
    (_, i) => speech[i] !== 1 && speech[i - 1] !== 1 && speech[i + 1] !== 1,
  );
  const betweenDb =
    between.length >= BETWEEN_FRAMES
      ? quantile(
          between.map(({ level }) => level),
          0.5,
        )
      : null;
  const tests: Record<SoundFault, (frame: SoundFrame) => boolean> = {
    wind: ({ level, peak, rumble, voice }) =>
      soundHint({
        loudestDb: level,
        peak: Math.min(peak, 0.9),
        rumbleDb: rumble,
        voiceDb: voice,
      }) === 'wind',
    overloaded: ({ peak }) => peak >= 0.985,
    silence: ({ level }) => level < SILENCE_DB,
  };
  const stretches = (test: (frame: SoundFrame, i: number) => boolean) =>
    runsOf(frames.length, (i) => test(frames[i] as SoundFrame, i)).map(({ from, to }) => ({
      startMs: from * SOUND_STEP_MS,
      endMs: to * SOUND_STEP_MS,
    }));
  const tones = stretches(({ tone, level }) => tone > 0 && level > HEARD_DB)
    .filter(
      ({ startMs, endMs }) => endMs - startMs >= TONE_MS.from && endMs - startMs <= TONE_MS.to,
    )
    .map((stretch) => ({ ...stretch, hz: frames[stretch.startMs / SOUND_STEP_MS]?.tone ?? 0 }));
  return {
    speechDb: spoken.length > 0 ? power(spoken) : null,
    betweenDb,
    isMusic:
      betweenDb !== null &&
      betweenDb > HEARD_DB &&
      quantile(
        between.map(({ tonal }) => tonal),
        0.5,
      ) > MUSIC,
    faults: soundFaults
      .flatMap((fault) =>
        stretches(tests[fault])
          .filter(({ startMs, endMs }) => endMs - startMs >= LEAST_MS[fault])
          .map((stretch) => ({ fault, ...stretch })),
      )
      .sort((a, b) => a.startMs - b.startMs),
    tones,
  };
}
