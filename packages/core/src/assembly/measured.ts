import type { Block, EditOf, Side } from '../lesson/index.ts';
import { countWords, type Span } from '../schedule/index.ts';
import {
  findingsIn,
  SURE_REPETITION,
  SURE_SENTENCE,
  WHOLE_REPETITION,
  type SeenRepetition,
} from '../signal/index.ts';
import { sentences, type Sentence } from '../script/index.ts';
import type { BlockMs, TakeMs, TimeSpan } from '../time/index.ts';
import type { CountedRepetition } from './by-hand.ts';
import type { TakeAlignment } from './take-alignment.ts';
import type { TakeFacts } from './types.ts';

/**
 * Repetitions planned one after the other, and those seen in their time. Times in the block's own.
 */
export interface CountedBout extends TimeSpan {
  side: Side | null;
  /** The plan says sides at all. */
  isSided: boolean;
  planned: number;
  /**
   * Those seen; done left and right in turn they are one each, or two for one where the plan counts
   * both as one.
   */
  done: SeenRepetition[];
  /** How far was counted aloud meanwhile; null where nobody counts, or it is not plainly heard. */
  aloud: number | null;
  /** Whether all of them were plainly seen. */
  isPlain: boolean;
  /** Plainly seen, and borne out by the plan or by what is counted aloud. */
  isSure: boolean;
}

/** Looked at before and after the planned time: whoever begins late ends late. */
const ROUND_MS = 2_500;
/** A repetition belongs to a bout when its top lies in it, or this near. */
const LATE_MS = 800;

/** Runs of planned repetitions without a rest between them. */
function plannedBouts(
  spans: readonly Span[],
): (TimeSpan & { sides: Set<Side | null>; planned: number })[] {
  const bouts: (TimeSpan & { sides: Set<Side | null>; planned: number })[] = [];
  for (const { kind, startMs, endMs, side, movement } of spans) {
    // A balance is held, not counted.
    if (kind !== 'rep' || movement === 'one-leg-balance') continue;
    const last = bouts.at(-1);
    if (last?.endMs === startMs) {
      last.endMs = endMs;
      last.planned += 1;
      last.sides.add(side ?? null);
    } else bouts.push({ startMs, endMs, sides: new Set([side ?? null]), planned: 1 });
  }
  return bouts;
}

/**
 * Seen this part of the plan more or less often, with nobody counting along, is believed; twice or
 * half as often is one movement taken for two, or two for one.
 */
const MOST_OFF = 0.25;

const isBorneOut = (done: number, planned: number, aloud: number | null) =>
  done === planned ||
  (aloud === null ? Math.abs(done - planned) <= Math.max(1, planned * MOST_OFF) : done === aloud);

/**
 * Numbers counted aloud in a stretch of the take; counted from one twice, as for two sides, they
 * are added up.
 */
function countedAloud(said: TakeFacts['said'], { startMs, endMs }: TimeSpan): number | null {
  const counts = (said?.counts ?? []).filter(
    (count) =>
      (count.startMs + count.endMs) / 2 >= startMs && (count.startMs + count.endMs) / 2 <= endMs,
  );
  return counts.length === 0 ? null : counts.reduce((sum, { numbers }) => sum + numbers, 0);
}

const inTurn = (done: readonly SeenRepetition[]) =>
  done.length > 1 && done.every(({ side }, i) => side !== null && side !== done[i - 1]?.side);

/** Where left and right together were planned as one repetition, each pair counts at its second. */
function asPlanned(done: SeenRepetition[], planned: number): SeenRepetition[] {
  if (!inTurn(done) || Math.abs(done.length - 2 * planned) >= Math.abs(done.length - planned))
    return done;
  return done.flatMap((first, i) => {
    const second = done[i + 1];
    if (i % 2 === 1) return [];
    return second
      ? [
          {
            ...second,
            startMs: first.startMs,
            side: null,
            confidence: Math.min(first.confidence, second.confidence),
          },
        ]
      : [];
  });
}

/** How many are planned to be in the picture of a block at once. */
export const performersOf = ({ shots }: Pick<Block, 'shots'>): number =>
  Math.max(1, ...shots.map(({ performers }) => performers));

/**
 * Repetitions of a block counted in its take, bout by bout; null when nobody has looked at the take
 * or nobody is seen in it. One body is followed: with several performers in the picture nothing is
 * sure.
 */
export function countedBouts(
  block: Pick<Block, 'shots'>,
  spans: readonly Span[],
  alignment: TakeAlignment,
  { watched, said }: Pick<TakeFacts, 'watched' | 'said'>,
): CountedBout[] | null {
  const bouts = plannedBouts(spans);
  if (!watched || bouts.length === 0) return null;
  const inTake = (ms: BlockMs) => alignment.toTake(ms);
  const found = bouts.map(({ startMs, endMs, sides, planned }, b): CountedBout | null => {
    const around = {
      startMs: Math.max(inTake(startMs) - ROUND_MS, b === 0 ? 0 : inTake(bouts[b - 1]?.endMs ?? 0)),
      endMs: Math.min(
        inTake(endMs) + ROUND_MS,
        inTake(bouts[b + 1]?.startMs ?? Infinity),
        watched.durationMs,
      ),
    };
    const seen = findingsIn(watched, around);
    if (!seen.isSeen && seen.repetitions.length === 0) return null;
    const inBlock = (ms: TakeMs) => Math.round(alignment.toBlock(ms));
    const done = asPlanned(
      seen.repetitions
        .map((one) => ({
          ...one,
          startMs: inBlock(one.startMs),
          topMs: inBlock(one.topMs),
          atMs: inBlock(one.atMs),
        }))
        .filter(({ topMs }) => topMs >= startMs - LATE_MS && topMs <= endMs + LATE_MS),
      planned,
    );
    const aloud = countedAloud(said, alignment.spanToTake({ startMs, endMs }));
    const isPlain =
      performersOf(block) === 1 &&
      done.length > 0 &&
      done.every(({ confidence }) => confidence >= SURE_REPETITION);
    return {
      startMs,
      endMs,
      side: sides.size === 1 ? ([...sides][0] ?? null) : null,
      isSided: [...sides].some((side) => side !== null),
      planned,
      done,
      aloud,
      isPlain,
      isSure: isPlain && isBorneOut(done.length, planned, aloud),
    };
  });
  return found.every((bout) => bout !== null) ? found : null;
}

/** The repetitions the program counted; null unless all of them are sure. */
export function sureRepetitions(bouts: readonly CountedBout[] | null): CountedRepetition[] | null {
  if (!bouts || bouts.length === 0 || bouts.some(({ isSure }) => !isSure)) return null;
  return bouts.flatMap(({ done, side, isSided }) =>
    done.map(({ atMs, side: seen }) => ({
      atMs: Math.max(0, atMs),
      side: side ?? (isSided ? seen : null),
      missed: false,
    })),
  );
}

/** Repetitions that went less far than the others: a hint to look, no verdict. */
export const shortOf = ({ done }: CountedBout): SeenRepetition[] =>
  done.filter(({ size, confidence }) => size < WHOLE_REPETITION && confidence >= SURE_REPETITION);

/**
 * A sentence of a block's script in the block's own time; `isSaid` false: it was left out. Null
 * times: not known.
 */
export interface SpokenSentence extends Sentence {
  startMs: number | null;
  endMs: number | null;
  isSaid: boolean;
  /** 0 to 1; null where it was not looked for: its words were changed since. */
  confidence: number | null;
}

/** Whether the recording is plainly of this script: something of it was surely heard. */
export const isTrusted = (said: TakeFacts['said']): boolean =>
  said?.sentences.some(({ confidence }) => confidence >= SURE_SENTENCE) ?? false;

/** A place that is not sure, but likelier than one reckoned by words. */
const LIKELY = 0.2;
/** Less speech than this part of what a sentence takes is no room for it. */
const ROOM = 0.5;

type Heard = NonNullable<TakeFacts['said']>['sentences'][number];

/** The nearest sentences before and after one that were surely heard. */
function sureAround(
  heard: readonly Heard[],
  at: number,
): { before: Heard | undefined; after: Heard | undefined } {
  const isSure = ({ startMs, confidence }: Heard) =>
    startMs !== null && confidence >= SURE_SENTENCE;
  return { before: heard.slice(0, at).findLast(isSure), after: heard.slice(at + 1).find(isSure) };
}

/**
 * Not found between sentences that surely were, or at an end, and with no other speech there that
 * could be it: it was left out.
 */
function wasLeftOut(
  { sentences: heard, added }: NonNullable<TakeFacts['said']>,
  at: number,
): boolean {
  const sure = heard.filter(
    ({ startMs, confidence }) => startMs !== null && confidence >= SURE_SENTENCE,
  );
  const words = sure.reduce((sum, { text }) => sum + countWords(text), 0);
  if (words === 0) return false;
  const msAWord =
    sure.reduce((sum, { startMs, endMs }) => sum + (endMs ?? 0) - (startMs ?? 0), 0) / words;
  const { before, after } = sureAround(heard, at);
  const [fromMs, toMs] = [before?.endMs ?? 0, after?.startMs ?? Infinity];
  const roomMs = added.reduce(
    (sum, { startMs, endMs }) =>
      sum + Math.max(0, Math.min(endMs, toMs) - Math.max(startMs, fromMs)),
    0,
  );
  return roomMs < ROOM * countWords(heard[at]?.text ?? '') * msAWord;
}

/**
 * A block's sentences where they were found in its take. Each is trusted by itself, or by its place
 * between others that are sure; one whose words were changed since has no time of its own. Null
 * when nobody has looked for them.
 */
export function spokenSentences(
  script: string,
  alignment: TakeAlignment,
  { said }: Pick<TakeFacts, 'said'>,
  byHand: readonly EditOf<'said'>[] = [],
): SpokenSentence[] | null {
  if (!said && byHand.length === 0) return null;
  const heard = said?.sentences ?? [];
  const inBlock = (ms: TakeMs | null) =>
    ms === null ? null : Math.max(0, Math.round(alignment.toBlock(ms)));
  let from = 0;
  const found = sentences(script).map((sentence): SpokenSentence => {
    const at = heard.findIndex(({ text }, i) => i >= from && text === sentence.text);
    const one = heard[at];
    if (!said || !one)
      return { ...sentence, startMs: null, endMs: null, isSaid: true, confidence: null };
    from = at + 1;
    const { before, after } = sureAround(heard, at);
    const isPlaced = one.confidence >= LIKELY || (before !== undefined && after !== undefined);
    return {
      ...sentence,
      startMs: isPlaced ? inBlock(one.startMs) : null,
      endMs: isPlaced ? inBlock(one.endMs) : null,
      isSaid: one.startMs !== null || !wasLeftOut(said, at),
      confidence: one.confidence,
    };
  });
  return withHand(found, byHand);
}

/**
 * Starts set by hand move their sentence; those between two of them, or after the last, go along
 * with their neighbours.
 */
function withHand(found: SpokenSentence[], byHand: readonly EditOf<'said'>[]): SpokenSentence[] {
  if (byHand.length === 0) return found;
  const pins = byHand
    .flatMap(({ text, atMs }) => {
      const index = found.findIndex((sentence) => sentence.text === text);
      return index < 0 ? [] : [{ index, atMs }];
    })
    .sort((a, b) => a.index - b.index);
  const moved = found.map((sentence, i): SpokenSentence => {
    const pin = pins.find(({ index }) => index === i);
    if (pin) {
      const lengthMs =
        sentence.startMs !== null && sentence.endMs !== null
          ? sentence.endMs - sentence.startMs
          : null;
      return {
        ...sentence,
        startMs: pin.atMs,
        endMs: lengthMs === null ? null : pin.atMs + lengthMs,
        isSaid: true,
        confidence: 1,
      };
    }
    return sentence;
  });
  // What is set by hand stands; a measured start that now contradicts it is not known any more.
  return moved.map((sentence, i): SpokenSentence => {
    const { startMs } = sentence;
    if (startMs === null || pins.some(({ index }) => index === i)) return sentence;
    const before = pins.findLast(({ index }) => index < i);
    const after = pins.find(({ index }) => index > i);
    const contradicts =
      (before !== undefined && startMs <= before.atMs) ||
      (after !== undefined && startMs >= after.atMs);
    return contradicts ? { ...sentence, startMs: null, endMs: null } : sentence;
  });
}

/**
 * The same with every time known: what is not is laid evenly, by words, between what is. Sentences
 * that were left out are not among them.
 */
export function laidSentences(
  found: readonly SpokenSentence[],
  body: TimeSpan,
  wordsIn: (text: string) => number,
): (Sentence & TimeSpan)[] {
  const said = found.filter(({ isSaid }) => isSaid);
  const laid: (Sentence & TimeSpan)[] = [];
  for (let i = 0; i < said.length;) {
    const sentence = said[i] as SpokenSentence;
    if (sentence.startMs !== null) {
      const nextMs =
        said.slice(i + 1).find(({ startMs }) => startMs !== null)?.startMs ?? body.endMs;
      const endMs = Math.min(sentence.endMs ?? nextMs, body.endMs);
      if (endMs > sentence.startMs)
        laid.push({
          from: sentence.from,
          to: sentence.to,
          text: sentence.text,
          startMs: sentence.startMs,
          endMs,
        });
      i += 1;
      continue;
    }
    let to = i;
    while (to < said.length && said[to]?.startMs === null) to += 1;
    const startMs = laid.at(-1)?.endMs ?? body.startMs;
    const endMs = Math.min(said[to]?.startMs ?? body.endMs, body.endMs);
    const run = said.slice(i, to);
    const total = run.reduce((sum, { text }) => sum + Math.max(1, wordsIn(text)), 0);
    let gone = 0;
    for (const { from, to: until, text } of run) {
      const begin = startMs + Math.floor(((endMs - startMs) * gone) / total);
      gone += Math.max(1, wordsIn(text));
      const end = startMs + Math.floor(((endMs - startMs) * gone) / total);
      if (end > begin) laid.push({ from, to: until, text, startMs: begin, endMs: end });
    }
    i = to;
  }
  return laid;
}
