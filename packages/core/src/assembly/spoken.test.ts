import { describe, expect, it } from 'vitest';
import { laidSentences, spokenSentences } from './measured.ts';
import type { TakeFacts } from './types.ts';
import { TakeAlignment } from './take-alignment.ts';

const script =
  'Stand tall now. Step to the line. Turn your shoulders first. Then let it go. Walk back slowly.';
const texts = script.match(/[^.]+\./g)?.map((text) => text.trim()) ?? [];
const alignment = new TakeAlignment(2_000, 1);
type Heard = readonly [startMs: number, confidence: number] | null;
/** Sentences heard at moments of the block, each for a second; null: not found. */
const heard = (
  found: readonly Heard[],
  added: readonly [number, number][] = [],
): Pick<TakeFacts, 'said'> => ({
  said: {
    sentences: texts.map((text, i) => {
      const [at, confidence] = found[i] ?? [null, 0];
      return {
        text,
        startMs: at === null ? null : at + alignment.startMs,
        endMs: at === null ? null : at + alignment.startMs + 1_000,
        confidence,
      };
    }),
    added: added.map(([startMs, endMs]) => ({
      startMs: startMs + alignment.startMs,
      endMs: endMs + alignment.startMs,
    })),
    counts: [],
  },
});
const starts = (facts: Pick<TakeFacts, 'said'>) =>
  spokenSentences(script, alignment, facts)?.map(({ startMs }) => startMs);
const said = (facts: Pick<TakeFacts, 'said'>) =>
  spokenSentences(script, alignment, facts)?.map(({ isSaid }) => isSaid);

describe('sentences of a take', () => {
  it('stand where each was found, sure or likely, and one that is neither by its place between two that are', () => {
    expect(
      starts(
        heard([
          [500, 0.9],
          [2_000, 0.3],
          [4_000, 0.9],
          [6_000, 0.8],
          [8_000, 0.9],
        ]),
      ),
    ).toEqual([500, 2_000, 4_000, 6_000, 8_000]);
    expect(
      starts(
        heard([
          [500, 0.9],
          [2_000, 0],
          [4_000, 0.9],
          [6_000, 0.8],
          [8_000, 0.9],
        ]),
      ),
    ).toEqual([500, 2_000, 4_000, 6_000, 8_000]);
    // At an end, and where nothing is sure, a place without evidence is none.
    expect(
      starts(
        heard([
          [500, 0],
          [2_000, 0.9],
          [4_000, 0.9],
          [6_000, 0.8],
          [8_000, 0.1],
        ]),
      ),
    ).toEqual([null, 2_000, 4_000, 6_000, null]);
    expect(
      starts(
        heard([
          [500, 0],
          [2_000, 0.1],
          [4_000, 0],
          [6_000, 0.1],
          [8_000, 0],
        ]),
      ),
    ).toEqual([null, null, null, null, null]);
  });

  it('were left out where others are sure about them and nothing else is said there', () => {
    const gap: Heard[] = [[500, 0.9], null, [4_000, 0.9], [6_000, 0.8], [8_000, 0.9]];
    expect(said(heard(gap))).toEqual([true, false, true, true, true]);
    // Speech between them may be it: nobody knows.
    expect(said(heard(gap, [[2_000, 3_100]]))).toEqual([true, true, true, true, true]);
    expect(said(heard([[500, 0.2], null, [4_000, 0.3], null, null]))).toEqual([
      true,
      true,
      true,
      true,
      true,
    ]);
  });

  it('those without a place are laid between those that have one', () => {
    const found =
      spokenSentences(
        script,
        alignment,
        heard([[500, 0.9], null, null, [6_000, 0.8], [8_000, 0.9]], [[2_000, 5_500]]),
      ) ?? [];
    const laid = laidSentences(
      found,
      { startMs: 0, endMs: 10_000 },
      (text) => text.split(' ').length,
    );
    expect(laid.map(({ text }) => text)).toEqual(texts);
    expect(laid.map(({ startMs }) => startMs)).toEqual([500, 1_500, 3_750, 6_000, 8_000]);
    for (const [i, { endMs }] of laid.entries())
      expect(endMs).toBeLessThanOrEqual(laid[i + 1]?.startMs ?? 10_000);
  });
});
