/**
 * One way to change a block: what it adds to the time and what it costs. `pick` numbers the value
 * taken of each figure.
 */
export interface Option {
  deltaMs: number;
  cost: number;
  pick: readonly number[];
}

/** The cheapest way to reach a sum: the options taken, one a list. */
interface Reached {
  cost: number;
  list: number;
  option: Option;
  before: Reached | null;
}

export interface Window {
  fromMs: number;
  toMs: number;
}

/**
 * Every sum of one option a block that can still end in the window, with the cheapest way there.
 */
export type Sums = ReadonlyMap<number, Reached | null>;

/**
 * What the options still to come can add, and the least each millisecond of it costs, longer and
 * shorter.
 */
interface Outlook extends Window {
  costPerMsUp: number;
  costPerMsDown: number;
}

function outlooks(lists: readonly (readonly Option[])[]): Outlook[] {
  let after: Outlook = { fromMs: 0, toMs: 0, costPerMsUp: Infinity, costPerMsDown: Infinity };
  const all: Outlook[] = [];
  for (let i = lists.length - 1; i >= 0; i -= 1) {
    all.unshift(after);
    let { costPerMsUp, costPerMsDown } = after;
    let least = 0;
    let most = 0;
    for (const { deltaMs, cost } of lists[i] ?? []) {
      least = Math.min(least, deltaMs);
      most = Math.max(most, deltaMs);
      if (deltaMs > 0) costPerMsUp = Math.min(costPerMsUp, cost / deltaMs);
      if (deltaMs < 0) costPerMsDown = Math.min(costPerMsDown, cost / -deltaMs);
    }
    after = { fromMs: after.fromMs + least, toMs: after.toMs + most, costPerMsUp, costPerMsDown };
  }
  return all;
}

/** Least cost of a millisecond more or less. */
function cheapest(options: readonly Option[]): number {
  return options.reduce(
    (least, { deltaMs, cost }) =>
      deltaMs === 0 ? least : Math.min(least, cost / Math.abs(deltaMs)),
    Infinity,
  );
}

/** More is to be looked at than one may wait for. */
export class TooMuchWork extends Error {}

/** What a search may still look at: sums times options, or words of 64 bits. */
export class Effort {
  constructor(private left: number) {}

  /** @throws TooMuchWork once it is used up */
  spend(work: number): void {
    this.left -= work;
    if (this.left < 0) throw new TooMuchWork('The search was given up.');
  }
}

/** Room for the rounding of the divisions above. */
const EPSILON = 1e-9;

/**
 * Adds up one option from each list, keeping for each sum the cheapest way of at most `budget`.
 * Sums that cannot reach the window any more, or not for what is left, are dropped, so the result
 * is exact inside it.
 */
export function reachableSums(
  lists: readonly (readonly Option[])[],
  window: Window,
  budget: number,
  effort: Effort,
): Sums {
  const { fromMs, toMs } = window;
  // Cheap time first: what comes later costs more, so hopeless sums are seen early.
  const order = lists
    .map((_options, i) => i)
    .sort((a, b) => cheapest(lists[a] ?? []) - cheapest(lists[b] ?? []));
  const ahead = outlooks(order.map((list) => lists[list] ?? []));
  let sums = new Map<number, Reached | null>([[0, null]]);
  order.forEach((list, i) => {
    const after = ahead[i];
    const options = lists[list];
    if (!after || !options) return;
    const next = new Map<number, Reached | null>();
    for (const [sum, before] of sums) {
      const spent = before?.cost ?? 0;
      effort.spend(options.length);
      for (const option of options) {
        const cost = spent + option.cost;
        if (cost > budget) break; // Options come cheapest first.
        const reached = sum + option.deltaMs;
        if (reached + after.toMs < fromMs || reached + after.fromMs > toMs) continue;
        const atLeast =
          reached < fromMs
            ? (fromMs - reached) * after.costPerMsUp
            : reached > toMs
              ? (reached - toMs) * after.costPerMsDown
              : 0;
        if (cost + atLeast > budget + EPSILON) continue;
        const known = next.get(reached);
        if (known === undefined || cost < (known?.cost ?? 0))
          next.set(reached, { cost, list, option, before });
      }
    }
    sums = next;
  });
  return sums;
}

export function costOf(reached: Reached | null): number {
  return reached?.cost ?? 0;
}

/** The option taken from each list. */
export function optionsOf(reached: Reached | null): Option[] {
  const taken: Option[] = [];
  for (let at = reached; at; at = at.before) taken[at.list] = at.option;
  return taken;
}

const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

/**
 * All sums of one option a list, whatever they cost, in rising order: bit `i` of a long whole
 * number stands for the sum `i` units above the least, and an option shifts it.
 */
export function allSums(lists: readonly (readonly Option[])[], effort: Effort): number[] {
  const unit = lists.flat().reduce((common, { deltaMs }) => gcd(common, Math.abs(deltaMs)), 0);
  if (unit === 0) return [0];
  let leastMs = 0;
  let widthMs = 0;
  let bits = 1n;
  for (const options of lists) {
    const deltas = options.map(({ deltaMs }) => deltaMs);
    const least = Math.min(...deltas);
    leastMs += least;
    widthMs += Math.max(...deltas) - least;
    effort.spend((deltas.length * widthMs) / unit / 64);
    bits = deltas.reduce((sum, delta) => sum | (bits << BigInt((delta - least) / unit)), 0n);
  }
  const sums: number[] = [];
  const digits = bits.toString(16);
  for (let i = digits.length - 1, place = 0; i >= 0; i -= 1, place += 4) {
    const nibble = parseInt(digits[i] ?? '0', 16);
    for (let bit = 0; bit < 4; bit += 1)
      if ((nibble >> bit) & 1) sums.push(leastMs + (place + bit) * unit);
  }
  return sums;
}
