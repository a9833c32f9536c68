import type { Body } from './body.ts';
import type { Cycle } from './cycles.ts';
import { REST_FRAMES, waysFromHips } from './moves.ts';
import { median, quantile, runsOf } from './numbers.ts';
import type { Joint } from './pose.ts';

const PARTS = ['shoulder', 'elbow', 'wrist', 'knee', 'ankle'] as const;
const JOINTS: Joint[] = PARTS.flatMap((part): Joint[] => [`left ${part}`, `right ${part}`]);
/** At rest it is nearer to the lowest than to the highest it goes. */
const LOW = 0.4;
/** A joint that goes further than this, in what it does at the tops, was taken for another one. */
const SLIP = 1.5;
/** A joint that trembles more at rest than this part of what it does takes no part. */
const TREMBLE = 0.5;

/**
 * How far the whole body is from how it rests between the repetitions, by the parts that take part
 * in them: 0 at rest and about 1 at the tops. Null when too little of it is seen.
 * @param values a signal that is low at rest, in which the cycles were found
 */
export function distanceFromRest(
  body: Body,
  values: Float64Array,
  cycles: readonly Cycle[],
  still: Uint8Array,
): Float64Array | null {
  const { length } = body;
  const ways = waysFromHips(body, JOINTS);
  if (ways.length === 1) return null;
  const [low, high] = [quantile(values, 0.05), quantile(values, 0.95)];
  const stands = runsOf(length, (i) => still[i] === 1).flatMap(({ from: first, to }) =>
    Array.from({ length: to - first }, (_, i) => first + i).filter(
      (i) => (values[i] as number) < low + LOW * (high - low),
    ),
  );
  const restFrames =
    stands.length >= REST_FRAMES ? stands : cycles.flatMap(({ from: first, to }) => [first, to]);
  const parts = ways.map((way) => {
    const rest = median(restFrames.map((i) => way[i] as number));
    // Done in turn, a side moves in half of them.
    const gone = quantile(
      cycles.map(({ top }) => Math.abs((way[top] as number) - rest)),
      0.6,
    );
    const trembles = quantile(
      restFrames.map((i) => Math.abs((way[i] as number) - rest)),
      0.7,
    );
    return { way, rest, gone: trembles > TREMBLE * gone ? 0 : gone };
  });
  const distance = Float64Array.from({ length }, (_, i) =>
    Math.sqrt(
      parts.reduce(
        (sum, { way, rest, gone }) =>
          sum + Math.min(Math.abs((way[i] as number) - rest), SLIP * gone) ** 2,
        0,
      ),
    ),
  );
  const usual = median(cycles.map(({ top }) => distance[top] as number));
  return usual > 0 ? distance.map((value) => value / usual) : null;
}

/** Who stands still so far from the rest between the repetitions may rest elsewhere than it seems. */
const ELSEWHERE = { from: 0.35, to: 1.2 } as const;

/**
 * Whether the performer stands still before or after in another way than between the repetitions, but
 * no further from it than the move goes: who holds in the middle of a throw is not at rest there.
 */
export function restsElsewhere(distance: Float64Array, still: Uint8Array): boolean {
  const stands = runsOf(still.length, (i) => still[i] === 1).filter(
    ({ from, to }) => to - from >= REST_FRAMES,
  );
  return [stands[0], stands.at(-1)].some((stand) => {
    const away = stand ? median(distance.subarray(stand.from, stand.to)) : 0;
    return away >= ELSEWHERE.from && away <= ELSEWHERE.to;
  });
}
