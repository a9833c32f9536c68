/**
 * The sync mark: two short sweeps whose distance says a number. It is played before a performance
 * (sweeping up) and after it (sweeping down), so that any recording of it can be laid on the plan,
 * and on any other recording of it.
 */

const SWEEP_MS = 100;
/** Within what phones record and small loudspeakers play; in hertz. */
const BAND_HZ = { low: 1_500, high: 6_000 } as const;
const FIRST_GAP_MS = 260;
const GAP_STEP_MS = 15;
/** Numbers a mark can say: 0 to one less. */
export const MARK_NUMBERS = 96;

/**
 * From the start of the first sweep of the start mark to the block's first moment: the longest
 * mark, then a count of three.
 */
export const MARK_LEAD_MS = 5_000;
/** From the block's last moment to the first sweep of the end mark. */
export const MARK_TAIL_MS = 500;

export type MarkKind = 'start' | 'end';

/** From the first sweep to the second, in milliseconds. */
export const markGapMs = (number: number): number => FIRST_GAP_MS + GAP_STEP_MS * number;
/** From the first sweep's beginning to the second one's end. */
export const markLengthMs = (number: number): number => markGapMs(number) + SWEEP_MS;

export const sweepLength = (sampleRateHz: number) => Math.round((SWEEP_MS / 1000) * sampleRateHz);

/**
 * One sweep, and the same a quarter turn later in its second part, from which its place is found
 * whatever its phase. Values from -1 to 1.
 */
export function sweep(
  kind: MarkKind,
  sampleRateHz: number,
): { inPhase: Float64Array; quarter: Float64Array } {
  const n = sweepLength(sampleRateHz);
  const seconds = n / sampleRateHz;
  const [from, to] = kind === 'start' ? [BAND_HZ.low, BAND_HZ.high] : [BAND_HZ.high, BAND_HZ.low];
  const inPhase = new Float64Array(n);
  const quarter = new Float64Array(n);
  for (let i = 0; i < n; i += 1) {
    const t = i / sampleRateHz;
    const phase = 2 * Math.PI * (from * t + ((to - from) * t * t) / (2 * seconds));
    // Soft ends: no clicks, and less of it leaks out of its band.
    const edge = Math.min(1, i / (0.1 * n), (n - 1 - i) / (0.1 * n));
    const loud = Math.sin((Math.PI / 2) * Math.max(0, edge)) ** 2;
    inPhase[i] = loud * Math.sin(phase);
    quarter[i] = loud * Math.cos(phase);
  }
  return { inPhase, quarter };
}

/**
 * A whole mark as sound, -1 to 1.
 * @throws RangeError for a number no mark can say
 */
export function markSamples(kind: MarkKind, number: number, sampleRateHz: number): Float32Array {
  if (!Number.isInteger(number) || number < 0 || number >= MARK_NUMBERS)
    throw new RangeError(
      `A mark says a whole number from 0 to ${MARK_NUMBERS - 1}, not ${number}.`,
    );
  const { inPhase } = sweep(kind, sampleRateHz);
  const second = Math.round((markGapMs(number) / 1000) * sampleRateHz);
  const samples = new Float32Array(second + inPhase.length);
  samples.set(inPhase, 0);
  samples.set(inPhase, second);
  return samples;
}

/**
 * The number whose mark has this distance between its sweeps; null when none has, within what
 * recordings are off by.
 */
export function numberOfGap(gapMs: number): number | null {
  const number = Math.round((gapMs - FIRST_GAP_MS) / GAP_STEP_MS);
  return number >= 0 && number < MARK_NUMBERS && Math.abs(gapMs - markGapMs(number)) <= 4
    ? number
    : null;
}
export const LONGEST_GAP_MS = markGapMs(MARK_NUMBERS - 1);
export const SWEEP_BAND_HZ = BAND_HZ;
