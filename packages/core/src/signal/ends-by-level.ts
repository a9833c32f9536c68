import { crossedAt, median, quantile, runsOf } from './numbers.ts';

/** Where a falling signal last crosses a level before `to`, between two frames. */
function lastCrossing(values: Float64Array, from: number, to: number, level: number): number {
  for (let i = to; i > from; i -= 1) {
    if ((values[i - 1] as number) >= level && (values[i] as number) < level)
      return crossedAt(values, i, level);
  }
  return to;
}

/** Where it next rises over a level, between two frames; `to` when it does not. */
function nextCrossing(values: Float64Array, from: number, to: number, level: number): number {
  for (let i = from + 1; i <= to; i += 1) {
    if ((values[i - 1] as number) <= level && (values[i] as number) > level)
      return crossedAt(values, i, level);
  }
  return to;
}

/** Nearer to the lowest than this part of the whole is back. */
const BACK = 0.15;
/** Of the times it is back before the next one, the first that lasts so much of the longest. */
const LASTING = 0.6;
/** Further from rest than this part of the move is gone again. */
const FAR = 0.4;
/** How much of the last stretch is in doubt for each tenth of the way that trembles. */
const TREMBLES = 0.5;
/** Who only passes by the rest is over somewhere in that time. */
const PASSING = 0.6;
/** Of the values while it is back, the one that is rest: noise makes the least too low. */
const REST = 0.2;

/** From the 50 and 10 % crossings of a fall on to its end, against the time between them. */
export const RUN_OUT = {
  /** 0.69 times for a cosine, 0.98 for a move of least jerk (reckoned); between them. */
  signal: 0.9,
  /** A distance comes to nothing more steeply than what it is made of. */
  distance: 0.65,
} as const;

/**
 * A way back: when it was half over and when it is over, how far off that may be, and whether it stays
 * there, in frames.
 */
export interface End {
  half: number;
  at: number;
  within: number;
  isSettled: boolean;
  /** From nearly back to gone again. */
  stay: { from: number; to: number };
  /** Between the times it is back, where it goes far once more before the next one; 0 if not. */
  twofold: number;
}
/** Who is back for so long before the next repetition has settled. */
const SETTLED_MS = 350;

export function endOf(
  values: Float64Array,
  top: number,
  until: number,
  runOut: number,
  everyMs: number,
): End {
  const after = values.subarray(top, until + 1);
  const [low, high] = [Math.min(...after), Math.max(...after)];
  const stays = runsOf(after.length, (i) => (after[i] as number) <= low + BACK * (high - low));
  const longest = Math.max(...stays.map(({ from, to }) => to - from));
  const lasting = stays.filter(({ from, to }) => to - from >= LASTING * longest);
  const [stay, lastStay] = [lasting[0] ?? { from: 0, to: 1 }, lasting.at(-1)];
  // Gone far once more before it is back again: a throw has a way back from drawing the arm back, too.
  const isTwofold =
    lastStay !== undefined &&
    after.subarray(stay.to, lastStay.from).some((value) => value >= low + FAR * (high - low));
  const twofold = isTwofold ? lastStay.from - stay.from : 0;
  const back = after.subarray(stay.from, stay.to);
  const rest = quantile(back, REST);
  // What trembles hides its end: so much more than a tenth of the way.
  const trembles =
    median(
      back
        .slice(1, -1)
        .map((value, i) => Math.abs((back[i] as number) - 2 * value + (back[i + 2] as number)) / 2),
    ) / Math.max(Number.EPSILON, 0.1 * (high - rest));
  const level = (part: number) => rest + part * (high - rest);
  let first = top + stay.from;
  while (first < top + stay.to - 1 && (values[first] as number) > level(0.1)) first += 1;
  const [half, tenth] = [0.5, 0.1].map((part) => lastCrossing(values, top, first, level(part))) as [
    number,
    number,
  ];
  const again = nextCrossing(values, first, until, level(0.1));
  const isSettled = (again - tenth) * everyMs >= SETTLED_MS;
  const last = runOut * (tenth - half);
  return {
    half,
    // Who goes on at once has turned in the middle.
    at: Math.min(tenth + last, (tenth + again) / 2),
    within: Math.max(
      0.5,
      (0.4 + (isSettled ? TREMBLES * trembles : 0)) * last,
      isSettled ? 0 : PASSING * (again - tenth),
      twofold,
    ),
    isSettled,
    stay: { from: tenth, to: again },
    twofold,
  };
}

/** Ends nearer than this are the same. */
export const SAME_MS = 250;
/** Where the whole body is later by the same time with every repetition, to this, it is later. */
const STEADY_MS = 120;

/**
 * The ends by the signal the repetitions were found in and by the whole body. A signal alone is
 * dragged along by what comes before the next one, or is back while other parts still are on their
 * way; the whole body is taken for it where it settles first, or is late every time.
 */
export function together(bySignal: readonly End[], byBody: readonly End[], everyMs: number): End[] {
  const late = bySignal.map(({ at }, i) => (byBody[i] as End).at - at);
  const usual = median(late);
  const isSteady = median(late.map((one) => Math.abs(one - usual))) * everyMs <= STEADY_MS;
  return bySignal.map((signal, i) => {
    const [body, lag] = [byBody[i] as End, late[i] as number];
    const within = Math.max(signal.within, body.within, Math.abs(lag) / 2);
    if (Math.abs(lag) * everyMs <= SAME_MS)
      return { ...signal, at: (signal.at + body.at) / 2, within };
    if (lag < 0 && body.isSettled) return body;
    return isSteady
      ? { ...body, within: Math.max(signal.within, body.within) }
      : { ...signal, within: Math.max(within, Math.abs(lag)) };
  });
}
