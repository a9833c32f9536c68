import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  boardKinds,
  makeBlock,
  makeCue,
  makeKit,
  makeLesson,
  type Block,
  type BlockKind,
  type BlockOf,
  type Lesson,
} from '../lesson/index.ts';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import { clipOfBlock, assemble, slots, type BoardOverlay, type TakeFacts } from './index.ts';

const takes = new Map<string, TakeFacts>([['take', { id: 'take', frames: 3_000, marked: null }]]);
const made = <K extends BlockKind>(kind: K, more: Partial<BlockOf<K>>): Block =>
  ({ ...makeBlock(kind, counter()), footage: { takeId: 'take', startsAtMs: 0 }, ...more }) as Block;
const lessonOf = (sections: Block[][], look: Partial<Lesson['finish']['look']> = {}): Lesson => {
  const lesson = makeLesson('A', counter());
  return {
    ...lesson,
    finish: { ...lesson.finish, look: { ...lesson.finish.look, ...look } },
    sections: sections.map((blocks, i) => ({ id: `s${i}`, title: `Part ${i + 1}`, blocks })),
  };
};
const boardsIn = (lesson: Lesson): BoardOverlay[] => assemble(lesson, takes).lanes.board;

describe('the board', () => {
  it('says one thing at a time, in order, and never beyond its block', () => {
    fc.assert(
      fc.property(arbitraryLesson, fc.subarray([...boardKinds]), (lesson, boards) => {
        const cut = assemble(
          { ...lesson, finish: { ...lesson.finish, look: { ...lesson.finish.look, boards } } },
          takes,
        );
        cut.lanes.board.forEach((board, i) => {
          const next = cut.lanes.board[i + 1];
          expect(board.endMs).toBeGreaterThan(board.startMs);
          if (next) expect(next.startMs).toBeGreaterThanOrEqual(board.endMs);
          // That the video waits is always said.
          expect([...boards, 'ready']).toContain(board.board.kind);
          expect(
            cut.blocks.some(
              ({ startMs, endMs }) => startMs <= board.startMs && board.endMs <= endMs,
            ),
          ).toBe(true);
        });
      }),
    );
  });

  it('opens with the section, who shows it, and what is new; kit is told once', () => {
    const kit = [makeKit('Rope', () => 'k')];
    const first = made('talk', { id: 'a', fixedMs: 20_000, shownBy: 'Coach', kit });
    const second = made('talk', { id: 'b', fixedMs: 20_000, kit: [makeKit('rope ', () => 'k2')] });
    expect(boardsIn(lessonOf([[first, second]])).map(({ board }) => board)).toMatchObject([
      { kind: 'chapter', title: 'Part 1' },
      { kind: 'name', name: 'Coach' },
      { kind: 'kit', lines: ['Rope'] },
    ]);
    // A card lists its kit itself.
    expect(
      boardsIn(lessonOf([[{ ...first, footage: null }]])).map(({ board }) => board.kind),
    ).toEqual(['chapter', 'name']);
  });

  it('tells other forms while one waits, the form of the week first', () => {
    const levels = [
      { id: 'l1', form: 'easier' as const, text: 'From the knees', rule: '', target: null },
      { id: 'l2', form: 'harder' as const, text: 'On one leg', rule: '', target: null },
    ];
    const block = made('intervals', {
      leadInMs: 10_000,
      workMs: 10_000,
      restMs: 10_000,
      rounds: 2,
      levels,
    });
    const lesson = lessonOf([[block]], { boards: ['level'] });
    const forms = (level: Lesson['series']['level']) =>
      boardsIn({ ...lesson, series: { ...lesson.series, level } }).map(
        ({ board }) => board.kind === 'level' && board.form,
      );
    expect(forms('standard')).toEqual(['easier', 'harder']);
    expect(forms('harder')).toEqual(['harder', 'easier']);
    for (const { startMs, endMs } of boardsIn(lesson))
      expect((startMs >= 0 && endMs <= 10_000) || (startMs >= 20_000 && endMs <= 30_000)).toBe(
        true,
      );
  });

  it('keeps first, then, done in view for those who need it', () => {
    const strip = boardsIn(
      lessonOf(
        [
          [made('talk', { id: 'a', fixedMs: 10_000 })],
          [made('talk', { id: 'b', fixedMs: 10_000 })],
        ],
        { boards: ['strip', 'chapter'] },
      ),
    );
    expect(strip).toMatchObject([
      {
        startMs: 0,
        endMs: 10_000,
        board: { kind: 'strip', done: 0, of: 2, now: 'Part 1', then: 'Part 2' },
      },
      {
        startMs: 10_000,
        endMs: 20_000,
        board: { kind: 'strip', done: 1, now: 'Part 2', then: '' },
      },
    ]);
  });
});

describe('sides', () => {
  const reps = (more: Partial<BlockOf<'reps'>>) =>
    made('reps', {
      sides: 'each',
      startSide: 'left',
      reps: 2,
      leadInMs: 0,
      tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
      ...more,
    });
  const seen = (block: Block, sides: Lesson['settings']['sides'] = 'performer') => {
    const lesson = lessonOf([[block]]);
    return assemble({ ...lesson, settings: { ...lesson.settings, sides } }, takes).lanes.side[0];
  };

  it(
    'are where the camera sees them: across from one who faces it, and as in a ' +
      'mirror when the picture is turned round',
    () => {
      expect(seen(reps({}))).toMatchObject({
        side: 'left',
        seen: 'right',
        startMs: 0,
        endMs: 4_000,
        mirrored: false,
      });
      expect(seen(reps({}), 'mirrored')).toMatchObject({
        side: 'left',
        seen: 'left',
        mirrored: true,
      });
      expect(seen(reps({ facing: { performer: 'away', viewer: 'screen' } }))).toMatchObject({
        seen: 'left',
        away: true,
      });
      expect(seen(reps({ facing: { performer: 'left side on', viewer: 'screen' } }))).toMatchObject(
        {
          seen: 'near',
        },
      );
      expect(
        seen(reps({ facing: { performer: 'right side on', viewer: 'screen' } })),
      ).toMatchObject({
        seen: 'far',
      });
    },
  );

  it('change halfway where a work says so', () => {
    const block = made('intervals', {
      leadInMs: 0,
      workMs: 10_000,
      restMs: 0,
      rounds: 1,
      startSide: 'right',
      exercises: [{ id: 'e', title: 'Lunge', movement: 'other', sides: 'halves' }],
    });
    expect(assemble(lessonOf([[block]]), takes).lanes.side).toMatchObject([
      { side: 'right', startMs: 0, endMs: 5_000 },
      { side: 'left', startMs: 5_000, endMs: 10_000 },
    ]);
  });
});

describe('cues', () => {
  it('show right beside wrong where there is time to read both', () => {
    const cue = {
      ...makeCue('Knees soft', () => 'c', 'throughout'),
      right: 'Bent',
      wrong: 'Locked',
    };
    const pairs = (ms: number) =>
      assemble(lessonOf([[made('talk', { fixedMs: ms, cues: [cue] })]]), takes).lanes.cue.map(
        ({ pair }) => pair,
      );
    expect(pairs(6_000)).toEqual([{ right: 'Bent', wrong: 'Locked' }]);
    expect(pairs(3_000)).toEqual([null]);
  });

  it('ask for the score as it is counted, and tell the answer when its time comes', () => {
    const game = made('game', {
      scoring: 'points',
      targets: [
        { id: 't', name: 'Hoop', points: 3 },
        { id: 'u', name: 'Box', points: 1 },
      ],
      tries: 1,
    });
    expect(
      assemble(lessonOf([[game]]), takes)
        .lanes.cue.filter(({ moment }) => moment === 'score')
        .map(({ text }) => text),
    ).toEqual(['Add up your points: Hoop 3, Box 1']);
    const question = made('question', { question: 'Which foot leads?', answer: 'The other foot' });
    expect(assemble(lessonOf([[question]]), takes).lanes.cue.map(({ moment }) => moment)).toEqual([
      'question',
      'question',
      'answer',
    ]);
  });
});

it('a clip is one block from 0 on, with what is on screen in it and nothing else', () => {
  fc.assert(
    fc.property(arbitraryLesson, (lesson) => {
      const cut = assemble(lesson, takes);
      for (const { blockId, startMs, timeMap } of cut.blocks) {
        const clip = clipOfBlock(cut, blockId);
        expect(clip?.durationMs).toBe(timeMap.lengthMs);
        for (const slot of slots) {
          for (const { startMs: from, endMs } of clip?.lanes[slot] ?? [])
            expect(from >= 0 && endMs <= timeMap.lengthMs && endMs > from).toBe(true);
          const inBlock = (cut.lanes[slot] as { startMs: number; endMs: number }[]).filter(
            (overlay) => overlay.startMs < startMs + timeMap.lengthMs && overlay.endMs > startMs,
          );
          expect(clip?.lanes[slot]).toHaveLength(inBlock.length);
        }
        expect(
          clip?.segments.reduce((sum, segment) => sum + segment.endMs - segment.startMs, 0),
        ).toBe(timeMap.lengthMs);
      }
      expect(clipOfBlock(cut, 'nowhere')).toBeNull();
    }),
  );
});
