/**
 * What is looked for: the sentences' frames one after the other; sentence s has those from
 * `starts[s]` to before `starts[s + 1]`.
 */
export interface Sentences {
  starts: readonly number[];
  /** 1 for frames of the sentences in which nothing is heard. */
  quiet: Uint8Array;
}

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
 * The cheapest path through a recording of `frames` frames that says the sentences in order, each
 * whole or not at all, with silence or other words between them. Dynamic programming, one frame of
 * the recording after the other.
 * @param costs fills `row` with the costs of frames `from` to before `to` of the sentences at a frame
 * of the recording
 */
export function bestPath(
  frames: number,
  sentences: Sentences,
  speech: Uint8Array,
  transitions: TransitionCosts,
  band: Band,
  costs: (frame: number, from: number, to: number, row: Float32Array) => void,
): Path {
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
  // First all pauses, then all insertions.
  let [gapBefore, gapNow] = [new Float32Array(2 * gaps).fill(Infinity), new Float32Array(2 * gaps)];
  const offsets = new Float64Array(frames + 1);
  for (let t = 0; t < frames; t += 1) {
    const [from, to] = band(t);
    offsets[t + 1] = (offsets[t] as number) + (to - from);
  }
  const steps = new Backpointers(offsets[frames] ?? 0);
  const gapSteps = new Backpointers(frames * 2 * gaps);
  let [oldFrom, oldTo] = [0, 0];
  for (let t = 0; t < frames; t += 1) {
    const [from, to] = band(t);
    const offset = (offsets[t] as number) - from;
    const isSpeech = speech[t] === 1;
    costs(t, from, to, row);
    now.fill(Infinity, Math.min(from, oldFrom), Math.max(to, oldTo));
    const repeat = isSpeech ? transitions.repeat : 0;
    for (let r = from; r < to; r += 1) {
      const s = sentenceOf[r] as number;
      const inside = r - (starts[s] as number);
      let best = (before[r] as number) + repeat;
      let step = 0;
      for (let back = 1; back <= 3 && back <= inside; back += 1) {
        const cost = (before[r - back] as number) + (transitions.jump[back - 1] as number);
        if (cost < best) [best, step] = [cost, back];
      }
      if (inside < 3) {
        const [pause, insertion] =
          t === 0
            ? [s * transitions.skip, Infinity]
            : [gapBefore[s] as number, gapBefore[gaps + s] as number];
        if (pause < best) [best, step] = [pause, FROM_PAUSE];
        if (insertion < best) [best, step] = [insertion, FROM_INSERTION];
      }
      now[r] = best + (row[r] as number);
      steps.set(offset + r, step);
    }
    for (const kind of [PAUSE, INSERTION]) {
      const own = kind * gaps;
      const other = (1 - kind) * gaps;
      const begin = kind === INSERTION ? transitions.insertion : 0;
      const frame =
        kind === PAUSE
          ? isSpeech
            ? transitions.noise
            : transitions.silence
          : isSpeech
            ? transitions.insertionFrame
            : transitions.silence;
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
        best += frame;
        if (s > 0) {
          const cost = (gapNow[own + s - 1] as number) + transitions.skip;
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
  return traceBack(
    frames,
    sentences,
    band,
    offsets,
    steps,
    gapSteps,
    before,
    gapBefore,
    sentenceOf,
    transitions,
  );
}

function traceBack(
  frames: number,
  { starts }: Sentences,
  band: Band,
  offsets: Float64Array,
  steps: Backpointers,
  gapSteps: Backpointers,
  last: Float32Array,
  lastGap: Float32Array,
  sentenceOf: Int32Array,
  { skip }: TransitionCosts,
): Path {
  const count = starts.length - 1;
  const gaps = count + 1;
  const at = new Int32Array(frames);
  // A state is a frame of the sentences, or -1 less a place in the list of gaps. It may end within
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
  for (let t = frames - 1; t >= 0; t -= 1) {
    if (state >= 0) {
      at[t] = state;
      const step = steps.get((offsets[t] as number) + state - band(t)[0]);
      if (step === FROM_PAUSE) state = -1 - (sentenceOf[state] as number);
      else if (step === FROM_INSERTION) state = -1 - gaps - (sentenceOf[state] as number);
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
