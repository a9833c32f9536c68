import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeBlock, makeLesson, type Block } from '../lesson/index.ts';
import {
  assemble,
  forStudent,
  lastMoveStart,
  scoreMoments,
  slots,
  type BoardOverlay,
  type CueOverlay,
  type StudentView,
} from './index.ts';

let next = 0;
const makeId = () => `i${(next += 1)}`;
const usual: StudentView = { larger: false, contrast: false, calm: false, levels: new Map() };
const easier = {
  form: 'easier' as const,
  text: 'From the knees',
  rule: 'When ten are too many',
  exercise: null,
};

function cutOf(blocks: (Partial<Block> & { kind: Block['kind'] })[]) {
  const lesson = makeLesson('L', makeId);
  lesson.sections = [
    {
      id: 's',
      title: 'S',
      blocks: blocks.map((block) => ({ ...makeBlock(block.kind, makeId), ...block }) as Block),
    },
  ];
  return assemble(lesson, new Map());
}

describe('a lesson as one student wants it', () => {
  const kinds = [
    'talk',
    'intervals',
    'reps',
    'hold',
    'counts',
    'routine',
    'laps',
    'game',
    'called',
    'question',
    'card',
  ] as const;

  it('keeps the cut, its times and an order without overlaps, whatever is chosen', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...kinds), { minLength: 1, maxLength: 5 }),
        fc.boolean(),
        fc.boolean(),
        fc.array(fc.boolean(), { minLength: 5, maxLength: 5 }),
        (chosen, larger, calm, levelled) => {
          const cut = cutOf(chosen.map((kind) => ({ kind })));
          const levels = new Map(
            cut.blocks
              .filter((_, i) => levelled[i])
              .map(({ blockId }) => [blockId, [easier]] as const),
          );
          const seen = forStudent(cut, { ...usual, larger, calm, levels });
          expect([seen.durationMs, seen.segments, seen.captions]).toEqual([
            cut.durationMs,
            cut.segments,
            cut.captions,
          ]);
          for (const slot of slots) {
            const lane = seen.lanes[slot];
            lane.forEach(({ startMs, endMs }, i) =>
              expect(endMs > startMs && startMs >= (lane[i - 1]?.endMs ?? 0)).toBe(true),
            );
          }
          for (const slot of ['clock', 'counter', 'caution'] as const)
            expect(seen.lanes[slot]).toEqual(cut.lanes[slot]);
        },
      ),
    );
  });

  it('shows the chosen form on the board and where the block begins, and only there', () => {
    const cut = cutOf([{ kind: 'reps' }, { kind: 'reps' }]);
    const [first, second] = cut.blocks;
    const seen = forStudent(cut, { ...usual, levels: new Map([[first?.blockId ?? '', [easier]]]) });
    const texts = (blockEnd: number) =>
      seen.lanes.cue.filter(({ startMs, text }) => startMs < blockEnd && text === easier.text);
    expect(texts(first?.endMs ?? 0)).toHaveLength(1);
    expect(texts(second?.endMs ?? 0)).toHaveLength(1);
    expect(
      seen.lanes.board.some(({ board }) => board.kind === 'level' && board.text === easier.text),
    ).toBe(true);
    expect(forStudent(cut, usual).lanes).toEqual(cut.lanes);
  });

  it('puts the form in place of other forms and of the strip, and leaves other boards', () => {
    const strip = { kind: 'strip', done: 0, of: 2, now: 'A', then: 'B' } as const;
    const other = { kind: 'level', form: 'harder', text: 'With a jump', rule: '' } as const;
    const kit: BoardOverlay['board'] = { kind: 'kit', lines: ['Rope'] };
    const cut = cutOf([{ kind: 'reps' }, { kind: 'reps' }]);
    const [first, second] = cut.blocks;
    const at = (startMs: number, endMs: number, board: BoardOverlay['board']): BoardOverlay => ({
      ...{ slot: 'board', startMs, endMs, board },
    });
    const firstEnd = first?.endMs ?? 0;
    const [secondStart, secondEnd] = [second?.startMs ?? 0, second?.endMs ?? 0];
    const boards = [
      ...[at(0, 4_000, kit), at(4_000, 8_000, other), at(8_000, firstEnd, strip)],
      at(secondStart, secondEnd, strip),
    ];
    const seen = forStudent(
      { ...cut, lanes: { ...cut.lanes, board: boards } },
      { ...usual, levels: new Map([[first?.blockId ?? '', [easier]]]) },
    );
    const form = { kind: 'level', form: 'easier', text: easier.text, rule: easier.rule } as const;
    expect(seen.lanes.board).toEqual([
      at(0, 4_000, kit),
      at(4_000, firstEnd, form),
      at(secondStart, secondEnd, strip),
    ]);
  });

  it('says the form in place of the cues for getting ready, else for eight seconds where it is free', () => {
    const cut = cutOf([{ kind: 'reps' }]);
    const [block] = cut.blocks;
    const levels = new Map([[block?.blockId ?? '', [easier]]]);
    const cue = (startMs: number, endMs: number, moment: CueOverlay['moment']): CueOverlay => ({
      ...{ slot: 'cue', startMs, endMs, moment },
      ...{ text: 'Chest up', pair: { right: 'Long', wrong: 'Round' } },
    });
    const cuesFor = (cues: CueOverlay[]) =>
      forStudent({ ...cut, lanes: { ...cut.lanes, cue: cues } }, { ...usual, levels }).lanes.cue;
    expect(cuesFor([cue(0, 4_000, 'ready'), cue(4_000, 9_000, 'action')])).toEqual([
      { ...cue(0, 4_000, 'ready'), text: easier.text, pair: null },
      cue(4_000, 9_000, 'action'),
    ]);
    const said = { slot: 'cue', text: easier.text, moment: 'ready', pair: null } as const;
    expect(cuesFor([cue(0, 4_000, 'action')])).toEqual([
      cue(0, 4_000, 'action'),
      { ...said, startMs: 4_000, endMs: 12_000 },
    ]);
    expect(cuesFor([cue(0, block?.endMs ?? 0, 'action')])).toHaveLength(1);
  });

  it('is larger, calmer and of high contrast when asked', () => {
    const cut = cutOf([{ kind: 'talk' }]);
    expect(forStudent(cut, { ...usual, larger: true }).look.slots.clock.size).toBe(130);
    expect(forStudent(cut, { ...usual, contrast: true, calm: true }).look).toMatchObject({
      theme: 'high contrast',
      calm: true,
    });
  });
});

describe('seeing the last move once more', () => {
  it('goes to where it began, and to the one before when it has just begun', () => {
    const cut = cutOf([
      {
        kind: 'intervals',
        leadInMs: 5_000,
        workMs: 20_000,
        restMs: 10_000,
        rounds: 2,
      } as Partial<Block> & { kind: 'intervals' },
    ]);
    const works = cut.lanes.clock
      .filter(({ phase }) => phase === 'work')
      .map(({ startMs }) => startMs);
    expect(works.length).toBeGreaterThan(1);
    expect(lastMoveStart(cut, (works[1] ?? 0) + 4_000)).toBe(works[1]);
    expect(lastMoveStart(cut, (works[1] ?? 0) + 500)).toBe(works[0]);
    expect(lastMoveStart(cut, 0)).toBe(0);
  });
});

describe('when a number is asked for', () => {
  it('is after each try of a game, and at the end of laps', () => {
    const cut = cutOf([
      { kind: 'game', tries: 3, scoreMs: 8_000 } as Partial<Block> & { kind: 'game' },
      { kind: 'laps' },
    ]);
    const [game, laps] = cut.blocks;
    const asked = scoreMoments(cut, game?.blockId ?? '');
    expect(asked.map(({ startMs, endMs }) => endMs - startMs)).toEqual([8_000, 8_000, 8_000]);
    expect(scoreMoments(cut, laps?.blockId ?? '')).toEqual([
      { startMs: laps?.endMs, endMs: laps?.endMs },
    ]);
    expect(scoreMoments(cut, 'nobody')).toEqual([]);
  });
});
