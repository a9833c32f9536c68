import type { Block, Filming, Shot, ShotAngle } from '../lesson/index.ts';
import { bodyRoom, type BodyRoom } from './body-room.ts';
import {
  angleOfView,
  lensPresets,
  project,
  radiansOf,
  type Camera,
  type RoomPoint,
} from './optics.ts';

/**
 * Part of the picture that counts as safe: EBU R 95 and SMPTE ST 2046-1 keep 93 % for action and 90
 * % for graphics.
 */
export const SAFE_PART: Record<Filming['safe'], number> = { whole: 1, action: 0.93, graphics: 0.9 };
/** A camera stands at least this far from what it films. */
const NEAREST_CM = 30;
const FARTHEST_CM = 6_000;
const longestFirst = [...lensPresets].sort((a, b) => b.lensMm - a.lensMm);
/** Room behind the camera for its stand. */
const STAND_CM = 20;
const LOWEST_CM = 20;

/**
 * Where the camera goes and what it then sees; lengths in centimetres from the performer's place.
 */
export interface Placing {
  camera: Camera;
  /** Its lens: as it was chosen, or what shows it all from a distance that is set. */
  lensMm: number;
  /** Floor in the safe part of the picture, at the performer's place. */
  floorWidthCm: number;
  /** Tape on the floor: how far the performer may go each way and still be seen whole. */
  tape: { leftCm: number; rightCm: number; nearCm: number };
  /** Depth of the room from the far end of the move to behind the camera. */
  depthCm: number;
}

export type Remedy =
  | { kind: 'turn-phone'; orientation: Filming['orientation']; placing: Placing }
  | { kind: 'wider-lens'; lensMm: number; placing: Placing }
  | { kind: 'turn-move'; angle: ShotAngle; placing: Placing }
  | { kind: 'smaller-travel'; percent: number; placing: Placing }
  | { kind: 'any-distance'; placing: Placing };

export interface Framing {
  /** What has to be in the picture. */
  room: BodyRoom;
  /** Null when no distance up to 60 m shows it all, or no lens does from where it has to stand. */
  placing: Placing | null;
  /**
   * By how much the filming room is too small; 0 where it is enough, null where it is not known.
   */
  missing: { depthCm: number | null; widthCm: number | null; heightCm: number | null };
  /** What would make it fit the room, each by itself. */
  remedies: Remedy[];
}

type Setup = Pick<Filming, 'lensMm' | 'orientation' | 'safe' | 'cameraCm' | 'awayCm'>;

function corners({ leftCm, rightCm, bottomCm, topCm, nearCm, farCm }: BodyRoom): RoomPoint[] {
  return [-leftCm, rightCm].flatMap((right) =>
    [bottomCm, topCm].flatMap((up) =>
      [nearCm, -farCm].map((near) => ({ rightCm: right, upCm: up, nearCm: near })),
    ),
  );
}

/**
 * The camera at that distance, aimed so that what is highest and lowest lies equally far from the
 * middle.
 */
function aimed(room: BodyRoom, distanceCm: number, setup: Setup): Camera {
  const heightCm =
    setup.cameraCm ?? Math.max(LOWEST_CM, Math.round((room.bottomCm + room.topCm) / 2));
  const elevations = corners(room).map(({ upCm, nearCm }) =>
    Math.atan2(upCm - heightCm, distanceCm - nearCm),
  );
  const tiltDeg = ((Math.max(...elevations) + Math.min(...elevations)) / 2) * (180 / Math.PI);
  return {
    ...angleOfView(setup.lensMm, setup.orientation),
    distanceCm,
    heightCm,
    offsetCm: (room.rightCm - room.leftCm) / 2,
    tiltDeg,
  };
}

/** Whether all of the room lies in the safe part of the picture. */
export function showsAll(camera: Camera, room: BodyRoom, safe: Filming['safe']): boolean {
  const edge = SAFE_PART[safe] + 1e-9;
  return corners(room).every((point) => {
    const seen = project(camera, point);
    return seen !== null && Math.abs(seen.x) <= edge && Math.abs(seen.y) <= edge;
  });
}

/**
 * The first whole number from `low` to `high` that passes, of a test that goes on passing; null
 * when none does.
 */
function firstPassing(low: number, high: number, passes: (n: number) => boolean): number | null {
  if (!passes(high)) return null;
  let [from, to] = [low, high];
  while (from < to) {
    const middle = Math.floor((from + to) / 2);
    if (passes(middle)) to = middle;
    else from = middle + 1;
  }
  return to;
}

/** How near the camera the performer may come and still be seen from bottom to top. */
function nearestCm(camera: Camera, room: BodyRoom, safe: Filming['safe']): number {
  const isSeen = (nearCm: number) =>
    showsAll(camera, { ...room, leftCm: 0, rightCm: 0, nearCm, farCm: -nearCm }, safe);
  const last = Math.floor(camera.distanceCm) - NEAREST_CM;
  const gone = firstPassing(0, Math.max(0, last), (nearCm) => !isSeen(nearCm));
  return Math.max(0, (gone ?? last + 1) - 1);
}

/** As near as the lens lets it stand. */
function nearestPlace(room: BodyRoom, setup: Setup): Placing | null {
  const from = Math.ceil(room.nearCm) + NEAREST_CM;
  const distanceCm = firstPassing(from, FARTHEST_CM, (cm) =>
    showsAll(aimed(room, cm, setup), room, setup.safe),
  );
  return distanceCm === null ? null : placingAt(room, distanceCm, setup);
}

/** At a distance that is set, with the longest of the usual lenses that shows it all from there. */
function placeAt(room: BodyRoom, distanceCm: number, setup: Setup): Placing | null {
  if (distanceCm < room.nearCm + NEAREST_CM) return null;
  const lens = longestFirst.find(({ lensMm }) =>
    showsAll(aimed(room, distanceCm, { ...setup, lensMm }), room, setup.safe),
  );
  return lens ? placingAt(room, distanceCm, { ...setup, lensMm: lens.lensMm }) : null;
}

const place = (room: BodyRoom, setup: Setup): Placing | null =>
  setup.awayCm === undefined ? nearestPlace(room, setup) : placeAt(room, setup.awayCm, setup);

/** What is seen of the floor, and where the tape goes, from a place of the camera. */
function placingAt(room: BodyRoom, distanceCm: number, setup: Setup): Placing {
  const camera = aimed(room, distanceCm, setup);
  const tilt = radiansOf(camera.tiltDeg);
  const depthToFloor = distanceCm * Math.cos(tilt) - camera.heightCm * Math.sin(tilt);
  const half = depthToFloor * Math.tan(radiansOf(camera.horizontalDeg / 2)) * SAFE_PART[setup.safe];
  return {
    camera,
    lensMm: setup.lensMm,
    floorWidthCm: Math.floor(2 * half),
    tape: {
      leftCm: Math.floor(half - camera.offsetCm),
      rightCm: Math.floor(half + camera.offsetCm),
      nearCm: nearestCm(camera, room, setup.safe),
    },
    depthCm: Math.ceil(distanceCm + room.farCm + STAND_CM),
  };
}

const turned: Record<ShotAngle, ShotAngle> = {
  front: 'left side',
  back: 'right side',
  'left side': 'front',
  'right side': 'front',
};

/** The block with its marks brought nearer to the performer. */
function closer(block: Block, percent: number): Block {
  const nearer = (cm: number) => Math.round((cm * percent) / 100);
  return {
    ...block,
    floor: block.floor.map((mark) => ({
      ...mark,
      rightCm: nearer(mark.rightCm),
      forwardCm: nearer(mark.forwardCm),
    })),
  };
}

/** Lenses to try instead, the longest first; none where the lens follows the distance. */
const widerLenses = ({ lensMm, awayCm }: Filming) =>
  awayCm === undefined ? longestFirst.filter((lens) => lens.lensMm < lensMm) : [];

function remediesFor(block: Block, shot: Shot, filming: Filming, depthCm: number): Remedy[] {
  const fits = (placing: Placing | null): placing is Placing =>
    placing !== null && placing.depthCm <= depthCm;
  const room = bodyRoom(block, shot, filming.performerCm);
  const remedies: Remedy[] = [];
  const orientation = filming.orientation === 'landscape' ? 'portrait' : 'landscape';
  const upright = place(room, { ...filming, orientation });
  if (fits(upright)) remedies.push({ kind: 'turn-phone', orientation, placing: upright });
  if (filming.awayCm !== undefined) {
    const free = nearestPlace(room, filming);
    if (fits(free)) remedies.push({ kind: 'any-distance', placing: free });
  }
  for (const { lensMm } of widerLenses(filming)) {
    const wider = place(room, { ...filming, lensMm });
    if (!fits(wider)) continue;
    remedies.push({ kind: 'wider-lens', lensMm, placing: wider });
    break;
  }
  const angle = turned[shot.angle];
  const side = place(bodyRoom(block, { ...shot, angle }, filming.performerCm), filming);
  if (fits(side)) remedies.push({ kind: 'turn-move', angle, placing: side });
  if (block.floor.length > 0 && shot.framing === 'whole body') {
    const at = (percent: number) =>
      place(bodyRoom(closer(block, percent), shot, filming.performerCm), filming);
    const most = firstPassing(0, 100, (less) => fits(at(100 - less)));
    const smaller = most === null ? null : at(100 - most);
    if (most !== null && smaller)
      remedies.push({ kind: 'smaller-travel', percent: 100 - most, placing: smaller });
  }
  return remedies;
}

/**
 * Where the camera goes for a shot, where the tape goes, whether the room is enough and what to
 * change if it is not.
 */
export function frameShot(block: Block, shot: Shot, filming: Filming): Framing {
  const room = bodyRoom(block, shot, filming.performerCm);
  const placing = place(room, filming);
  const filmedIn = filming.room;
  const missing = {
    depthCm: filmedIn && placing ? Math.max(0, placing.depthCm - filmedIn.depthCm) : null,
    widthCm: filmedIn
      ? Math.max(0, Math.ceil(room.leftCm + room.rightCm) - filmedIn.widthCm)
      : null,
    heightCm: filmedIn ? Math.max(0, Math.ceil(room.topCm) - filmedIn.heightCm) : null,
  };
  // From a distance that is set a lens may be missing in any room.
  const isTooShort =
    (placing === null && (filmedIn !== null || filming.awayCm !== undefined)) ||
    (missing.depthCm ?? 0) > 0;
  return {
    room,
    placing,
    missing,
    remedies: isTooShort ? remediesFor(block, shot, filming, filmedIn?.depthCm ?? Infinity) : [],
  };
}

const LANDSCAPE = 16 / 9;

/**
 * Where the framing plan has the performer and the move in a 16:9 frame, in thousandths of it; an
 * upright picture stands in its middle. Null where no camera place shows the move.
 */
export function performerInFrame(
  block: Block,
  shot: Shot,
  filming: Filming,
): { x: number; y: number; width: number; height: number } | null {
  const room = bodyRoom(block, shot, filming.performerCm);
  const camera = place(room, filming)?.camera;
  if (!camera) return null;
  const seen = [-room.leftCm, room.rightCm].flatMap((rightCm) =>
    [room.bottomCm, room.topCm].flatMap(
      (upCm) => project(camera, { rightCm, upCm, nearCm: 0 }) ?? [],
    ),
  );
  const across = filming.orientation === 'portrait' ? 1 / (LANDSCAPE * LANDSCAPE) : 1;
  const [xs, ys] = [
    seen.map(({ x }) => 500 * (1 + x * across)),
    seen.map(({ y }) => 500 * (1 - y)),
  ];
  const [left, top] = [Math.max(0, Math.min(...xs)), Math.max(0, Math.min(...ys))];
  return {
    x: Math.round(left),
    y: Math.round(top),
    width: Math.round(Math.min(1_000, Math.max(...xs)) - left),
    height: Math.round(Math.min(1_000, Math.max(...ys)) - top),
  };
}
