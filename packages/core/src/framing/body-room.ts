import { floorUse } from '../ledger/index.ts';
import {
  exercisesOf,
  type Block,
  type Extent,
  type Movement,
  type Shot,
  type ShotAngle,
} from '../lesson/index.ts';

/** What the drawn movements do to the room a body takes. */
const USUAL: Record<Movement, readonly Extent[]> = {
  other: [],
  'skip-rope': ['overhead', 'jump'],
  'disc-throw': ['throw'],
  'seated-pull': ['seated'],
  'one-leg-balance': [],
  'step-and-reach': ['overhead'],
  squat: [],
};

/**
 * How the block's moves fill the picture: as the teacher says, else as its exercises usually do.
 */
export function extentOf(block: Block): readonly Extent[] {
  return (
    block.extent ?? [...new Set(exercisesOf(block).flatMap(({ movement }) => USUAL[movement]))]
  );
}

/**
 * In body heights. Arm span about equal to height and overhead reach 1.25 of it: common practice;
 * the others are ours, on the safe side.
 */
const OF_HEIGHT = {
  overhead: 1.25,
  jump: 0.25,
  lyingTop: 0.4,
  lyingLong: 1.25,
  seatedTop: 0.78,
  armSpan: 1,
  armsDown: 0.5,
  throwWide: 1.3,
  deep: 0.4,
} as const;

/**
 * The room in the picture that has to be seen: as the camera sees it, in centimetres from the
 * performer's place on the floor.
 */
export interface BodyRoom {
  leftCm: number;
  rightCm: number;
  bottomCm: number;
  topCm: number;
  nearCm: number;
  farCm: number;
}

const facings: Record<ShotAngle, Block['facing']['performer']> = {
  front: 'camera',
  'left side': 'left side on',
  'right side': 'right side on',
  back: 'away',
};
const angles = Object.fromEntries(
  Object.entries(facings).map(([angle, facing]) => [facing, angle]),
) as Record<Block['facing']['performer'], ShotAngle>;

/** The angle the performer shows in the block. */
export const usualAngle = (block: Block): ShotAngle => angles[block.facing.performer];

const isSideOn = (angle: ShotAngle) => angle === 'left side' || angle === 'right side';

/** Room of the body itself, seen from that angle. */
function bodyBox(extents: ReadonlySet<Extent>, moves: boolean, angle: ShotAngle, heightCm: number) {
  const over = extents.has('overhead') ? OF_HEIGHT.overhead - 1 : 0;
  const hop = extents.has('jump') ? OF_HEIGHT.jump : 0;
  const base = extents.has('lying')
    ? OF_HEIGHT.lyingTop
    : extents.has('seated')
      ? OF_HEIGHT.seatedTop
      : 1;
  const across = extents.has('lying')
    ? OF_HEIGHT.lyingLong
    : extents.has('throw')
      ? OF_HEIGHT.throwWide
      : moves
        ? OF_HEIGHT.armSpan
        : OF_HEIGHT.armsDown;
  const [wide, deep] = isSideOn(angle) ? [OF_HEIGHT.deep, across] : [across, OF_HEIGHT.deep];
  // A throw goes off to the side of the throwing arm; lying down, a body is seen at its full length
  // from the front.
  return {
    wideCm: wide * heightCm,
    deepCm: deep * heightCm,
    topCm: (base + over + hop) * heightCm,
  };
}

/**
 * The block turned so that the camera sees it from that angle; what it takes sideways and in depth
 * changes places.
 */
function turnedTo(block: Block, angle: ShotAngle): Block {
  const isTurned = isSideOn(angle) !== isSideOn(usualAngle(block));
  const { footprint } = block;
  return {
    ...block,
    facing: { ...block.facing, performer: facings[angle] },
    footprint:
      footprint && isTurned
        ? { ...footprint, widthCm: footprint.depthCm, depthCm: footprint.widthCm }
        : footprint,
  };
}

/** Performers beside each other stand an arm span apart (common practice). */
function beside(performers: number, heightCm: number): number {
  return ((performers - 1) * heightCm) / 2;
}

/**
 * What one shot of a block has to show.
 * @param performerCm height of the (tallest) performer
 */
export function bodyRoom(
  block: Block,
  shot: Pick<Shot, 'angle' | 'framing' | 'performers'>,
  performerCm: number,
): BodyRoom {
  const moves = exercisesOf(block).length > 0 || block.kind === 'called';
  const extents = new Set(extentOf(block));
  const body = bodyBox(extents, moves, shot.angle, performerCm);
  const more = beside(shot.performers, performerCm);
  const half = body.wideCm / 2 + more;
  switch (shot.framing) {
    case 'hands':
      return {
        leftCm: 0.25 * performerCm + more,
        rightCm: 0.25 * performerCm + more,
        bottomCm: 0.4 * performerCm,
        topCm: 0.75 * performerCm,
        nearCm: 0.2 * performerCm,
        farCm: 0.2 * performerCm,
      };
    case 'feet':
      return {
        leftCm: 0.25 * performerCm + more,
        rightCm: 0.25 * performerCm + more,
        bottomCm: 0,
        topCm: 0.35 * performerCm,
        nearCm: 0.2 * performerCm,
        farCm: 0.2 * performerCm,
      };
    case 'waist up':
      return {
        leftCm: half,
        rightCm: half,
        bottomCm: 0.5 * performerCm,
        topCm: Math.max(body.topCm, performerCm),
        nearCm: body.deepCm / 2,
        farCm: body.deepCm / 2,
      };
    case 'whole body': {
      const use = floorUse(turnedTo(block, shot.angle));
      return {
        leftCm: Math.max(half, use?.reach.screenLeftCm ?? 0),
        rightCm: Math.max(half, use?.reach.screenRightCm ?? 0),
        bottomCm: 0,
        topCm: body.topCm,
        nearCm: Math.max(body.deepCm / 2, use?.reach.nearCm ?? 0),
        farCm: Math.max(body.deepCm / 2, use?.reach.farCm ?? 0),
      };
    }
  }
}
