import { makeBlock, makeLesson, type Block } from '@zest/core/lesson';
import { assemble } from '@zest/core/assembly';
import { readNumber, scorePrompts } from '@zest/core/results';
import { describe, expect, it } from 'vitest';
import { scoresOf } from './ScorePanel.tsx';
import { askMoments, chosenLevels, withAim } from './steps.ts';

let next = 0;
const makeId = () => `i${(next += 1)}`;

describe('when a lesson asks for numbers', () => {
  it('is after each try of every game, in the order they come', () => {
    const lesson = makeLesson('L', makeId);
    lesson.sections = [
      {
        id: 's',
        title: 'S',
        blocks: [
          { ...makeBlock('game', makeId), tries: 2 },
          makeBlock('intervals', makeId),
          makeBlock('laps', makeId),
        ] as Block[],
      },
    ];
    const moments = askMoments({
      prompts: scorePrompts(lesson),
      assembly: assemble(lesson, new Map()),
    });
    expect(moments.map(({ tryNo, prompt }) => [prompt.measure, tryNo])).toEqual([
      [moments[0]?.prompt.measure, 1],
      [moments[0]?.prompt.measure, 2],
      ['time', 1],
    ]);
    expect(moments.map(({ startMs }) => startMs)).toEqual(
      moments.map(({ startMs }) => startMs).sort((a, b) => a - b),
    );
  });
});

describe('a combination by sides', () => {
  it('asks after each side for that side alone', () => {
    const lesson = makeLesson('L', makeId);
    const combination = { sides: 'each', startSide: 'right', sideChangeMs: 0, scoreMs: 5_000 };
    lesson.sections = [
      {
        ...{ id: 's', title: 'S' },
        blocks: [{ ...makeBlock('routine', makeId), combination }] as Block[],
      },
    ];
    const moments = askMoments({
      prompts: scorePrompts(lesson),
      assembly: assemble(lesson, new Map()),
    });
    expect(moments.map(({ tryNo, prompt }) => [prompt.sides, tryNo])).toEqual([
      [['right'], 1],
      [['left'], 1],
    ]);
  });
});

describe('which form is done', () => {
  const easier = {
    form: 'easier' as const,
    text: 'From the knees',
    rule: '',
    target: 6,
    exercise: null,
  };
  const blocks = [
    { id: 'a', title: '', levels: [easier], ways: [], question: null, isCalled: false },
    { id: 'b', title: '', levels: [], ways: [], question: null, isCalled: false },
  ];

  it('is the chosen one where a block has it, else as shown; one block may differ', () => {
    const all = chosenLevels(blocks, 'easier', new Map());
    expect([all.of('a'), all.of('b'), [...all.shown.keys()]]).toEqual([
      'easier',
      'standard',
      ['a'],
    ]);
    expect(chosenLevels(blocks, 'easier', new Map([['a', 'standard' as const]])).of('a')).toBe(
      'standard',
    );
    expect(chosenLevels(blocks, 'harder', new Map()).shown.size).toBe(0);
  });

  it('has an aim of its own, or the one everybody has', () => {
    const prompt = {
      blockId: 'a',
      key: 'k',
      title: 'T',
      measure: 'count' as const,
      better: 'more' as const,
      seconds: null,
      sides: [],
      tries: 1,
      isAsked: true,
      target: 10,
      targets: [],
    };
    const { form } = chosenLevels(blocks, 'easier', new Map());
    expect(withAim(prompt, form('a')).target).toBe(6);
    expect(withAim(prompt, form('b')).target).toBe(10);
    expect(withAim(prompt, { target: null }).target).toBe(10);
  });
});

describe('a number as it is typed', () => {
  it('may have a comma; what is none, or out of bounds, is none', () => {
    expect(
      ['12', ' 12,5 ', '0', '', '-1', 'ten', '1e9', '12 5'].map((typed) => readNumber(typed)),
    ).toEqual([12, 12.5, 0, null, null, null, null, null]);
    const prompt = {
      blockId: 'b',
      key: 'k',
      title: 'T',
      measure: 'count' as const,
      better: 'more' as const,
      seconds: 30,
      sides: ['left', 'right'] as const,
      tries: 1,
      isAsked: true,
      target: null,
      targets: [],
    };
    expect(
      scoresOf(
        prompt,
        'easier',
        new Map([
          ['left' as const, '7'],
          ['right' as const, ''],
        ]),
      ),
    ).toEqual([
      {
        kind: 'score',
        blockId: 'b',
        key: 'k',
        title: 'T',
        measure: 'count',
        better: 'more',
        value: 7,
        side: 'left',
        level: 'easier',
        seconds: 30,
      },
    ]);
  });
});
