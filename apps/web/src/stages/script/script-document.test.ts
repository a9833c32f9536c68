import fc from 'fast-check';
import { expect, it } from 'vitest';
import { fromDocument, toDocument, wordBorder } from './script-document.ts';

it('a script and its cues come back from the editor’s document', () => {
  const line = fc
    .string({ unit: 'grapheme', maxLength: 20 })
    .map((text) => text.replaceAll('\n', ' '));
  fc.assert(
    fc.property(
      fc.array(line, { maxLength: 4 }),
      fc.array(fc.option(fc.nat(60)), { maxLength: 4 }),
      (lines, places) => {
        const script = lines.join('\n');
        const cues = places.map((anchor, i) => ({ id: `c${i}`, text: `cue ${i}`, anchor }));
        const back = fromDocument(toDocument(script, cues));
        expect(back.script).toBe(script);
        for (const { id, anchor } of cues)
          expect(back.anchors.get(id)).toBe(
            anchor === null ? undefined : Math.min(anchor, script.length),
          );
      },
    ),
  );
});

it('a place in a text moves to the nearest border of a word, and never into one', () => {
  const text = "Stand side-on, don't lean.";
  //            0123456789
  expect([0, 2, 3, 5, 8, 12, 13, 14].map((at) => wordBorder(text, at))).toEqual([
    0, 0, 5, 5, 6, 13, 13, 14,
  ]);
  expect([wordBorder(text, 8, 'before'), wordBorder(text, 8, 'after')]).toEqual([6, 13]);
  expect(wordBorder(text, 18)).toBe(20);
  fc.assert(
    fc.property(
      fc.string({ unit: fc.constantFrom('a', 'é', 'ع', ' ', '-', '’', '.'), maxLength: 12 }),
      fc.nat(12),
      (words, place) => {
        const at = Math.min(place, words.length);
        const border = wordBorder(words, at);
        expect(
          words.slice(0, border).match(/\p{L}$/u) !== null && /^\p{L}/u.test(words.slice(border)),
        ).toBe(false);
        // Nothing but letters of one word lies between.
        expect(words.slice(Math.min(at, border), Math.max(at, border))).not.toMatch(/[ .]/);
      },
    ),
  );
});
