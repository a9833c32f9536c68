import type { Filming } from '../lesson/index.ts';

/** Width of the picture that focal lengths are given for, in millimetres. */
const FRAME_MM = 36;
/** Every picture here is 16:9, upright or lying. */
export const LONG_BY_SHORT = 16 / 9;

const degrees = (radians: number) => (radians * 180) / Math.PI;
export const radiansOf = (deg: number) => (deg * Math.PI) / 180;

export interface AngleOfView {
  horizontalDeg: number;
  verticalDeg: number;
}

/**
 * Angle of view of a 16:9 picture: 2 atan(w / 2f), the long side counted as 36 mm.
 * @param lensMm focal length, 35 mm equivalent
 */
export function angleOfView(lensMm: number, orientation: Filming['orientation']): AngleOfView {
  const long = degrees(2 * Math.atan(FRAME_MM / (2 * lensMm)));
  const short = degrees(2 * Math.atan(FRAME_MM / LONG_BY_SHORT / (2 * lensMm)));
  return orientation === 'landscape'
    ? { horizontalDeg: long, verticalDeg: short }
    : { horizontalDeg: short, verticalDeg: long };
}

/**
 * The focal length (35 mm equivalent) that shows a thing of `thingCm`, `distanceCm` away and facing
 * the camera, along `part` of the picture's long side.
 * @throws RangeError when a length is not above 0 or the part not above 0 and at most 1
 */
export function lensFrom(thingCm: number, distanceCm: number, part: number): number {
  if (!(thingCm > 0 && distanceCm > 0))
    throw new RangeError('The size of the thing and its distance have to be more than 0 cm.');
  if (!(part > 0 && part <= 1))
    throw new RangeError(
      'The thing has to take more than none and at most all of the picture’s long side.',
    );
  return (FRAME_MM * distanceCm * part) / thingCm;
}

/**
 * A camera over the floor: `distanceCm` in front of the performer's place, looking at it, tilted up
 * by `tiltDeg`.
 */
export interface Camera extends AngleOfView {
  distanceCm: number;
  heightCm: number;
  /** To the right of the performer's place, as the camera sees it. */
  offsetCm: number;
  tiltDeg: number;
}

/**
 * A point of the room in centimetres: right as the camera sees it, up from the floor, towards the
 * camera from the performer's place.
 */
export interface RoomPoint {
  rightCm: number;
  upCm: number;
  nearCm: number;
}

/**
 * Where a point falls on the picture: 0, 0 is the middle, ±1 the edges, right and up. Null behind
 * the camera.
 */
export function project(
  camera: Camera,
  { rightCm, upCm, nearCm }: RoomPoint,
): { x: number; y: number } | null {
  const tilt = radiansOf(camera.tiltDeg);
  const ahead = camera.distanceCm - nearCm;
  const above = upCm - camera.heightCm;
  const depth = ahead * Math.cos(tilt) + above * Math.sin(tilt);
  if (depth <= 0) return null;
  const high = above * Math.cos(tilt) - ahead * Math.sin(tilt);
  return {
    x: (rightCm - camera.offsetCm) / (depth * Math.tan(radiansOf(camera.horizontalDeg / 2))),
    y: high / (depth * Math.tan(radiansOf(camera.verticalDeg / 2))),
  };
}

/** Lenses people have (rounded equivalents; common practice). */
export const lensPresets = [
  { lensMm: 13, word: 'lens.ultra-wide' },
  { lensMm: 24, word: 'lens.main-newer' },
  { lensMm: 26, word: 'lens.main' },
  { lensMm: 28, word: 'lens.main-older' },
  { lensMm: 30, word: 'lens.laptop' },
  { lensMm: 52, word: 'lens.two-times' },
] as const;
