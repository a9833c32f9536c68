import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { isCount, spokenBeats } from './counted-aloud.ts';
import { SPEECH_STEP_MS } from './speech-sound.ts';

/** Frames in which words of so many milliseconds are said, each a beat after the one before. */
function looksOf(words: readonly number[], beatMs: number, startMs = 1_000): Uint8Array {
  const frames = new Uint8Array(
    Math.ceil((startMs + words.length * beatMs + 2_000) / SPEECH_STEP_MS),
  );
  words.forEach((ms, i) =>
    frames.fill(
      1,
      Math.round((startMs + i * beatMs) / SPEECH_STEP_MS),
      Math.round((startMs + i * beatMs + ms) / SPEECH_STEP_MS),
    ),
  );
  return frames;
}
const counts = fc.array(fc.integer({ min: 120, max: 700 }), { minLength: 4, maxLength: 40 });
const beatMs = fc.integer({ min: 900, max: 4_000 });

describe('a beat of words', () => {
  it('has each word once, in order, from its start to its end', () => {
    fc.assert(
      fc.property(counts, beatMs, (words, beat) => {
        const [found, ...more] = spokenBeats(looksOf(words, beat), []);
        expect(more).toEqual([]);
        expect(found?.words.map(({ startMs }) => Math.abs(startMs - 1_000))).toHaveLength(
          words.length,
        );
        found?.words.forEach(({ startMs, endMs }, i) => {
          expect(Math.abs(startMs - 1_000 - i * beat)).toBeLessThanOrEqual(SPEECH_STEP_MS);
          expect(Math.abs(endMs - startMs - (words[i] ?? 0))).toBeLessThanOrEqual(
            2 * SPEECH_STEP_MS,
          );
        });
      }),
    );
  });

  it('is none in what is known to be a sentence, in long speech, and in too few words', () => {
    const eight = looksOf(
      Array.from({ length: 8 }, () => 300),
      1_500,
    );
    expect(spokenBeats(eight, [{ startMs: 0, endMs: 60_000 }])).toEqual([]);
    expect(spokenBeats(looksOf([2_000, 1_900, 2_100, 1_800, 2_000], 3_000), [])).toEqual([]);
    expect(spokenBeats(looksOf([300, 300, 300], 1_500), [])).toEqual([]);
    // A sentence in the middle parts it in two.
    expect(
      spokenBeats(
        looksOf(
          Array.from({ length: 12 }, () => 300),
          1_500,
        ),
        [{ startMs: 8_400, endMs: 9_000 }],
      ).map(({ words }) => words.length),
    ).toEqual([5, 6]);
  });

  it('ends where it stops', () => {
    const frames = looksOf([300, 300, 300, 300, 300], 1_200);
    const later = looksOf([300, 300, 300, 300], 1_200, 20_000);
    frames.forEach((one, i) => one === 1 && (later[i] = 1));
    expect(spokenBeats(later, []).map(({ words }) => words.length)).toEqual([5, 4]);
  });
});

describe('a count', () => {
  const [beat] = spokenBeats(
    looksOf(
      Array.from({ length: 8 }, () => 300),
      1_500,
    ),
    [],
  );
  const found = (confidence: number, shiftMs = 0) =>
    (beat?.words ?? []).map(({ startMs, endMs }) => ({
      startMs: startMs + shiftMs,
      endMs: endMs + shiftMs,
      confidence,
    }));

  it('is one when nearly all of its numbers are known, each where its word is', () => {
    expect(beat && isCount(beat, found(0.9))).toBe(true);
    expect(
      beat &&
        isCount(
          beat,
          found(0.9).map((one, i) => (i === 0 || i === 5 ? { ...one, confidence: 0.1 } : one)),
        ),
    ).toBe(true);
    expect(
      beat &&
        isCount(
          beat,
          found(0.9).map((one, i) => (i < 3 ? null : one)),
        ),
    ).toBe(false);
    expect(beat && isCount(beat, found(0.4))).toBe(false);
    expect(beat && isCount(beat, found(0.9, 700))).toBe(false);
  });
});
