import { blocksOf, type Footprint, type Lesson } from '../lesson/index.ts';

const dimensions = ['widthCm', 'depthCm', 'heightCm'] as const;
export type Dimension = (typeof dimensions)[number];

export interface SpaceNeed {
  dimension: Dimension;
  cm: number;
  /** The block that needs this much. */
  blockId: string;
  title: string;
}

export interface SpaceLedger {
  /** The most needed each way; empty when no block says what it takes. */
  needs: SpaceNeed[];
  /** Blocks that do not fit the student's room, with what is missing and whether turning the move would do. */
  misfits: { blockId: string; title: string; missing: Partial<Record<Dimension, number>>; fitsTurned: boolean }[];
}

function missing(needed: Footprint, room: Footprint): Partial<Record<Dimension, number>> {
  return Object.fromEntries(dimensions.flatMap((d) => (needed[d] > room[d] ? [[d, needed[d] - room[d]]] : [])));
}

/** The room the whole lesson needs, which block decides it, and what does not fit the room the student has. In centimetres. */
export function spaceLedger(lesson: Lesson): SpaceLedger {
  const blocks = blocksOf(lesson).flatMap(({ id, title, footprint }) => (footprint ? [{ id, title, footprint }] : []));
  const needs = dimensions.flatMap((dimension): SpaceNeed[] => {
    const [first, ...others] = blocks;
    if (!first) return [];
    const most = others.reduce((a, b) => (b.footprint[dimension] > a.footprint[dimension] ? b : a), first);
    return [{ dimension, cm: most.footprint[dimension], blockId: most.id, title: most.title }];
  });
  const { room } = lesson;
  const misfits = room
    ? blocks.flatMap(({ id, title, footprint }) => {
        const lacks = missing(footprint, room);
        if (Object.keys(lacks).length === 0) return [];
        const turned = { ...footprint, widthCm: footprint.depthCm, depthCm: footprint.widthCm };
        return [{ blockId: id, title, missing: lacks, fitsTurned: Object.keys(missing(turned, room)).length === 0 }];
      })
    : [];
  return { needs, misfits };
}
