import FFT from 'fft.js';
import {
  LONGEST_GAP_MS,
  numberOfGap,
  sweep,
  SWEEP_BAND_HZ,
  sweepLength,
  type MarkKind,
} from './sync-mark.ts';

/** Sound is looked through at this rate, mono. */
export const MARK_RATE_HZ = 16_000;
const SIZE = 16_384;
/**
 * How like a sweep the sound has to be, 0 to 1: noise reaches 0.2 once in hours, a sweep under
 * equal noise in a room 0.4.
 */
const LIKE_ENOUGH = 0.27;
/** A second peak nearer than this is an echo. */
const ECHO_MS = 80;
/**
 * An earlier pair counts as the true one, and the later as its echo, when it is at least this
 * strong beside it.
 */
const ECHO_PART = 0.5;

/** A mark found in a recording. */
export interface FoundMark {
  kind: MarkKind;
  number: number;
  /** Start of its first sweep from the start of the recording, in milliseconds. */
  atMs: number;
  /** How like a mark it is, 0 to 1. */
  score: number;
}

interface Peak {
  sample: number;
  score: number;
}

/** Sound around the sweep, block by block: the matched filter's answer, and what is in its band. */
class MatchedFilter {
  readonly #fft = new FFT(SIZE);
  readonly #template = this.#fft.createComplexArray() as number[];
  readonly #wave = this.#fft.createComplexArray() as number[];
  readonly #spectrum = this.#fft.createComplexArray() as number[];
  readonly #product = this.#fft.createComplexArray() as number[];
  readonly #low = Math.round((SWEEP_BAND_HZ.low / MARK_RATE_HZ) * SIZE);
  readonly #high = Math.round((SWEEP_BAND_HZ.high / MARK_RATE_HZ) * SIZE);
  /** Both as complex numbers, one a sample of the block. */
  readonly matched = this.#fft.createComplexArray() as number[];
  readonly inBand = this.#fft.createComplexArray() as number[];

  constructor(kind: MarkKind) {
    const { inPhase, quarter } = sweep(kind, MARK_RATE_HZ);
    const norm = Math.sqrt(inPhase.reduce((sum, v) => sum + v * v, 0));
    for (let i = 0; i < SIZE; i += 1) {
      this.#wave[2 * i] = (inPhase[i] ?? 0) / norm;
      this.#wave[2 * i + 1] = (quarter[i] ?? 0) / norm;
    }
    this.#fft.transform(this.#template, this.#wave);
  }

  /** Filters the block that begins at a sample; what lies beyond the sound is silent. */
  filter(sound: Float32Array, start: number): void {
    const [wave, spectrum, template] = [this.#wave, this.#spectrum, this.#template];
    for (let i = 0; i < SIZE; i += 1) {
      wave[2 * i] = sound[start + i] ?? 0;
      wave[2 * i + 1] = 0;
    }
    this.#fft.transform(spectrum, wave);
    for (let i = 0; i < SIZE; i += 1) {
      const [re, im] = [spectrum[2 * i] as number, spectrum[2 * i + 1] as number];
      const [tr, ti] = [template[2 * i] as number, template[2 * i + 1] as number];
      this.#product[2 * i] = re * tr + im * ti;
      this.#product[2 * i + 1] = im * tr - re * ti;
      const bin = Math.min(i, SIZE - i);
      if (bin < this.#low || bin > this.#high) spectrum[2 * i] = spectrum[2 * i + 1] = 0;
    }
    this.#fft.inverseTransform(this.matched, this.#product);
    this.#fft.inverseTransform(this.inBand, spectrum);
  }
}

/**
 * Likeness to the sweep at every sample, by matched filter (Turin 1960) over the energy in its
 * band. Blocks overlap by one sweep.
 */
function peaksOf(sound: Float32Array, kind: MarkKind): Peak[] {
  const length = sweepLength(MARK_RATE_HZ);
  const hop = SIZE - length;
  const apart = Math.round((ECHO_MS / 4000) * MARK_RATE_HZ);
  const filter = new MatchedFilter(kind);
  const { matched, inBand } = filter;
  const at = (list: readonly number[], i: number) => list[i] as number;
  const peaks: Peak[] = [];
  for (let start = 0; start < sound.length; start += hop) {
    filter.filter(sound, start);
    let energy = 0;
    for (let i = 0; i < length; i += 1) energy += at(inBand, 2 * i) ** 2;
    let best: Peak | null = null;
    for (let i = 0; i < hop; i += 1) {
      const answer = Math.hypot(at(matched, 2 * i), at(matched, 2 * i + 1));
      const like = energy > 1e-9 ? answer / Math.sqrt(energy) : 0;
      if (like > LIKE_ENOUGH) {
        if (best && i + start - best.sample > apart) {
          peaks.push(best);
          best = null;
        }
        if (!best || like > best.score) best = { sample: start + i, score: Math.min(1, like) };
      }
      energy += at(inBand, 2 * (i + length)) ** 2 - at(inBand, 2 * i) ** 2;
    }
    if (best) peaks.push(best);
  }
  return peaks;
}

function pairsOf(peaks: readonly Peak[], kind: MarkKind): FoundMark[] {
  const longest = ((LONGEST_GAP_MS + 5) / 1000) * MARK_RATE_HZ;
  const pairs: FoundMark[] = [];
  peaks.forEach((first, i) => {
    for (let j = i + 1; j < peaks.length; j += 1) {
      const second = peaks[j];
      if (!second || second.sample - first.sample > longest) break;
      const number = numberOfGap(((second.sample - first.sample) / MARK_RATE_HZ) * 1000);
      if (number !== null)
        pairs.push({
          kind,
          number,
          atMs: (first.sample / MARK_RATE_HZ) * 1000,
          score: Math.min(first.score, second.score),
        });
    }
  });
  return pairs;
}

/**
 * The marks among pairs: the strongest where pairs cross, and of a pair and its echo the earlier.
 */
function chosen(pairs: readonly FoundMark[]): FoundMark[] {
  const marks: FoundMark[] = [];
  for (const pair of [...pairs].sort((a, b) => b.score - a.score)) {
    if (marks.some(({ atMs }) => Math.abs(atMs - pair.atMs) < LONGEST_GAP_MS)) continue;
    const first = pairs
      .filter(
        ({ number, atMs, score }) =>
          number === pair.number &&
          atMs <= pair.atMs &&
          atMs > pair.atMs - ECHO_MS &&
          score >= pair.score * ECHO_PART,
      )
      .reduce((a, b) => (b.atMs < a.atMs ? b : a), pair);
    marks.push(first);
  }
  return marks;
}

/**
 * The sync marks in a recording, in order.
 * @param sound mono, `MARK_RATE_HZ` samples a second, any loudness
 */
export function findMarks(sound: Float32Array): FoundMark[] {
  return (['start', 'end'] as const)
    .flatMap((kind) => chosen(pairsOf(peaksOf(sound, kind), kind)))
    .sort((a, b) => a.atMs - b.atMs);
}
