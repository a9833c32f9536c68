import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countLanguages } from '../lesson/index.ts';
import { calledCount, calledNumber, termPieces, unexplainedWords } from './index.ts';

const term = (word: string) => ({ id: word, term: word, plain: `plain ${word}` });
const found = (text: string, ...words: string[]) =>
  termPieces(text, words.map(term)).flatMap(({ text: piece, term: known }) =>
    known ? [[piece, known.term]] : [],
  );

describe('the glossary', () => {
  it('cuts any text into pieces that are the text', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme' }),
        fc.array(fc.string({ unit: 'grapheme', maxLength: 6 }), { maxLength: 5 }),
        (text, words) => {
          expect(
            termPieces(text, words.map(term))
              .map((piece) => piece.text)
              .join(''),
          ).toBe(text);
        },
      ),
    );
  });

  it('finds whole words in any case, the longest first, in other scripts too', () => {
    expect(found('Core work: your CORE, not the score.', 'core')).toEqual([
      ['Core', 'core'],
      ['CORE', 'core'],
    ]);
    expect(found('A double under is not a double.', 'double', 'double under')).toEqual([
      ['double under', 'double under'],
      ['double', 'double'],
    ]);
    expect(found('קפיצה בחבל', 'חבל')).toEqual([]);
    expect(found('חבל קצר', 'חבל')).toEqual([['חבל', 'חבל']]);
    expect(found('c++ (x)', 'c++', '(x)')).toEqual([
      ['c++', 'c++'],
      ['(x)', '(x)'],
    ]);
  });

  it('names long words once that it does not explain', () => {
    expect(unexplainedWords('Stability and stability: proprioception helps.', [])).toEqual([
      'stability',
      'proprioception',
    ]);
    expect(unexplainedWords('Proprioception helps.', [term('proprioception')])).toEqual([]);
  });
});

describe('counts', () => {
  it('are called in every language, with a word for every number', () => {
    for (const language of countLanguages) {
      const words = calledCount(20, 'up', { language, own: [] });
      expect(new Set(words).size).toBe(20);
      expect(words.join('')).not.toMatch(/\d/);
    }
  });

  // School book words, from memory.
  it.each([
    ['en', 'one', 'twelve'],
    ['de', 'eins', 'zwölf'],
    ['es', 'uno', 'doce'],
    ['fr', 'un', 'douze'],
    ['it', 'uno', 'dodici'],
    ['nl', 'één', 'twaalf'],
    ['pl', 'jeden', 'dwanaście'],
    ['pt', 'um', 'doze'],
    ['tr', 'bir', 'on iki'],
  ] as const)('in %s begin with %s and say %s for 12', (language, one, twelve) => {
    const counts = { language, own: [] };
    expect([calledNumber(1, counts), calledNumber(12, counts)]).toEqual([one, twelve]);
  });

  it('go down too, with the teacher’s own words where there are any', () => {
    expect(calledCount(3, 'down', { language: 'en', own: ['and hop'] })).toEqual([
      'three',
      'two',
      'and hop',
    ]);
  });
});
