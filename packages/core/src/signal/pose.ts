/** Joints of a pose in the order the model gives them; sides are the performer's. */
export const joints = [
  'nose',
  'left eye',
  'right eye',
  'left ear',
  'right ear',
  'left shoulder',
  'right shoulder',
  'left elbow',
  'right elbow',
  'left wrist',
  'right wrist',
  'left hip',
  'right hip',
  'left knee',
  'right knee',
  'left ankle',
  'right ankle',
] as const;
export type Joint = (typeof joints)[number];

/**
 * Where a joint is on the picture: x to the right and y down, 0 to 1 inside, beyond where it is
 * guessed outside; score 0 to 1.
 */
export interface SeenJoint {
  x: number;
  y: number;
  score: number;
}
/** All joints, in the order of `joints`. */
export type SeenPose = readonly SeenJoint[];

/** Below this a joint is a guess. */
export const SURE_JOINT = 0.22;
/** With fewer sure joints than this nobody is there. */
const LEAST_JOINTS = 5;

/** A square of the picture the model looks at, in parts of the picture's width and height. */
export interface Crop {
  left: number;
  top: number;
  width: number;
  height: number;
}

export const sureJoints = (pose: SeenPose): SeenJoint[] =>
  pose.filter(({ score }) => score >= SURE_JOINT);
export const isSomebody = (pose: SeenPose): boolean => sureJoints(pose).length >= LEAST_JOINTS;

/** A part of the picture, in parts of its width and height. */
export interface Box {
  left: number;
  right: number;
  top: number;
  bottom: number;
}

/** The least box about places; there has to be one. */
export function boxAbout(places: readonly { x: number; y: number }[]): Box {
  const [xs, ys] = [places.map(({ x }) => x), places.map(({ y }) => y)];
  return {
    left: Math.min(...xs),
    right: Math.max(...xs),
    top: Math.min(...ys),
    bottom: Math.max(...ys),
  };
}

/** The whole picture as a square, the short side padded. `aspect` is width over height. */
export function wholeCrop(aspect: number): Crop {
  return aspect >= 1
    ? { left: 0, top: (1 - aspect) / 2, width: 1, height: aspect }
    : { left: (1 - 1 / aspect) / 2, top: 0, width: 1 / aspect, height: 1 };
}

/**
 * The square to look at next: about the performer, with room for where a limb may go; the whole
 * picture while nobody is seen. Following one performer keeps to that one when somebody walks by.
 */
export function nextCrop(pose: SeenPose | null, aspect: number): Crop {
  if (!pose || !isSomebody(pose)) return wholeCrop(aspect);
  const { left, right, top, bottom } = boxAbout(
    sureJoints(pose).map(({ x, y }) => ({ x: x * aspect, y })),
  );
  const middle = { x: (left + right) / 2, y: (top + bottom) / 2 };
  const side = Math.min(Math.max(1, aspect), 1.5 * Math.max(0.25, right - left, bottom - top));
  return {
    left: (middle.x - side / 2) / aspect,
    top: middle.y - side / 2,
    width: side / aspect,
    height: side,
  };
}

/**
 * The pose on the 16:9 frame its picture is fitted into.
 * @param aspect width over height of the picture
 */
export function onWideFrame(pose: SeenPose, aspect: number): SeenPose {
  const [across, down] = [Math.min(1, (aspect * 9) / 16), Math.min(1, 16 / 9 / aspect)];
  return pose.map(({ x, y, score }) => ({
    x: 0.5 + (x - 0.5) * across,
    y: 0.5 + (y - 0.5) * down,
    score,
  }));
}

/** Where a joint is surely seen; null when it is not. */
export function placeOfJoint(pose: SeenPose, joint: Joint): { x: number; y: number } | null {
  const seen = pose[joints.indexOf(joint)];
  return seen && seen.score >= SURE_JOINT ? { x: seen.x, y: seen.y } : null;
}

/**
 * The model's answer as a pose on the whole picture.
 * @param output 17 times y, x, score, within the crop
 */
export function poseFrom(output: ArrayLike<number>, crop: Crop): SeenPose {
  return joints.map((_, i) => ({
    x: crop.left + (output[3 * i + 1] ?? 0) * crop.width,
    y: crop.top + (output[3 * i] ?? 0) * crop.height,
    score: output[3 * i + 2] ?? 0,
  }));
}
