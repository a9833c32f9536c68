import type { Cycle } from './cycles.ts';
import { endOf, RUN_OUT, together, type End } from './ends-by-level.ts';
import { byStandstill } from './ends-by-standstill.ts';
import { median } from './numbers.ts';

/** When a repetition is done, in milliseconds of the footage. */
export interface RepetitionTimes {
  startMs: number;
  /** The furthest point of the move. */
  topMs: number;
  /** Back where it began; the moment it counts. */
  atMs: number;
  /**
   * It may be so much earlier or later: what of its end is not seen, or where signal, whole body and
   * the other repetitions say otherwise.
   */
  withinMs: number;
}

/** A top is known to the nearest look. */
const HALF_LOOK = 0.5;

/** In usual steps: a next one so near ends the time it may take; without one it takes so long at most. */
const NEXT = 3;
const LAST = 1.5;

/**
 * When cycles begin, are at their top and are over.
 * @param distance from rest, see `distanceFromRest`; null where no body is seen
 * @param isDoubtful whether the rest itself is in doubt, see `restsElsewhere`
 * @param speed how fast the body moves, see `speedOf`; null where no body is seen
 */
export function timesOf(
  values: Float64Array,
  distance: Float64Array | null,
  cycles: readonly Cycle[],
  step: number,
  everyMs: number,
  isDoubtful = false,
  speed: Float64Array | null = null,
): RepetitionTimes[] {
  const ms = (frame: number) => Math.round(frame * everyMs);
  const spans = cycles.map(({ top }, i) => {
    const next = cycles[i + 1];
    return {
      top,
      until:
        next && next.top - top <= NEXT * step
          ? next.top
          : Math.min(values.length - 1, Math.round(top + LAST * step)),
    };
  });
  const ends = (of: Float64Array, runOut: number) =>
    spans.map(({ top, until }) => endOf(of, top, until, runOut, everyMs));
  const bySignal = ends(values, RUN_OUT.signal);
  const byBody = distance ? ends(distance, RUN_OUT.distance) : null;
  const byLevel = byBody ? together(bySignal, byBody, everyMs) : bySignal;
  const found = byBody && speed ? byStandstill(bySignal, byBody, byLevel, speed, everyMs) : byLevel;
  // One whose way back takes another time than the others' may have been seen wrongly.
  const takes = found.map(({ half, at }) => at - half);
  const usual = median(takes);
  const ways = found.map(({ at }, i) => at - (cycles[i] as Cycle).top);
  const usualWay = median(ways);
  return cycles.map(({ from, top }, i) => {
    const { at, within } = found[i] as End;
    return {
      startMs: ms(from),
      topMs: ms(top),
      atMs: ms(at),
      withinMs: Math.round(
        Math.max(
          within,
          Math.abs((takes[i] as number) - usual),
          Math.abs((ways[i] as number) - usualWay) - HALF_LOOK,
          isDoubtful ? step / 2 : 0,
        ) * everyMs,
      ),
    };
  });
}
