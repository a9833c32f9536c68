import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { doubtEdges, settleStarts } from './speech-edges.ts';
import type { Costs, Path, Place } from './speech-path.ts';
import { NOT_SURE, SURE_SENTENCE } from './speech-trust.ts';

const LENGTH = 40;

/** Sentences of forty frames, each said from a frame of the recording on in so many. */
function said(frames: number, spans: readonly (readonly [first: number, takes: number])[]) {
  const at = new Int32Array(frames).fill(-1);
  const places = spans.map(([first, takes], sentence): Place => {
    for (let t = 0; t < takes; t += 1)
      at[first + t] = sentence * LENGTH + Math.floor((t * LENGTH) / takes);
    return { sentence, span: [first, first + takes - 1] };
  });
  const path: Path = { at, cost: 0 };
  const starts = Array.from({ length: spans.length + 1 }, (_, s) => s * LENGTH);
  return { path, places, script: { starts, quiet: new Uint8Array(spans.length * LENGTH) } };
}
const speechWhere = (frames: number, is: (frame: number) => boolean) =>
  Uint8Array.from({ length: frames }, (_, t) => (is(t) ? 1 : 0));

describe('where a sentence begins', () => {
  /** Each frame of the recording is plainly what was said at it; `isNoisy` ones are anything. */
  const costsOf =
    (truth: Int32Array, isNoisy: (t: number) => boolean): Costs =>
    (t, from, to, row) => {
      const here = truth[t] as number;
      for (let r = from; r < to; r += 1)
        row[r] = isNoisy(t) ? -0.4 : here >= 0 && Math.abs(here - r) <= 1 ? -1 : 0.5;
    };
  const spans = [
    [20, LENGTH],
    [100, LENGTH],
    [190, LENGTH],
  ] as const;
  const truth = said(260, spans);
  const settled = (
    { path, places, script }: ReturnType<typeof said>,
    speech: Uint8Array,
    isNoisy: (t: number) => boolean,
  ) => {
    const { at } = settleStarts(path, places, costsOf(truth.path.at, isNoisy), speech, script);
    return [0, 1, 2].map((s) => at.findIndex((r) => r >= s * LENGTH && r < (s + 1) * LENGTH));
  };

  it('stays where all of it is heard', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.nat(259), { maxLength: 200 }), (spoken) => {
        const speech = speechWhere(260, (t) => truth.path.at[t]! >= 0 || spoken.includes(t));
        const starts = settled(truth, speech, () => false);
        starts.forEach((start, s) => expect(Math.abs(start - spans[s]![0])).toBeLessThanOrEqual(2));
      }),
    );
  });

  it('is found back where its first words were taken for other speech, and not too early', () => {
    const speech = speechWhere(260, (t) => t >= 60);
    // Others speak from frame 60 on; the second sentence was only found by its last words.
    const late = said(260, [spans[0], [118, 22], spans[2]]);
    const isNoisy = (t: number) => t >= 60 && t < 120;
    const [, second] = settled(late, speech, isNoisy);
    expect(Math.abs(second! - 100)).toBeLessThanOrEqual(10);
    const early = said(260, [spans[0], [66, 74], spans[2]]);
    const [, again] = settled(early, speech, isNoisy);
    expect(Math.abs(again! - 100)).toBeLessThanOrEqual(10);
  });

  it('lies behind the sentence before, and the way from there goes on forward', () => {
    const paces = fc.array(fc.integer({ min: 14, max: 90 }), { minLength: 1, maxLength: 5 });
    fc.assert(
      fc.property(
        paces,
        fc.nat(20),
        fc.func(fc.double({ min: -1, max: 1, noNaN: true })),
        (takes, gap, cost) => {
          let first = 5;
          const spansOfAll = takes.map((frames) => {
            const begin = first;
            first += frames + gap;
            return [begin, frames] as const;
          });
          const { path, places, script } = said(first, spansOfAll);
          const anything: Costs = (t, from, to, row) => {
            for (let r = from; r < to; r += 1) row[r] = cost(t, r);
          };
          const { at } = settleStarts(
            path,
            places,
            anything,
            new Uint8Array(first).fill(1),
            script,
          );
          const inside = [...at].filter((r) => r >= 0);
          inside.forEach((r, i) => expect(r).toBeGreaterThanOrEqual(inside[i - 1] ?? 0));
          places.forEach(({ sentence, span }, i) => {
            const own = [...at.keys()].filter((t) => Math.floor(at[t]! / LENGTH) === sentence);
            expect(at[own[0]!]! % LENGTH).toBeLessThan(3);
            expect(own.at(-1)).toBe(span[1]);
            expect(own[0]).toBeGreaterThan(places[i - 1]?.span[1] ?? -1);
          });
        },
      ),
      { numRuns: 50 },
    );
  });
});

describe('how sure a sentence is by where it begins and ends', () => {
  const isSure = (
    { path, places, script }: ReturnType<typeof said>,
    trust: readonly number[],
    isSpeech: (frame: number) => boolean,
  ) => {
    const speech = speechWhere(path.at.length, (t) => path.at[t]! >= 0 || isSpeech(t));
    return doubtEdges(path, places, speech, script, trust).map((one) => one! >= SURE_SENTENCE);
  };

  it('has a doubt where it is said too fast for all of it, and somebody speaks beside it', () => {
    const found = said(
      500,
      [0, 100, 200, 300, 400].map((first) => [first, first === 200 ? 26 : LENGTH] as const),
    );
    const sure = [1, 1, 1, 1, 1];
    const butTheThird = [true, true, false, true, true];
    const besides = (from: number, to: number) =>
      isSure(found, sure, (frame) => frame >= from && frame < to);
    expect(besides(180, 195)).toEqual(butTheThird);
    expect(besides(228, 243)).toEqual(butTheThird);
    expect(besides(150, 170)).toEqual(sure.map(() => true));
    // Others have speech beside them as well, but their time.
    expect(isSure(found, sure, () => true)).toEqual(butTheThird);
  });

  it('has a doubt where it runs on into other speech, unless it is plainly itself', () => {
    const found = said(300, [
      [0, LENGTH],
      [100, 48],
      [200, LENGTH],
    ]);
    const after = (pause: number) => (frame: number) => frame >= 148 + pause && frame < 163 + pause;
    expect(isSure(found, [0.8, 0.8, 0.8], after(0))).toEqual([true, false, true]);
    expect(isSure(found, [0.8, 0.99, 0.8], after(0))).toEqual([true, true, true]);
    expect(isSure(found, [0.8, 0.8, 0.8], after(2))).toEqual([true, true, true]);
  });

  it('has a doubt where only its beginning is much slower or faster than usual', () => {
    const found = said(300, [
      [0, LENGTH],
      [100, LENGTH],
      [200, LENGTH],
    ]);
    const { at } = found.path;
    // The same sixty frames: the first thirty of the sentence in fifty of them, or in eleven.
    const begun = (head: number) => {
      for (let t = 0; t < 60; t += 1)
        at[200 + t] =
          2 * LENGTH +
          Math.floor(t < head ? (t * 30) / head : 30 + ((t - head) * 10) / (60 - head));
      const places = [...found.places.slice(0, 2), { sentence: 2, span: [200, 259] as const }];
      return isSure({ ...found, places }, [1, 1, 1], () => false)[2];
    };
    expect([begun(11), begun(30), begun(55)]).toEqual([false, true, false]);
  });

  it('has a doubt where little is heard in its time, and is not there where hardly anything is', () => {
    const { path, places, script } = said(300, [
      [0, LENGTH],
      [100, LENGTH],
      [200, LENGTH],
    ]);
    const heard = (frames: number) => {
      const speech = speechWhere(300, (t) => path.at[t]! >= 0 && (t < 100 || t >= 140 - frames));
      return doubtEdges(path, places, speech, script, [1, 1, 1]);
    };
    expect(heard(5)).toEqual([1, null, 1]);
    expect(heard(15)).toEqual([1, NOT_SURE, 1]);
    expect(heard(25)).toEqual([1, 1, 1]);
  });

  it('has a doubt where its first words may lie in the speech before it', () => {
    const found = said(500, [
      [0, LENGTH],
      [100, 33],
      [200, LENGTH],
      [300, LENGTH],
    ]);
    const sure = [1, 1, 1, 1];
    const before = (frame: number) => frame >= 80 && frame < 95;
    expect(isSure(found, sure, before)).toEqual([true, false, true, true]);
    expect(isSure(found, sure, () => false)).toEqual([true, true, true, true]);
  });
});
