import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { arbitraryBlock, arbitraryLesson, arbitraryOf, counter } from '../testing/arbitrary.ts';
import {
  addBlock,
  applyEdit,
  stepText,
  type Block,
  type Lesson,
  applyWorkShorthand,
  beginEditing,
  blocksOf,
  changeBlock,
  figuresOf,
  LessonError,
  makeBlock,
  makeLesson,
  makeSection,
  migrateDocument,
  moveBlocks,
  moveSection,
  parseWorkShorthand,
  readFigure,
  readLesson,
  placeBlocks,
  redo,
  removeBlocks,
  removeSection,
  undo,
  addSection,
  workShorthand,
  writeFigure,
  type EditedLesson,
  type LessonEdit,
} from './index.ts';

const fault = (read: () => unknown): LessonError => {
  try {
    read();
  } catch (error) {
    if (error instanceof LessonError) return error;
  }
  throw new Error('It should have been refused.');
};

function withBlock(kind: 'talk' | 'intervals' | 'reps') {
  const makeId = counter();
  const lesson = makeLesson('Throwing', makeId);
  lesson.sections[0]?.blocks.push({ ...makeBlock(kind, makeId), title: 'First throws' });
  return lesson;
}

describe('reading a lesson', () => {
  it('gives back any lesson it was given', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        expect(readLesson(JSON.parse(JSON.stringify(lesson)))).toEqual(lesson);
      }),
    );
  });

  it.each([0, -5_000, 1e12, 1.5, Number.NaN])(
    'refuses a work time of %s ms and says where',
    (workMs) => {
      const lesson = withBlock('intervals');
      const raw = JSON.parse(JSON.stringify(lesson)) as {
        sections: { blocks: Record<string, unknown>[] }[];
      };
      Object.assign(raw.sections[0]?.blocks[0] ?? {}, { workMs });
      const { faults } = fault(() => readLesson(raw));
      expect(faults[0]?.place).toBe('section 1 “Welcome”, block 1 “First throws”, work time');
      expect(faults[0]?.message).toMatch(/At least 1 s|At most 3600 s|whole number|Invalid input/);
    },
  );

  it('refuses a repetition that takes no time, two uses of one id and unknown fields', () => {
    const none = withBlock('reps');
    Object.assign(blocksOf(none)[0] ?? {}, {
      tempo: { downMs: 0, holdMs: 0, upMs: 0, topHoldMs: 0 },
    });
    expect(fault(() => readLesson(none)).message).toContain('at least 0.2 s');
    const twice = withBlock('talk');
    twice.sections.push(makeSection('Again', () => blocksOf(twice)[0]?.id ?? ''));
    expect(fault(() => readLesson(twice)).message).toContain('used twice');
    expect(fault(() => readLesson({ ...withBlock('talk'), colour: 'red' })).faults).toHaveLength(1);
  });

  it('keeps quotes, emoji and a lesson of no blocks', () => {
    const lesson = { ...makeLesson('“Skip” & <throw> 🤸', counter()), sections: [] };
    expect(readLesson(JSON.parse(JSON.stringify(lesson))).title).toBe('“Skip” & <throw> 🤸');
  });

  it.each([null, [], 'text', {}, { format: 'other', version: 1 }])(
    'says that %j is no lesson file',
    (raw) => {
      expect(fault(() => readLesson(raw)).message).toContain('not a lesson file');
    },
  );

  it('refuses a newer version and one without a version', () => {
    expect(fault(() => readLesson({ format: 'zest-lesson', version: 99 })).message).toContain(
      'Update the program',
    );
    expect(fault(() => readLesson({ format: 'zest-lesson' })).message).toContain('no version');
  });

  it('takes an old document through every step in order', () => {
    const steps = new Map([
      [1, (d: Record<string, unknown>) => ({ ...d, trail: [1] })],
      [2, (d: Record<string, unknown>) => ({ ...d, trail: [...(d['trail'] as number[]), 2] })],
    ]);
    expect(migrateDocument({ format: 'zest-lesson', version: 1 }, steps, 3)).toEqual({
      format: 'zest-lesson',
      version: 3,
      trail: [1, 2],
    });
    expect(
      fault(() => migrateDocument({ format: 'zest-lesson', version: 3 }, steps, 4)).message,
    ).toContain('no way');
  });
});

describe('version 1', () => {
  const old = {
    format: 'zest-lesson',
    version: 1,
    title: 'Old',
    series: { name: 'S', week: 2 },
    outcome: '',
    audience: { ageFrom: 8, ageTo: 9 },
    targetMs: 300_000,
    settings: { lastRest: 'counted', sides: 'performer', speechWpm: 120 },
    sections: [
      {
        id: 's',
        title: 'All',
        blocks: [
          {
            ...{
              id: 'b',
              kind: 'intervals',
              title: 'Skip',
              script: '',
              cautions: [],
              effort: 4,
              footage: null,
              pauseAfter: null,
            },
            cues: [{ id: 'c', text: 'Soft', moment: 'action' }],
            kit: [{ id: 'k', name: 'Rope', quantity: 1, standIn: '' }],
            exercises: [{ id: 'e', title: 'Skip', movement: 'skip-rope' }],
            ...{
              workMs: 20_000,
              restMs: 10_000,
              rounds: 8,
              restBetweenRoundsMs: null,
              leadInMs: 5_000,
            },
          },
        ],
      },
    ],
  };

  it('opens with the same figures, the target and what is new at rest', () => {
    const lesson = readLesson(old);
    expect(lesson.targets).toEqual({ video: { ms: 300_000, toleranceMs: 15_000 }, session: null });
    expect(blocksOf(lesson)[0]).toMatchObject({
      workMs: 20_000,
      rounds: 8,
      sets: 1,
      ladder: [],
      exercises: [{ sides: 'both' }],
      cues: [{ text: 'Soft', anchor: null }],
      kit: [{ share: 'each' }],
    });
    expect(readLesson({ ...old, targetMs: null }).targets.video).toBeNull();
  });

  it.each([
    ['sections', 5],
    ['settings', null],
    ['series', []],
    ['sections', [{ id: 's', title: '', blocks: [null, 7, { kind: 'reps', cues: 'x' }] }]],
  ])('is refused in words when its %s is %j', (key, value) => {
    expect(fault(() => readLesson({ ...old, [key]: value })).faults.length).toBeGreaterThan(0);
  });
});

describe('figures', () => {
  it('can all be read and written, and stay within their own range in any block', () => {
    fc.assert(
      fc.property(arbitraryBlock, (block) => {
        const keys = figuresOf(block).map(({ key }) => key);
        expect(new Set(keys).size).toBe(keys.length);
        for (const { key, range } of figuresOf(block)) {
          expect(Number.isInteger(readFigure(block, key))).toBe(true);
          writeFigure(block, key, range.max);
          expect(readFigure(block, key)).toBe(range.max);
        }
      }),
    );
  });
});

describe('works and rests as they are written', () => {
  it.each([
    ['20/10 x8', [[20_000, 10_000]], 8],
    ['20 s / 10 s × 8', [[20_000, 10_000]], 8],
    ['1:30/0', [[90_000, 0]], null],
    [
      '30/30, 20/20, 10/10 x2',
      [
        [30_000, 30_000],
        [20_000, 20_000],
        [10_000, 10_000],
      ],
      2,
    ],
  ])('reads %s', (text, rungs, rounds) => {
    const read = parseWorkShorthand(text);
    expect([read?.rungs.map(({ workMs, restMs }) => [workMs, restMs]), read?.rounds]).toEqual([
      rungs,
      rounds,
    ]);
  });

  it.each([
    '',
    '20',
    '20/10/5',
    '0/10',
    '20/10 x0',
    '20/10 x999',
    'soon/10',
    '20/10 x',
    '20/10, x3',
  ])('refuses %j', (text) => {
    expect(parseWorkShorthand(text)).toBeNull();
  });

  it('comes back from any block', () => {
    fc.assert(
      fc.property(arbitraryOf('intervals'), (block) => {
        const copy = structuredClone(block);
        const read = parseWorkShorthand(workShorthand(block));
        if (read) applyWorkShorthand(copy, read);
        expect(read).not.toBeNull();
        expect(copy).toEqual(block);
      }),
    );
  });
});

describe('editing', () => {
  /** Edits picked by numbers, so that any list of numbers is a session of work. */
  const session = (lesson: EditedLesson, picks: number[]): EditedLesson[] => {
    const makeId = counter();
    const states = [lesson];
    for (const pick of picks) {
      const state = states.at(-1) ?? lesson;
      const idOf = (list: readonly { id: string }[]) => list[pick % Math.max(1, list.length)]?.id;
      const sectionId = idOf(state.lesson.sections) ?? '';
      const blockId = idOf(blocksOf(state.lesson)) ?? '';
      const edits: LessonEdit[] = [
        addSection(makeSection('New', () => `s-${makeId()}`)),
        addBlock(
          sectionId,
          makeBlock('reps', () => `b-${makeId()}`),
        ),
        moveBlocks(new Set([blockId]), pick % 2 ? 1 : -1),
        placeBlocks(
          new Set(
            blocksOf(state.lesson)
              .filter((_b, i) => (pick >> i) % 2 === 1)
              .map(({ id }) => id),
          ),
          sectionId,
          blockId || null,
        ),
        changeBlock(blockId, (draft) => void (draft.title = `Title ${pick}`)),
        removeBlocks(new Set([blockId])),
        moveSection(sectionId, pick % 2 ? 1 : -1),
        removeSection(sectionId),
      ];
      const edit = edits[pick % edits.length];
      if (edit) states.push(applyEdit(state, `Edit ${pick}`, edit));
    }
    return states;
  };

  it('undoes any session to its beginning and redoes it to its end, through the same lessons', () => {
    fc.assert(
      fc.property(arbitraryLesson, fc.array(fc.nat(1_000), { maxLength: 20 }), (lesson, picks) => {
        const states = session(beginEditing(lesson), picks);
        const end = states.at(-1) ?? beginEditing(lesson);
        let state = end;
        while (state.past.length > 0) state = undo(state);
        expect(state.lesson).toEqual(lesson);
        while (state.future.length > 0) state = redo(state);
        expect(state.lesson).toEqual(end.lesson);
        expect(() => readLesson(JSON.parse(JSON.stringify(state.lesson)))).not.toThrow();
      }),
    );
  });

  const title = (state: EditedLesson, text: string, intention: number | null = null) =>
    applyEdit(state, 'Title', (d) => void (d.title = text), intention);

  it('makes one step of one intention, another of the next, whatever they are called', () => {
    let state = beginEditing(makeLesson('A', counter()));
    for (const [text, intention] of [
      ['Ab', 1],
      ['Abc', 1],
      ['Abcd', 2],
      ['Abcde', null],
      ['Abcdef', null],
    ] as const)
      state = title(state, text, intention);
    const titles = [];
    for (; state.past.length > 0; state = undo(state)) titles.push(state.lesson.title);
    expect([...titles, state.lesson.title]).toEqual(['Abcdef', 'Abcde', 'Abcd', 'Abc', 'A']);
  });

  it('never makes one step of changes in two blocks, even of one title and one intention', () => {
    const makeId = counter();
    const [first, second] = [makeBlock('talk', makeId), makeBlock('talk', makeId)];
    const lesson: Lesson = {
      ...makeLesson('A', makeId),
      sections: [{ id: 's', title: 'S', blocks: [first, second] }],
    };
    const effort = (state: EditedLesson, { id }: Block, value: number) =>
      applyEdit(
        state,
        'Effort',
        changeBlock(id, (draft) => void (draft.effort = value)),
        1,
      );
    let state = effort(effort(effort(beginEditing(lesson), first, 2), second, 3), second, 4);
    expect(state.past.map(({ where }) => where)).toEqual([[first.id], [second.id]]);
    expect(state.past.map((step) => stepText(step, lesson))).toEqual([
      'Effort (Talk)',
      'Effort (Talk)',
    ]);
    state = undo(state);
    expect(blocksOf(state.lesson).map((block) => block.effort)).toEqual([2, 1]);
  });

  it('makes no step of what was typed and typed back', () => {
    const begun = title(beginEditing(makeLesson('A', counter())), 'B');
    const back = title(title(begun, 'C', 1), 'B', 1);
    expect(back.lesson).toEqual(begun.lesson);
    expect(back.past).toEqual(begun.past);
    // It may go on from there, as a step of its own again.
    expect(title(back, 'D', 1).past).toHaveLength(begun.past.length + 1);
  });

  it('forgets what was undone once something else is done, and ignores edits that change nothing', () => {
    const begun = beginEditing(makeLesson('A', counter()));
    const changed = applyEdit(begun, 'Title', (d) => void (d.title = 'B'));
    const other = applyEdit(undo(changed), 'Title', (d) => void (d.title = 'C'));
    expect(redo(other)).toBe(other);
    expect(applyEdit(other, 'Nothing', () => undefined)).toBe(other);
    expect(undo(begun)).toBe(begun);
  });
});
