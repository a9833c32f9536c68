import type { Block, BlockOf } from './blocks.ts';
import { LIMITS } from './limits.ts';
import type { FloorMark } from './parts.ts';

/** A figure that stands for several numbers of a block, which change together. */
interface Together {
  /** Null where the block has no such figure. */
  read(block: Block): number | null;
  write(draft: Block, value: number): void;
}

const targetsOf = ({ floor }: Block): FloorMark[] => floor.filter(({ kind }) => kind === 'target');
const awayCm = ({ rightCm, forwardCm }: FloorMark): number =>
  Math.round(Math.hypot(rightCm, forwardCm));
const within = (cm: number, { min, max }: { min: number; max: number }) =>
  Math.min(max, Math.max(min, Math.round(cm)));
const OFFSET = { min: -LIMITS.sideCm.max, max: LIMITS.sideCm.max };

/** Puts a mark that far away, in the direction it has; straight ahead where it has none. */
function putAway(mark: FloorMark, cm: number): void {
  const from = Math.hypot(mark.rightCm, mark.forwardCm);
  const isAhead = Math.abs(mark.forwardCm) >= Math.abs(mark.rightCm);
  const [far, near] = isAhead
    ? (['forwardCm', 'rightCm'] as const)
    : (['rightCm', 'forwardCm'] as const);
  const aside = from === 0 ? 0 : within((mark[near] * cm) / from, OFFSET);
  // What is rounded away of one is made up by the other.
  const rest = Math.sqrt(Math.max(0, cm ** 2 - aside ** 2));
  mark[far] = within(mark[far] < 0 ? -rest : rest, OFFSET);
  mark[near] = aside;
}

const distances = (block: Block): number[] => [
  ...targetsOf(block).map(awayCm),
  ...(block.ways ?? []).flatMap(({ distanceCm }) => distanceCm ?? []),
];

/** From the performer to the nearest target, or from player to player; the others keep their ratio. */
const distance: Together = {
  read: (block) => {
    const all = distances(block).filter((cm) => cm > 0);
    return all.length > 0 ? Math.min(...all) : null;
  },
  write: (draft, value) => {
    const from = distance.read(draft);
    if (from === null) return;
    for (const mark of targetsOf(draft)) {
      const away = awayCm(mark);
      if (away > 0) putAway(mark, away === from ? value : (away * value) / from);
    }
    for (const way of draft.ways ?? [])
      if (way.distanceCm !== undefined)
        way.distanceCm = within((way.distanceCm * value) / from, LIMITS.sideCm);
  },
};

/** How wide the narrowest target is; all keep their shape and how they compare. */
const size: Together = {
  read: (block) => {
    const all = targetsOf(block).map(({ widthCm }) => widthCm);
    return all.length > 0 ? Math.min(...all) : null;
  },
  write: (draft, value) => {
    const from = size.read(draft);
    if (from === null) return;
    for (const mark of targetsOf(draft)) {
      mark.widthCm = within((mark.widthCm * value) / from, LIMITS.sideCm);
      mark.depthCm = within((mark.depthCm * value) / from, LIMITS.sideCm);
    }
  },
};

const raised = ({ floor }: Block): (FloorMark & { heightCm: number })[] =>
  floor.filter((mark): mark is FloorMark & { heightCm: number } => mark.heightCm !== undefined);

/** How high the lowest raised mark is; the others stay as much above it. */
const height: Together = {
  read: (block) => {
    const all = raised(block).map(({ heightCm }) => heightCm);
    return all.length > 0 ? Math.min(...all) : null;
  },
  write: (draft, value) => {
    const by = value - (height.read(draft) ?? value);
    for (const mark of raised(draft)) mark.heightCm = within(mark.heightCm + by, LIMITS.heightCm);
  },
};

const hasMoves = (block: Block): block is BlockOf<'counts' | 'routine'> =>
  block.kind === 'counts' || block.kind === 'routine';

/** How many of the moves are done; of all of them nothing is stored. */
const moves: Together = {
  read: (block) =>
    hasMoves(block) && block.moves.length > 1
      ? Math.min(block.upTo ?? block.moves.length, block.moves.length)
      : null,
  write: (draft, value) => {
    if (!hasMoves(draft)) return;
    if (value >= draft.moves.length) delete draft.upTo;
    else draft.upTo = value;
  },
};

/** Figures of several numbers, by their key. */
export const together: Readonly<Record<string, Together>> = {
  'floor.distance': distance,
  'floor.size': size,
  'floor.height': height,
  upTo: moves,
};
