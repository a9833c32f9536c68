import type { Block, FloorMark, Footprint } from '../lesson/index.ts';

/** How far something reaches from where the performer starts, in centimetres, none below 0. */
export interface Reach {
  leftCm: number;
  rightCm: number;
  backCm: number;
  forwardCm: number;
}

/** The floor one block takes: its move at the start and at the end of the way, and what lies around. */
export interface FloorUse {
  blockId: string;
  title: string;
  /** The move by itself. */
  move: Footprint;
  marks: readonly FloorMark[];
  reach: Reach;
  /** All of it, as one box. */
  size: Footprint;
}

/** Room a move is taken to need where only marks are given: one person standing, arms by the side (common practice). */
const STANDING: Footprint = { widthCm: 100, depthCm: 100, heightCm: 220 };

/** Size of a mark on the floor; a marker is a point, at the end of a way the whole move needs its room. */
function sizeOf(mark: FloorMark, move: Footprint): { widthCm: number; depthCm: number } {
  if (mark.kind === 'travel') return move;
  return mark.kind === 'marker' ? { widthCm: 0, depthCm: 0 } : mark;
}

function reachOf(move: Footprint, marks: readonly FloorMark[]): Reach {
  const boxes = [{ rightCm: 0, forwardCm: 0, ...move }, ...marks.map((mark) => ({ rightCm: mark.rightCm, forwardCm: mark.forwardCm, ...sizeOf(mark, move) }))];
  const most = (far: (box: (typeof boxes)[number]) => number) => Math.max(...boxes.map(far));
  return {
    leftCm: most((b) => b.widthCm / 2 - b.rightCm),
    rightCm: most((b) => b.widthCm / 2 + b.rightCm),
    backCm: most((b) => b.depthCm / 2 - b.forwardCm),
    forwardCm: most((b) => b.depthCm / 2 + b.forwardCm),
  };
}

const boxOf = (reach: Reach, heightCm: number): Footprint => ({ widthCm: reach.leftCm + reach.rightCm, depthCm: reach.backCm + reach.forwardCm, heightCm });

/** The floor a block takes; null when it does not say. */
export function floorUse({ id, title, footprint, floor }: Pick<Block, 'id' | 'title' | 'footprint' | 'floor'>): FloorUse | null {
  if (!footprint && floor.length === 0) return null;
  const move = footprint ?? STANDING;
  const reach = reachOf(move, floor);
  return { blockId: id, title, move, marks: floor, reach, size: boxOf(reach, move.heightCm) };
}

/** A mark that, brought nearer by so much, makes the block fit. */
export interface Nearer {
  label: string;
  cm: number;
}

/** The one mark to bring nearer so that the block fits the room; null when no single mark does it. */
export function nearerMark(use: FloorUse, room: Footprint): Nearer | null {
  const over = { rightCm: Math.max(0, use.size.widthCm - room.widthCm), forwardCm: Math.max(0, use.size.depthCm - room.depthCm) };
  for (const mark of use.marks) {
    const nearer = (axis: 'rightCm' | 'forwardCm') => mark[axis] - Math.sign(mark[axis]) * Math.min(over[axis], Math.abs(mark[axis]));
    const moved = use.marks.map((m) => (m === mark ? { ...m, rightCm: nearer('rightCm'), forwardCm: nearer('forwardCm') } : m));
    const size = boxOf(reachOf(use.move, moved), use.move.heightCm);
    if (size.widthCm <= room.widthCm && size.depthCm <= room.depthCm && size.heightCm <= room.heightCm) {
      return { label: mark.label || mark.kind, cm: Math.max(over.rightCm, over.forwardCm) };
    }
  }
  return null;
}
