/**
 * What is looked for: the sentences' looks one after the other; sentence s has those from
 * `starts[s]` to before `starts[s + 1]`.
 */
export interface Sentences {
  starts: readonly number[];
  /** 1 for looks of the sentences in which nothing is heard. */
  quiet: Uint8Array;
}

/** The prices of a way through recording and sentences, in the cost of one look. */
export interface Prices {
  /** A look of the recording more, or a look or two of the sentence fewer. */
  stay: number;
  jump: readonly [number, number, number];
  /** A sentence that is left out. */
  skip: number;
  /** Between sentences nobody speaks: a look that is silent, and one that is not. */
  silence: number;
  murmur: number;
  /** Somebody says something else: beginning with it, and a look of it. */
  aside: number;
  filler: number;
}

export interface Way {
  /**
   * For each look of the recording the look of the sentences, or -1 - s while it is before sentence
   * s and none is said.
   */
  at: Int32Array;
  cost: number;
}

/**
 * The looks of the sentences that are possible at a look of the recording, from first to after the
 * last.
 */
export type Band = (look: number) => readonly [number, number];

const GAP_STAY = 0;
const GAP_SKIP = 4;
const GAP_OTHER = 5;
const FROM_PAUSE = 4;
const FROM_ASIDE = 5;

/** Before each sentence, and after the last: nobody speaks, or somebody says something else. */
const PAUSE = 0;
const ASIDE = 1;

/** Steps from 0 to 15, two to a byte: a long lesson has hundreds of millions. */
class Steps {
  readonly #bytes: Uint8Array;

  constructor(length: number) {
    this.#bytes = new Uint8Array((length + 1) >> 1);
  }

  /** Each place is set once, when it is still 0. */
  set(at: number, step: number): void {
    const byte = Math.floor(at / 2);
    this.#bytes[byte] = (this.#bytes[byte] as number) | (at % 2 === 0 ? step : step << 4);
  }

  get(at: number): number {
    const byte = this.#bytes[Math.floor(at / 2)] as number;
    return at % 2 === 0 ? byte & 15 : byte >> 4;
  }
}

/**
 * The cheapest way through a recording of `looks` looks that says the sentences in order, each
 * whole or not at all, with silence or other words between them. Dynamic programming, one look of
 * the recording after the other.
 * @param costs fills `row` with the costs of looks `from` to before `to` of the sentences at a look
 * of the recording
 */
export function cheapestWay(
  looks: number,
  sentences: Sentences,
  speech: Uint8Array,
  prices: Prices,
  band: Band,
  costs: (look: number, from: number, to: number, row: Float32Array) => void,
): Way {
  const { starts } = sentences;
  const count = starts.length - 1;
  const total = starts[count] ?? 0;
  const sentenceOf = new Int32Array(total);
  for (let s = 0; s < count; s += 1) sentenceOf.fill(s, starts[s], starts[s + 1]);
  const row = new Float32Array(total);
  let [before, now] = [
    new Float32Array(total).fill(Infinity),
    new Float32Array(total).fill(Infinity),
  ];
  const gaps = count + 1;
  // First all pauses, then all asides.
  let [gapBefore, gapNow] = [new Float32Array(2 * gaps).fill(Infinity), new Float32Array(2 * gaps)];
  const offsets = new Float64Array(looks + 1);
  for (let t = 0; t < looks; t += 1) {
    const [from, to] = band(t);
    offsets[t + 1] = (offsets[t] as number) + (to - from);
  }
  const steps = new Steps(offsets[looks] ?? 0);
  const gapSteps = new Steps(looks * 2 * gaps);
  let [oldFrom, oldTo] = [0, 0];
  for (let t = 0; t < looks; t += 1) {
    const [from, to] = band(t);
    const offset = (offsets[t] as number) - from;
    const isSpeech = speech[t] === 1;
    costs(t, from, to, row);
    now.fill(Infinity, Math.min(from, oldFrom), Math.max(to, oldTo));
    const stay = isSpeech ? prices.stay : 0;
    for (let r = from; r < to; r += 1) {
      const s = sentenceOf[r] as number;
      const inside = r - (starts[s] as number);
      let best = (before[r] as number) + stay;
      let step = 0;
      for (let back = 1; back <= 3 && back <= inside; back += 1) {
        const cost = (before[r - back] as number) + (prices.jump[back - 1] as number);
        if (cost < best) [best, step] = [cost, back];
      }
      if (inside < 3) {
        const [pause, aside] =
          t === 0
            ? [s * prices.skip, Infinity]
            : [gapBefore[s] as number, gapBefore[gaps + s] as number];
        if (pause < best) [best, step] = [pause, FROM_PAUSE];
        if (aside < best) [best, step] = [aside, FROM_ASIDE];
      }
      now[r] = best + (row[r] as number);
      steps.set(offset + r, step);
    }
    for (const kind of [PAUSE, ASIDE]) {
      const own = kind * gaps;
      const other = (1 - kind) * gaps;
      const begin = kind === ASIDE ? prices.aside : 0;
      const look =
        kind === PAUSE
          ? isSpeech
            ? prices.murmur
            : prices.silence
          : isSpeech
            ? prices.filler
            : prices.silence;
      for (let s = 0; s < gaps; s += 1) {
        let best = t === 0 ? (s === 0 ? begin : Infinity) : (gapBefore[own + s] as number);
        let step = GAP_STAY;
        const changed = (gapBefore[other + s] as number) + begin;
        if (t > 0 && changed < best) [best, step] = [changed, GAP_OTHER];
        if (s > 0) {
          const [first, end] = [starts[s - 1] as number, starts[s] as number];
          for (let back = 1; back <= 3 && end - back >= first; back += 1) {
            const cost = (before[end - back] as number) + begin;
            if (cost < best) [best, step] = [cost, back];
          }
        }
        best += look;
        if (s > 0) {
          const cost = (gapNow[own + s - 1] as number) + prices.skip;
          if (cost < best) [best, step] = [cost, GAP_SKIP];
        }
        gapNow[own + s] = best;
        gapSteps.set(t * 2 * gaps + own + s, step);
      }
    }
    [before, now] = [now, before];
    [gapBefore, gapNow] = [gapNow, gapBefore];
    [oldFrom, oldTo] = [from, to];
  }
  return backwards(
    looks,
    sentences,
    band,
    offsets,
    steps,
    gapSteps,
    before,
    gapBefore,
    sentenceOf,
    prices,
  );
}

function backwards(
  looks: number,
  { starts }: Sentences,
  band: Band,
  offsets: Float64Array,
  steps: Steps,
  gapSteps: Steps,
  last: Float32Array,
  lastGap: Float32Array,
  sentenceOf: Int32Array,
  { skip }: Prices,
): Way {
  const count = starts.length - 1;
  const gaps = count + 1;
  const at = new Int32Array(looks);
  // A state is a look of the sentences, or -1 less a place in the list of gaps. It may end within
  // the last words of any sentence, the others left out.
  let [state, cost] =
    (lastGap[count] as number) <= (lastGap[gaps + count] as number)
      ? [-1 - count, lastGap[count] as number]
      : [-1 - gaps - count, lastGap[gaps + count] as number];
  for (let s = 0; s < count; s += 1) {
    for (let back = 1; back <= 3; back += 1) {
      const r = (starts[s + 1] as number) - back;
      if (r < (starts[s] as number)) continue;
      const own = (last[r] as number) + (count - 1 - s) * skip;
      if (own < cost) [state, cost] = [r, own];
    }
  }
  for (let t = looks - 1; t >= 0; t -= 1) {
    if (state >= 0) {
      at[t] = state;
      const step = steps.get((offsets[t] as number) + state - band(t)[0]);
      if (step === FROM_PAUSE) state = -1 - (sentenceOf[state] as number);
      else if (step === FROM_ASIDE) state = -1 - gaps - (sentenceOf[state] as number);
      else state -= step;
      continue;
    }
    let gap = -1 - state;
    while (gapSteps.get(t * 2 * gaps + gap) === GAP_SKIP) gap -= 1;
    const s = gap % gaps;
    at[t] = -1 - s;
    const step = gapSteps.get(t * 2 * gaps + gap);
    if (step === GAP_STAY) state = -1 - gap;
    else if (step === GAP_OTHER) state = -1 - ((gap + gaps) % (2 * gaps));
    else state = (starts[s] as number) - step;
  }
  return { at, cost };
}
