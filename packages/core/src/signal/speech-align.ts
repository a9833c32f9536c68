import { asPart, runsOf } from './numbers.ts';
import {
  adaptedTo,
  FIRST,
  heardAs,
  LATER,
  likelyCosts,
  withQuiet,
  type Heard,
} from './speech-costs.ts';
import { doubtEdges, settleStarts } from './speech-edges.ts';
import { lessThanByChance, plainlyOf, type Learnt } from './speech-order.ts';
import {
  bestPath,
  spanOf,
  type Costs,
  type Path,
  type Place,
  type Sentences,
} from './speech-path.ts';
import { FEATURES, mfccOf, SPEECH_STEP_MS, type BandSound } from './speech-sound.ts';
import { bandAbout, bestStart, MOST_CELLS, openBetween } from './speech-start.ts';
import { evidenceFor, SURE_SENTENCE, trustIn, type Evidence } from './speech-trust.ts';
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

/** With the pairs of frames that were found to be the same. */
interface Found extends Place {
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
const LEAST_CONFIRMED = FEATURES * 30;
const CONFIRMED = 3;
/** The same before the reference is adapted at all, when less can speak for a sentence. */
const CONFIRMED_PLAIN = 2.5;
/** So much more has to where a recording is not at all plainly of its script. */
const CONFIRMED_MORE = 2;
/**
 * Sentences are judged by a reference that was adapted without them: each quarter by the three others.
 */
const FOLDS = 4;

/** What speaks for each sentence found, by its number in the script; null where nothing does. */
function evidenceIn(
  found: readonly Found[],
  adapted: readonly Found[],
  heard: Heard,
  plain: Float32Array,
  { starts, quiet }: Sentences,
  apart: number,
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
          heard.speech,
          quiet,
          likelyCosts(heard, adaptedTo(heard.features, plain, pairs), pairs),
        )
      : null;
    for (const { sentence, span } of judged)
      evidence.set(
        sentence,
        costs
          ? evidenceFor(costs, span, spanOf(starts, sentence), total, LATER, row, apart)
          : { alone: null, amongAlike: null },
      );
  }
  return evidence;
}

/** Times the reference is adapted, and the sentences are looked for by it. */
const PASSES = 3;
/** What to learn from is told by every second frame; how sure a sentence is, by all of them. */
const TO_LEARN = 2;
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

/** How sure each of `count` sentences is by what speaks for it; null for those not found. */
const trustBy = (evidence: ReadonlyMap<number, Evidence>, count: number) =>
  trustIn(Array.from({ length: count }, (_, sentence) => evidence.get(sentence)?.alone));

/** Those found that surely are where they were found. */
function sureOf(found: readonly Found[], evidence: ReadonlyMap<number, Evidence>, count: number) {
  const trust = trustBy(evidence, count);
  return found.filter(({ sentence }) => (trust[sentence] ?? 0) >= SURE_SENTENCE);
}

/**
 * How sure each of `count` sentences is, by what speaks for it or by how well it fits; null for those
 * not found.
 * @param cost what a frame of it costs
 */
function howSure(
  found: readonly (Found & { cost: number })[],
  evidence: ReadonlyMap<number, Evidence>,
  { script, most }: ReturnType<typeof plainlyOf>,
  count: number,
): (number | null)[] {
  const byEvidence = trustBy(evidence, count);
  const sure: (number | null)[] = byEvidence.map(() => null);
  const least = CONFIRMED_PLAIN + CONFIRMED_MORE * (1 - script);
  for (const { sentence, cost } of found) {
    const fits = (evidence.get(sentence)?.amongAlike ?? 0) >= least;
    const byFit = fits ? script * asPart(0.5 + LATER.insertionFrame - cost) : 0;
    sure[sentence] = most * Math.max(byEvidence[sentence] ?? 0, byFit);
  }
  return sure;
}

/**
 * Where each sentence of the script is said in the recording, what was left out and what was added.
 */
export function alignSpeech(match: SpeechMatch): Alignment {
  const { recording, speech, reference, referenceSpeech, starts } = match;
  const heard = heardAs(mfccOf(recording, speech), speech);
  const quiet = referenceSpeech.map((one) => 1 - one);
  const sentences: Sentences = { starts, quiet };
  const [total, count] = [quiet.length, starts.length - 1];
  const isShort = speech.length * total <= MOST_CELLS;
  const start = bestStart(heard, reference, referenceSpeech, sentences);
  const { plain, wide } = start;
  let { costs, path } = start;
  const row = new Float32Array(total);
  let found = foundIn(path, speech, sentences);
  let evidence: ReadonlyMap<number, Evidence> = new Map(
    found.map(({ sentence, span }) => [
      sentence,
      evidenceFor(costs, span, spanOf(starts, sentence), total, FIRST, row, TO_LEARN),
    ]),
  );
  let best = bestOf(found, costs, total);
  let adapted = toLearnFrom(found, best, evidence, CONFIRMED_PLAIN);
  let learnt: Learnt | null = null;
  for (let pass = 0; pass < PASSES; pass += 1) {
    const pairs = adapted.flatMap((one) => one.pairs);
    // So little speech tells nothing about a voice.
    if (pairs.length < FEATURES * 4) break;
    learnt = { pairs, adapted: adaptedTo(heard.features, plain, pairs) };
    costs = withQuiet(speech, quiet, likelyCosts(heard, learnt.adapted, pairs));
    path = bestPath(
      speech.length,
      sentences,
      speech,
      LATER,
      isShort
        ? wide
        : openBetween(
            bandAbout(path, starts, total, 1),
            sureOf(found, evidence, count),
            speech.length,
            starts,
          ),
      costs,
    );
    path = settleStarts(path, foundIn(path, speech, sentences), costs, speech, sentences);
    found = foundIn(path, speech, sentences);
    best = bestOf(found, costs, total);
    evidence = evidenceIn(found, best, heard, plain, sentences, pass < PASSES - 1 ? TO_LEARN : 1);
    adapted = toLearnFrom(found, best, evidence, CONFIRMED);
  }
  const trust = howSure(
    found.map((one) => ({ ...one, cost: costOfFound(one, costs, row) })),
    evidence,
    plainlyOf(learnt && lessThanByChance(path, learnt, heard, plain, sentences)),
    count,
  );
  const sure = doubtEdges(path, found, speech, sentences, trust);
  return readOff(path, speech, sentences, sure);
}

/**
 * Starts and ends are moved to where speech begins and ends this near: further off, what begins there
 * is music or somebody else as often as not (measured).
 */
const SNAP_MS = { from: 120, to: 200 } as const;
/** Speech with a shorter pause in it is one stretch. */
const WITHIN_BREATH_MS = 499;
/** Speech of at least this length in no sentence was added. */
const ADDED_MS = 600;

function readOff(
  { at }: Path,
  speech: Uint8Array,
  { starts }: Sentences,
  trust: readonly (number | null)[],
): Alignment {
  const edges = runsOf(speech.length, (t) => speech[t] === 1);
  const nearest = (frame: number, of: 'from' | 'to') => {
    const found = edges
      .map((edge) => edge[of])
      .sort((a, b) => Math.abs(a - frame) - Math.abs(b - frame))[0];
    return found !== undefined && Math.abs(found - frame) * SPEECH_STEP_MS <= SNAP_MS[of]
      ? found
      : frame;
  };
  const claimed = new Uint8Array(speech.length);
  const found = starts.slice(0, -1).map((start, s): SaidSentence | null => {
    const frames: number[] = [];
    for (let t = 0; t < at.length; t += 1)
      if ((at[t] as number) >= start && (at[t] as number) < (starts[s + 1] as number))
        frames.push(t);
    const [first, last] = [frames[0], frames.at(-1)];
    const sure = trust[s] ?? null;
    if (first === undefined || last === undefined || sure === null) return null;
    const [from, to] = [nearest(first, 'from'), nearest(last + 1, 'to')];
    claimed.fill(1, Math.min(from, first), Math.max(to, last + 1));
    return {
      startMs: from * SPEECH_STEP_MS,
      endMs: Math.max(to, from + 1) * SPEECH_STEP_MS,
      confidence: Math.round(sure * 100) / 100,
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
