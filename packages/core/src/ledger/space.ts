import { blocksOf, withWay, type Footprint, type Lesson } from '../lesson/index.ts';
import { floorUse, nearerMark, type FloorUse, type Nearer } from './floor.ts';

const dimensions = ['widthCm', 'depthCm', 'heightCm'] as const;
export type Dimension = (typeof dimensions)[number];

export interface SpaceNeed {
  dimension: Dimension;
  cm: number;
  /** The block that needs this much. */
  blockId: string;
  title: string;
}

export interface Misfit {
  blockId: string;
  title: string;
  missing: Partial<Record<Dimension, number>>;
  /** What would make it fit: turning the whole of it, or one mark brought nearer. */
  fitsTurned: boolean;
  nearer: Nearer | null;
}

export interface SpaceLedger {
  /** The floor each block takes, of those that say. */
  uses: FloorUse[];
  /** The most needed each way; empty when no block says what it takes. */
  needs: SpaceNeed[];
  /** Blocks that do not fit the student's room. */
  misfits: Misfit[];
}

function missing(needed: Footprint, room: Footprint): Partial<Record<Dimension, number>> {
  return Object.fromEntries(
    dimensions.flatMap((d) => (needed[d] > room[d] ? [[d, needed[d] - room[d]]] : [])),
  );
}

function misfitOf(use: FloorUse, room: Footprint): Misfit[] {
  const { blockId, title, size } = use;
  const lacks = missing(size, room);
  if (Object.keys(lacks).length === 0) return [];
  const turned = { ...size, widthCm: size.depthCm, depthCm: size.widthCm };
  return [
    {
      blockId,
      title,
      missing: lacks,
      fitsTurned: Object.keys(missing(turned, room)).length === 0,
      nearer: nearerMark(use, room),
    },
  ];
}

/**
 * The room the whole lesson needs, which block decides it, and what does not fit the room the
 * student has. In centimetres.
 */
export function spaceLedger(lesson: Lesson): SpaceLedger {
  const { room } = lesson;
  const uses = blocksOf(lesson).flatMap((block) => floorUse(withWay(block, lesson)) ?? []);
  const needs = dimensions.flatMap((dimension): SpaceNeed[] => {
    const [first, ...others] = uses;
    if (!first) return [];
    const most = others.reduce((a, b) => (b.size[dimension] > a.size[dimension] ? b : a), first);
    return [{ dimension, cm: most.size[dimension], blockId: most.blockId, title: most.title }];
  });
  return { uses, needs, misfits: room ? uses.flatMap((use) => misfitOf(use, room)) : [] };
}
