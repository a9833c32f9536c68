/**
 * What is looked for: the sentences' frames one after the other; sentence s has those from
 * `starts[s]` to before `starts[s + 1]`.
 */
export interface Sentences {
  starts: readonly number[];
  /** 1 for frames of the sentences in which nothing is heard. */
  quiet: Uint8Array;
}

/** A sentence's frames among those of all. */
export const spanOf = (starts: readonly number[], sentence: number) =>
  [starts[sentence] as number, starts[sentence + 1] as number] as const;

/** What the transitions of a path cost through recording and sentences, in the cost of one frame. */
export interface TransitionCosts {
  /** A frame of the recording more, or a frame or two of the sentence fewer. */
  repeat: number;
  jump: readonly [number, number, number];
  /** A sentence that is left out. */
  skip: number;
  /** Between sentences nobody speaks: a frame that is silent, and one that is not. */
  silence: number;
  noise: number;
  /** Somebody says something else: beginning with it, and a frame of it. */
  insertion: number;
  insertionFrame: number;
}

export interface Path {
  /**
   * For each frame of the recording the frame of the sentences, or -1 - s while it is before sentence
   * s and none is said.
   */
  at: Int32Array;
  cost: number;
}

/** A sentence in the recording: its first and last frame there. */
export interface Place {
  sentence: number;
  span: readonly [first: number, last: number];
}

/**
 * The frames of the sentences that are possible at a frame of the recording, from first to after the
 * last.
 */
export type Band = (frame: number) => readonly [number, number];

const GAP_STAY = 0;
const GAP_SKIP = 4;
const GAP_OTHER = 5;
const FROM_PAUSE = 4;
const FROM_INSERTION = 5;

/** Before each sentence, and after the last: nobody speaks, or somebody says something else. */
const PAUSE = 0;
const INSERTION = 1;

/** Steps from 0 to 15, two to a byte: a long lesson has hundreds of millions. */
class Backpointers {
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
 * Fills `row` with the costs of frames `from` to before `to` of the sentences at a frame; of every
 * `step`-th of them, where that is given.
 */
export type Costs = (
  frame: number,
  from: number,
  to: number,
  row: Float32Array,
  step?: number,
) => void;

/**
 * A step of at most so many frames of a sentence at once; it begins and ends within as many of its
 * first and last.
 */
export const JUMPS = 3;

/** The search forward, one frame of the recording after the other, and the way back. */
class PathSearch {
  readonly #count: number;
  /** Places before each sentence and after the last: first all pauses, then all insertions. */
  readonly #gaps: number;
  readonly #sentenceOf: Int32Array;
  readonly #offsets: Float64Array;
  readonly #steps: Backpointers;
  readonly #gapSteps: Backpointers;
  readonly #row: Float32Array;
  #before: Float32Array;
  #now: Float32Array;
  #gapBefore: Float32Array;
  #gapNow: Float32Array;

  constructor(
    private readonly frames: number,
    private readonly starts: readonly number[],
    private readonly speech: Uint8Array,
    private readonly transitions: TransitionCosts,
    private readonly band: Band,
  ) {
    const count = starts.length - 1;
    const total = starts[count] ?? 0;
    this.#count = count;
    this.#gaps = count + 1;
    this.#sentenceOf = new Int32Array(total);
    for (let s = 0; s < count; s += 1) this.#sentenceOf.fill(s, starts[s], starts[s + 1]);
    this.#row = new Float32Array(total);
    this.#before = new Float32Array(total).fill(Infinity);
    this.#now = new Float32Array(total).fill(Infinity);
    this.#gapBefore = new Float32Array(2 * this.#gaps).fill(Infinity);
    this.#gapNow = new Float32Array(2 * this.#gaps).fill(Infinity);
    this.#offsets = new Float64Array(frames + 1);
    for (let t = 0; t < frames; t += 1) {
      const [from, to] = band(t);
      this.#offsets[t + 1] = (this.#offsets[t] as number) + (to - from);
    }
    this.#steps = new Backpointers(this.#offsets[frames] ?? 0);
    this.#gapSteps = new Backpointers(frames * 2 * this.#gaps);
  }

  forward(costs: Costs): void {
    for (let t = 0; t < this.frames; t += 1) {
      const [from, to] = this.band(t);
      costs(t, from, to, this.#row);
      // What it holds is from two frames ago.
      if (t > 1) this.#now.fill(Infinity, ...this.band(t - 2));
      this.#enterSentences(t, from, to);
      this.#enterGaps(t, PAUSE);
      this.#enterGaps(t, INSERTION);
      [this.#before, this.#now] = [this.#now, this.#before];
      [this.#gapBefore, this.#gapNow] = [this.#gapNow, this.#gapBefore];
    }
  }

  /** The cheapest way into each frame of the sentences at frame `t` of the recording. */
  #enterSentences(t: number, from: number, to: number): void {
    const [before, now, gapBefore, gaps] = [
      this.#before,
      this.#now,
      this.#gapBefore,
      this.#gaps,
    ] as const;
    const { jump, skip } = this.transitions;
    const repeat = this.speech[t] === 1 ? this.transitions.repeat : 0;
    const offset = (this.#offsets[t] as number) - from;
    for (let r = from; r < to; r += 1) {
      const s = this.#sentenceOf[r] as number;
      const inside = r - (this.starts[s] as number);
      let best = (before[r] as number) + repeat;
      let step = 0;
      for (let back = 1; back <= JUMPS && back <= inside; back += 1) {
        const cost = (before[r - back] as number) + (jump[back - 1] as number);
        if (cost < best) [best, step] = [cost, back];
      }
      if (inside < JUMPS) {
        const pause = t === 0 ? s * skip : (gapBefore[s] as number);
        const insertion = t === 0 ? Infinity : (gapBefore[gaps + s] as number);
        if (pause < best) [best, step] = [pause, FROM_PAUSE];
        if (insertion < best) [best, step] = [insertion, FROM_INSERTION];
      }
      now[r] = best + (this.#row[r] as number);
      this.#steps.set(offset + r, step);
    }
  }

  /** What a frame between sentences costs, silent or not. */
  #gapFrame(t: number, kind: typeof PAUSE | typeof INSERTION): number {
    const { silence, noise, insertionFrame } = this.transitions;
    if (this.speech[t] !== 1) return silence;
    return kind === PAUSE ? noise : insertionFrame;
  }

  /**
   * The cheapest way into each place between sentences, where nobody says any of them: those beside
   * the sentences that are possible. Who is further on is there by leaving some out, which costs the
   * same later.
   */
  #enterGaps(t: number, kind: typeof PAUSE | typeof INSERTION): void {
    const gaps = this.#gaps;
    const [same, other] = [kind * gaps, (1 - kind) * gaps];
    const { skip, insertion } = this.transitions;
    const begin = kind === INSERTION ? insertion : 0;
    const frameCost = this.#gapFrame(t, kind);
    const [first, last] = this.#gapsAt(t);
    if (t > 1) {
      const [from, to] = this.#gapsAt(t - 2);
      this.#gapNow.fill(Infinity, same + from, same + to + 1);
    }
    for (let s = first; s <= last; s += 1) {
      let best = this.#gapBefore[same + s] as number;
      if (t === 0) best = s === first ? begin + s * skip : Infinity;
      let step = GAP_STAY;
      const changed = (this.#gapBefore[other + s] as number) + begin;
      if (t > 0 && changed < best) [best, step] = [changed, GAP_OTHER];
      const [begins, end] = [this.starts[s - 1] ?? Infinity, this.starts[s] as number];
      for (let back = 1; back <= JUMPS && end - back >= begins; back += 1) {
        const cost = (this.#before[end - back] as number) + begin;
        if (cost < best) [best, step] = [cost, back];
      }
      best += frameCost;
      const skipped = s > first ? (this.#gapNow[same + s - 1] as number) + skip : Infinity;
      if (skipped < best) [best, step] = [skipped, GAP_SKIP];
      this.#gapNow[same + s] = best;
      this.#gapSteps.set(t * 2 * gaps + same + s, step);
    }
  }

  /** The first and last place between sentences that are possible at a frame. */
  #gapsAt(t: number): readonly [number, number] {
    const [from, to] = this.band(t);
    return [this.#sentenceOf[from] ?? 0, (this.#sentenceOf[to - 1] ?? -1) + 1];
  }

  /**
   * The cheapest state at the end: a frame of the sentences, or -1 less a place between them. It
   * may end within the last words of any sentence, the others left out.
   */
  #end(): { state: number; cost: number } {
    const [count, gaps] = [this.#count, this.#gaps];
    const { skip } = this.transitions;
    const [, gap] = this.#gapsAt(this.frames - 1);
    const [pause, insertion] = [
      this.#gapBefore[gap] as number,
      this.#gapBefore[gaps + gap] as number,
    ];
    let state = pause <= insertion ? -1 - gap : -1 - gaps - gap;
    let cost = Math.min(pause, insertion) + (count - gap) * skip;
    for (let s = 0; s < count; s += 1) {
      for (let back = 1; back <= JUMPS; back += 1) {
        const r = (this.starts[s + 1] as number) - back;
        if (r < (this.starts[s] as number)) continue;
        const ended = (this.#before[r] as number) + (count - 1 - s) * skip;
        if (ended < cost) [state, cost] = [r, ended];
      }
    }
    return { state, cost };
  }

  traceBack(): Path {
    const gaps = this.#gaps;
    const at = new Int32Array(this.frames);
    const end = this.#end();
    let { state } = end;
    for (let t = this.frames - 1; t >= 0; t -= 1) {
      if (state >= 0) {
        at[t] = state;
        const step = this.#steps.get((this.#offsets[t] as number) + state - this.band(t)[0]);
        if (step === FROM_PAUSE) state = -1 - (this.#sentenceOf[state] as number);
        else if (step === FROM_INSERTION) state = -1 - gaps - (this.#sentenceOf[state] as number);
        else state -= step;
        continue;
      }
      let gap = -1 - state;
      while (this.#gapSteps.get(t * 2 * gaps + gap) === GAP_SKIP) gap -= 1;
      const s = gap % gaps;
      at[t] = -1 - s;
      const step = this.#gapSteps.get(t * 2 * gaps + gap);
      if (step === GAP_STAY) state = -1 - gap;
      else if (step === GAP_OTHER) state = -1 - ((gap + gaps) % (2 * gaps));
      else state = (this.starts[s] as number) - step;
    }
    return { at, cost: end.cost };
  }
}

/**
 * The best path through a recording of `frames` frames that says the sentences in order, each whole
 * or not at all, with silence or other words between them: the Viterbi algorithm (1967), one frame
 * of the recording after the other.
 */
export function bestPath(
  frames: number,
  { starts }: Sentences,
  speech: Uint8Array,
  transitions: TransitionCosts,
  band: Band,
  costs: Costs,
): Path {
  const search = new PathSearch(frames, starts, speech, transitions, band);
  search.forward(costs);
  return search.traceBack();
}
