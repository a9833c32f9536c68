import { Matrix, solve } from 'ml-matrix';
import { runsOf } from './numbers.ts';
import {
  bestPath,
  type Band,
  type TransitionCosts,
  type Sentences,
  type Path,
  type Costs,
} from './speech-path.ts';
import { evidenceFor, trustIn, type Evidence } from './speech-trust.ts';
import {
  FEATURES,
  fromOtherTract,
  mfccOf,
  SPEECH_STEP_MS,
  type BandSound,
} from './speech-sound.ts';
import { merge, spanLength } from '../time/index.ts';

/** A sentence of the script where it was said. Times in milliseconds of the recording. */
export interface SaidSentence {
  startMs: number;
  endMs: number;
  /** 0 to 1; below `SURE_SENTENCE` the teacher is asked. */
  confidence: number;
}

export interface Alignment {
  /** One a sentence of the script; null for those left out. */
  sentences: (SaidSentence | null)[];
  /** Speech that is in no sentence. */
  added: { startMs: number; endMs: number }[];
}

/** The recording and, laid out like it, the script spoken by a synthesiser. */
export interface SpeechMatch {
  recording: BandSound;
  speech: Uint8Array;
  reference: BandSound;
  referenceSpeech: Uint8Array;
  /** Where the sentences of the script begin in the reference; one number more than sentences. */
  starts: readonly number[];
}

const FIRST: TransitionCosts = {
  repeat: 0.35,
  jump: [0, 0.15, 0.5],
  skip: 12,
  silence: -0.55,
  noise: 0.1,
  insertion: 14,
  insertionFrame: -0.62,
};
const LATER: TransitionCosts = {
  repeat: 0.35,
  jump: [0, 0.15, 0.5],
  skip: 12,
  silence: -0.55,
  noise: 0.1,
  insertion: 14,
  insertionFrame: -0.45,
};
/**
 * What a frame of silence costs in a sentence, where its own frame is quiet and where it is not; and
 * quiet where somebody speaks.
 */
const NEAR_SPEECH = 10;
const QUIET = { both: -0.5, one: 0.45 } as const;

/** More cells than this are first searched four frames at a time, then near the path found. */
const MOST_CELLS = 3_000_000;
const COARSE = 4;
const NEAR = 260;

/** Frames the typical distance of a frame of the recording is taken from. */
const SAMPLE = 256;

function withQuiet(speech: Uint8Array, quiet: Uint8Array, costs: Costs): Costs {
  return (frame, from, to, row) => {
    const isSpeech = speech[frame] === 1;
    // In noise the weak beginnings and ends of words sink under it: they may still be heard as what
    // they are.
    const isNear =
      isSpeech || speech[frame - NEAR_SPEECH] === 1 || speech[frame + NEAR_SPEECH] === 1;
    if (isNear) costs(frame, from, to, row);
    if (!isSpeech) {
      for (let r = from; r < to; r += 1)
        row[r] =
          quiet[r] === 1 ? QUIET.both : isNear ? Math.min(QUIET.one, row[r] as number) : QUIET.one;
      return;
    }
    for (let r = from; r < to; r += 1) if (quiet[r] === 1) row[r] = QUIET.one;
  };
}

/** Distances, each frame's own typical one taken off and in its own spread. */
function plainCosts(features: Float32Array, reference: Float32Array, quiet: Uint8Array): Costs {
  const loud = [...quiet.keys()].filter((r) => quiet[r] === 0);
  const sample = loud.filter((_, i) => i % Math.max(1, Math.floor(loud.length / SAMPLE)) === 0);
  const distance = (frame: number, r: number) => {
    let sum = 0;
    const [a, b] = [frame * FEATURES, r * FEATURES];
    for (let f = 0; f < FEATURES; f += 1) {
      const gap = (features[a + f] as number) - (reference[b + f] as number);
      sum += gap * gap;
    }
    return Math.sqrt(sum);
  };
  // Each frame's typical distance and its spread, found when first asked for.
  const frames = features.length / FEATURES;
  const [means, spreads] = [new Float64Array(frames), new Float64Array(frames)];
  const learn = (frame: number) => {
    let sum = 0;
    let squares = 0;
    for (const r of sample) {
      const d = distance(frame, r);
      sum += d;
      squares += d * d;
    }
    const mean = sum / sample.length;
    means[frame] = mean;
    spreads[frame] = Math.sqrt(Math.max(1e-6, squares / sample.length - mean * mean));
  };
  return (frame, from, to, row) => {
    if (spreads[frame] === 0) learn(frame);
    const mean = means[frame] as number;
    const spread = spreads[frame] as number;
    for (let r = from; r < to; r += 1) row[r] = (distance(frame, r) - mean) / spread;
  };
}

/** Fewer frames: each the mean of `times` of them. */
function coarser(features: Float32Array, times: number): Float32Array {
  const frames = Math.floor(features.length / FEATURES / times);
  const out = new Float32Array(frames * FEATURES);
  for (let i = 0; i < frames * times * FEATURES; i += 1) {
    const frame = Math.floor(i / FEATURES / times);
    const to = frame * FEATURES + (i % FEATURES);
    out[to] = (out[to] as number) + (features[i] as number) / times;
  }
  return out;
}
const coarserFlags = (flags: Uint8Array, times: number) =>
  Uint8Array.from({ length: Math.floor(flags.length / times) }, (_, i) =>
    flags.subarray(i * times, (i + 1) * times).reduce((sum, one) => sum + one, 0) * 2 >= times
      ? 1
      : 0,
  );

/** Frames near a path already found. */
function bandAbout({ at }: Path, starts: readonly number[], total: number, times: number): Band {
  const place = Int32Array.from(at, (r) => (r < 0 ? (starts[-1 - r] ?? total) : r * times));
  const reach = Math.ceil(NEAR / 2 / times);
  const [low, high] = [new Int32Array(place.length), new Int32Array(place.length)];
  for (let t = 0; t < place.length; t += 1) {
    let [least, most] = [Infinity, -Infinity];
    for (let i = Math.max(0, t - reach); i <= Math.min(place.length - 1, t + reach); i += 1) {
      least = Math.min(least, place[i] as number);
      most = Math.max(most, place[i] as number);
    }
    [low[t], high[t]] = [Math.max(0, least - NEAR), Math.min(total, most + NEAR)];
  }
  return (frame) => {
    const t = Math.min(place.length - 1, Math.floor(frame / times));
    return [low[t] as number, high[t] as number];
  };
}

/** Where the sentences may lie: near where they are found four frames at a time. */
function firstBand(
  features: Float32Array,
  reference: Float32Array,
  speech: Uint8Array,
  { starts, quiet }: Sentences,
): Band {
  const [frames, total] = [speech.length, quiet.length];
  if (frames * total <= MOST_CELLS) return () => [0, total];
  const ofRecording = {
    starts: starts.map((start) => Math.floor(start / COARSE)),
    quiet: coarserFlags(quiet, COARSE),
  };
  ofRecording.starts[ofRecording.starts.length - 1] = ofRecording.quiet.length;
  const transitions = { ...FIRST, skip: FIRST.skip / COARSE };
  const [few, fewReference, fewSpeech] = [
    coarser(features, COARSE),
    coarser(reference, COARSE),
    coarserFlags(speech, COARSE),
  ];
  const path = bestPath(
    fewSpeech.length,
    ofRecording,
    fewSpeech,
    transitions,
    () => [0, ofRecording.quiet.length],
    withQuiet(fewSpeech, ofRecording.quiet, plainCosts(few, fewReference, ofRecording.quiet)),
  );
  return bandAbout(path, starts, total, COARSE);
}

/** A reference as some speaker would have said it, and the way through it. */
interface Start {
  plain: Float32Array;
  wide: Band;
  costs: Costs;
  path: Path;
}

/** Vocal tracts from long to short, against the synthesiser's; the middle one is tried first. */
const TRACTS = [0.84, 0.92, 1, 1.08, 1.16] as const;

/** The way through the script by the vocal tract by which it costs least. */
function bestStart(
  features: Float32Array,
  speech: Uint8Array,
  { reference, referenceSpeech }: Pick<SpeechMatch, 'reference' | 'referenceSpeech'>,
  sentences: Sentences,
): Start {
  const known = new Map<number, Start>();
  const startAt = (i: number): Start => {
    const found = known.get(i);
    if (found) return found;
    const plain = mfccOf(fromOtherTract(reference, TRACTS[i] ?? 1), referenceSpeech);
    const wide = firstBand(features, plain, speech, sentences);
    const costs = withQuiet(speech, sentences.quiet, plainCosts(features, plain, sentences.quiet));
    const path = bestPath(speech.length, sentences, speech, FIRST, wide, costs);
    const start = { plain, wide, costs, path };
    known.set(i, start);
    return start;
  };
  let at = TRACTS.indexOf(1);
  for (;;) {
    const [best] = [at, at - 1, at + 1]
      .filter((i) => i in TRACTS)
      .sort((a, b) => startAt(a).path.cost - startAt(b).path.cost);
    if (best === undefined || best === at) return startAt(at);
    at = best;
  }
}

/**
 * A sentence in the recording: its frames there, and pairs of frames that were found to be the same.
 */
interface Found {
  sentence: number;
  span: readonly [first: number, last: number];
  pairs: [number, number][];
}

function foundIn({ at }: Path, speech: Uint8Array, { starts, quiet }: Sentences): Found[] {
  const found: Found[] = [];
  let s = 0;
  for (let t = 0; t < at.length; t += 1) {
    const r = at[t] as number;
    if (r < 0) continue;
    while (r >= (starts[s + 1] as number)) s += 1;
    let last = found.at(-1);
    if (last?.sentence !== s) found.push((last = { sentence: s, span: [t, t], pairs: [] }));
    last.span = [last.span[0], t];
    if (speech[t] === 1 && quiet[r] === 0) last.pairs.push([t, r]);
  }
  return found.filter(({ pairs }) => pairs.length > 0);
}

/** What a sentence's frames cost where it was found, on average. */
function costOfFound({ pairs }: Found, costs: Costs, row: Float32Array): number {
  const sum = pairs.reduce((all, [t, r]) => {
    costs(t, r, r + 1, row);
    return all + (row[r] as number);
  }, 0);
  return sum / pairs.length;
}

/** The part of the sentences the reference is adapted by, those that fit best. */
const LEARNT = 0.8;

function bestOf(found: readonly Found[], costs: Costs, total: number): Found[] {
  const row = new Float32Array(total);
  const sorted = found
    .map((one) => ({ one, cost: costOfFound(one, costs, row) }))
    .sort((a, b) => a.cost - b.cost);
  return sorted.slice(0, Math.max(1, Math.ceil(found.length * LEARNT))).map(({ one }) => one);
}

/**
 * The reference is adapted by the sentences that are confirmed, where they hold at least so many pairs
 * of frames.
 */
const LEAST_CONFIRMED = FEATURES * 12;
const CONFIRMED = 3;
/** The same before the reference is adapted at all, when less can speak for a sentence. */
const CONFIRMED_PLAIN = 2.5;
/**
 * Sentences are judged by a reference that was adapted without them: each quarter by the three others.
 */
const FOLDS = 4;

/** A sentence's frames in the reference. */
const spanOf = (starts: readonly number[], sentence: number) =>
  [starts[sentence] as number, starts[sentence + 1] as number] as const;

/** What speaks for each sentence found, by its number in the script; null where nothing does. */
function evidenceIn(
  found: readonly Found[],
  adapted: readonly Found[],
  features: Float32Array,
  plain: Float32Array,
  speech: Uint8Array,
  { starts, quiet }: Sentences,
): Map<number, Evidence> {
  const total = quiet.length;
  const row = new Float32Array(total);
  const evidence = new Map<number, Evidence>();
  for (let fold = 0; fold < FOLDS; fold += 1) {
    const judged = found.filter((_, i) => i % FOLDS === fold);
    const pairs = adapted.filter((one) => !judged.includes(one)).flatMap((one) => one.pairs);
    const isEnough = pairs.length >= FEATURES * 2;
    const costs = isEnough
      ? withQuiet(
          speech,
          quiet,
          likelyCosts(features, adaptedTo(features, plain, pairs), speech, pairs),
        )
      : null;
    for (const { sentence, span } of judged)
      evidence.set(
        sentence,
        costs
          ? evidenceFor(costs, span, spanOf(starts, sentence), total, LATER, row)
          : { alone: null, amongAlike: null },
      );
  }
  return evidence;
}

const RIDGE = 30;

/**
 * Speaker adaptation: the reference as this teacher would have said it, by the affine map of feature
 * space that takes its frames nearest to theirs (fMLLR, Gales 1998, Computer Speech and Language
 * 12:75, from memory; here by ridge regression towards leaving it as it is, Hoerl and Kennard 1970).
 * @param pairs frames of the recording and of the reference that say the same
 */
function adaptedTo(
  features: Float32Array,
  reference: Float32Array,
  pairs: readonly [number, number][],
): Float32Array {
  const frame = (of: Float32Array, at: number) => of.subarray(at * FEATURES, (at + 1) * FEATURES);
  const [x, y] = [
    new Matrix(pairs.map(([, r]) => [...frame(reference, r), 1])),
    new Matrix(pairs.map(([t]) => [...frame(features, t)])),
  ];
  const prior = Matrix.eye(FEATURES + 1, FEATURES);
  const left = x
    .transpose()
    .mmul(x)
    .add(Matrix.eye(FEATURES + 1).mul(RIDGE));
  const map = solve(left, x.transpose().mmul(y).add(prior.mul(RIDGE)));
  const out = new Float32Array(reference.length);
  for (let r = 0; r < reference.length / FEATURES; r += 1)
    for (let f = 0; f < FEATURES; f += 1) {
      let sum = map.get(FEATURES, f);
      for (let i = 0; i < FEATURES; i += 1)
        sum += (reference[r * FEATURES + i] as number) * map.get(i, f);
      out[r * FEATURES + f] = sum;
    }
  return out;
}

/**
 * How much likelier a frame is as that one of the sentence than as any speech: each number by its
 * own spread, the whole scaled to the plain costs.
 */
function likelyCosts(
  features: Float32Array,
  reference: Float32Array,
  speech: Uint8Array,
  pairs: readonly [number, number][],
): Costs {
  const within = new Float64Array(FEATURES).fill(1e-3);
  for (const [t, r] of pairs)
    for (let f = 0; f < FEATURES; f += 1)
      within[f] =
        (within[f] as number) +
        ((features[t * FEATURES + f] as number) - (reference[r * FEATURES + f] as number)) ** 2 /
          pairs.length;
  const [mean, about] = [new Float64Array(FEATURES), new Float64Array(FEATURES)];
  let count = 0;
  for (let t = 0; t < speech.length; t += 1) {
    if (speech[t] === 0) continue;
    count += 1;
    for (let f = 0; f < FEATURES; f += 1) {
      const value = features[t * FEATURES + f] as number;
      mean[f] = (mean[f] as number) + value;
      about[f] = (about[f] as number) + value * value;
    }
  }
  let steady = 0;
  for (let f = 0; f < FEATURES; f += 1) {
    mean[f] = (mean[f] as number) / Math.max(1, count);
    about[f] = Math.max(1e-3, (about[f] as number) / Math.max(1, count) - (mean[f] as number) ** 2);
    steady += Math.log((within[f] as number) / (about[f] as number)) / 2;
  }
  const halved = within.map((variance) => 1 / (2 * variance));
  // What a frame is as any speech is the same whatever it is held against.
  const asAny = Float64Array.from(speech, (_, t) => {
    let sum = steady;
    for (let f = 0; f < FEATURES; f += 1)
      sum -=
        ((features[t * FEATURES + f] as number) - (mean[f] as number)) ** 2 /
        (2 * (about[f] as number));
    return sum;
  });
  const ratio = (t: number, r: number) => {
    let sum = asAny[t] as number;
    const [a, b] = [t * FEATURES, r * FEATURES];
    for (let f = 0; f < FEATURES; f += 1) {
      const gap = (features[a + f] as number) - (reference[b + f] as number);
      sum += gap * gap * (halved[f] as number);
    }
    return sum;
  };
  // The usual cost of what was found to be the same is -1.
  const usual = pairs.reduce((sum, [t, r]) => sum + ratio(t, r), 0) / Math.max(1, pairs.length);
  const scale = 1 / Math.max(0.5, -usual);
  return (frame, from, to, row) => {
    for (let r = from; r < to; r += 1) row[r] = Math.min(3, ratio(frame, r) * scale);
  };
}

const part = (value: number) => Math.min(1, Math.max(0, value));

/** The sentences in reverse order: what they then cost, they cost by chance. */
function reversed(
  reference: Float32Array,
  { starts, quiet }: Sentences,
): { reference: Float32Array; sentences: Sentences; placeOf: Int32Array } {
  const out = new Float32Array(reference.length);
  const placeOf = new Int32Array(quiet.length);
  const begins = [0];
  for (let s = starts.length - 2; s >= 0; s -= 1) {
    const [from, to] = spanOf(starts, s);
    const at = begins.at(-1) ?? 0;
    out.set(reference.subarray(from * FEATURES, to * FEATURES), at * FEATURES);
    for (let r = from; r < to; r += 1) placeOf[r] = at + r - from;
    begins.push(at + to - from);
  }
  const quietThere = new Uint8Array(quiet.length);
  placeOf.forEach((place, r) => (quietThere[place] = quiet[r] as number));
  return { reference: out, sentences: { starts: begins, quiet: quietThere }, placeOf };
}

/**
 * What the script costs less than in reverse order, for each of its frames in which something is
 * heard. Measured: with the script of another recording it comes to at most 0.18, with the right
 * one to 0.4 and more, said by people, by synthesisers, in a hall and among children. So much of it
 * may be chance where a script is short.
 */
const STRANGE = 0.22;
const OWN = 0.35;
const FEW = 25;
/** Where it comes to less than this, hardly a sentence can be of this script. */
const HARDLY = 0.11;

/** What the script costs less than by chance, a frame; null for one sentence: it has no order. */
function lessThanByChance(
  { cost }: Path,
  pairs: readonly [number, number][],
  features: Float32Array,
  plain: Float32Array,
  speech: Uint8Array,
  sentences: Sentences,
): number | null {
  const count = sentences.starts.length - 1;
  if (count < 2) return null;
  const other = reversed(plain, sentences);
  const there = pairs.map(([t, r]): [number, number] => [t, other.placeOf[r] as number]);
  const costs = likelyCosts(features, adaptedTo(features, other.reference, there), speech, there);
  const byChance = bestPath(
    speech.length,
    other.sentences,
    speech,
    LATER,
    firstBand(features, other.reference, speech, other.sentences),
    withQuiet(speech, other.sentences.quiet, costs),
  );
  const spoken = sentences.quiet.reduce((sum, one) => sum + 1 - one, 0);
  return (byChance.cost - cost - FEW) / spoken;
}

/** Starts and ends are moved to where speech begins and ends this near. */
const SNAP_MS = 350;
/** Speech of at least this length in no sentence was added. */
/** Speech with a shorter pause in it is one stretch. */
const WITHIN_BREATH_MS = 499;
const ADDED_MS = 600;

/** Times the reference is adapted, and the sentences are looked for by it. */
const PASSES = 3;
/**
 * Those of the sentences found that the reference is adapted by: what was confirmed, where it is
 * enough. What else was said in between would else be learnt as the teacher's voice.
 */
function toLearnFrom(
  found: readonly Found[],
  best: readonly Found[],
  evidence: ReadonlyMap<number, Evidence>,
  least: number,
): readonly Found[] {
  const confirmed = found.filter(({ sentence }) => (evidence.get(sentence)?.alone ?? 0) >= least);
  return confirmed.reduce((sum, one) => sum + one.pairs.length, 0) >= LEAST_CONFIRMED
    ? confirmed
    : best;
}

/**
 * Where each sentence of the script is said in the recording, what was left out and what was added.
 */
export function alignSpeech(match: SpeechMatch): Alignment {
  const { recording, speech, referenceSpeech, starts } = match;
  const features = mfccOf(recording, speech);
  const quiet = referenceSpeech.map((one) => 1 - one);
  const sentences: Sentences = { starts, quiet };
  const total = quiet.length;
  const start = bestStart(features, speech, match, sentences);
  const { plain, wide } = start;
  let { costs, path } = start;
  const row = new Float32Array(total);
  let found = foundIn(path, speech, sentences);
  let evidence: ReadonlyMap<number, Evidence> = new Map(
    found.map(({ sentence, span }) => [
      sentence,
      evidenceFor(costs, span, spanOf(starts, sentence), total, FIRST, row),
    ]),
  );
  let best = bestOf(found, costs, total);
  let adapted = toLearnFrom(found, best, evidence, CONFIRMED_PLAIN);
  let learnt: [number, number][] = [];
  for (let pass = 0; pass < PASSES; pass += 1) {
    const pairs = adapted.flatMap((one) => one.pairs);
    // So little speech tells nothing about a voice.
    if (pairs.length < FEATURES * 4) break;
    learnt = pairs;
    const likely = likelyCosts(features, adaptedTo(features, plain, pairs), speech, pairs);
    costs = withQuiet(speech, quiet, likely);
    path = bestPath(
      speech.length,
      sentences,
      speech,
      LATER,
      speech.length * total <= MOST_CELLS ? wide : bandAbout(path, starts, total, 1),
      costs,
    );
    found = foundIn(path, speech, sentences);
    best = bestOf(found, costs, total);
    evidence = evidenceIn(found, best, features, plain, speech, sentences);
    adapted = toLearnFrom(found, best, evidence, CONFIRMED);
  }
  const less =
    learnt.length > 0 ? lessThanByChance(path, learnt, features, plain, speech, sentences) : null;
  const scriptScore = part(((less ?? STRANGE) - STRANGE) / (OWN - STRANGE));
  const most = part((less ?? HARDLY) / HARDLY);
  const fit = new Map(
    found.map((one) => [
      one.sentence,
      (evidence.get(one.sentence)?.amongAlike ?? 0) >= CONFIRMED_PLAIN
        ? scriptScore * part(0.5 + LATER.insertionFrame - costOfFound(one, costs, row))
        : 0,
    ]),
  );
  const trust = trustIn(
    starts.slice(0, -1).map((_, sentence) => evidence.get(sentence)?.alone),
  ).map((trusted, sentence) =>
    trusted === null ? null : most * Math.max(trusted, fit.get(sentence) ?? 0),
  );
  return readOff(path, speech, sentences, trust);
}

function readOff(
  { at }: Path,
  speech: Uint8Array,
  { starts }: Sentences,
  trust: readonly (number | null)[],
): Alignment {
  const edges = runsOf(speech.length, (t) => speech[t] === 1);
  const reach = SNAP_MS / SPEECH_STEP_MS;
  const nearest = (frame: number, of: 'from' | 'to') => {
    const found = edges
      .map((edge) => edge[of])
      .sort((a, b) => Math.abs(a - frame) - Math.abs(b - frame))[0];
    return found !== undefined && Math.abs(found - frame) <= reach ? found : frame;
  };
  const claimed = new Uint8Array(speech.length);
  const found = starts.slice(0, -1).map((start, s): SaidSentence | null => {
    const frames: number[] = [];
    for (let t = 0; t < at.length; t += 1)
      if ((at[t] as number) >= start && (at[t] as number) < (starts[s + 1] as number))
        frames.push(t);
    const [first, last] = [frames[0], frames.at(-1)];
    if (first === undefined || last === undefined) return null;
    const [from, to] = [nearest(first, 'from'), nearest(last + 1, 'to')];
    claimed.fill(1, Math.min(from, first), Math.max(to, last + 1));
    return {
      startMs: from * SPEECH_STEP_MS,
      endMs: Math.max(to, from + 1) * SPEECH_STEP_MS,
      confidence: Math.round((trust[s] ?? 0) * 100) / 100,
    };
  });
  const added = runsOf(speech.length, (t) => speech[t] === 1 && claimed[t] === 0).map(
    ({ from, to }) => ({ startMs: from * SPEECH_STEP_MS, endMs: to * SPEECH_STEP_MS }),
  );
  return {
    sentences: found,
    added: merge(added, WITHIN_BREATH_MS).filter((stretch) => spanLength(stretch) >= ADDED_MS),
  };
}
