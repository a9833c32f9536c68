import FFT from 'fft.js';
import { quantile, runsOf } from './numbers.ts';

/** One look at the sound each. */
export const SPEECH_STEP_MS = 20;
const WINDOW_MS = 30;
const BANDS = 26;
const BAND_HZ = { from: 80, to: 7_600 } as const;
const CEPSTRA = 13;
/** Numbers that describe one frame: the shape of the sound and how it changes. */
export const FEATURES = CEPSTRA * 2;
/** Quieter than this is digital silence. */
const FLOOR_POWER = 1e-9;

/** Power of a sound in bands as wide as the ear's, frame by frame. */
export interface BandSound {
  frames: number;
  /** `frames` times 26 powers. */
  powers: Float32Array;
}

const mel = (hz: number) => 2_595 * Math.log10(1 + hz / 700);
const hertz = (m: number) => 700 * (10 ** (m / 2_595) - 1);
const [LOW_MEL, HIGH_MEL] = [mel(BAND_HZ.from), mel(BAND_HZ.to)];

/**
 * For each band, the weights of the spectrum's lines, triangles on the mel scale (O'Shaughnessy's
 * formula).
 */
function triangles(rate: number, size: number): { from: number; weights: number[] }[] {
  const [low, high] = [mel(BAND_HZ.from), mel(Math.min(BAND_HZ.to, rate / 2))];
  const lineOf = (i: number) => (hertz(low + ((high - low) * i) / (BANDS + 1)) * size) / rate;
  return Array.from({ length: BANDS }, (_, b) => {
    const [start, top, end] = [lineOf(b), lineOf(b + 1), lineOf(b + 2)];
    const from = Math.max(1, Math.ceil(start));
    const weights = Array.from({ length: Math.max(1, Math.floor(end) - from + 1) }, (__, i) =>
      Math.max(0, Math.min((from + i - start) / (top - start), (end - from - i) / (end - top))),
    );
    return { from, weights };
  });
}

/**
 * Band powers, a frame every 20 ms over 30 ms of sound.
 * @param samples -1 to 1
 * @param rate samples a second
 */
export function bandSound(samples: Float32Array, rate: number): BandSound {
  const [window, hop] = [Math.round((WINDOW_MS * rate) / 1_000), (SPEECH_STEP_MS * rate) / 1_000];
  const size = 2 ** Math.ceil(Math.log2(window));
  const frames = Math.max(0, Math.floor((samples.length - window) / hop) + 1);
  const fft = new FFT(size);
  const shape = Float64Array.from(
    { length: window },
    (_, i) => 0.54 - 0.46 * Math.cos((2 * Math.PI * i) / (window - 1)),
  );
  const filters = triangles(rate, size);
  const wave: number[] = new Array<number>(size).fill(0);
  const spectrum = fft.createComplexArray() as number[];
  const powers = new Float32Array(frames * BANDS);
  for (let frame = 0; frame < frames; frame += 1) {
    const from = Math.round(frame * hop);
    for (let i = 0; i < window; i += 1)
      wave[i] = (samples[from + i] as number) * (shape[i] as number);
    fft.realTransform(spectrum, wave);
    for (const [b, { from: line, weights }] of filters.entries()) {
      let power = 0;
      for (let i = 0; i < weights.length; i += 1) {
        const [re, im] = [
          spectrum[2 * (line + i)] as number,
          spectrum[2 * (line + i) + 1] as number,
        ];
        power += (weights[i] as number) * (re * re + im * im);
      }
      powers[frame * BANDS + b] = power / size;
    }
  }
  return { frames, powers };
}

/** Where the middle of a band lies on the mel scale. */
const middleOf = (b: number) => LOW_MEL + ((HIGH_MEL - LOW_MEL) * (b + 1)) / (BANDS + 1);

/**
 * The sound as from a longer or shorter vocal tract: what lies at `by` times a frequency comes to
 * lie at it (vocal tract length normalisation, Lee and Rose 1996, from memory).
 */
export function fromOtherTract({ frames, powers }: BandSound, by: number): BandSound {
  const from = Array.from({ length: BANDS }, (_, b) => {
    const at = (mel(hertz(middleOf(b)) * by) - LOW_MEL) / (HIGH_MEL - LOW_MEL);
    return Math.min(BANDS - 1, Math.max(0, at * (BANDS + 1) - 1));
  });
  const out = new Float32Array(powers.length);
  for (let frame = 0; frame < frames; frame += 1)
    for (const [b, at] of from.entries()) {
      const low = frame * BANDS + Math.min(BANDS - 2, Math.floor(at));
      const [p, q] = [powers[low] as number, powers[low + 1] as number];
      out[frame * BANDS + b] = p + (q - p) * (at - Math.min(BANDS - 2, Math.floor(at)));
    }
  return { frames, powers: out };
}

/** The quiet of each band: what nine frames in ten are louder than. */
export function noiseFloor({ frames, powers }: BandSound): Float32Array {
  return Float32Array.from({ length: BANDS }, (_, b) =>
    quantile(
      Array.from({ length: frames }, (__, frame) => powers[frame * BANDS + b] as number),
      0.1,
    ),
  );
}

const decibels = (power: number) => 10 * Math.log10(power + FLOOR_POWER);

/**
 * Speech stands out of the quiet by this much in its best bands, and is at most so far under the
 * loudest.
 */
const OVER_DB = 7;
const UNDER_PEAK_DB = 31;
const BEST_BANDS = 7;
/**
 * A beep has nearly all of its power in two bands for this long, the louder one between these: below
 * lies the pitch of voices, above is hiss, and some voices have such a stretch in every second.
 */
const TONE_PART = 0.93;
const TONE_MS = 80;
const TONE_HZ = { from: 350, to: 6_500 } as const;
const MAY_BE_TONE = Array.from({ length: BANDS }, (_, b) => {
  const hz = hertz(middleOf(b));
  return hz >= TONE_HZ.from && hz <= TONE_HZ.to;
});
const SHORTEST_MS = 160;
const GAP_MS = 120;

/** 1 for each frame in which somebody speaks; beeps and knocks are not speech. */
export function speechFrames(sound: BandSound, floor: Float32Array): Uint8Array {
  const { frames, powers } = sound;
  const level = new Float32Array(frames);
  const isTone = new Uint8Array(frames);
  const over = new Float32Array(BANDS);
  const energies = new Float32Array(BANDS);
  for (let frame = 0; frame < frames; frame += 1) {
    let [total, loudest] = [0, 0];
    for (let b = 0; b < BANDS; b += 1) {
      const power = powers[frame * BANDS + b] as number;
      if (power > (powers[frame * BANDS + loudest] as number)) loudest = b;
      energies[b] = power;
      over[b] = decibels(power) - decibels(floor[b] as number);
      total += power;
    }
    over.sort();
    energies.sort();
    level[frame] =
      over.subarray(BANDS - BEST_BANDS).reduce((sum, value) => sum + value, 0) / BEST_BANDS;
    const ofTwo = (energies[BANDS - 1] as number) + (energies[BANDS - 2] as number);
    isTone[frame] = MAY_BE_TONE[loudest] && ofTwo / (total + FLOOR_POWER) > TONE_PART ? 1 : 0;
  }
  const least = Math.max(OVER_DB, quantile(level, 0.98) - UNDER_PEAK_DB);
  const speech = Uint8Array.from(level, (value) => (value > least ? 1 : 0));
  for (const { from, to } of runsOf(frames, (i) => isTone[i] === 1))
    if ((to - from) * SPEECH_STEP_MS >= TONE_MS) speech.fill(0, from, to);
  for (const { from, to } of runsOf(frames, (i) => speech[i] === 0))
    if (
      from > 0 &&
      to < frames &&
      (to - from) * SPEECH_STEP_MS <= GAP_MS &&
      !isTone.subarray(from, to).includes(1)
    )
      speech.fill(1, from, to);
  for (const { from, to } of runsOf(frames, (i) => speech[i] === 1))
    if ((to - from) * SPEECH_STEP_MS < SHORTEST_MS) speech.fill(0, from, to);
  return speech;
}

const COSINES = Float64Array.from({ length: CEPSTRA * BANDS }, (_, i) =>
  Math.cos((Math.PI * Math.floor(i / BANDS) * ((i % BANDS) + 0.5)) / BANDS),
);

/**
 * Sound as the shape of its spectrum and its change, 26 numbers a frame, each with mean 0 and spread
 * 1 over the frames in which somebody speaks.
 */
export function mfccOf({ frames, powers }: BandSound, speech: Uint8Array): Float32Array {
  const plain = new Float32Array(frames * CEPSTRA);
  const logs = new Float64Array(BANDS);
  for (let frame = 0; frame < frames; frame += 1) {
    for (let b = 0; b < BANDS; b += 1)
      logs[b] = Math.log((powers[frame * BANDS + b] as number) + FLOOR_POWER);
    for (let c = 0; c < CEPSTRA; c += 1) {
      let sum = 0;
      for (let b = 0; b < BANDS; b += 1)
        sum += (COSINES[c * BANDS + b] as number) * (logs[b] as number);
      plain[frame * CEPSTRA + c] = sum;
    }
  }
  const features = new Float32Array(frames * FEATURES);
  const at = (frame: number, c: number) =>
    plain[Math.min(frames - 1, Math.max(0, frame)) * CEPSTRA + c] as number;
  for (let frame = 0; frame < frames; frame += 1) {
    for (let c = 0; c < CEPSTRA; c += 1) {
      features[frame * FEATURES + c] = at(frame, c);
      features[frame * FEATURES + CEPSTRA + c] =
        (at(frame + 1, c) - at(frame - 1, c) + 2 * (at(frame + 2, c) - at(frame - 2, c))) / 10;
    }
  }
  return normal(features, speech);
}

/** Each number's mean over speech is 0 and its spread 1. */
function normal(features: Float32Array, speech: Uint8Array): Float32Array {
  const frames = speech.length;
  const used = speech.includes(1) ? speech : new Uint8Array(frames).fill(1);
  for (let f = 0; f < FEATURES; f += 1) {
    let [sum, squares, count] = [0, 0, 0];
    for (let frame = 0; frame < frames; frame += 1) {
      if (used[frame] === 0) continue;
      const value = features[frame * FEATURES + f] as number;
      sum += value;
      squares += value * value;
      count += 1;
    }
    const mean = sum / Math.max(1, count);
    const spread = Math.sqrt(Math.max(1e-9, squares / Math.max(1, count) - mean * mean));
    for (let frame = 0; frame < frames; frame += 1)
      features[frame * FEATURES + f] = ((features[frame * FEATURES + f] as number) - mean) / spread;
  }
  return features;
}

/**
 * The reference as loud as speech is in the recording, with the recording's quiet laid under it.
 * @param gain its power against the recording's
 */
export function inRoom(
  { frames, powers }: BandSound,
  floor: Float32Array,
  gain: number,
): BandSound {
  return { frames, powers: powers.map((power, i) => power * gain + (floor[i % BANDS] as number)) };
}

/** Mean power of a sound while somebody speaks. */
export function speechPower({ powers }: BandSound, speech: Uint8Array): number {
  let [sum, count] = [0, 0];
  for (let i = 0; i < powers.length; i += 1) {
    if (speech[Math.floor(i / BANDS)] === 0) continue;
    sum += powers[i] as number;
    count += 1;
  }
  return count > 0 ? sum / count : 0;
}
