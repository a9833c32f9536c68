/** Up to this many shots every order is weighed. */
const EXACT_UP_TO = 12;
const MOST_SWEEPS = 60;

/**
 * The order of least cost. An order costs what lies between neighbours and, for each shot, its
 * lateness for every place further back.
 * @param between cost from row to column
 * @param late cost of one place for each shot
 * @returns indices in order; exact for up to 12, else the best that moving stretches about finds
 * from several beginnings
 */
export function bestOrder(
  between: readonly (readonly number[])[],
  late: readonly number[],
): number[] {
  const n = late.length;
  if (n <= 1) return late.map((_, i) => i);
  return n <= EXACT_UP_TO ? exact(between, late) : searched(between, late);
}

/**
 * Held and Karp, "A dynamic programming approach to sequencing problems", J. SIAM 10 (1962), with
 * the place counted in.
 */
function exact(between: readonly (readonly number[])[], late: readonly number[]): number[] {
  const n = late.length;
  const all = 1 << n;
  const cost = new Float64Array(all * n).fill(Infinity);
  const from = new Int8Array(all * n).fill(-1);
  for (let i = 0; i < n; i += 1) cost[(1 << i) * n + i] = 0;
  for (let seen = 1; seen < all; seen += 1) {
    let place = 0;
    for (let bits = seen; bits > 0; bits &= bits - 1) place += 1;
    for (let last = 0; last < n; last += 1) {
      const sofar = cost[seen * n + last] ?? Infinity;
      if (sofar === Infinity) continue;
      for (let next = 0; next < n; next += 1) {
        if (seen & (1 << next)) continue;
        const to = (seen | (1 << next)) * n + next;
        const then = sofar + (between[last]?.[next] ?? 0) + (late[next] ?? 0) * place;
        // The first of equals stays, so that the lesson's own order is kept where nothing speaks
        // against it.
        if (then < (cost[to] ?? Infinity)) {
          cost[to] = then;
          from[to] = last;
        }
      }
    }
  }
  let last = 0;
  for (let i = 1; i < n; i += 1)
    if ((cost[(all - 1) * n + i] ?? 0) < (cost[(all - 1) * n + last] ?? 0)) last = i;
  const order: number[] = [];
  for (let seen = all - 1; last >= 0;) {
    order.unshift(last);
    const before = from[seen * n + last] ?? -1;
    seen &= ~(1 << last);
    last = before;
  }
  return order;
}

function costOf(
  order: readonly number[],
  between: readonly (readonly number[])[],
  late: readonly number[],
): number {
  let sum = 0;
  for (let i = 0; i < order.length; i += 1) {
    const shot = order[i] ?? 0;
    sum += (late[shot] ?? 0) * i;
    if (i > 0) sum += between[order[i - 1] ?? 0]?.[shot] ?? 0;
  }
  return sum;
}

/** Goes on from each shot to the cheapest next one, what is late first. */
function greedy(
  first: number,
  between: readonly (readonly number[])[],
  late: readonly number[],
): number[] {
  const order = [first];
  const left = new Set(late.keys());
  left.delete(first);
  while (left.size > 0) {
    const last = order.at(-1) ?? first;
    let best = -1;
    let bestCost = Infinity;
    for (const next of left) {
      const cost = (between[last]?.[next] ?? 0) - (late[next] ?? 0) * left.size;
      if (cost < bestCost) [best, bestCost] = [next, cost];
    }
    order.push(best);
    left.delete(best);
  }
  return order;
}

/**
 * Moves stretches of one to three elsewhere and turns stretches round, as long as it gets cheaper.
 */
function improved(
  start: readonly number[],
  between: readonly (readonly number[])[],
  late: readonly number[],
): { order: number[]; cost: number } {
  let order = [...start];
  let cost = costOf(order, between, late);
  const n = order.length;
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep += 1) {
    const before = cost;
    const take = (candidate: number[]) => {
      const candidateCost = costOf(candidate, between, late);
      if (candidateCost < cost - 1e-9) [order, cost] = [candidate, candidateCost];
    };
    for (let length = 1; length <= 3; length += 1) {
      for (let i = 0; i + length <= n; i += 1) {
        for (let to = 0; to + length <= n; to += 1) {
          if (to === i) continue;
          const rest = [...order.slice(0, i), ...order.slice(i + length)];
          take([...rest.slice(0, to), ...order.slice(i, i + length), ...rest.slice(to)]);
        }
      }
    }
    for (let i = 0; i < n - 1; i += 1) {
      for (let j = i + 2; j <= n; j += 1)
        take([...order.slice(0, i), ...order.slice(i, j).reverse(), ...order.slice(j)]);
    }
    if (cost === before) break;
  }
  return { order, cost };
}

function searched(between: readonly (readonly number[])[], late: readonly number[]): number[] {
  const shots = late.map((_, i) => i);
  const lateFirst = [...shots].sort((a, b) => (late[b] ?? 0) - (late[a] ?? 0) || a - b);
  const starts = [
    shots,
    lateFirst,
    ...lateFirst.slice(0, 3).map((first) => greedy(first, between, late)),
  ];
  return starts
    .map((start) => improved(start, between, late))
    .reduce((best, one) => (one.cost < best.cost ? one : best)).order;
}
