import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { assemble, type Assembly, type Slot } from '../assembly/index.ts';
import {
  LIMITS,
  makeBlock,
  makeCue,
  makeLesson,
  usualFinish,
  type IntervalsBlock,
} from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { REFERENCE, SAFE_AREA, SLOT_BOXES, type Place } from './layout.ts';
import {
  handBox,
  kept,
  Layout,
  placesOf,
  wideLayout,
  type Kept,
  type PlacingBlock,
} from './placement.ts';
import { sceneAt } from './scene.ts';

const box = fc.record({
  x: fc.nat(1_000),
  y: fc.nat(600),
  width: fc.integer({ min: 20, max: 600 }),
  height: fc.integer({ min: 20, max: 600 }),
});
const block: fc.Arbitrary<PlacingBlock> = fc.record({
  performer: fc.option(box),
  used: fc.subarray([...kept]).map((list) => new Set<Slot>(list)),
  together: fc.nat(2 ** 15 - 1),
  fixed: fc
    .option(fc.record({ slot: fc.constantFrom(...kept), x: fc.nat(1_000), y: fc.nat(1_000) }))
    .map((one) => new Map<Kept, Place>(one ? [[one.slot, handBox(one.slot, one)]] : [])),
});
/** What a path costs, its hops counted by themselves. */
const total = (layout: Layout, blocks: readonly PlacingBlock[], path: readonly number[]) =>
  path.reduce((sum, choice, i) => {
    const [own, before] = [blocks[i], path[i - 1]];
    return (
      sum +
      (own ? (layout.ownCosts(own)[choice] ?? 0) : 0) +
      (before === undefined ? 0 : layout.hopCost(before, choice))
    );
  }, 0);

/** Two places for four of the slots: few enough choices to try them all. */
const small = new Layout(
  Object.fromEntries(
    kept.map((slot, i) => [
      slot,
      [SLOT_BOXES[slot], ...(i < 4 ? [{ ...SLOT_BOXES[slot], x: 400 }] : [])],
    ]),
  ) as Record<Kept, Place[]>,
);

/** The least cost of all paths, by trying each. */
function bruteForce(blocks: readonly PlacingBlock[], path: number[] = []): number {
  if (path.length === blocks.length) return total(small, blocks, path);
  return Math.min(
    ...Array.from({ length: small.size }, (_, choice) => bruteForce(blocks, [...path, choice])),
  );
}

describe('placement', () => {
  it('costs the least of all, held against every way there is', () => {
    expect(small.size).toBe(16);
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 2 }), (blocks) => {
        expect(total(small, blocks, small.cheapest(blocks))).toBeCloseTo(bruteForce(blocks), 6);
      }),
      { numRuns: 40 },
    );
  });

  it('never costs more than standing still at the usual places, however long the lesson', () => {
    const layout = wideLayout(usualFinish.look.slots);
    fc.assert(
      fc.property(fc.array(block, { minLength: 1, maxLength: 12 }), (blocks) => {
        expect(total(layout, blocks, layout.cheapest(blocks))).toBeLessThanOrEqual(
          total(
            layout,
            blocks,
            blocks.map(() => 0),
          ) + 1e-9,
        );
      }),
      { numRuns: 20 },
    );
  });

  it('keeps what is larger or smaller inside the frame, at the edge it stood at', () => {
    for (const size of [LIMITS.slotSize.min, LIMITS.slotSize.max]) {
      const { places } = wideLayout(
        Object.fromEntries(
          kept.map((slot) => [slot, { size, place: null }]),
        ) as typeof usualFinish.look.slots,
      );
      for (const { x, y, width, height } of Object.values(places).flat()) {
        expect(
          x >= 0 && y >= 0 && x + width <= REFERENCE.width && y + height <= REFERENCE.height,
        ).toBe(true);
      }
      const clock = places.clock[0];
      expect((clock?.x ?? 0) + (clock?.width ?? 0)).toBe(
        SLOT_BOXES.clock.x + SLOT_BOXES.clock.width,
      );
    }
  });
});

const work = (id: string): IntervalsBlock => ({
  ...(makeBlock('intervals', counter()) as IntervalsBlock),
  id,
  rounds: 1,
  workMs: 10_000,
  leadInMs: 0,
  cues: [makeCue('Soft knees', () => 'c', 'throughout')],
  footage: { takeId: 'take', startsAtMs: 0 },
});
const cutOf = (...blocks: IntervalsBlock[]): Assembly =>
  assemble(
    { ...makeLesson('A', counter()), sections: [{ id: 's', title: '', blocks }] },
    new Map([['take', { id: 'take', frames: 900, marked: null }]]),
  );

describe('places in a cut', () => {
  it('keep off the performer, and stay where they are for the next block', () => {
    const cut = cutOf(work('a'), work('b'));
    const [a, b] = cut.blocks;
    // Somebody stands on the left, where the cue usually is.
    if (a) a.performer = { x: 50, y: 380, width: 300, height: 300 };
    if (b) b.performer = null;
    const [first, second] = placesOf(cut);
    expect(first?.cue.x).toBeGreaterThan(700);
    expect(first?.clock).toEqual(SLOT_BOXES.clock);
    // Going back would be a hop for two units of preference.
    expect(second?.cue).toEqual(first?.cue);
    const scene = sceneAt(cut, 5_000);
    expect(scene.items.find(({ slot }) => slot === 'cue')?.box).toEqual(first?.cue);
  });

  it('chosen by hand always win, kept inside the safe area, and others keep off them', () => {
    const cut = cutOf({
      ...work('a'),
      edits: [{ id: 'p', kind: 'place', slot: 'cue', x: 900, y: 0 }],
    });
    const [places] = placesOf(cut);
    if (!places) throw new Error('There should be a block.');
    expect(places.cue).toEqual({
      ...SLOT_BOXES.cue,
      x: SAFE_AREA.x + SAFE_AREA.width - SLOT_BOXES.cue.width,
      y: SAFE_AREA.y,
    });
    expect(
      places.clock.x + places.clock.width <= places.cue.x ||
        places.clock.y >= places.cue.y + places.cue.height,
    ).toBe(true);
    expect(REFERENCE.width).toBe(1280);
  });

  it('know where the framing plan has the performer, turned round with the picture', () => {
    const [placed] = cutOf(work('a')).blocks;
    const { x = 0, width = 0, y = 0, height = 0 } = placed?.performer ?? {};
    // A standing move fills the middle: as far from either side, and most of the safe height.
    expect(Math.abs(x + width / 2 - 500)).toBeLessThanOrEqual(1);
    expect(height).toBeGreaterThan(700);
    expect(y).toBeGreaterThanOrEqual(0);
  });
});
