import { otherSide, type Block, type BodyRegion, type Side } from '../lesson/index.ts';
import { moveKinds, type Schedule, type Span } from '../schedule/index.ts';
import { spanLength } from '../time/index.ts';

/** What one side does: repetitions and holds, and time under way. */
export interface SideLoad {
  count: number;
  ms: number;
}

export interface SidePair {
  left: SideLoad;
  right: SideLoad;
}

export interface SidesLedger extends SidePair {
  /** The same for each body region that a one-sided block names. */
  regions: (SidePair & { region: BodyRegion })[];
  /** Blocks in which the sides differ, with how much more the busier one does. */
  uneven: { blockId: string; title: string; more: Side; count: number; ms: number }[];
}

const none = (): SidePair => ({ left: { count: 0, ms: 0 }, right: { count: 0, ms: 0 } });

function add(to: SidePair, span: Span): void {
  if (!span.side) return;
  const ms = spanLength(span);
  const counts = span.kind === 'rep' || span.kind === 'hold' ? 1 : 0;
  if (span.halves) {
    const first = Math.floor(ms / 2);
    to[span.side].ms += first;
    to[otherSide(span.side)].ms += ms - first;
    return;
  }
  to[span.side].count += counts;
  to[span.side].ms += ms;
}

/** Halving an odd number of milliseconds is no imbalance. */
const ROUNDING_MS = 1;

function unevenness(block: Block, { left, right }: SidePair): SidesLedger['uneven'] {
  const count = left.count - right.count;
  const ms = left.ms - right.ms;
  if (count === 0 && Math.abs(ms) <= ROUNDING_MS) return [];
  const more = (count === 0 ? ms : count) > 0 ? 'left' : 'right';
  return [
    { blockId: block.id, title: block.title, more, count: Math.abs(count), ms: Math.abs(ms) },
  ];
}

/**
 * Work by side: in all, by body region, and the blocks that favour one. Only exercised spans with a
 * side count.
 */
export function sidesLedger(schedule: Schedule): SidesLedger {
  const all = none();
  const regions = new Map<BodyRegion, SidePair>();
  const uneven: SidesLedger['uneven'] = [];
  for (const { block, spans } of schedule.blocks) {
    const pair = none();
    for (const span of spans) {
      if (!moveKinds.has(span.kind)) continue;
      add(pair, span);
      add(all, span);
      if (!span.side) continue;
      for (const region of block.regions) {
        const pair = regions.get(region) ?? none();
        add(pair, span);
        regions.set(region, pair);
      }
    }
    uneven.push(...unevenness(block, pair));
  }
  return { ...all, regions: [...regions].map(([region, pair]) => ({ region, ...pair })), uneven };
}
