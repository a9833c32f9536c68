import { Matrix, solve } from 'ml-matrix';
import type { Costs, TransitionCosts } from './speech-path.ts';
import { FEATURES } from './speech-sound.ts';

export const FIRST: TransitionCosts = {
  repeat: 0.35,
  jump: [0, 0.15, 0.5],
  skip: 12,
  silence: -0.55,
  noise: 0.1,
  insertion: 14,
  insertionFrame: -0.62,
};
/** With a reference adapted to the voice: leaving out costs more, other words cost more. */
export const LATER: TransitionCosts = { ...FIRST, skip: 20, insertionFrame: -0.45 };

/**
 * What a frame of silence costs in a sentence, where its own frame is quiet and where it is not; and
 * quiet where somebody speaks.
 */
const NEAR_SPEECH = 10;
const QUIET = { both: -0.5, one: 0.45 } as const;

/** Frames the typical distance of a frame of the recording is taken from. */
const SAMPLE = 256;

export function withQuiet(speech: Uint8Array, quiet: Uint8Array, costs: Costs): Costs {
  return (frame, from, to, row, step = 1) => {
    const isSpeech = speech[frame] === 1;
    // In noise the weak beginnings and ends of words sink under it: they may still be heard as what
    // they are.
    const isNear =
      isSpeech || speech[frame - NEAR_SPEECH] === 1 || speech[frame + NEAR_SPEECH] === 1;
    if (isNear) costs(frame, from, to, row, step);
    if (!isSpeech) {
      for (let r = from; r < to; r += step)
        row[r] =
          quiet[r] === 1 ? QUIET.both : isNear ? Math.min(QUIET.one, row[r] as number) : QUIET.one;
      return;
    }
    for (let r = from; r < to; r += step) if (quiet[r] === 1) row[r] = QUIET.one;
  };
}

/** Frames as they are compared, with the square of each one's length. */
interface Measured {
  values: Float64Array;
  squares: Float64Array;
}

const AS_IT_IS = new Float64Array(FEATURES).fill(1);

/** @param times what each of the numbers is multiplied by */
function measured(features: Float32Array, times: Float64Array): Measured {
  const values = new Float64Array(features.length);
  const squares = new Float64Array(features.length / FEATURES);
  for (let frame = 0, i = 0; frame < squares.length; frame += 1) {
    let square = 0;
    for (let f = 0; f < FEATURES; f += 1, i += 1) {
      const value = (features[i] as number) * (times[f] as number);
      values[i] = value;
      square += value * value;
    }
    squares[frame] = square;
  }
  return { values, squares };
}

/**
 * Squared distances of a frame to every `step`-th from `from` to before `to`, into `row`. Most of the
 * time goes here: products take half as long as differences, and four at a time a fifth less again.
 */
function squaredDistances(
  a: Measured,
  frame: number,
  b: Measured,
  [from, to, step]: readonly [number, number, number],
  row: Float32Array,
): void {
  const [x, y, begin, apart] = [a.values, b.values, frame * FEATURES, step * FEATURES];
  const own = a.squares[frame] as number;
  const put = (r: number, product: number) => {
    row[r] = Math.max(0, own + (b.squares[r] as number) - 2 * product);
  };
  let r = from;
  for (; r + 3 * step < to; r += 4 * step) {
    let [first, second, third, fourth] = [0, 0, 0, 0];
    for (let f = 0, j = r * FEATURES; f < FEATURES; f += 1, j += 1) {
      const value = x[begin + f] as number;
      first += value * (y[j] as number);
      second += value * (y[j + apart] as number);
      third += value * (y[j + 2 * apart] as number);
      fourth += value * (y[j + 3 * apart] as number);
    }
    put(r, first);
    put(r + step, second);
    put(r + 2 * step, third);
    put(r + 3 * step, fourth);
  }
  for (; r < to; r += step) {
    let product = 0;
    for (let f = 0, j = r * FEATURES; f < FEATURES; f += 1, j += 1)
      product += (x[begin + f] as number) * (y[j] as number);
    put(r, product);
  }
}

/** Some of the frames, one after the other. */
function framesAt(features: Float32Array, which: readonly number[]): Float32Array {
  const out = new Float32Array(which.length * FEATURES);
  for (const [i, frame] of which.entries())
    out.set(features.subarray(frame * FEATURES, (frame + 1) * FEATURES), i * FEATURES);
  return out;
}

/** Distances, each frame's own typical one taken off and in its own spread. */
export function plainCosts(
  features: Float32Array,
  reference: Float32Array,
  quiet: Uint8Array,
): Costs {
  const loud = [...quiet.keys()].filter((r) => quiet[r] === 0);
  const sample = loud.filter((_, i) => i % Math.max(1, Math.floor(loud.length / SAMPLE)) === 0);
  const [a, b] = [measured(features, AS_IT_IS), measured(reference, AS_IT_IS)];
  const sampled = measured(framesAt(reference, sample), AS_IT_IS);
  const toSample = new Float32Array(sample.length);
  // Each frame's typical distance and its spread, found when first asked for.
  const frames = features.length / FEATURES;
  const [means, spreads] = [new Float64Array(frames), new Float64Array(frames)];
  const learn = (frame: number) => {
    squaredDistances(a, frame, sampled, [0, sample.length, 1], toSample);
    let sum = 0;
    let squares = 0;
    for (const square of toSample) {
      sum += Math.sqrt(square);
      squares += square;
    }
    const mean = sum / sample.length;
    means[frame] = mean;
    spreads[frame] = Math.sqrt(Math.max(1e-6, squares / sample.length - mean * mean));
  };
  return (frame, from, to, row, step = 1) => {
    if (spreads[frame] === 0) learn(frame);
    const mean = means[frame] as number;
    const spread = spreads[frame] as number;
    squaredDistances(a, frame, b, [from, to, step], row);
    for (let r = from; r < to; r += step) row[r] = (Math.sqrt(row[r] as number) - mean) / spread;
  };
}

const RIDGE = 30;

/**
 * Speaker adaptation: the reference as this teacher would have said it, by the affine map of feature
 * space that takes its frames nearest to theirs (fMLLR, Gales 1998, Computer Speech and Language
 * 12:75, from memory; here by ridge regression towards leaving it as it is, Hoerl and Kennard 1970).
 * @param pairs frames of the recording and of the reference that say the same
 */
export function adaptedTo(
  features: Float32Array,
  reference: Float32Array,
  pairs: readonly [number, number][],
): Float32Array {
  // The normal equations, summed up pair by pair: all pairs as a matrix are 80 MB in a long lesson.
  const left = Matrix.eye(FEATURES + 1)
    .mul(RIDGE)
    .to1DArray();
  const right = Matrix.eye(FEATURES + 1, FEATURES)
    .mul(RIDGE)
    .to1DArray();
  const x = new Float64Array(FEATURES + 1).fill(1);
  for (const [t, r] of pairs) {
    x.set(reference.subarray(r * FEATURES, (r + 1) * FEATURES));
    for (let i = 0; i <= FEATURES; i += 1) {
      const value = x[i] as number;
      for (let j = 0, at = i * (FEATURES + 1); j <= FEATURES; j += 1, at += 1)
        left[at] = (left[at] as number) + value * (x[j] as number);
      for (let f = 0, at = i * FEATURES; f < FEATURES; f += 1, at += 1)
        right[at] = (right[at] as number) + value * (features[t * FEATURES + f] as number);
    }
  }
  const map = solve(
    Matrix.from1DArray(FEATURES + 1, FEATURES + 1, left),
    Matrix.from1DArray(FEATURES + 1, FEATURES, right),
  ).to1DArray();
  const out = new Float32Array(reference.length);
  for (let r = 0; r < reference.length / FEATURES; r += 1)
    for (let f = 0; f < FEATURES; f += 1) {
      let sum = map[FEATURES * FEATURES + f] as number;
      for (let i = 0; i < FEATURES; i += 1)
        sum += (reference[r * FEATURES + i] as number) * (map[i * FEATURES + f] as number);
      out[r * FEATURES + f] = sum;
    }
  return out;
}

const LEAST_VARIANCE = 1e-3;

/** A recording as it is compared. */
export interface Heard {
  /** `FEATURES` numbers a frame. */
  features: Float32Array;
  /** 1 for frames in which somebody speaks. */
  speech: Uint8Array;
  /** How unlikely each frame is as any speech of this recording, as a logarithm. */
  asAny: Float64Array;
}

/** Speech as such is one Gaussian of this recording's frames. */
export function heardAs(features: Float32Array, speech: Uint8Array): Heard {
  const [mean, about] = [new Float64Array(FEATURES), new Float64Array(FEATURES)];
  let count = 0;
  for (let t = 0; t < speech.length; t += 1) {
    if (speech[t] === 0) continue;
    count += 1;
    for (let f = 0; f < FEATURES; f += 1) {
      const value = features[t * FEATURES + f] as number;
      mean[f] = (mean[f] as number) + value;
      about[f] = (about[f] as number) + value * value;
    }
  }
  let steady = 0;
  for (let f = 0; f < FEATURES; f += 1) {
    mean[f] = (mean[f] as number) / Math.max(1, count);
    about[f] = Math.max(
      LEAST_VARIANCE,
      (about[f] as number) / Math.max(1, count) - (mean[f] as number) ** 2,
    );
    steady += Math.log(about[f] as number) / 2;
  }
  const asAny = Float64Array.from(speech, (_, t) => {
    let sum = steady;
    for (let f = 0; f < FEATURES; f += 1)
      sum +=
        ((features[t * FEATURES + f] as number) - (mean[f] as number)) ** 2 /
        (2 * (about[f] as number));
    return sum;
  });
  return { features, speech, asAny };
}

/**
 * How much likelier a frame is as that one of the sentence than as any speech: each number by its
 * own spread, the whole scaled to the plain costs.
 */
export function likelyCosts(
  { features, asAny }: Heard,
  reference: Float32Array,
  pairs: readonly [number, number][],
): Costs {
  const within = new Float64Array(FEATURES).fill(LEAST_VARIANCE);
  for (const [t, r] of pairs)
    for (let f = 0; f < FEATURES; f += 1)
      within[f] =
        (within[f] as number) +
        ((features[t * FEATURES + f] as number) - (reference[r * FEATURES + f] as number)) ** 2 /
          pairs.length;
  const steady = within.reduce((sum, variance) => sum + Math.log(variance) / 2, 0);
  const times = within.map((variance) => Math.sqrt(1 / (2 * variance)));
  const [a, b] = [measured(features, times), measured(reference, times)];
  const steadyAt = (t: number) => steady - (asAny[t] as number);
  // How far apart they are on average follows from the spreads. Their usual cost is -1.
  const usual =
    within.reduce((sum, variance) => sum + (1 - LEAST_VARIANCE / variance) / 2, 0) +
    pairs.reduce((sum, [t]) => sum + steadyAt(t), 0) / Math.max(1, pairs.length);
  const scale = 1 / Math.max(0.5, -usual);
  return (frame, from, to, row, step = 1) => {
    const base = steadyAt(frame);
    squaredDistances(a, frame, b, [from, to, step], row);
    for (let r = from; r < to; r += step) row[r] = Math.min(3, (base + (row[r] as number)) * scale);
  };
}
