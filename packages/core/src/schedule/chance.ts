import type { BlockOf, Command } from '../lesson/index.ts';

/**
 * Random numbers from 0 to below 1 that a seed repeats on every machine (mulberry32, public
 * domain).
 */
export function seededChance(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** No command more than this often running: a third time is guessed. */
const MOST_RUNNING = 2;

/**
 * How often each command comes: `minEach` at least, the rest by chance, never so often that it
 * would have to run on.
 */
function shares(labels: number, calls: number, minEach: number, chance: () => number): number[] {
  const most = Math.max(minEach, Math.floor((MOST_RUNNING * (calls + 1)) / (MOST_RUNNING + 1)));
  const counts = Array.from({ length: labels }, () => minEach);
  for (let left = calls - minEach * labels; left > 0; left -= 1) {
    let chosen: number;
    do chosen = Math.floor(chance() * labels);
    while ((counts[chosen] ?? 0) >= most);
    counts[chosen] = (counts[chosen] ?? 0) + 1;
  }
  return counts;
}

/**
 * Whether, `chosen` being called now for the `run`th time running, what is then left can be called
 * without a third running.
 */
function canFinish(left: readonly number[], total: number, chosen: number, run: number): boolean {
  for (let i = 0; i < left.length; i += 1) {
    const n = (left[i] ?? 0) - (i === chosen ? 1 : 0);
    const others = total - 1 - n;
    const most =
      i === chosen ? MOST_RUNNING * others + MOST_RUNNING - run : MOST_RUNNING * (others + 1);
    if (n > most) return false;
  }
  return true;
}

function order(counts: readonly number[], chance: () => number): number[] {
  const left = [...counts];
  const called: number[] = [];
  const open: number[] = [];
  let last = -1;
  let run = 0;
  for (let total = left.reduce((sum, n) => sum + n, 0); total > 0; total -= 1) {
    open.length = 0;
    let weight = 0;
    for (let i = 0; i < left.length; i += 1) {
      const again = i === last ? run + 1 : 1;
      if (left[i] === 0 || again > MOST_RUNNING || !canFinish(left, total, i, again)) continue;
      open.push(i);
      weight += left[i] ?? 0;
    }
    // Weighted by what is left, so that every order allowed can come.
    let pick = chance() * weight;
    const chosen = open.find((i) => (pick -= left[i] ?? 0) < 0) ?? open.at(-1) ?? 0;
    left[chosen] = (left[chosen] ?? 0) - 1;
    run = chosen === last ? run + 1 : 1;
    last = chosen;
    called.push(chosen);
  }
  return called;
}

/**
 * Gaps that differ but come in pairs about the middle: the game lasts the same whatever the seed.
 */
function gaps(calls: number, minMs: number, maxMs: number, chance: () => number): number[] {
  const list: number[] = [];
  while (list.length + 1 < calls) {
    const gap = minMs + Math.floor(chance() * (maxMs - minMs + 1));
    list.push(gap, minMs + maxMs - gap);
  }
  if (list.length < calls) list.push(Math.floor((minMs + maxMs) / 2));
  for (let i = list.length - 1; i > 0; i -= 1) {
    const j = Math.floor(chance() * (i + 1));
    [list[i], list[j]] = [list[j] ?? 0, list[i] ?? 0];
  }
  return list;
}

/** What one call asks for lasts, before the gap to the next begins. In milliseconds. */
export function commandMs({ amount }: Pick<Command, 'amount'>): number {
  if (!amount) return 0;
  return amount.kind === 'hold' ? amount.holdMs : amount.reps * amount.oneMs;
}

/** The middle gap: what comes as often above as below. */
const middleMs = ({ gapMinMs, gapMaxMs }: BlockOf<'called'>) =>
  Math.floor((gapMinMs + gapMaxMs) / 2);

/** Where commands last differently, all come equally often, so that every order lasts the same. */
const evenShares = (labels: number, calls: number) =>
  Array.from({ length: labels }, (_, i) => Math.floor((calls + labels - 1 - i) / labels));

/** What comes before it counts: each command in the order of the list, a middle gap after each. */
function trialCalls(block: BlockOf<'called'>): Called[] {
  const { labels, trial = 0 } = block;
  return Array.from({ length: trial }, (_, i) => ({
    ...{ command: i % labels.length, gapMs: middleMs(block), isBare: false },
  }));
}

/** What the calls of a game add up to, the same for every seed. In milliseconds. */
export function callsMs(block: BlockOf<'called'>): number {
  const { labels, calls, gapMinMs, gapMaxMs } = block;
  const pairs = Math.floor(calls / 2);
  const gapsMs = pairs * (gapMinMs + gapMaxMs) + (calls % 2) * middleMs(block);
  const shared = evenShares(labels.length, calls);
  return labels.reduce((sum, label, i) => sum + (shared[i] ?? 0) * commandMs(label), gapsMs);
}

/** What the calls of the trial add up to. In milliseconds. */
export const trialMs = (block: BlockOf<'called'>): number =>
  trialCalls(block).reduce(
    (sum, { command, gapMs }) => sum + commandMs(block.labels[command] ?? {}) + gapMs,
    0,
  );

/** One call: which command, and the time to the next after what it asks for. */
export interface Called {
  command: number;
  gapMs: number;
  /** Without the words that make it count: nobody moves. */
  isBare: boolean;
}

/**
 * The commands of a called-out game in a random order that the block's seed repeats: each at least
 * `minEach` times, none more than twice running.
 */
export function callOrder(block: BlockOf<'called'>): { trial: Called[]; calls: Called[] } {
  const { labels, calls, minEach, gapMinMs, gapMaxMs, seed, leader } = block;
  const chance = seededChance(seed);
  const counts = labels.some((label) => commandMs(label) > 0)
    ? evenShares(labels.length, calls)
    : shares(labels.length, calls, minEach, chance);
  const called = order(counts, chance);
  const waits = gaps(called.length, gapMinMs, gapMaxMs, chance);
  const bare = new Set<number>();
  while (leader && bare.size < Math.min(leader.without, called.length))
    bare.add(Math.floor(chance() * called.length));
  return {
    trial: trialCalls(block),
    calls: called.map((command, i) => ({
      ...{ command, gapMs: waits[i] ?? gapMinMs, isBare: bare.has(i) },
    })),
  };
}
