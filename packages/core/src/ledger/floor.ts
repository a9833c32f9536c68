import type { Block, FloorMark, Footprint } from '../lesson/index.ts';

/**
 * A mark as the camera sees the floor: its middle from where the performer starts, and its size. In
 * centimetres.
 */
export interface PlacedMark {
  mark: FloorMark;
  screenRightCm: number;
  /** Towards the camera. */
  nearCm: number;
  widthCm: number;
  depthCm: number;
}

/**
 * How far something reaches from where the performer starts, as the camera sees it, in centimetres.
 */
export interface Reach {
  screenLeftCm: number;
  screenRightCm: number;
  farCm: number;
  nearCm: number;
}

/**
 * The floor one block takes: its move at the start and at the end of the way, and what lies around.
 */
export interface FloorUse {
  blockId: string;
  title: string;
  /** The move by itself. */
  move: Footprint;
  marks: readonly PlacedMark[];
  reach: Reach;
  /** All of it, as one box. */
  size: Footprint;
}

/**
 * Room a move is taken to need where only marks are given: one person standing, arms by the side
 * (common practice).
 */
const STANDING: Footprint = { widthCm: 100, depthCm: 100, heightCm: 220 };

type Facing = Block['facing']['performer'];

/** What lies to the performer's right and ahead, as the camera sees it. */
function asSeen(
  facing: Facing,
  rightCm: number,
  forwardCm: number,
): { screenRightCm: number; nearCm: number } {
  switch (facing) {
    case 'camera':
      return { screenRightCm: -rightCm, nearCm: forwardCm };
    case 'away':
      return { screenRightCm: rightCm, nearCm: -forwardCm };
    case 'left side on':
      return { screenRightCm: -forwardCm, nearCm: -rightCm };
    case 'right side on':
      return { screenRightCm: forwardCm, nearCm: rightCm };
  }
}

/** Where a mark lies for the performer that the camera sees there: what `asSeen` turns, turned back. */
export function floorPlace(
  facing: Facing,
  screenRightCm: number,
  nearCm: number,
): Pick<FloorMark, 'rightCm' | 'forwardCm'> {
  switch (facing) {
    case 'camera':
      return { rightCm: -screenRightCm, forwardCm: nearCm };
    case 'away':
      return { rightCm: screenRightCm, forwardCm: -nearCm };
    case 'left side on':
      return { rightCm: -nearCm, forwardCm: -screenRightCm };
    case 'right side on':
      return { rightCm: nearCm, forwardCm: screenRightCm };
  }
}

/** A marker is a point; at the end of a way the whole move needs its room. */
function placed(mark: FloorMark, facing: Facing, move: Footprint): PlacedMark {
  const at = { mark, ...asSeen(facing, mark.rightCm, mark.forwardCm) };
  if (mark.kind === 'travel') return { ...at, widthCm: move.widthCm, depthCm: move.depthCm };
  if (mark.kind === 'marker') return { ...at, widthCm: 0, depthCm: 0 };
  const isSideOn = facing === 'left side on' || facing === 'right side on';
  return isSideOn
    ? { ...at, widthCm: mark.depthCm, depthCm: mark.widthCm }
    : { ...at, widthCm: mark.widthCm, depthCm: mark.depthCm };
}

function reachOf(move: Footprint, marks: readonly Omit<PlacedMark, 'mark'>[]): Reach {
  const boxes = [
    { screenRightCm: 0, nearCm: 0, widthCm: move.widthCm, depthCm: move.depthCm },
    ...marks,
  ];
  const most = (far: (box: (typeof boxes)[number]) => number) => Math.max(...boxes.map(far));
  return {
    screenLeftCm: most((b) => b.widthCm / 2 - b.screenRightCm),
    screenRightCm: most((b) => b.widthCm / 2 + b.screenRightCm),
    farCm: most((b) => b.depthCm / 2 - b.nearCm),
    nearCm: most((b) => b.depthCm / 2 + b.nearCm),
  };
}

const boxOf = (reach: Reach, heightCm: number): Footprint => ({
  widthCm: reach.screenLeftCm + reach.screenRightCm,
  depthCm: reach.farCm + reach.nearCm,
  heightCm,
});

/** The floor a block takes; null when it does not say. */
export function floorUse({
  id,
  title,
  footprint,
  floor,
  facing,
}: Pick<Block, 'id' | 'title' | 'footprint' | 'floor' | 'facing'>): FloorUse | null {
  if (!footprint && floor.length === 0) return null;
  const move = footprint ?? STANDING;
  const marks = floor.map((mark) => placed(mark, facing.performer, move));
  const reach = reachOf(move, marks);
  return { blockId: id, title, move, marks, reach, size: boxOf(reach, move.heightCm) };
}

/** A mark that, brought nearer to the performer by so much, makes the block fit. */
export interface Nearer {
  label: string;
  cm: number;
}

/**
 * The one mark to bring nearer so that the block fits the room; null when no single mark does it.
 */
export function nearerMark(use: FloorUse, room: Footprint): Nearer | null {
  const over = {
    screenRightCm: Math.max(0, use.size.widthCm - room.widthCm),
    nearCm: Math.max(0, use.size.depthCm - room.depthCm),
  };
  for (const mark of use.marks) {
    const closer = (axis: 'screenRightCm' | 'nearCm') =>
      mark[axis] - Math.sign(mark[axis]) * Math.min(over[axis], Math.abs(mark[axis]));
    const moved = use.marks.map((m) =>
      m === mark ? { ...m, screenRightCm: closer('screenRightCm'), nearCm: closer('nearCm') } : m,
    );
    const size = boxOf(reachOf(use.move, moved), use.move.heightCm);
    if (
      size.widthCm <= room.widthCm &&
      size.depthCm <= room.depthCm &&
      size.heightCm <= room.heightCm
    ) {
      return {
        label: mark.mark.label || mark.mark.kind,
        cm: Math.max(over.screenRightCm, over.nearCm),
      };
    }
  }
  return null;
}
