import { describe, expect, it } from 'vitest';
import {
  makeBlock,
  makeLesson,
  type Block,
  type BlockKind,
  type BlockOf,
  type Edit,
  type Lesson,
} from '../lesson/index.ts';
import { timeBlock } from '../schedule/index.ts';
import { joints, type SeenPose } from '../signal/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { analysisWith } from '../testing/watched.ts';
import { speaking } from '../words/index.ts';
import { assemble } from './assemble.ts';
import { boardsOf } from './boards.ts';
import { layOutBlock } from './block-time-map.ts';
import { countersOf } from './overlays.ts';
import { Pictures } from './pictures.ts';
import { pointersAt } from './pointers.ts';
import { TakeAlignment } from './take-alignment.ts';
import type { Segment, TakeFacts } from './types.ts';

const lesson = makeLesson('A', counter());
const made = <K extends BlockKind>(kind: K, more: Partial<BlockOf<K>>) =>
  ({ ...makeBlock(kind, counter()), id: 'b', ...more }) as BlockOf<K>;
const takes = new Map<string, TakeFacts>([['main', { id: 'main', frames: 300, marked: null }]]);
const picturesOf = (edits: Edit[], startMs = 0) =>
  new Pictures({
    blockId: 'b',
    picture: {
      kind: 'take',
      aligned: { takeId: 'main', takeFrames: 300, alignment: new TakeAlignment(startMs, 1) },
      cards: [],
    },
    edits,
    mirrored: false,
    takes,
  });

describe('an arrow at a joint', () => {
  const nobody: SeenPose = joints.map(() => ({ x: 0.5, y: 0.5, score: 0 }));
  const wristAt = (x: number, y = 0.4): SeenPose =>
    joints.map((joint) => ({ x, y, score: joint === 'left wrist' ? 0.8 : 0 }));
  const analysis = (poses: SeenPose[], aspect = 16 / 9) =>
    analysisWith({ durationMs: 10_000, aspect, poses });
  const point = (fromMs: number, toMs: number): Extract<Edit, { kind: 'point' }> => ({
    ...{ id: 'p', kind: 'point', joint: 'left wrist', text: 'Here' },
    ...{ fromMs, toMs },
  });
  const pointed = (
    poses: SeenPose[],
    [fromMs, toMs] = [0, poses.length * 100],
    { startMs = 0, aspect = 16 / 9, edits = [] as Edit[] } = {},
  ) =>
    pointersAt(
      point(fromMs, toMs),
      new TakeAlignment(startMs, 1),
      { id: 'main', frames: 300, marked: null, watched: analysis(poses, aspect) },
      picturesOf(edits),
    );
  const seen = (...given: Parameters<typeof pointed>) =>
    pointed(...given).map(({ startMs, endMs, x, y }) => [startMs, endMs, x, y]);
  const times = <T>(n: number, value: T) => Array.from({ length: n }, () => value);

  it('goes with it in steps that do not tremble', () => {
    expect(seen([wristAt(0.2), wristAt(0.205), wristAt(0.206)])).toEqual([
      [0, 200, 200, 400],
      [200, 300, 206, 400],
    ]);
    expect(seen([wristAt(0.2), wristAt(0.2, 0.406)])).toEqual([
      [0, 100, 200, 400],
      [100, 200, 200, 406],
    ]);
    expect(seen([wristAt(0.2, 0.405), wristAt(0.2)])).toEqual([[0, 200, 200, 405]]);
  });

  it('starts and ends with its stretch, at the take’s own moment', () => {
    const poses = [...times(5, nobody), ...times(5, wristAt(0.3))];
    expect(seen(poses, [0, 250], { startMs: 500 })).toEqual([[0, 250, 300, 400]]);
    expect(seen(poses, [0, 500])).toEqual([]);
    expect(seen(poses, [500, 700])).toEqual([[500, 700, 300, 400]]);
  });

  it('bridges less than six tenths of a second unseen, and no more', () => {
    const lost = (n: number) => [wristAt(0.2), ...times(n, nobody), wristAt(0.2)];
    expect(seen(lost(5))).toEqual([[0, 700, 200, 400]]);
    // Unseen from 100 ms on; at 600 ms it is given up.
    expect(seen(lost(6))).toEqual([
      [0, 600, 200, 400],
      [700, 800, 200, 400],
    ]);
    expect(seen([nobody, wristAt(0.2)])).toEqual([[100, 200, 200, 400]]);
  });

  it('points at nothing outside the picture, at its very edge it does', () => {
    expect(
      seen([wristAt(-0.001), wristAt(1.001), wristAt(0.5, -0.001), wristAt(0.5, 1.001)]),
    ).toEqual([]);
    const edges = [wristAt(0), wristAt(1), wristAt(0.5, 0), wristAt(0.5, 1)];
    expect(edges.map((pose) => seen([pose])).map(([one]) => one?.slice(2))).toEqual([
      [0, 400],
      [1_000, 400],
      [500, 0],
      [500, 1_000],
    ]);
  });

  it('stands where the joint is shown: in a narrow take, closer, mirrored', () => {
    // A square take fills 9/16 of the width.
    expect(seen([wristAt(0)], [0, 100], { aspect: 1 })).toEqual([[0, 100, 219, 400]]);
    const mirror: Edit = { id: 'm', kind: 'mirror', fromMs: 0, toMs: 5_000 };
    expect(seen([wristAt(0.2)], [0, 100], { edits: [mirror] })).toEqual([[0, 100, 800, 400]]);
  });

  it('has its words where there is room all the time, away from the middle if it can', () => {
    const side = (...xs: number[]) => pointed(xs.map((x) => wristAt(x)))[0]?.words;
    expect([side(0.5), side(0.69), side(0.7), side(0.9)]).toEqual([
      'right',
      'right',
      'left',
      'left',
    ]);
    expect([side(0.49), side(0.31), side(0.3), side(0.1)]).toEqual([
      'left',
      'left',
      'right',
      'right',
    ]);
    // Most of the time on the right, once too far for words there.
    expect(side(0.6, 0.6, 0.8)).toBe('left');
    expect(side(0.4, 0.4, 0.2)).toBe('right');
  });

  it('is not there when nobody has looked at the take', () => {
    const facts = { id: 'main', frames: 300, marked: null };
    expect(pointersAt(point(0, 100), new TakeAlignment(0, 1), facts, picturesOf([]))).toEqual([]);
  });
});

describe('something put into a block', () => {
  const floor = { marks: [], plan: null } as unknown as Parameters<Pictures['segments']>[2];
  const segments = (edits: Edit[], bodyMs = 10_000, startMs = 0): Segment[] =>
    picturesOf(edits, startMs).segments(layOutBlock(bodyMs, edits, 0), undefined, floor);
  const plain = { quarters: 0, blurs: [], closer: null, mirrored: false };
  const card = (more: Partial<Extract<Edit, { kind: 'card' }>> = {}): Edit => ({
    ...{ id: 'k', kind: 'card', atMs: 4_000, lengthMs: 3_000 },
    ...{ heading: 'Rope', lines: ['Two turns'], court: false },
    ...more,
  });

  it('is a card with its words, and with the floor where that is asked for', () => {
    expect(segments([card()])[1]).toEqual({
      ...{ blockId: 'b', startMs: 4_000, endMs: 7_000, beside: null, sound: null, under: null },
      source: { kind: 'card', card: { heading: 'Rope', lines: ['Two turns'] } },
      look: plain,
    });
    expect(segments([card({ court: true })])[1]?.source).toEqual({
      kind: 'card',
      card: { heading: 'Rope', lines: ['Two turns'], court: floor },
    });
    const noFloor = picturesOf([]).segments(
      layOutBlock(9_000, [card({ court: true })], 0),
      undefined,
      null,
    );
    expect(noFloor[1]?.source).toEqual({
      kind: 'card',
      card: { heading: 'Rope', lines: ['Two turns'] },
    });
  });

  it('is a picture of its own, or the frame that is on, as it is shown there', () => {
    const picture: Edit = {
      id: 'q',
      kind: 'picture',
      atMs: 1_000,
      lengthMs: 2_000,
      takeId: 'main',
    };
    expect(segments([picture])[1]).toMatchObject({
      startMs: 1_000,
      endMs: 3_000,
      source: { kind: 'take', takeId: 'main', inFrame: 0, takeFrames: 1, speed: 1 },
      look: plain,
    });
    const freeze: Edit = {
      ...{ id: 'f', kind: 'freeze', atMs: 4_000, lengthMs: 2_000, point: null, text: '' },
    };
    const turn: Edit = { id: 't', kind: 'turn', fromMs: 3_000, toMs: 5_000, quarters: 1 };
    const still = segments([freeze, turn]).find(
      ({ source }) => source.kind === 'take' && source.takeFrames === 121,
    );
    expect(still).toMatchObject({
      ...{ startMs: 4_000, endMs: 6_000, sound: null },
      source: { inFrame: 120, speed: 1 },
      look: { ...plain, quarters: 1 },
    });
  });

  it('leaves no empty segment where the block begins or ends with it', () => {
    const first = segments([card({ atMs: 0 })]);
    expect(first.map(({ startMs, endMs }) => [startMs, endMs])).toEqual([
      [0, 3_000],
      [3_000, 13_000],
    ]);
    expect(segments([card({ atMs: 10_000 })]).at(-1)).toMatchObject({ startMs: 10_000 });
  });

  it('shows the take’s last frame where it has run out', () => {
    expect(segments([], 2_000, 9_900)[0]?.source).toMatchObject({ inFrame: 297 });
    expect(segments([], 2_000, 11_000)[0]?.source).toMatchObject({ inFrame: 299 });
  });
});

describe('the pacer in the video', () => {
  const sounds = (
    pacer: Lesson['finish']['sound']['pacer'],
    heard: Lesson['finish']['sound']['heard'] = ['clock', 'count', 'sides', 'calls'],
    edits: Edit[] = [],
  ) => {
    const block = made('reps', {
      ...{ leadInMs: 3_000, reps: 2, sets: 1, sides: 'each', sideChangeMs: 5_000, demo: null },
      tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
      edits,
    });
    const { tones, spoken } = assemble(
      {
        ...lesson,
        finish: { ...lesson.finish, sound: { ...lesson.finish.sound, pacer, heard } },
        sections: [{ id: 's', title: '', blocks: [block as Block] }],
      },
      new Map(),
    );
    return {
      tones: tones.map(({ atMs, tone }) => `${atMs} ${tone}`),
      calls: spoken.calls.map(({ atMs, say }) => `${atMs} ${say}`),
    };
  };

  it('is tones, words, both or neither', () => {
    expect(sounds('left out')).toEqual({ tones: [], calls: [] });
    const both = sounds('tones and spoken');
    expect(both.tones).toContain('4000 turn');
    expect(both.tones).toContain('7000 change-sides');
    expect(both.calls).toContain('0 three');
    expect(both.calls.every((call) => !call.endsWith(' '))).toBe(true);
    expect(sounds('tones')).toEqual({ tones: both.tones, calls: [] });
    expect(sounds('spoken')).toEqual({ tones: [], calls: both.calls });
  });

  it('is heard for what is asked for, and not where its moment is left out', () => {
    expect(sounds('tones', ['sides']).tones).toEqual(['7000 change-sides']);
    const counts = sounds('tones', ['count']).tones;
    expect(counts).toContain('5000 tick');
    expect(counts.some((tone) => /count-in|change-sides|stop/.test(tone))).toBe(false);
    const cutOut: Edit = { id: 'o', kind: 'leave-out', fromMs: 6_500, toMs: 7_500 };
    expect(sounds('tones', ['sides'], [cutOut]).tones).toEqual([]);
  });
});

describe('on screen', () => {
  it('numbers of counts of eight stand also where one has one only', () => {
    const counts = made('counts', {
      ...{ bpm: 120, times: 1, countIn: 0, demo: null },
      moves: [{ id: 'm', title: 'March', movement: 'other', eights: 1 }],
    });
    const say = speaking('en');
    expect(countersOf(counts, timeBlock(counts, lesson).spans, say)).toMatchObject([
      { rep: 1, reps: 1, beats: 8, missed: false, startMs: 0, endMs: 4_000 },
    ]);
    const single = made('hold', { holds: 1, sides: 'both', demo: null });
    expect(countersOf(single, timeBlock(single, lesson).spans, say)).toEqual([]);
    const sided = made('hold', { holds: 1, sides: 'each', demo: null });
    expect(countersOf(sided, timeBlock(sided, lesson).spans, say)).toHaveLength(2);
    const shown = made('hold', {
      ...{ holds: 1, sides: 'both' },
      demo: { times: 3, speed: 'full', onceMs: 2_000 },
    });
    expect(countersOf(shown, timeBlock(shown, lesson).spans, say).map(({ rep }) => rep)).toEqual([
      1, 2, 3,
    ]);
  });

  it('the floor is a board of its own, as long as its words take, where there are marks', () => {
    const mark = { id: 'm', kind: 'marker', label: 'Start here now' } as const;
    const at = { rightCm: 0, forwardCm: 100, widthCm: 30, depthCm: 30 };
    const block = made('talk', { fixedMs: 30_000, floor: [{ ...mark, ...at }] });
    const boards = (talk: Block, wanted: Lesson['finish']['look']['boards']) =>
      boardsOf(
        talk,
        [],
        { startMs: 0, endMs: 30_000 },
        {
          lesson: {
            ...lesson,
            audience: { ageFrom: 9, ageTo: 9 },
            finish: { ...lesson.finish, look: { ...lesson.finish.look, boards: wanted } },
          },
          ...{ sections: [''], section: 0, isFirstOfSection: true, newKit: [] },
        },
      );
    // Three words at 120 a minute, and a second to find them: 2.5 s, 3 s at least.
    expect(boards(block, ['floor'])).toMatchObject([
      {
        ...{ startMs: 0, endMs: 3_000 },
        board: { kind: 'floor', floor: { marks: [{ mark: { label: 'Start here now' } }] } },
      },
    ]);
    expect(boards(block, ['kit'])).toEqual([]);
    expect(boards({ ...block, floor: [] }, ['floor'])).toEqual([]);
  });
});
