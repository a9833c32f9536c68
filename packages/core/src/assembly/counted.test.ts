import { describe, expect, it } from 'vitest';
import { makeBlock, makeLesson, type Block, type BlockOf, type Edit } from '../lesson/index.ts';
import { timeBlock, type Span } from '../schedule/index.ts';
import type { TakeAnalysis } from '../signal/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { evenClip, watchedClip } from '../testing/watched.ts';
import { speaking } from '../words/index.ts';
import { layOutBlock } from './block-time-map.ts';
import { countersOfCounted, workedSides, type CountedRepetition } from './by-hand.ts';
import {
  countedBouts,
  laidSentences,
  shortOf,
  spokenSentences,
  sureRepetitions,
} from './measured.ts';
import { countersOf } from './overlays.ts';
import { Pictures, takeFault } from './pictures.ts';
import { alignTake, TakeAlignment } from './take-alignment.ts';
import type { TakeFacts } from './types.ts';

const squats = evenClip('squat', { tailMs: 4_000 });
const watched = watchedClip(squats);
const lesson = makeLesson('A', counter());
const reps = (more: Partial<BlockOf<'reps'>>) =>
  ({
    ...makeBlock('reps', counter()),
    leadInMs: 2_000,
    reps: 5,
    sets: 1,
    sides: 'both',
    demo: null,
    parts: null,
    tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
    ...more,
  }) as BlockOf<'reps'>;
const spansOf = (block: Block): readonly Span[] => timeBlock(block, lesson).spans;
const straight = new TakeAlignment(0, 1);
const counts = (...runs: [number, number, number][]): TakeFacts['said'] => ({
  sentences: [],
  added: [],
  counts: runs.map(([startMs, endMs, numbers]) => ({ startMs, endMs, numbers })),
});
const boutsOf = (
  block: Block,
  { said = null, alignment = straight, seen = watched as TakeAnalysis | null } = {} as {
    said?: TakeFacts['said'];
    alignment?: TakeAlignment;
    seen?: TakeAnalysis | null;
  },
) =>
  countedBouts(block, spansOf(block), alignment, {
    ...(seen && { watched: seen }),
    said,
  } as Pick<TakeFacts, 'watched' | 'said'>);

describe('repetitions in a take', () => {
  it('are found bout by bout, in the block’s own time', () => {
    const bouts = boutsOf(reps({}));
    expect(
      bouts?.map(({ startMs, endMs, planned, done, side, isSided, isPlain, isSure, aloud }) => [
        startMs,
        endMs,
        planned,
        done.length,
        side,
        isSided,
        isPlain,
        isSure,
        aloud,
      ]),
    ).toEqual([[2_000, 12_000, 5, 5, null, false, true, true, null]]);
    // Each is done when the next begins, two seconds on.
    for (const [i, { atMs }] of (bouts?.[0]?.done ?? []).entries())
      expect(Math.abs(atMs - (4_000 + i * 2_000))).toBeLessThan(250);
  });

  it('lie where the take lies, at its own rate', () => {
    const at = (alignment: TakeAlignment) =>
      boutsOf(reps({ leadInMs: 1_000 }), { alignment })?.[0]?.done.map(({ atMs }) => atMs) ?? [];
    const [plain, later] = [at(new TakeAlignment(1_000, 1)), at(new TakeAlignment(900, 1))];
    expect(plain).toHaveLength(5);
    expect(later.map((ms, i) => ms - (plain[i] ?? 0))).toEqual([100, 100, 100, 100, 100]);
    const fast = at(new TakeAlignment(0, 2));
    expect(fast).toEqual(plain.map((ms) => Math.round((ms + 1_000) / 2)));
  });

  it('are none where none are planned, where nobody looked and where nobody is seen', () => {
    expect(boutsOf(reps({}), { seen: null })).toBeNull();
    expect(boutsOf({ ...makeBlock('talk', counter()) })).toBeNull();
    const nobody = { ...watched, poses: watched.poses.map(() => []) };
    expect(boutsOf(reps({}), { seen: nobody })).toBeNull();
    const still = reps({});
    const held = spansOf(still).map((span) => ({ ...span, movement: 'one-leg-balance' as const }));
    expect(countedBouts(still, held, straight, { watched, said: null })).toBeNull();
  });

  it('of two sets are two bouts, each with its own', () => {
    const twice = watchedClip({ ...squats, turns: 6 });
    const bouts = boutsOf(reps({ reps: 3, sets: 2, restBetweenSetsMs: 0 }), { seen: twice });
    expect(bouts?.map(({ planned, done }) => [planned, done.length])).toEqual([[6, 6]]);
    const apart = boutsOf(reps({ reps: 2, sets: 2, restBetweenSetsMs: 2_000 }), { seen: twice });
    expect(apart?.map(({ startMs, endMs, planned }) => [startMs, endMs, planned])).toEqual([
      [2_000, 6_000, 2],
      [8_000, 12_000, 2],
    ]);
  });

  it('of left and right together are pairs, each done with its second', () => {
    const lifts = watchedClip(evenClip('knee-lift', { turns: 4, periodMs: 4_000, tailMs: 4_000 }));
    const exercise = { id: 'k', title: 'Knee lift', movement: 'step-and-reach' as const };
    const tempo = { downMs: 2_000, holdMs: 0, upMs: 2_000, topHoldMs: 0 };
    const doneOf = (planned: number) =>
      boutsOf(reps({ reps: planned, exercise, tempo }), { seen: lifts })?.[0]?.done ?? [];
    const [single, pairs] = [doneOf(8), doneOf(4)];
    expect(single.map(({ side }) => side)).toEqual(
      [1, 2, 3, 4].flatMap(() => ['left', 'right'] as const),
    );
    expect(pairs.map(({ side }) => side)).toEqual([null, null, null, null]);
    // To the rounding of what is looked at.
    for (const [i, second] of [1, 3, 5, 7].entries())
      expect(Math.abs((pairs[i]?.atMs ?? NaN) - (single[second]?.atMs ?? NaN))).toBeLessThan(3);
    // As many as planned on both sides are no pairs.
    expect(doneOf(7)).toHaveLength(8);
  });

  it('are sure as far as the plan or a voice bears them out', () => {
    const sure = (planned: number, said: TakeFacts['said'] = null) =>
      boutsOf(reps({ reps: planned }), { said })?.[0]?.isSure;
    // One off is believed, of eight two; more is not.
    expect([sure(5), sure(6), sure(4)]).toEqual([true, true, true]);
    expect(sure(5, counts([3_000, 11_000, 4]))).toBe(true);
    expect(sure(6, counts([3_000, 11_000, 6]))).toBe(false);
    expect(sure(6, counts([3_000, 11_000, 5]))).toBe(true);
    const [bout] = boutsOf(reps({ reps: 2 })) ?? [];
    expect([bout?.done.length, bout?.isPlain, bout?.isSure]).toEqual([2, true, true]);
  });

  it('are counted aloud in their own time only, twice from one added up', () => {
    const aloud = (...runs: [number, number, number][]) =>
      boutsOf(reps({}), { said: counts(...runs) })?.[0]?.aloud;
    expect(aloud([3_000, 11_000, 5])).toBe(5);
    expect(aloud([3_000, 6_000, 3], [7_000, 11_000, 2])).toBe(5);
    expect(aloud([0, 3_998, 5])).toBeNull();
    expect(aloud([0, 4_000, 5])).toBe(5);
    expect(aloud([11_000, 13_000, 5])).toBe(5);
    expect(aloud([11_000, 13_002, 5])).toBeNull();
    expect(boutsOf(reps({}))?.[0]?.aloud).toBeNull();
  });

  it('are not plain with several performers, and those done alone are given on', () => {
    const shots = [{ performers: 2 }] as Block['shots'];
    const [bout] = boutsOf(reps({ shots })) ?? [];
    expect([bout?.isPlain, bout?.isSure]).toEqual([false, false]);
    expect(sureRepetitions(bout ? [bout] : null)).toBeNull();
    expect(sureRepetitions(null)).toBeNull();
    expect(sureRepetitions([])).toBeNull();
    const plain = boutsOf(reps({})) ?? [];
    expect(sureRepetitions(plain)).toEqual(
      plain[0]?.done.map(({ atMs }) => ({ atMs, side: null, missed: false })),
    );
    const [first] = plain;
    if (!first) throw new Error('There should be a bout.');
    const [one] = first.done;
    if (!one) throw new Error('There should be a repetition.');
    const told = (more: Partial<typeof first>) =>
      sureRepetitions([{ ...first, done: [{ ...one, side: 'left', atMs: -5 }], ...more }]);
    expect(told({})).toEqual([{ atMs: 0, side: null, missed: false }]);
    expect(told({ isSided: true })).toEqual([{ atMs: 0, side: 'left', missed: false }]);
    expect(told({ side: 'right' })).toEqual([{ atMs: 0, side: 'right', missed: false }]);
  });

  it('that go less far than the others are told, where they are plainly seen', () => {
    const [bout] = boutsOf(reps({})) ?? [];
    if (!bout) throw new Error('There should be a bout.');
    const sized = bout.done.map((one, i) => ({
      ...one,
      size: i === 1 || i === 2 ? 0.3 : 1,
      confidence: i === 2 ? 0.1 : 0.9,
    }));
    expect(shortOf({ ...bout, done: sized })).toEqual([sized[1]]);
  });
});

describe('counters of what was counted', () => {
  const at = (atMs: number, side: CountedRepetition['side'] = null, missed = false) => ({
    atMs,
    side,
    missed,
  });
  const say = speaking('en');
  const shown = (repetitions: CountedRepetition[], block: Block) =>
    countersOfCounted(repetitions, countersOf(block, spansOf(block), say), spansOf(block)).map(
      ({ startMs, endMs, totalMs, rep, reps: of, side, note }) => [
        startMs,
        endMs,
        totalMs,
        `${rep} of ${of}`,
        side,
        note,
      ],
    );

  it('stand until the next one, the last for three seconds at most, and no longer than its bout', () => {
    const block = reps({ reps: 3, leadInMs: 0 });
    // Planned until 6 s.
    expect(shown([at(2_500), at(1_000), at(4_000)], block)).toEqual([
      [1_000, 2_500, 1_500, '1 of 3', null, ''],
      [2_500, 4_000, 1_500, '2 of 3', null, ''],
      [4_000, 6_000, 2_000, '3 of 3', null, ''],
    ]);
    expect(shown([at(1_000)], block)).toEqual([[1_000, 4_000, 3_000, '1 of 3', null, '']]);
    // Done after the plan's end, it is read all the same.
    expect(shown([at(6_000)], block)).toEqual([[6_000, 9_000, 3_000, '1 of 3', null, '']]);
    expect(shown([at(1_000), at(1_000)], block).map(([, , , text]) => text)).toEqual(['2 of 3']);
  });

  it('count anew in each set, and more than planned as many as there are', () => {
    const block = reps({ reps: 1, sets: 2, restBetweenSetsMs: 2_000, leadInMs: 0 });
    // Planned from 0 to 2 s and from 4 to 6 s.
    expect(shown([at(500), at(1_500), at(4_500)], block)).toEqual([
      [500, 1_500, 1_000, '1 of 2', null, 'Set 1 of 2'],
      [1_500, 2_000, 500, '2 of 2', null, 'Set 1 of 2'],
      [4_500, 6_000, 1_500, '1 of 1', null, 'Set 2 of 2'],
    ]);
  });

  it('leave a missed one uncounted, and out of the total', () => {
    const block = reps({ reps: 2, leadInMs: 0 });
    expect(
      shown([at(500), at(1_000, null, true), at(1_500), at(2_000)], block).map(
        ([, , , text]) => text,
      ),
    ).toEqual(['1 of 3', '1 of 3', '2 of 3', '3 of 3']);
  });

  it('count in works without planned repetitions, side by side', () => {
    const work = {
      ...makeBlock('intervals', counter()),
      leadInMs: 1_000,
      workMs: 5_000,
      restMs: 2_000,
      rounds: 2,
      sets: 1,
      demo: null,
    } as Block;
    expect(shown([at(2_000), at(4_000), at(9_000)], work)).toEqual([
      [2_000, 4_000, 2_000, '1 of 2', null, ''],
      [4_000, 6_000, 2_000, '2 of 2', null, ''],
      [9_000, 12_000, 3_000, '1 of 1', null, ''],
    ]);
  });

  it('tell which side works until when, where every one has a side', () => {
    const block = reps({ reps: 2, sides: 'alternating', startSide: 'left', leadInMs: 0 });
    const planned = countersOf(block, spansOf(block), say);
    const of = (repetitions: CountedRepetition[]) =>
      workedSides(countersOfCounted(repetitions, planned, spansOf(block)), planned);
    expect(of([at(1_500), at(3_500)])).toEqual({
      of: [{ startMs: 0, endMs: 8_000 }],
      sides: [
        { startMs: 0, endMs: 1_500, side: 'left' },
        { startMs: 1_500, endMs: 3_500, side: 'right' },
      ],
    });
    expect(of([])).toEqual({ of: [], sides: [] });
    const plain = reps({ reps: 2, leadInMs: 0 });
    const bare = countersOf(plain, spansOf(plain), say);
    expect(workedSides(countersOfCounted([at(500)], bare, spansOf(plain)), bare)).toEqual({
      of: [],
      sides: [],
    });
  });
});

describe('sentences set by hand', () => {
  const script = 'Stand tall. Step forward. Walk back.';
  const byHand = (text: string, atMs: number): Extract<Edit, { kind: 'said' }> => ({
    id: text,
    kind: 'said',
    text,
    atMs,
  });
  const said: TakeFacts['said'] = {
    sentences: ['Stand tall.', 'Step forward.', 'Walk back.'].map((text, i) => ({
      text,
      startMs: 1_000 + i * 2_000,
      endMs: 2_000 + i * 2_000,
      confidence: 0.9,
    })),
    added: [],
    counts: [],
  };
  const found = (hand: Extract<Edit, { kind: 'said' }>[], heard: TakeFacts['said'] = said) =>
    spokenSentences(script, straight, { said: heard }, hand)?.map(
      ({ startMs, endMs, confidence }) => [startMs, endMs, confidence],
    );

  it('keep their length, and drop what they contradict', () => {
    expect(found([byHand('Step forward.', 2_500)])).toEqual([
      [1_000, 2_000, 0.9],
      [2_500, 3_500, 1],
      [5_000, 6_000, 0.9],
    ]);
    expect(found([byHand('Step forward.', 5_000)])).toEqual([
      [1_000, 2_000, 0.9],
      [5_000, 6_000, 1],
      [null, null, 0.9],
    ]);
    expect(found([byHand('Step forward.', 1_000)])?.[0]).toEqual([null, null, 0.9]);
    expect(found([byHand('Nowhere.', 1_000)])).toEqual(found([]));
    // The first sentence counts as well, and hands that come in any order.
    expect(found([byHand('Stand tall.', 3_500)])).toEqual([
      [3_500, 4_500, 1],
      [null, null, 0.9],
      [5_000, 6_000, 0.9],
    ]);
    expect(found([byHand('Walk back.', 2_900), byHand('Stand tall.', 500)])).toEqual([
      [500, 1_500, 1],
      [null, null, 0.9],
      [2_900, 3_900, 1],
    ]);
    expect(found([byHand('Walk back.', 4_000), byHand('Stand tall.', 500)])?.[1]).toEqual([
      3_000, 4_000, 0.9,
    ]);
  });

  it('stand alone where nobody listened', () => {
    expect(found([], null)).toBeUndefined();
    expect(found([byHand('Step forward.', 2_000)], null)).toEqual([
      [null, null, null],
      [2_000, null, 1],
      [null, null, null],
    ]);
  });

  it('share the time between by their words, within the block', () => {
    const laid = (endMs: number) =>
      laidSentences(
        spokenSentences(script, straight, { said: null }, [byHand('Step forward.', 2_000)]) ?? [],
        { startMs: 0, endMs },
        (text) => text.split(' ').length,
      ).map(({ text, startMs, endMs: until }) => [text, startMs, until]);
    expect(laid(6_000)).toEqual([
      ['Stand tall.', 0, 2_000],
      ['Step forward.', 2_000, 6_000],
    ]);
    expect(
      laidSentences(
        (spokenSentences(script, straight, { said }) ?? []).map((one, i) =>
          i === 0 ? one : { ...one, startMs: null, endMs: null },
        ),
        { startMs: 0, endMs: 6_000 },
        (text) => text.split(' ').length,
      ).map(({ startMs, endMs }) => [startMs, endMs]),
    ).toEqual([
      [1_000, 2_000],
      [2_000, 4_000],
      [4_000, 6_000],
    ]);
  });
});

describe('a take under its block', () => {
  it('begins by hand, by its mark, else at its own beginning, and runs at its mark’s rate', () => {
    const marked = { startMs: 1_500, endMs: 9_000, rate: 1.5 };
    const start = (startsAtMs: number | null, mark: TakeFacts['marked']) => {
      const { startMs, rate } = alignTake({ startsAtMs }, { marked: mark });
      return [startMs, rate];
    };
    expect(start(700, marked)).toEqual([700, 1.5]);
    expect(start(null, marked)).toEqual([1_500, 1.5]);
    expect(start(null, { ...marked, startMs: -20, rate: null })).toEqual([0, 1]);
    expect(start(null, null)).toEqual([0, 1]);
    const alignment = new TakeAlignment(1_000, 2);
    expect(alignment.spanToTake({ startMs: 500, endMs: 1_500 })).toEqual({
      startMs: 2_000,
      endMs: 4_000,
    });
    expect(alignment.spanToBlock({ startMs: 2_000, endMs: 4_000 })).toEqual({
      startMs: 500,
      endMs: 1_500,
    });
  });

  const takes = new Map<string, TakeFacts>([
    ['main', { id: 'main', frames: 300, marked: null }],
    ['other', { id: 'other', frames: 90, marked: null }],
  ]);
  const pictures = (edits: Edit[], mirrored = false) =>
    new Pictures({
      blockId: 'b',
      picture: {
        kind: 'take',
        aligned: { takeId: 'main', takeFrames: 300, alignment: straight },
        cards: [],
      },
      edits,
      mirrored,
      takes,
    });
  const closer: Extract<Edit, { kind: 'closer' }> = {
    id: 'c',
    kind: 'closer',
    fromMs: 2_000,
    toMs: 6_000,
    zoom: 200,
    from: { x: 100, y: 200 },
    to: { x: 500, y: 600 },
    path: [],
  };

  it('comes closer evenly from one place to another, or along a path', () => {
    const look = (edit: typeof closer, from: number, to = from) =>
      pictures([edit]).lookAt(from, to).closer;
    expect(look(closer, 3_000, 4_000)).toEqual({
      zoom: 200,
      from: { x: 200, y: 300 },
      to: { x: 300, y: 400 },
    });
    expect([look(closer, 1_999), look(closer, 6_000)]).toEqual([null, null]);
    const path = [
      { atMs: 3_000, x: 0, y: 1_000 },
      { atMs: 5_000, x: 1_000, y: 0 },
    ];
    const along = { ...closer, path };
    expect([2_000, 3_000, 3_500, 5_000, 5_900].map((ms) => look(along, ms)?.from)).toEqual([
      { x: 0, y: 1_000 },
      { x: 0, y: 1_000 },
      { x: 250, y: 750 },
      { x: 1_000, y: 0 },
      { x: 1_000, y: 0 },
    ]);
  });

  const segments = (edits: Edit[], bodyMs = 10_000) =>
    pictures(edits).segments(layOutBlock(bodyMs, edits, 0), undefined, null);

  it('is cut where a change begins and ends, and shows it between', () => {
    const beside: Edit = {
      id: 'x',
      kind: 'beside',
      fromMs: 1_000,
      toMs: 3_000,
      takeId: 'other',
      startsAtMs: 0,
      layout: 'halves',
    } as Edit;
    const cut = segments([beside]);
    expect(
      cut.map(({ startMs, endMs, beside: second }) => [startMs, endMs, second?.layout]),
    ).toEqual([
      [0, 1_000, undefined],
      [1_000, 3_000, 'halves'],
      [3_000, 10_000, undefined],
    ]);
    expect(cut[1]?.beside?.source).toMatchObject({ takeId: 'other', inFrame: 30, takeFrames: 90 });
    expect(cut.map(({ sound }) => sound?.source.kind === 'take' && sound.source.inFrame)).toEqual([
      0, 30, 90,
    ]);
  });

  it.each([
    [true, true, 'other', 'other'],
    [true, false, 'other', 'main'],
    [false, true, 'main', 'other'],
  ])('is replaced in picture %s and sound %s', (picture, sound, seen, heard) => {
    const [, replaced] = segments([
      {
        id: 'x',
        kind: 'instead',
        fromMs: 1_000,
        toMs: 2_000,
        takeId: 'other',
        startsAtMs: 0,
        picture,
        sound,
      },
    ]);
    const voice = replaced?.sound?.source;
    expect([
      replaced?.source.kind === 'take' && replaced.source.takeId,
      voice?.kind === 'take' && voice.takeId,
    ]).toEqual([seen, heard]);
  });

  it('is shown again at its speed, with its sound as asked for', () => {
    const again = (sound: 'kept' | 'low' | 'off') =>
      segments([{ id: 'x', kind: 'again', fromMs: 1_000, toMs: 2_000, speed: 50, times: 2, sound }])
        .filter(({ source }) => source.kind === 'take' && source.speed === 0.5)
        .map(({ startMs, endMs, sound: voice }) => [startMs, endMs, voice?.low]);
    expect(again('kept')).toEqual([
      [2_000, 4_000, false],
      [4_000, 6_000, false],
    ]);
    expect(again('low').map(([, , low]) => low)).toEqual([true, true]);
    expect(again('off').map(([, , low]) => low)).toEqual([undefined, undefined]);
  });

  it('that is gone, or over where it should begin, says so', () => {
    const edit = (kind: 'instead' | 'picture', takeId: string, startsAtMs = 0) =>
      ({ id: 'x', kind, fromMs: 0, toMs: 1, atMs: 0, lengthMs: 1, takeId, startsAtMs }) as Edit;
    const fault = (...args: Parameters<typeof edit>) =>
      takeFault(edit(...args), takes)?.kind ?? null;
    expect(fault('instead', 'gone')).toBe('take-gone');
    expect(fault('picture', 'gone')).toBe('picture-gone');
    expect(fault('picture', 'other', 9_000)).toBeNull();
    expect([fault('instead', 'other', 2_966), fault('instead', 'other', 2_967)]).toEqual([
      null,
      'take-over',
    ]);
    expect(takeFault({ id: 'm', kind: 'mirror', fromMs: 0, toMs: 1 }, takes)).toBeNull();
  });
});
