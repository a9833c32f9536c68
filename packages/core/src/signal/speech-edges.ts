import { median } from './numbers.ts';
import { LATER } from './speech-costs.ts';
import { JUMPS, spanOf, type Costs, type Path, type Place, type Sentences } from './speech-path.ts';
import { NOT_SURE } from './speech-trust.ts';

/** So many frames in which something is heard are a sentence's beginning. */
const HEAD = 30;
/** In shorter ones nothing is looked for. */
const LEAST_HEAD = 10;

/** Where a sentence's beginning ends: its last frame in the recording and among those of the script. */
interface Head {
  frame: number;
  place: number;
}

function headOf({ at }: Path, { sentence, span: [first, last] }: Place, script: Sentences): Head {
  const [from, to] = spanOf(script.starts, sentence);
  let end = from;
  for (let heard = 0; end < to - 1 && heard < HEAD; end += 1) heard += 1 - (script.quiet[end] ?? 0);
  let frame = first;
  while (frame < last && (at[frame] as number) < end) frame += 1;
  return { frame, place: at[frame] as number };
}

/** Frames of the recording for one of the script. */
const paceOf = ({ sentence, span: [first, last] }: Place, { starts }: Sentences) => {
  const [from, to] = spanOf(starts, sentence);
  return (last - first + 1) / (to - from);
};
const usualPace = (places: readonly Place[], script: Sentences) =>
  median(places.map((one) => paceOf(one, script)));
const headPace = ({ frame, place }: Head, { sentence, span }: Place, { starts }: Sentences) =>
  (frame - span[0] + 1) / (place - (starts[sentence] as number) + 1);

/** A beginning is looked for back to where it would take so many times as long as usual. */
const SLOWEST = 2.5;
/** What a beginning costs that takes e times as long as usual, or as little. */
const ODD_PACE = 30;

/**
 * The frames of the script that a sentence's beginning goes through, the first of them at the frame
 * of the recording where it costs least to begin: in its own costs, those of what is said before it,
 * and by how far that is from the usual pace.
 * @param earliest the first frame of the recording that is not the sentence's before
 * @param usual frames the beginning would take
 */
function beginning(
  { frame: end, place }: Head,
  from: number,
  earliest: number,
  usual: number,
  costs: Costs,
  speech: Uint8Array,
): { first: number; at: number[] } {
  const count = place - from + 1;
  const steps = new Uint8Array((end - earliest + 1) * count);
  const row = new Float32Array(place + 1);
  let [after, now] = [new Float64Array(count).fill(Infinity), new Float64Array(count)];
  const between = (t: number) => (speech[t] === 1 ? LATER.insertionFrame : LATER.silence);
  let before = 0;
  for (let t = earliest; t <= end; t += 1) before += between(t);
  let best = { cost: Infinity, first: end, r: count - 1 };
  for (let t = end; t >= earliest; t -= 1) {
    before -= between(t);
    costs(t, from, place + 1, row);
    const repeat = speech[t + 1] === 1 ? LATER.repeat : 0;
    for (let r = 0; r < count; r += 1) {
      let least = (after[r] as number) + repeat;
      let step = 0;
      if (t === end) least = r === count - 1 ? 0 : Infinity;
      else
        for (let jump = 1; jump <= JUMPS; jump += 1) {
          const cost = (after[r + jump] ?? Infinity) + (LATER.jump[jump - 1] as number);
          if (cost < least) [least, step] = [cost, jump];
        }
      now[r] = least + (row[from + r] as number);
      steps[(t - earliest) * count + r] = step;
    }
    const pace = ODD_PACE * Math.log((end - t + 1) / usual) ** 2;
    for (let r = 0; r < Math.min(JUMPS, count); r += 1) {
      const cost = (now[r] as number) + before + pace;
      if (cost < best.cost) best = { cost, first: t, r };
    }
    [after, now] = [now, after];
  }
  const at: number[] = [];
  for (let { first: t, r } = best; t <= end; t += 1) {
    at.push(from + r);
    r += steps[(t - earliest) * count + r] as number;
  }
  return { first: best.first, at };
}

/**
 * The path with each sentence's start moved to where its beginning takes about as long as usual. Noise
 * or other speech before it may else be taken for it, and its first words for other speech. Measured
 * on recordings of a person among children and with music: of 34 sentences found 25 begin within
 * 0.3 s without, 32 with it.
 */
export function settleStarts(
  path: Path,
  places: readonly Place[],
  costs: Costs,
  speech: Uint8Array,
  script: Sentences,
): Path {
  const at = path.at.slice();
  const usual = usualPace(places, script);
  places.forEach((one, i) => {
    const head = headOf(path, one, script);
    const from = script.starts[one.sentence] as number;
    if (head.place - from < LEAST_HEAD) return;
    const takes = usual * (head.place - from + 1);
    const free = (places[i - 1]?.span[1] ?? -1) + 1;
    const earliest = Math.max(free, head.frame - Math.ceil(SLOWEST * takes));
    const begun = beginning(head, from, earliest, takes, costs, speech);
    at.fill(-1 - one.sentence, one.span[0], begun.first);
    begun.at.forEach((place, k) => (at[begun.first + k] = place));
  });
  return { ...path, at };
}

/** Frames before and after a sentence in which other speech may be, and how many of them it takes. */
const BESIDE = 25;
const LEAST_BESIDE = 12;
/** Who is so much quicker with one sentence than with most has said a part of it elsewhere. */
const HURRIED = 0.72;
/**
 * Trust that needs no pause between a sentence and what else is said, and how far from the usual pace
 * one with less may be.
 */
const BEYOND_DOUBT = 0.95;
const NEAR_USUAL = 0.1;
/** The paces of a beginning, against the usual one, that leave no doubt. */
const HEAD_PACE = { from: 0.6, to: 1.6 } as const;
/** After other speech, the paces of a sentence and its beginning that may have lost the first words. */
const CUT = { pace: 0.9, head: 0.85 } as const;
/**
 * How much is heard of a sentence, against what would be at the usual pace: with less it is in doubt,
 * with hardly anything it is not there. Right ones come to 0.63 and more (measured).
 */
const LEAST_HEARD = { sure: 0.5, found: 0.25 } as const;

/**
 * How sure each sentence is once it is looked at where it begins and ends. In doubt is one whose
 * beginning is said much faster or more slowly than usual; one said so much faster that a part of it
 * may lie in other speech beside it; one that runs on into that at a pace of its own without being
 * plainly itself; one that may have lost its first words to speech before it; and one in whose time
 * little is heard. Null as well where hardly anything is. Measured on thirteen recordings put together
 * from known pieces: 3 of 453 sure ones are wrong without the last two doubts, none with them, and no
 * right one more is asked about.
 * @param places where they were found, in order
 * @param trust of each sentence of the script
 */
export function doubtEdges(
  path: Path,
  places: readonly Place[],
  speech: Uint8Array,
  script: Sentences,
  trust: readonly (number | null)[],
): (number | null)[] {
  const isOther = (t: number) => speech[t] === 1 && (path.at[t] as number) < 0;
  const others = (from: number) =>
    Array.from({ length: BESIDE }, (_, i) => from + i).filter(isOther).length;
  const usual = usualPace(places, script);
  const sum = (flags: Uint8Array, from: number, to: number) =>
    flags.subarray(from, to).reduce((all, one) => all + one, 0);
  const [inDoubt, unheard] = [new Set<number>(), new Set<number>()];
  for (const one of places) {
    const [first, last] = one.span;
    const pace = paceOf(one, script) / usual;
    const head = headPace(headOf(path, one, script), one, script) / usual;
    const [before, after] = [others(first - BESIDE), others(last + 1)];
    const [from, to] = spanOf(script.starts, one.sentence);
    const heard = sum(speech, first, last + 1) / usual / (to - from - sum(script.quiet, from, to));
    if (heard < LEAST_HEARD.found) unheard.add(one.sentence);
    const runsOn =
      (before >= LEAST_BESIDE && isOther(first - 1)) ||
      (after >= LEAST_BESIDE && isOther(last + 1));
    if (
      head < HEAD_PACE.from ||
      head > HEAD_PACE.to ||
      heard < LEAST_HEARD.sure ||
      (before >= LEAST_BESIDE && pace < CUT.pace && head < CUT.head) ||
      (pace < HURRIED && Math.max(before, after) >= LEAST_BESIDE) ||
      (runsOn && (trust[one.sentence] ?? 0) < BEYOND_DOUBT && Math.abs(pace - 1) > NEAR_USUAL)
    )
      inDoubt.add(one.sentence);
  }
  return trust.map((own, s) => {
    if (own === null || unheard.has(s)) return null;
    return inDoubt.has(s) ? Math.min(own, NOT_SURE) : own;
  });
}
