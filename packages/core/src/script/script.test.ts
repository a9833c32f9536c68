import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeBlock, makeCue, makeLesson, type Block, type BlockOf } from '../lesson/index.ts';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import {
  fixedSides,
  measuredWpm,
  paceOf,
  piecesOf,
  prompterOf,
  readForHand,
  readingAge,
  rewriteScript,
  scriptOf,
  sentenceOfCue,
  sentences,
  spokenShare,
} from './index.ts';

const lesson = makeLesson('A', counter());
const text = fc.string({ unit: 'grapheme', maxLength: 60 });

describe('sentences', () => {
  it('lie where they say, in order, and leave out only white space', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('Go. ', 'Stop!', ' ', '\n', 'Why? ', '3.5 m', '“Now.” '), {
          maxLength: 12,
        }),
        (parts) => {
          const script = parts.join('');
          const found = sentences(script);
          let at = 0;
          for (const { from, to, text: words } of found) {
            expect(script.slice(from, to)).toBe(words);
            expect(script.slice(at, from).trim()).toBe('');
            at = to;
          }
          expect(script.slice(at).trim()).toBe('');
        },
      ),
    );
    expect(sentences('Bend. Throw “far.” Stop!').map(({ text: words }) => words)).toEqual([
      'Bend.',
      'Throw “far.”',
      'Stop!',
    ]);
  });
});

describe('cues in a script', () => {
  it('come back with the script from any pieces', () => {
    fc.assert(
      fc.property(text, fc.array(fc.option(fc.nat(80)), { maxLength: 5 }), (script, places) => {
        const cues = places.map((anchor, i) => ({ id: `c${i}`, anchor }));
        const back = scriptOf(piecesOf(script, cues));
        expect(back.script).toBe(script);
        for (const { id, anchor } of cues)
          expect(back.anchors.get(id)).toBe(
            anchor === null ? undefined : Math.min(anchor, script.length),
          );
      }),
    );
  });

  it('stay before the words they stood before when others are rewritten', () => {
    fc.assert(
      fc.property(text, text, text, text, (head, old, next, tail) => {
        const makeId = counter();
        const at = (anchor: number) => ({ ...makeCue('x', makeId), anchor });
        const block = {
          ...makeBlock('talk', makeId),
          script: head + old + tail,
          cues: [
            at(0),
            at(head.length),
            at(head.length + old.length),
            at((head + old + tail).length),
          ],
        };
        rewriteScript(block, head + next + tail);
        expect(block.script).toBe(head + next + tail);
        // They keep their order, and the first its place.
        const anchors = block.cues.map(({ anchor }) => anchor ?? -1);
        expect(anchors[0]).toBe(0);
        expect(anchors).toEqual([...anchors].sort((a, b) => a - b));
        for (const { anchor } of block.cues)
          expect((anchor ?? -1) >= 0 && (anchor ?? 0) <= block.script.length).toBe(true);
      }),
    );
    const block = {
      ...makeBlock('talk', counter()),
      script: 'Keep the right hand low.',
      cues: [{ ...makeCue('Low', counter()), anchor: 20 }],
    };
    rewriteScript(block, 'Keep the throwing hand low.');
    expect(block.script.slice(block.cues[0]?.anchor ?? 0)).toBe('low.');
  });

  it('belong to the sentence they stand in, and to the share of words before it', () => {
    const script = 'Stand side-on. Keep the disc level. Snap and stop.';
    expect(sentenceOfCue(script, { anchor: 20 })?.text).toBe('Keep the disc level.');
    // Two of nine words come before it: "side-on" is one.
    expect(spokenShare(script, { anchor: 20 })).toBeCloseTo(2 / 9);
    expect(spokenShare(script, { anchor: null })).toBeNull();
    expect(spokenShare('', { anchor: 3 })).toBeNull();
  });
});

describe('pace', () => {
  it('knows when the words take longer than the block', () => {
    const words = Array.from({ length: 26 }, () => 'word').join(' ');
    const talk = { ...makeBlock('talk', counter()), script: words };
    // 26 words at 130 a minute are 12 s.
    expect(paceOf(talk, lesson)).toEqual({ words: 26, spokenMs: 12_000, roomMs: null });
    expect(paceOf({ ...talk, fixedMs: 10_000 } as typeof talk, lesson)).toEqual({
      words: 26,
      spokenMs: 12_000,
      roomMs: 10_000,
    });
  });

  it('is measured from reading aloud, when there was enough to read', () => {
    expect(measuredWpm('word '.repeat(65), 30_000)).toBe(130);
    expect(measuredWpm('word '.repeat(5), 30_000)).toBeNull();
    expect(measuredWpm('word '.repeat(65), 1_000)).toBeNull();
  });
});

describe('the left-handed reading', () => {
  it('says which side a neutral wording means, and touches nothing else', () => {
    fc.assert(
      fc.property(text, fc.constantFrom('left', 'right' as const), (script, hand) => {
        expect(
          readForHand(`${script} Throwing hand low`, hand)
            .map((piece) => piece.text)
            .join(''),
        ).toBe(`${script} Throwing hand low`);
      }),
    );
    expect(
      readForHand('Throwing hand low, other foot first. What is left?', 'left').filter(
        ({ side }) => side,
      ),
    ).toEqual([
      { text: 'Throwing hand', side: 'left' },
      { text: 'other foot', side: 'right' },
    ]);
  });

  it('mirrors exactly when the hand changes', () => {
    const turn = { left: 'right', right: 'left' } as const;
    const one = readForHand(
      'Throwing arm back, other leg forward, throwing side to the hoop',
      'right',
    );
    const two = readForHand(
      'Throwing arm back, other leg forward, throwing side to the hoop',
      'left',
    );
    expect(two).toEqual(
      one.map(({ text: words, side }) => ({ text: words, side: side && turn[side] })),
    );
  });

  it('finds sides of the body that are fixed, and proposes words only where they are sure', () => {
    expect(
      fixedSides('Right hand low, left foot first, right wrist firm. Turn left. What is left?').map(
        ({ words, instead }) => [words, instead],
      ),
    ).toEqual([
      ['Right hand', 'throwing hand'],
      ['left foot', null],
      ['right wrist', 'throwing wrist'],
    ]);
    expect(fixedSides('left arm', 'left')[0]?.instead).toBe('throwing arm');
    // What is proposed is read for the hand that was meant.
    for (const { words, instead } of fixedSides(
      'right hand, left arm, right elbow, left wrist, right fist, left shoulder',
    )) {
      expect(readForHand(instead ?? '', 'right')).toEqual([
        { text: instead, side: words.split(' ')[0] },
      ]);
    }
  });
});

describe('reading age', () => {
  it(
    'is the Flesch-Kincaid grade and five, with its published weights 0.39, 11.8 and ' +
      '15.59 (Kincaid et al. 1975)',
    () => {
      // 10 words, 1 sentence, 10 syllables: 0.39 x 10 + 11.8 x 1 - 15.59 = 0.11, age 5 (arithmetic
      // from the published formula).
      expect(readingAge('The cat sat on the mat and ate the rat.')).toBe(5);
      expect(readingAge('Stop')).toBeNull();
      const hard = readingAge(
        'Proprioceptive neuromuscular facilitation necessitates considerable professional supervision.',
      );
      expect(hard ?? 0).toBeGreaterThan(18);
    },
  );
});

describe('the prompter', () => {
  it('says every word in order in short lines, and what comes next after every block', () => {
    fc.assert(
      fc.property(arbitraryLesson, (any) => {
        const shown = prompterOf(any);
        const blocks = any.sections.flatMap((section) => section.blocks);
        expect(shown.map(({ blockId }) => blockId)).toEqual(blocks.map(({ id }) => id));
        shown.forEach(({ lines }, i) => {
          const said = lines.filter(({ kind }) => kind === 'said').map((line) => line.text);
          expect(said.join(' ')).toContain(
            blocks[i]?.script
              .split(/\s+/)
              .filter((w) => w !== '')
              .join(' '),
          );
          for (const line of said) expect(line.length <= 28 || !line.includes(' ')).toBe(true);
          expect(lines.at(-1)?.kind).toBe('next');
        });
      }),
    );
  });

  it('counts in the teacher’s language and direction, if the count is short', () => {
    const makeId = counter();
    const settings = { ...lesson.settings, counts: { language: 'de' as const, own: ['und eins'] } };
    const counted = (block: Block) =>
      prompterOf({ ...lesson, settings, sections: [{ id: 's', title: '', blocks: [block] }] })[0]
        ?.lines.filter(({ kind }) => kind === 'count')
        .map((line) => line.text)
        .join(' ');
    expect(counted({ ...makeBlock('reps', makeId), reps: 3 } as Block)).toBe(
      'und eins, zwei, drei',
    );
    expect(counted({ ...makeBlock('hold', makeId), holdMs: 3_000, count: 'down' } as Block)).toBe(
      'drei, zwei, und eins',
    );
    expect(counted({ ...makeBlock('reps', makeId), reps: 21 } as Block)).toBe('');
  });

  it('lists what is done with its sides, and nothing that only says the title again', () => {
    const makeId = counter();
    const planned = (block: Block) =>
      prompterOf({ ...lesson, sections: [{ id: 's', title: '', blocks: [block] }] })[0]
        ?.lines.filter(({ kind }) => kind === 'plan')
        .map((line) => line.text);
    const throws = { ...makeBlock('reps', makeId), title: 'Throw' } as BlockOf<'reps'>;
    const exercise = { ...throws.exercise, title: 'Throw' };
    expect(planned({ ...throws, exercise, sides: 'each', startSide: 'left' })).toEqual([
      'Throw · left · right',
    ]);
    expect(planned({ ...throws, exercise, sides: 'both' })).toEqual([]);
    const circuit = makeBlock('intervals', makeId) as BlockOf<'intervals'>;
    const [one] = circuit.exercises;
    const exercises = ['Skip', 'Lunge'].map((title, i) => ({
      ...one!,
      id: `e${i}`,
      title,
      sides: i === 0 ? ('both' as const) : ('halves' as const),
    }));
    expect(planned({ ...circuit, exercises })).toEqual(['Skip', 'Lunge · right · left']);
    expect(planned(makeBlock('talk', makeId))).toEqual([]);
  });

  it('shows a cue where it is spoken', () => {
    const makeId = counter();
    const block = {
      ...makeBlock('talk', makeId),
      script: 'Stand side-on. Snap and stop.',
      cues: [{ ...makeCue('Snap and stop', makeId), anchor: 15 }],
    };
    const [first] = prompterOf({ ...lesson, sections: [{ id: 's', title: '', blocks: [block] }] });
    expect(first?.lines.map(({ kind, text: words }) => [kind, words])).toEqual([
      ['title', 'Talk'],
      ['said', 'Stand side-on.'],
      ['cue', 'Snap and stop'],
      ['said', 'Snap and stop.'],
      ['next', 'That was the last block.'],
    ]);
  });
});
