import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  makeBlock,
  makeLesson,
  overlaySlots,
  type Block,
  type Edit,
  type IntervalsBlock,
  type RepsBlock,
} from '../lesson/index.ts';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import {
  closerRegion,
  assemble,
  onCamera,
  onScreen,
  toBlock,
  slots,
  type TakeFacts,
} from './index.ts';
import { dropText, layOutBlock, toVideo, whyNot } from './block-time-map.ts';

const ms = fc.nat(40_000);
const stretch = { id: fc.constant('e'), fromMs: ms, toMs: ms };
const permille = fc.nat(1_000);
const place = fc.record({ x: permille, y: permille });
const arbitraryEdit: fc.Arbitrary<Edit> = fc.oneof(
  fc.record({ ...stretch, kind: fc.constant('leave-out' as const) }),
  fc.record({
    ...stretch,
    kind: fc.constant('again' as const),
    speed: fc.constantFrom(25, 50, 70, 100),
    times: fc.integer({ min: 1, max: 3 }),
    sound: fc.constantFrom('kept', 'low', 'off'),
  }),
  fc.record({
    id: fc.constant('e'),
    kind: fc.constant('freeze' as const),
    atMs: ms,
    lengthMs: fc.integer({ min: 500, max: 4_000 }),
    point: fc.option(place),
    text: fc.string({ maxLength: 10 }),
  }),
  fc.record({
    id: fc.constant('e'),
    kind: fc.constant('card' as const),
    atMs: ms,
    lengthMs: fc.integer({ min: 500, max: 4_000 }),
    heading: fc.string(),
    lines: fc.array(fc.string(), { maxLength: 2 }),
    court: fc.boolean(),
  }),
  fc.record({
    ...stretch,
    kind: fc.constant('closer' as const),
    zoom: fc.integer({ min: 100, max: 400 }),
    from: place,
    to: place,
    path: fc
      .array(fc.record({ atMs: ms, x: permille, y: permille }), { maxLength: 4 })
      .map((path) => path.sort((a, b) => a.atMs - b.atMs)),
  }),
  fc.record({
    id: fc.constant('e'),
    kind: fc.constant('picture' as const),
    atMs: ms,
    lengthMs: fc.integer({ min: 500, max: 4_000 }),
    takeId: fc.constantFrom('take', 'gone'),
  }),
  fc.record({ ...stretch, kind: fc.constant('mirror' as const) }),
  fc.record({
    ...stretch,
    kind: fc.constant('instead' as const),
    takeId: fc.constantFrom('take', 'gone'),
    startsAtMs: fc.constant(0),
    picture: fc.boolean(),
    sound: fc.boolean(),
  }),
  fc.record({ ...stretch, kind: fc.constant('note' as const), text: fc.string() }),
  fc.record({
    ...stretch,
    kind: fc.constant('cue' as const),
    text: fc.string(),
    moment: fc.constant('action' as const),
  }),
  fc.record({
    ...stretch,
    kind: fc.constant('hide' as const),
    slot: fc.constantFrom(...overlaySlots),
  }),
  fc.record({
    ...stretch,
    kind: fc.constant('shift' as const),
    slot: fc.constantFrom(...overlaySlots),
    byMs: fc.integer({ min: -5_000, max: 5_000 }),
  }),
  fc.record({
    id: fc.constant('e'),
    kind: fc.constant('taps' as const),
    taps: fc.array(
      fc.record({ atMs: ms, side: fc.constantFrom('left', 'right', null), missed: fc.boolean() }),
      { maxLength: 12 },
    ),
  }),
  fc.record({
    id: fc.constant('e'),
    kind: fc.constant('fade' as const),
    lengthMs: fc.integer({ min: 100, max: 3_000 }),
  }),
);
const takes = new Map<string, TakeFacts>([['take', { id: 'take', frames: 900, marked: null }]]);

function cutOf(block: Block, facts: ReadonlyMap<string, TakeFacts> = takes) {
  return assemble(
    { ...makeLesson('A', counter()), sections: [{ id: 's', title: 'Part', blocks: [block] }] },
    facts,
  );
}
/** 10 s of work and nothing else, filmed from the take's first second on. */
const work = (edits: Edit[]): IntervalsBlock => ({
  ...(makeBlock('intervals', counter()) as IntervalsBlock),
  rounds: 1,
  workMs: 10_000,
  leadInMs: 0,
  footage: { takeId: 'take', startsAtMs: 1_000 },
  edits,
});

describe('changes by hand, whatever they are', () => {
  it('leave a video without gaps, overlays apart and in order, and every change is made or listed', () => {
    fc.assert(
      fc.property(
        arbitraryLesson,
        fc.array(fc.array(arbitraryEdit, { maxLength: 5 }), { maxLength: 6 }),
        (lesson, edits) => {
          lesson.sections
            .flatMap(({ blocks }) => blocks)
            .forEach((block, i) => (block.edits = edits[i] ?? []));
          const cut = assemble(lesson, takes);
          for (const list of [cut.segments, cut.blocks]) {
            let at = 0;
            for (const part of list) {
              expect(part.startMs).toBe(at);
              expect(part.endMs).toBeGreaterThan(part.startMs);
              at = part.endMs;
            }
            expect(at).toBe(cut.durationMs);
          }
          for (const list of [...slots.map((slot) => cut.lanes[slot]), cut.captions, cut.pauses]) {
            let at = 0;
            for (const item of list) {
              expect(item.startMs).toBeGreaterThanOrEqual(at);
              expect(item.endMs).toBeGreaterThan(item.startMs);
              at = item.endMs;
            }
            expect(at).toBeLessThanOrEqual(cut.durationMs);
          }
          for (const { edit, why } of cut.dropped) {
            expect(why).not.toBe('');
            expect(
              lesson.sections.some(({ blocks }) =>
                blocks.some((block) => block.edits.includes(edit)),
              ),
            ).toBe(true);
          }
        },
      ),
    );
  });

  it('map the block’s own time to the video and back', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 60_000 }),
        fc.array(arbitraryEdit, { maxLength: 6 }),
        fc.nat(60_000),
        (bodyMs, all, at) => {
          const edits = all.filter((edit) => whyNot(edit, bodyMs) === null);
          const timeMap = layOutBlock(bodyMs, edits);
          const played = timeMap.runs.filter((run) => run.kind === 'own');
          const leftOut = new Set(
            edits.flatMap((edit) =>
              edit.kind === 'leave-out'
                ? Array.from(
                    { length: Math.max(0, Math.min(edit.toMs, bodyMs) - edit.fromMs) },
                    (_, i) => edit.fromMs + i,
                  )
                : [],
            ),
          );
          expect(played.reduce((sum, { fromMs, toMs }) => sum + toMs - fromMs, 0)).toBe(
            bodyMs - leftOut.size,
          );
          const ownMs = at % bodyMs;
          const [seen] = toVideo(timeMap, { startMs: ownMs, endMs: ownMs + 1 });
          expect(seen === undefined).toBe(leftOut.has(ownMs));
          if (seen) expect(toBlock(timeMap, seen.startMs)).toBe(ownMs);
        },
      ),
    );
  });
});

describe('in a block', () => {
  it('a clock goes on where it stood when something is put in between', () => {
    const cut = cutOf(
      work([
        {
          id: 'a',
          kind: 'freeze',
          atMs: 4_000,
          lengthMs: 2_000,
          point: { x: 250, y: 500 },
          text: 'Elbow',
        },
      ]),
    );
    expect(cut.durationMs).toBe(12_000);
    expect(
      cut.lanes.clock.map(({ startMs, endMs, elapsedMs, totalMs }) => [
        startMs,
        endMs,
        elapsedMs,
        totalMs,
      ]),
    ).toEqual([
      [0, 4_000, 0, 10_000],
      [6_000, 12_000, 4_000, 10_000],
    ]);
    expect(cut.lanes.pointer).toMatchObject([
      { startMs: 4_000, endMs: 6_000, text: 'Elbow', x: 250, y: 500, words: 'right' },
    ]);
    // One frame of the take, with nothing heard.
    expect(cut.segments[1]).toMatchObject({
      source: { inFrame: 150, takeFrames: 151 },
      sound: null,
    });
  });

  it('something is shown again slowly when it is over, and said so', () => {
    const cut = cutOf(
      work([
        { id: 'a', kind: 'again', fromMs: 2_000, toMs: 4_000, speed: 50, times: 2, sound: 'low' },
      ]),
    );
    expect(cut.durationMs).toBe(10_000 + 2 * 4_000);
    expect(
      cut.segments.map(({ startMs, source }) => [
        startMs,
        source.kind === 'take' ? source.inFrame : null,
        source.kind === 'take' ? source.speed : null,
      ]),
    ).toEqual([
      [0, 30, 1],
      [4_000, 90, 0.5],
      [8_000, 90, 0.5],
      [12_000, 150, 1],
    ]);
    expect(cut.segments[1]?.sound).toMatchObject({ low: true });
    expect(cut.lanes.cue).toMatchObject([
      { startMs: 4_000, endMs: 12_000, text: 'At half speed', moment: 'again' },
    ]);
  });

  it('says how fast it is shown again', () => {
    const text = (speed: number) =>
      cutOf(
        work([
          { id: 'a', kind: 'again', fromMs: 2_000, toMs: 4_000, speed, times: 1, sound: 'low' },
        ]),
      ).lanes.cue[0]?.text;
    expect([100, 50, 25, 70].map(text)).toEqual([
      'Once more',
      'At half speed',
      'At a quarter of the speed',
      'At 70 % of the speed',
    ]);
  });

  it('what is left out takes its moments along, and what lies behind the end is listed', () => {
    const late: Edit = { id: 'late', kind: 'note', fromMs: 20_000, toMs: 22_000, text: 'Left' };
    const gone: Edit = {
      id: 'gone',
      kind: 'beside',
      fromMs: 0,
      toMs: 1_000,
      takeId: 'elsewhere',
      startsAtMs: null,
      layout: 'halves',
    };
    const cut = cutOf(work([{ id: 'a', kind: 'leave-out', fromMs: 0, toMs: 3_000 }, late, gone]));
    expect(cut.durationMs).toBe(7_000);
    expect(cut.lanes.clock).toMatchObject([{ startMs: 0, endMs: 7_000, elapsedMs: 3_000 }]);
    // What reaches over the end ends with the block.
    expect(
      cutOf(
        work([
          {
            id: 'a',
            kind: 'again',
            fromMs: 8_000,
            toMs: 30_000,
            speed: 50,
            times: 1,
            sound: 'off',
          },
        ]),
      ).durationMs,
    ).toBe(10_000 + 2 * 2_000);
    expect(cut.dropped.map(({ edit, why }) => [edit.id, dropText(why)])).toEqual([
      ['late', 'It lies at 20 s, and the block lasts only 10 s now.'],
      ['gone', 'Its take is gone, or its working copy is not ready.'],
    ]);
  });

  it('a take whose clock runs fast is followed at its own rate', () => {
    const facts = new Map<string, TakeFacts>([
      [
        'take',
        { id: 'take', frames: 40_000, marked: { startMs: 0, endMs: 600_120, rate: 1.0002 } },
      ],
    ]);
    const block = {
      ...work([]),
      rounds: 2,
      workMs: 300_000,
      restMs: 0,
      footage: { takeId: 'take', startsAtMs: null },
    };
    const [segment] = cutOf(block, facts).segments;
    // 200 parts in a million of ten minutes are 120 ms (arithmetic): 3 or 4 frames at 30 a second.
    expect(segment?.source).toMatchObject({ kind: 'take', speed: 1.0002 });
    expect(
      cutOf(
        {
          ...block,
          edits: [
            {
              id: 'a',
              kind: 'closer',
              fromMs: 599_000,
              toMs: 600_000,
              zoom: 200,
              from: { x: 500, y: 500 },
              to: { x: 500, y: 500 },
              path: [],
            },
          ],
        },
        facts,
      ).segments[1]?.source,
    ).toMatchObject({ inFrame: Math.ceil(599_000 * 1.0002 * 0.03) });
  });

  it('taps count themselves, on each side and anew in each set', () => {
    const block: RepsBlock = {
      ...(makeBlock('reps', counter()) as RepsBlock),
      reps: 2,
      sides: 'each',
      startSide: 'left',
      sets: 1,
      leadInMs: 0,
      sideChangeMs: 2_000,
      tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
    };
    const taps = [300, 2_400, 3_900, 6_500, 8_700].map((atMs) => ({
      atMs,
      side: null,
      missed: false,
    }));
    const tapped = cutOf({ ...block, edits: [{ id: 'a', kind: 'taps', taps }] }).lanes.counter;
    // Planned: two on the left from 0 s, two on the right from 6 s; three were done on the left.
    expect(tapped.map(({ startMs, rep, reps, side }) => [startMs, rep, reps, side])).toEqual([
      [300, 1, 3, 'left'],
      [2_400, 2, 3, 'left'],
      [3_900, 3, 3, 'left'],
      [6_500, 1, 2, 'right'],
      [8_700, 2, 2, 'right'],
    ]);
    const sided = cutOf({
      ...work([
        {
          id: 'a',
          kind: 'taps',
          taps: [
            { atMs: 100, side: 'left', missed: false },
            { atMs: 900, side: 'right', missed: false },
            { atMs: 1_500, side: 'left', missed: false },
          ],
        },
      ]),
    }).lanes.counter;
    expect(sided.map(({ rep, reps, side }) => [rep, reps, side])).toEqual([
      [1, 2, 'left'],
      [1, 1, 'right'],
      [2, 2, 'left'],
    ]);
  });

  it.each(['left', 'right'] as const)(
    'taps of sides in turn count each side to its number, from the %s, said or not',
    (startSide) => {
      const other = startSide === 'left' ? 'right' : 'left';
      const block: RepsBlock = {
        ...(makeBlock('reps', counter()) as RepsBlock),
        reps: 4,
        sides: 'alternating',
        startSide,
        sets: 1,
        leadInMs: 0,
        tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
      };
      const moments = Array.from({ length: 8 }, (_, i) => 1_400 + i * 2_000);
      const wanted = moments.map((_, i) => [
        Math.floor(i / 2) + 1,
        4,
        i % 2 === 0 ? startSide : other,
      ]);
      for (const said of [false, true]) {
        const taps = moments.map((atMs, i) => ({
          atMs,
          side: said ? (i % 2 === 0 ? startSide : other) : null,
          missed: false,
        }));
        const { counter: shown } = cutOf({
          ...block,
          edits: [{ id: 'a', kind: 'taps', taps }],
        }).lanes;
        expect(shown.map(({ rep, reps, side }) => [rep, reps, side])).toEqual(wanted);
        // Each stays until the next: no number flashes by.
        expect(shown.slice(0, -1).map(({ startMs, endMs }) => endMs - startMs)).toEqual(
          Array(7).fill(2_000),
        );
      }
      // One that does not count is its side's turn all the same.
      const missed = moments.map((atMs, i) => ({ atMs, side: null, missed: i === 2 }));
      const { counter: counted } = cutOf({
        ...block,
        edits: [{ id: 'a', kind: 'taps', taps: missed }],
      }).lanes;
      expect(counted.map(({ rep, side, missed: not }) => [rep, side, not]).slice(0, 5)).toEqual([
        [1, startSide, false],
        [1, other, false],
        [1, startSide, true],
        [2, other, false],
        [2, startSide, false],
      ]);
    },
  );

  it('a last number, tapped late, goes when the next bout’s first is tapped', () => {
    const block: RepsBlock = {
      ...(makeBlock('reps', counter()) as RepsBlock),
      reps: 1,
      sides: 'each',
      sideChangeMs: 5_000,
      sets: 1,
      leadInMs: 0,
      tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
    };
    const taps = [6_500, 7_100].map((atMs) => ({ atMs, side: null, missed: false }));
    expect(
      cutOf({ ...block, edits: [{ id: 'a', kind: 'taps', taps }] }).lanes.counter.map(
        ({ startMs, endMs }) => [startMs, endMs],
      ),
    ).toEqual([
      [6_500, 7_100],
      [7_100, 9_000],
    ]);
  });

  it('hiding and moving touch what they name, and no more', () => {
    const block = { ...work([]), rounds: 2, workMs: 5_000, restMs: 2_000 };
    const hidden = cutOf({
      ...block,
      edits: [{ id: 'a', kind: 'hide', slot: 'clock', fromMs: 1_000, toMs: 2_000 }],
    }).lanes.clock;
    expect(
      hidden.slice(0, 2).map(({ startMs, endMs, elapsedMs }) => [startMs, endMs, elapsedMs]),
    ).toEqual([
      [0, 1_000, 0],
      [2_000, 5_000, 2_000],
    ]);
    const moved = cutOf({
      ...block,
      edits: [{ id: 'a', kind: 'shift', slot: 'clock', fromMs: 5_000, toMs: 6_000, byMs: -500 }],
    }).lanes.clock;
    expect(moved.slice(0, 2).map(({ phase, startMs, endMs }) => [phase, startMs, endMs])).toEqual([
      ['work', 0, 4_500],
      ['rest', 4_500, 6_500],
    ]);
  });

  it('a place stays on its joint when the view comes closer and is mirrored', () => {
    const look = {
      quarters: 0,
      blurs: [],
      closer: { zoom: 200, from: { x: 250, y: 500 }, to: { x: 250, y: 500 } },
      mirrored: false,
    };
    expect(onScreen(look, { x: 250, y: 500 })).toEqual({ x: 500, y: 500 });
    expect(onScreen({ ...look, mirrored: true }, { x: 300, y: 500 })).toEqual({ x: 400, y: 500 });
    fc.assert(
      fc.property(
        fc.integer({ min: 100, max: 400 }),
        place,
        place,
        fc.boolean(),
        (zoom, from, to, mirrored) => {
          const any = { ...look, closer: { zoom, from, to }, mirrored };
          const seen = onCamera(any, to);
          const back = onScreen(any, seen);
          // Whole thousandths of the camera's picture are several of the screen's when it is
          // closer.
          expect(Math.abs(back.x - to.x)).toBeLessThanOrEqual(zoom / 200 + 1e-6);
          expect(Math.abs(back.y - to.y)).toBeLessThanOrEqual(zoom / 200 + 1e-6);
        },
      ),
    );
    fc.assert(
      fc.property(
        fc.integer({ min: 100, max: 400 }),
        place,
        place,
        fc.double({ min: 0, max: 1, noNaN: true }),
        (zoom, from, to, part) => {
          const { x, y, width, height } = closerRegion({ zoom, from, to }, part);
          expect(Math.min(x, y)).toBeGreaterThanOrEqual(-1e-9);
          expect(Math.max(x + width, y + height)).toBeLessThanOrEqual(1_000 + 1e-9);
        },
      ),
    );
  });

  it('fades in over the last picture before it', () => {
    const first = { ...work([]), id: 'first' };
    const second = { ...work([{ id: 'f', kind: 'fade' as const, lengthMs: 500 }]), id: 'second' };
    const cut = assemble(
      {
        ...makeLesson('A', counter()),
        sections: [{ id: 's', title: 'Part', blocks: [first, second] }],
      },
      takes,
    );
    expect(cut.segments[1]).toMatchObject({
      startMs: 10_000,
      endMs: 10_500,
      under: { source: { inFrame: 330, takeFrames: 900 } },
    });
    expect(cut.segments[2]?.under).toBeNull();
  });
});
