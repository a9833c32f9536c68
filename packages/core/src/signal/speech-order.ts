import { asPart } from './numbers.ts';
import { LATER, likelyCosts, withQuiet, type Heard } from './speech-costs.ts';
import { bestPath, spanOf, type Path, type Sentences } from './speech-path.ts';
import { FEATURES } from './speech-sound.ts';
import { firstBand } from './speech-start.ts';

/** What a reference was adapted by, and what came of it. */
export interface Learnt {
  /** Frames of the recording and of the reference that say the same. */
  pairs: [number, number][];
  adapted: Float32Array;
}

/** The sentences in reverse order: what they then cost, they cost by chance. */
function reversed({ starts, quiet }: Sentences): { sentences: Sentences; placeOf: Int32Array } {
  const placeOf = new Int32Array(quiet.length);
  const begins = [0];
  for (let s = starts.length - 2; s >= 0; s -= 1) {
    const [from, to] = spanOf(starts, s);
    const at = begins.at(-1) ?? 0;
    for (let r = from; r < to; r += 1) placeOf[r] = at + r - from;
    begins.push(at + to - from);
  }
  const quietThere = new Uint8Array(quiet.length);
  placeOf.forEach((place, r) => (quietThere[place] = quiet[r] as number));
  return { sentences: { starts: begins, quiet: quietThere }, placeOf };
}

/**
 * What the script costs less than in reverse order, for each of its frames in which something is
 * heard. Measured: with the script of another recording it comes to less than 0.22, with the
 * right one nearly always to 0.3 and more, said by people, by synthesisers, in a hall and among
 * children. So much of it may be chance where a script is short.
 */
const STRANGE = 0.22;
const OWN = 0.35;
const FEW = 25;
/** Where it comes to less than this, hardly a sentence can be of this script. */
const HARDLY = 0.11;

/** A reference's frames, each at its place. */
function inPlace(reference: Float32Array, placeOf: Int32Array): Float32Array {
  const out = new Float32Array(reference.length);
  placeOf.forEach((place, r) =>
    out.set(reference.subarray(r * FEATURES, (r + 1) * FEATURES), place * FEATURES),
  );
  return out;
}

/** What the script costs less than by chance, a frame; null for one sentence: it has no order. */
export function lessThanByChance(
  { cost }: Path,
  { pairs, adapted }: Learnt,
  heard: Heard,
  plain: Float32Array,
  sentences: Sentences,
): number | null {
  const count = sentences.starts.length - 1;
  if (count < 2) return null;
  const { sentences: other, placeOf } = reversed(sentences);
  const there = pairs.map(([t, r]): [number, number] => [t, placeOf[r] as number]);
  const byChance = bestPath(
    heard.speech.length,
    other,
    heard.speech,
    LATER,
    firstBand(heard, inPlace(plain, placeOf), other),
    withQuiet(heard.speech, other.quiet, likelyCosts(heard, inPlace(adapted, placeOf), there)),
  );
  const spoken = sentences.quiet.reduce((sum, one) => sum + 1 - one, 0);
  return (byChance.cost - cost - FEW) / spoken;
}

/** From how plainly a recording is of the script, 0 to 1, and the most that any sentence can be sure. */
export const plainlyOf = (less: number | null) => ({
  script: asPart(((less ?? STRANGE) - STRANGE) / (OWN - STRANGE)),
  most: asPart((less ?? HARDLY) / HARDLY),
});
