/** Ways the whole picture moves that are kept. */
const COMPONENTS = 3;
const ROUNDS = 25;
/** Weights that turn by less than this, as one minus the cosine, have settled. */
const SETTLED = 1e-5;

/**
 * What moves in the picture, without knowing what a body is: the first principal components of
 * small grey pictures, each with its brightness and contrast taken off, one after the other by
 * nonlinear iterative partial least squares (Wold 1966, from memory): thousands of pictures of
 * thousands of cells are no matrix to be decomposed whole. For footage in which no body is found.
 * @param frames grey cells, one picture a frame, all of one size
 * @returns three signals, a number a frame each, with spread 1; none for fewer than three pictures
 */
export function motionOf(frames: readonly Uint8Array[]): number[][] {
  const cells = frames[0]?.length ?? 0;
  if (frames.length < COMPONENTS || cells === 0) return [];
  const rows = frames.map(evened);
  const mean = new Float32Array(cells);
  for (const row of rows)
    for (let c = 0; c < cells; c += 1)
      mean[c] = (mean[c] as number) + (row[c] as number) / rows.length;
  for (const row of rows)
    for (let c = 0; c < cells; c += 1) row[c] = (row[c] as number) - (mean[c] as number);
  return Array.from({ length: COMPONENTS }, (_, component) => {
    let weights: Float32Array = Float32Array.from(
      { length: cells },
      (__, c) => 1 + ((c * (component + 7)) % 11),
    );
    let values: Float32Array = new Float32Array(rows.length);
    for (let round = 0; round < ROUNDS; round += 1) {
      values = along(rows, weights);
      const before = weights;
      weights = new Float32Array(cells);
      for (let t = 0; t < rows.length; t += 1) {
        const [row, by] = [rows[t] as Float32Array, values[t] as number];
        for (let c = 0; c < cells; c += 1)
          weights[c] = (weights[c] as number) + (row[c] as number) * by;
      }
      const length = Math.sqrt(dot(weights, weights)) || 1;
      for (let c = 0; c < cells; c += 1) weights[c] = (weights[c] as number) / length;
      if (round > 0 && 1 - Math.abs(dot(before, weights)) < SETTLED) break;
    }
    values = along(rows, weights);
    // What this one explains is taken off before the next is looked for.
    rows.forEach((row, t) =>
      weights.forEach(
        (weight, c) => (row[c] = (row[c] as number) - weight * (values[t] as number)),
      ),
    );
    const spread =
      Math.sqrt(values.reduce((sum, value) => sum + value * value, 0) / values.length) || 1;
    return Array.from(values, (value) => Math.round((value / spread) * 100) / 100);
  });
}

/** A picture with mean 0 and spread 1: a camera that makes all of it brighter moves nothing. */
function evened(frame: Uint8Array): Float32Array {
  let [sum, squares] = [0, 0];
  for (const value of frame) {
    sum += value;
    squares += value * value;
  }
  const mean = sum / frame.length;
  const spread = Math.sqrt(Math.max(1, squares / frame.length - mean * mean));
  return Float32Array.from(frame, (value) => (value - mean) / spread);
}

function dot(a: Float32Array, b: Float32Array): number {
  let sum = 0;
  for (let c = 0; c < a.length; c += 1) sum += (a[c] as number) * (b[c] as number);
  return sum;
}

const along = (rows: readonly Float32Array[], weights: Float32Array): Float32Array =>
  Float32Array.from(rows, (row) => dot(row, weights));
