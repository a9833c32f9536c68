/** A pinhole camera before the performer; lengths in centimetres, angles in degrees. */
export interface Pinhole {
  distanceCm: number;
  heightCm: number;
  /** To the right of the performer's place, as the camera sees it. */
  offsetCm: number;
  /** Up is above 0. */
  tiltDeg: number;
  verticalDeg: number;
}

/**
 * Where the performer's place lies on a picture: floor and middle in pixels, and the pixels of one
 * body height.
 */
export interface PlacedView {
  floorY: number;
  middleX: number;
  unit: number;
}

/** How the demo's own clips were drawn: the performer 0.62 of the picture tall. */
export function plainView(width: number, height: number): PlacedView {
  return { floorY: height * 0.86, middleX: width / 2, unit: height * 0.62 };
}

/**
 * The performer's place as a pinhole camera sees it: similar triangles along the axis, turned by
 * the tilt.
 */
export function pinholeView(
  camera: Pinhole,
  performerCm: number,
  width: number,
  height: number,
): PlacedView {
  const focalPx = height / 2 / Math.tan((camera.verticalDeg * Math.PI) / 360);
  const tilt = (camera.tiltDeg * Math.PI) / 180;
  /** A point straight above the performer's place, in pixels from the top. */
  const rowOf = (upCm: number) => {
    const angle = Math.atan2(upCm - camera.heightCm, camera.distanceCm) - tilt;
    return height / 2 - focalPx * Math.tan(angle);
  };
  const floorY = rowOf(0);
  const pxPerCm = (floorY - rowOf(performerCm)) / performerCm;
  return { floorY, middleX: width / 2 - camera.offsetCm * pxPerCm, unit: pxPerCm * performerCm };
}
