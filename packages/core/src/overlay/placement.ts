import { slots, type Assembly, type PlacedBlock, type Region, type Slot } from '../assembly/index.ts';
import { REFERENCE, SAFE_AREA, SLOT_BOXES, type Box } from './layout.ts';

/** Where each slot stands during a block. */
export type Places = Record<Slot, Box>;

type Kept = Exclude<Slot, 'pointer'>;
const kept = slots.filter((slot): slot is Kept => slot !== 'pointer');

/** Left upper corners a slot may stand at, the usual one first. */
const corners: Record<Kept, readonly { x: number; y: number }[]> = {
  clock: [SLOT_BOXES.clock, { x: 64, y: 36 }, { x: 736, y: 250 }],
  counter: [SLOT_BOXES.counter, { x: 848, y: 36 }, { x: 64, y: 250 }, { x: 848, y: 270 }],
  cue: [SLOT_BOXES.cue, { x: 796, y: 284 }, { x: 64, y: 36 }, { x: 796, y: 36 }],
  caution: [SLOT_BOXES.caution, { x: 64, y: 36 }],
};

/** What a choice costs: covering the whole performer box, another place than the usual one, another place than in the block before. */
export const COST = { cover: 100, unusual: 2, hop: 6, overlap: 1_000 } as const;

/** What placement must know of a block. */
export interface PlacingBlock {
  performer: Box | null;
  /** Slots that show something in it. */
  used: ReadonlySet<Slot>;
  /** Places chosen by hand. */
  fixed: ReadonlyMap<Slot, Box>;
}

function common(a: Box, b: Box): number {
  const width = Math.min(a.x + a.width, b.x + b.width) - Math.max(a.x, b.x);
  const height = Math.min(a.y + a.height, b.y + b.height) - Math.max(a.y, b.y);
  return width > 0 && height > 0 ? width * height : 0;
}

type Choice = Record<Kept, number>;

/** All ways to stand the slots at their corners without one over another. */
export const choices: readonly Choice[] = kept.reduce<Choice[]>(
  (made, slot) => made.flatMap((choice) => corners[slot].map((_, i) => ({ ...choice, [slot]: i }))),
  [{} as Choice],
).filter((choice) => kept.every((slot, i) => kept.slice(i + 1).every((other) => common(boxOf(slot, choice[slot]), boxOf(other, choice[other])) === 0)));

function boxOf(slot: Kept, i: number): Box {
  const { width, height } = SLOT_BOXES[slot];
  const { x, y } = corners[slot][i] ?? SLOT_BOXES[slot];
  return { x, y, width, height };
}

/** What a choice costs in a block by itself. */
export function ownCost({ performer, used, fixed }: PlacingBlock, choice: Choice): number {
  let cost = 0;
  for (const slot of kept) {
    const byHand = fixed.get(slot);
    if (byHand) continue;
    cost += COST.unusual * choice[slot];
    if (!used.has(slot)) continue;
    const box = boxOf(slot, choice[slot]);
    if (performer) cost += (COST.cover * common(box, performer)) / Math.min(performer.width * performer.height, box.width * box.height);
    for (const [other, place] of fixed) if (other !== slot && used.has(other) && common(box, place) > 0) cost += COST.overlap;
  }
  return cost;
}

/** What it costs that slots stand elsewhere than in the block before. */
export function hopCost(from: Choice, to: Choice): number {
  return COST.hop * kept.filter((slot) => from[slot] !== to[slot]).length;
}

/** The cheapest choice for each block of a row, over the whole row: exact, by going through all choices block by block. */
export function cheapest(blocks: readonly PlacingBlock[]): Choice[] {
  let costs: number[] = [];
  const cameFrom: number[][] = [];
  for (const block of blocks) {
    const own = choices.map((choice) => ownCost(block, choice));
    if (costs.length === 0) {
      costs = own;
      cameFrom.push([]);
      continue;
    }
    const from: number[] = [];
    costs = choices.map((choice, to) => {
      let best = 0;
      let least = Infinity;
      for (let i = 0; i < choices.length; i += 1) {
        const before = choices[i];
        const cost = (costs[i] ?? Infinity) + (before ? hopCost(before, choice) : 0);
        if (cost < least) [best, least] = [i, cost];
      }
      from.push(best);
      return least + (own[to] ?? 0);
    });
    cameFrom.push(from);
  }
  const path: Choice[] = [];
  let at = costs.indexOf(Math.min(...costs));
  for (let b = blocks.length - 1; b >= 0; b -= 1) {
    const choice = choices[at];
    if (choice) path.unshift(choice);
    at = cameFrom[b]?.[at] ?? 0;
  }
  return path;
}

const inUnits = ({ x, y, width, height }: Region): Box => ({ x: (x * REFERENCE.width) / 1_000, y: (y * REFERENCE.height) / 1_000, width: (width * REFERENCE.width) / 1_000, height: (height * REFERENCE.height) / 1_000 });

/** A place chosen by hand, kept inside the safe area, on even units. */
export function handBox(slot: Slot, { x, y }: { x: number; y: number }): Box {
  const { width, height } = SLOT_BOXES[slot];
  const within = (value: number, from: number, room: number) => 2 * Math.round(Math.min(from + room, Math.max(from, value)) / 2);
  return { x: within((x * REFERENCE.width) / 1_000, SAFE_AREA.x, SAFE_AREA.width - width), y: within((y * REFERENCE.height) / 1_000, SAFE_AREA.y, SAFE_AREA.height - height), width, height };
}

function placingBlock(assembly: Assembly, { startMs, endMs, performer, places }: PlacedBlock): PlacingBlock {
  const used = new Set(slots.filter((slot) => assembly.lanes[slot].some((overlay) => overlay.startMs < endMs && overlay.endMs > startMs)));
  return { performer: performer && inUnits(performer), used, fixed: new Map(places.map((place) => [place.slot, handBox(place.slot, place)])) };
}

const known = new WeakMap<Assembly, Places[]>();

/** Where each slot stands in each block of a cut: off the performer and off each other, without hopping about. Reckoned once for a cut. */
export function placesOf(assembly: Assembly): readonly Places[] {
  const found = known.get(assembly);
  if (found) return found;
  const blocks = assembly.blocks.map((block) => placingBlock(assembly, block));
  const best = cheapest(blocks);
  const places = blocks.map(({ fixed }, i): Places => {
    const choice = best[i];
    const own = Object.fromEntries(kept.map((slot) => [slot, fixed.get(slot) ?? boxOf(slot, choice?.[slot] ?? 0)])) as Record<Kept, Box>;
    return { ...own, pointer: SLOT_BOXES.pointer };
  });
  known.set(assembly, places);
  return places;
}
