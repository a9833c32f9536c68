import {
  slots,
  type Assembly,
  type PlacedBlock,
  type Region,
  type Shape,
  type Slot,
} from '../assembly/index.ts';
import type { Finish } from '../lesson/index.ts';
import { REFERENCE, SAFE_AREA, SLOT_BOXES, UPRIGHT_BOXES, type Box, type Place } from './layout.ts';
import { overlaps } from '../time/index.ts';

/** Where each slot stands during a block. */
export type Places = Record<Slot, Place>;

export type Kept = Exclude<Slot, 'pointer'>;
export const kept = slots.filter((slot): slot is Kept => slot !== 'pointer');

/** Left upper corners a slot may stand at in a wide frame, the usual one first. */
const corners: Record<Kept, readonly { x: number; y: number }[]> = {
  clock: [SLOT_BOXES.clock, { x: 64, y: 36 }, { x: 736, y: 250 }],
  counter: [SLOT_BOXES.counter, { x: 848, y: 36 }, { x: 64, y: 250 }, { x: 848, y: 270 }],
  cue: [SLOT_BOXES.cue, { x: 796, y: 268 }, { x: 64, y: 36 }, { x: 796, y: 36 }],
  caution: [SLOT_BOXES.caution, { x: 64, y: 36 }],
  side: [SLOT_BOXES.side, { x: 928, y: 268 }, { x: 64, y: 268 }],
  board: [SLOT_BOXES.board, { x: 64, y: 268 }, { x: 796, y: 36 }, { x: 64, y: 36 }],
};

/**
 * What a choice costs: covering the whole performer box, another place than the usual one, another
 * place than in the block before, one over another.
 */
export const COST = { cover: 100, unusual: 2, hop: 6, overlap: 1_000 } as const;

const even = (value: number) => 2 * Math.round(value / 2);

/**
 * A box of another size with the edge towards the frame's border where it was, inside the safe
 * area.
 */
function sized(slot: Kept, { x, y }: { x: number; y: number }, percent: number): Place {
  const { width: w, height: h } = SLOT_BOXES[slot];
  const [width, height] = [
    Math.min(SAFE_AREA.width, even((w * percent) / 100)),
    even((h * percent) / 100),
  ];
  const within = (value: number, from: number, room: number) =>
    Math.min(from + room, Math.max(from, value));
  const isRight = x + w / 2 > REFERENCE.width / 2;
  const isLow = y + h / 2 > REFERENCE.height * 0.6;
  return {
    x: within(isRight ? x + w - width : x, SAFE_AREA.x, SAFE_AREA.width - width),
    y: within(isLow ? y + h - height : y, SAFE_AREA.y, SAFE_AREA.height - height),
    width,
    height,
    scale: percent / 100,
  };
}

/** Area two boxes share. */
export function commonArea(a: Box, b: Box): number {
  const width = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const height = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return width > 0 && height > 0 ? width * height : 0;
}

/** Two slots as a pair, by their number among all pairs. */
const pairs = kept.flatMap((a, i) => kept.slice(i + 1).map((b, j) => ({ a, b, i, j: i + 1 + j })));

/** The places slots may choose among, and all choices there are, numbered. */
export class Layout {
  /** Choices there are. */
  readonly size: number;
  readonly #strides: readonly number[];
  /** For each slot the place it has in each choice. */
  readonly #corners: readonly Uint8Array[];
  /** For each choice the pairs of slots that overlap in it, a bit each. */
  readonly #overlaps: Uint16Array;

  constructor(readonly places: Record<Kept, readonly Place[]>) {
    let size = 1;
    this.#strides = kept.map((slot) => {
      const stride = size;
      size *= places[slot].length;
      return stride;
    });
    this.size = size;
    this.#corners = kept.map((slot, i) => {
      const stride = this.#strides[i] ?? 1;
      const count = places[slot].length;
      return Uint8Array.from({ length: size }, (_, choice) => Math.floor(choice / stride) % count);
    });
    this.#overlaps = new Uint16Array(size);
    pairs.forEach(({ a, b, i, j }, bit) => {
      const meet = places[a].map((one) => places[b].map((other) => commonArea(one, other) > 0));
      const [ofA, ofB] = [this.#corners[i], this.#corners[j]];
      for (let choice = 0; choice < size; choice += 1)
        if (meet[ofA?.[choice] ?? 0]?.[ofB?.[choice] ?? 0])
          this.#overlaps[choice] = (this.#overlaps[choice] ?? 0) | (1 << bit);
    });
  }

  /** Which of its places a slot stands at in a choice. */
  corner(slotIndex: number, choice: number): number {
    return this.#corners[slotIndex]?.[choice] ?? 0;
  }

  placeOf(slot: Kept, choice: number): Place {
    return this.places[slot][this.corner(kept.indexOf(slot), choice)] ?? SLOT_BOXES[slot];
  }

  /** What each choice costs in a block by itself. */
  ownCosts({ performer, used, together, fixed }: PlacingBlock): Float64Array {
    const single = kept.map((slot) => {
      if (fixed.has(slot)) return this.places[slot].map(() => 0);
      return this.places[slot].map((place, corner) => {
        let cost: number = COST.unusual * corner;
        if (!used.has(slot)) return cost;
        if (performer)
          cost +=
            (COST.cover * commonArea(place, performer)) /
            Math.min(performer.width * performer.height, place.width * place.height);
        for (const [other, box] of fixed)
          if (isTogether(together, slot, other) && commonArea(place, box) > 0) cost += COST.overlap;
        return cost;
      });
    });
    const free =
      pairs.reduce(
        (mask, { a, b }, bit) => (fixed.has(a) || fixed.has(b) ? mask : mask | (1 << bit)),
        0,
      ) & together;
    const costs = new Float64Array(this.size);
    // Slot after slot: plain loops over numbers, for a lesson has many blocks.
    single.forEach((of, i) => {
      const corners = this.#corners[i] ?? new Uint8Array();
      for (let choice = 0; choice < this.size; choice += 1)
        costs[choice] = (costs[choice] ?? 0) + (of[corners[choice] ?? 0] ?? 0);
    });
    if (free !== 0)
      for (let choice = 0; choice < this.size; choice += 1)
        for (let clash = (this.#overlaps[choice] ?? 0) & free; clash > 0; clash &= clash - 1)
          costs[choice] = (costs[choice] ?? 0) + COST.overlap;
    return costs;
  }

  /** What it costs that slots stand elsewhere than in the block before. */
  hopCost(from: number, to: number): number {
    return COST.hop * kept.filter((_, i) => this.corner(i, from) !== this.corner(i, to)).length;
  }

  /**
   * Adds to each choice what it costs to come to it from the cheapest one before. Since each slot
   * that moves costs the same by itself, slots are gone through one by one instead of all pairs of
   * choices.
   */
  #afterHop(costs: Float64Array): { costs: Float64Array; from: Uint16Array } {
    const best = costs.slice();
    const from = Uint16Array.from({ length: this.size }, (_, choice) => choice);
    kept.forEach((slot, i) => {
      const stride = this.#strides[i] ?? 1;
      const count = this.places[slot].length;
      const corners = this.#corners[i] ?? new Uint8Array();
      for (let choice = 0; choice < this.size; choice += 1) {
        if (corners[choice] !== 0) continue;
        let least = choice;
        for (let k = 1; k < count; k += 1)
          if ((best[choice + k * stride] ?? 0) < (best[least] ?? 0)) least = choice + k * stride;
        const [hopped, source] = [(best[least] ?? 0) + COST.hop, from[least] ?? least];
        for (let k = 0; k < count; k += 1) {
          const to = choice + k * stride;
          if (hopped < (best[to] ?? 0)) [best[to], from[to]] = [hopped, source];
        }
      }
    });
    return { costs: best, from };
  }

  /** The cheapest choice for each block of a row, over the whole row: exact. */
  cheapest(blocks: readonly PlacingBlock[]): number[] {
    let costs = new Float64Array(this.size);
    const cameFrom: Uint16Array[] = [];
    blocks.forEach((block, b) => {
      const blockCosts = this.ownCosts(block);
      const before = b === 0 ? { costs, from: new Uint16Array(this.size) } : this.#afterHop(costs);
      cameFrom.push(before.from);
      costs = before.costs.map((cost, choice) => cost + (blockCosts[choice] ?? 0));
    });
    let at = costs.reduce(
      (least, cost, choice) => (cost < (costs[least] ?? 0) ? choice : least),
      0,
    );
    const path: number[] = [];
    for (let b = blocks.length - 1; b >= 0; b -= 1) {
      path.unshift(at);
      at = cameFrom[b]?.[at] ?? 0;
    }
    return path;
  }
}

/** What placement must know of a block. */
export interface PlacingBlock {
  performer: Box | null;
  /** Slots that show something in it. */
  used: ReadonlySet<Slot>;
  /** Pairs of slots that are on screen at the same time, a bit each. */
  together: number;
  /** Places chosen by hand. */
  fixed: ReadonlyMap<Kept, Place>;
}

function isTogether(together: number, one: Slot, other: Slot): boolean {
  return pairs.some(
    ({ a, b }, bit) =>
      ((a === one && b === other) || (a === other && b === one)) && (together & (1 << bit)) !== 0,
  );
}

/** A region of the picture in layout units. */
export const inUnits = ({ x, y, width, height }: Region): Box => ({
  x: (x * REFERENCE.width) / 1_000,
  y: (y * REFERENCE.height) / 1_000,
  width: (width * REFERENCE.width) / 1_000,
  height: (height * REFERENCE.height) / 1_000,
});

/** A place chosen by hand, kept inside the safe area, on even units. */
export function handBox(slot: Kept, { x, y }: { x: number; y: number }, percent = 100): Place {
  const { width, height, scale } = sized(slot, SLOT_BOXES[slot], percent);
  const inside = (value: number, from: number, room: number) =>
    even(Math.min(from + room, Math.max(from, value)));
  return {
    x: inside((x * REFERENCE.width) / 1_000, SAFE_AREA.x, SAFE_AREA.width - width),
    y: inside((y * REFERENCE.height) / 1_000, SAFE_AREA.y, SAFE_AREA.height - height),
    width,
    height,
    scale,
  };
}

/** Pairs of slots that are ever on screen at once in a stretch. */
function togetherIn(
  assembly: Assembly,
  startMs: number,
  endMs: number,
): { used: Set<Slot>; together: number } {
  const shown = kept.map((slot) =>
    (assembly.lanes[slot] as readonly { startMs: number; endMs: number }[]).filter((overlay) =>
      overlaps(overlay, { startMs, endMs }),
    ),
  );
  const meets = (a: number, b: number) => {
    const [one = [], other = []] = [shown[a], shown[b]];
    for (let i = 0, j = 0; i < one.length && j < other.length;) {
      const [x, y] = [one[i], other[j]];
      if (!x || !y) break;
      if (overlaps(x, y)) return true;
      if (x.endMs <= y.endMs) i += 1;
      else j += 1;
    }
    return false;
  };
  return {
    used: new Set(kept.filter((_, i) => (shown[i]?.length ?? 0) > 0)),
    together: pairs.reduce((mask, { i, j }, bit) => (meets(i, j) ? mask | (1 << bit) : mask), 0),
  };
}

type SlotStyles = Finish['look']['slots'];

function placingBlock(
  assembly: Assembly,
  { startMs, endMs, performer, places }: PlacedBlock,
): PlacingBlock {
  const { slots: styles } = assembly.look;
  const fixed = new Map<Kept, Place>();
  for (const slot of kept) {
    const { place, size } = styles[slot];
    const at = places.find((one) => one.slot === slot) ?? place;
    if (at) fixed.set(slot, handBox(slot, at, size));
  }
  return {
    performer: performer && inUnits(performer),
    ...togetherIn(assembly, startMs, endMs),
    fixed,
  };
}

const layouts = new Map<string, Layout>();

/** The layout of slots of these sizes in a wide frame. */
export function wideLayout(styles: SlotStyles): Layout {
  const key = kept.map((slot) => styles[slot].size).join();
  const layout =
    layouts.get(key) ??
    new Layout(
      Object.fromEntries(
        kept.map((slot) => [
          slot,
          corners[slot].map((corner) => sized(slot, corner, styles[slot].size)),
        ]),
      ) as Record<Kept, Place[]>,
    );
  layouts.set(key, layout);
  return layout;
}

function widePlaces(assembly: Assembly): Places[] {
  const blocks = assembly.blocks.map((block) => placingBlock(assembly, block));
  const layout = wideLayout(assembly.look.slots);
  const best = layout.cheapest(blocks);
  return blocks.map(({ fixed }, i): Places => {
    const byHand = Object.fromEntries(
      kept.map((slot) => [slot, fixed.get(slot) ?? layout.placeOf(slot, best[i] ?? 0)]),
    ) as Record<Kept, Place>;
    return { ...byHand, pointer: SLOT_BOXES.pointer };
  });
}

/**
 * In an upright frame each slot has its one place below the picture, and its size from what the
 * place has room for.
 */
const placesIn: Record<Shape, (assembly: Assembly) => Places[]> = {
  wide: widePlaces,
  upright: ({ blocks }) => blocks.map(() => UPRIGHT_BOXES),
};

const known = new WeakMap<Assembly, Places[]>();

/**
 * Where each slot stands in each block of a cut: off the performer and off each other, without
 * hopping about. Reckoned once for a cut.
 */
export function placesOf(assembly: Assembly): readonly Places[] {
  const found = known.get(assembly) ?? placesIn[assembly.shape](assembly);
  known.set(assembly, found);
  return found;
}
