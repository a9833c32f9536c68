import { describe, expect, it } from 'vitest';
import {
  answerText,
  askedText,
  choiceLetter,
  isRightAnswer,
  makeBlock,
  makeLesson,
  readLesson,
  type BlockOf,
  type Choice,
} from '../lesson/index.ts';
import { blockSummary, measureBlock } from '../schedule/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { assemble } from './index.ts';

const choice = (id: string, text: string, isRight: boolean, why = ''): Choice => ({
  ...{ id, text, isRight, why, movement: 'other' },
});
const yesNo = [choice('a', 'Left foot', false), choice('b', 'Right foot', true, 'It leads.')];
const question = (more: Partial<BlockOf<'question'>> = {}) =>
  ({
    ...makeBlock('question', counter()),
    ...{ id: 'q', question: 'Which foot?', thinkMs: 8_000, choices: yesNo },
    ...more,
  }) as BlockOf<'question'>;
const lessonOf = (...blocks: BlockOf<'question'>[]) => ({
  ...makeLesson('A', counter()),
  sections: [{ id: 's', title: 'S', blocks }],
});

describe('a question with choices', () => {
  it('is read out with them, and answered with what is right and why', () => {
    expect(askedText(question())).toBe('Which foot? A Left foot. B Right foot.');
    expect(answerText(question())).toBe('B Right foot. It leads.');
    expect(answerText(question({ answer: 'The right one.' }))).toBe('The right one.');
    expect([0, 5].map(choiceLetter)).toEqual(['A', 'F']);
    const timing = { ...lessonOf(), settings: { ...lessonOf().settings, speechWpm: 120 } };
    // At two words a second: 8 words 4 s, thought 8 s, 5 words 2.5 s, in whole seconds 3 s.
    expect(measureBlock(question(), timing)).toBe(4_000 + 8_000 + 3_000);
    expect(blockSummary(question(), 'en')).toBe(
      'question, 8 s to think, A Left foot, B Right foot (right)',
    );
  });

  it('is right with all that is right and nothing else', () => {
    const three = [...yesNo, choice('c', 'Both', true)];
    const right = (...ids: string[]) => isRightAnswer(three, new Set(ids));
    expect([right('b', 'c'), right('b'), right('a', 'b', 'c'), right()]).toEqual([
      ...[true, false, false, false],
    ]);
  });

  it('shows its choices while one thinks, and what is right with the answer', () => {
    const block = question({ askMs: 4_000, answerMs: 3_000, answeredBy: 'move' });
    const cards = (footage: BlockOf<'question'>['footage']) =>
      assemble(
        lessonOf({ ...block, footage }),
        new Map([['t', { id: 't', frames: 600, marked: null }]]),
      ).segments.map(({ startMs, source, sound }) => [
        startMs,
        source.kind === 'card' ? source.card.choices?.map(({ isRight }) => isRight) : 'take',
        source.kind === 'card' ? source.card.lines : [],
        sound?.source.kind ?? null,
      ]);
    const how = ['Answer with the move'];
    expect(cards(null)).toEqual([
      [0, [null, null], how, null],
      [4_000, [null, null], how, null],
      [12_000, [false, true], [], null],
    ]);
    // The take is seen asking; it goes on to be heard behind the choices.
    expect(cards({ takeId: 't', startsAtMs: 0 })).toEqual([
      [0, 'take', [], 'take'],
      [4_000, [null, null], how, 'take'],
      [12_000, [false, true], [], 'take'],
    ]);
  });

  it('has no words over its choices', () => {
    const { lanes } = assemble(lessonOf(question({ askMs: 4_000, answerMs: 3_000 })), new Map());
    expect(lanes.cue).toEqual([]);
    expect(lanes.clock.map(({ phase }) => phase)).toEqual(['think']);
  });

  it('is stored as it was', () => {
    const lesson = lessonOf(question({ answeredBy: 'move' }), question({ id: 'r' }));
    expect(readLesson(JSON.parse(JSON.stringify(lesson))).sections).toEqual(lesson.sections);
    const few = lessonOf(question({ choices: yesNo.slice(0, 1) }));
    expect(() => readLesson(JSON.parse(JSON.stringify(few)))).toThrow('At least two choices.');
  });
});
