import { FIRST, plainCosts, withQuiet, type Heard } from './speech-costs.ts';
import {
  bestPath,
  type Band,
  type Costs,
  type Path,
  type Place,
  type Sentences,
} from './speech-path.ts';
import { FEATURES, fromOtherTract, mfccOf, type BandSound } from './speech-sound.ts';

/** More cells than this are first searched four frames at a time, then near the path found. */
export const MOST_CELLS = 3_000_000;
const COARSE = 4;
const NEAR = 260;

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
export function bandAbout(
  { at }: Path,
  starts: readonly number[],
  total: number,
  times: number,
): Band {
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

/** So many cells between two sentences are searched whole; more, near the path found. */
const MOST_OPEN = 12_000_000;

/**
 * A band in which all is possible between sentences that surely are where they were found. Where
 * children call in a long pause, the first path may say what follows there, further off than a band
 * about it reaches.
 * @param sure in order
 */
export function openBetween(
  band: Band,
  sure: readonly Place[],
  frames: number,
  starts: readonly number[],
): Band {
  const count = starts.length - 1;
  const [low, high] = [new Int32Array(frames), new Int32Array(frames)];
  for (let t = 0; t < frames; t += 1) [low[t], high[t]] = band(t) as [number, number];
  const after: Place = { sentence: count, span: [frames - 1, frames - 1] };
  let before: Place = { sentence: -1, span: [0, 0] };
  for (const next of [...sure, after]) {
    const [from, to] = [before.span[0], next.span[1]];
    const first = starts[Math.max(0, before.sentence)] as number;
    const end = starts[Math.min(count, next.sentence + 1)] as number;
    const isApart = next.sentence - before.sentence > 1;
    if (isApart && (to + 1 - from) * (end - first) <= MOST_OPEN)
      for (let t = from; t <= to; t += 1) {
        low[t] = Math.min(low[t] as number, first);
        high[t] = Math.max(high[t] as number, end);
      }
    before = next;
  }
  return (frame) => [low[frame] as number, high[frame] as number];
}

/** Where the sentences may lie: near where they are found four frames at a time. */
export function firstBand(
  { features, speech }: Heard,
  reference: Float32Array,
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
export interface Start {
  plain: Float32Array;
  wide: Band;
  costs: Costs;
  path: Path;
}

/** Vocal tracts from long to short, against the synthesiser's; the middle one is tried first. */
const TRACTS = [0.84, 0.92, 1, 1.08, 1.16] as const;

/** The way through the script by the vocal tract by which it costs least. */
export function bestStart(
  heard: Heard,
  reference: BandSound,
  referenceSpeech: Uint8Array,
  sentences: Sentences,
): Start {
  const { features, speech } = heard;
  const known = new Map<number, Start>();
  const startAt = (i: number): Start => {
    const before = known.get(i);
    if (before) return before;
    const plain = mfccOf(fromOtherTract(reference, TRACTS[i] ?? 1), referenceSpeech);
    const wide = firstBand(heard, plain, sentences);
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
