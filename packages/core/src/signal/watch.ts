import {
  isSomebody,
  joints,
  SURE_JOINT,
  type Box,
  type Joint,
  type SeenJoint,
  type SeenPose,
} from './pose.ts';

/** Room the coming move takes about the performer, in heights of the body. */
export interface MoveRoom {
  left: number;
  right: number;
  top: number;
}

/** What the performer is told while the camera frames on. */
export type FrameHint =
  'good' | 'nobody' | 'step back' | 'move left' | 'move right' | 'come closer';

/**
 * In body heights: nose to ankle, shoulder to hip, ankle above the floor (proportions of a drawn or
 * grown body, from memory).
 */
const NOSE_TO_ANKLE = 0.88;
const SHOULDER_TO_HIP = 0.3;
const HIP_HEIGHT = 0.53;
const ANKLE_HEIGHT = 0.04;
/** A performer smaller than this of the picture's height cannot be made out on a phone. */
const SMALLEST = 0.3;
/** Hints wait until something is wrong by so much of the picture, so that they do not flicker. */
const SLACK = 0.02;

const jointOf = (pose: SeenPose, joint: Joint): SeenJoint | undefined => {
  const seen = pose[joints.indexOf(joint)];
  return seen && seen.score >= SURE_JOINT ? seen : undefined;
};
function middleOf(pose: SeenPose, left: Joint, right: Joint): SeenJoint | undefined {
  const [a, b] = [jointOf(pose, left), jointOf(pose, right)];
  return a && b
    ? { x: (a.x + b.x) / 2, y: (a.y + b.y) / 2, score: Math.min(a.score, b.score) }
    : (a ?? b);
}

/**
 * The body as it stands: where its middle is, where the floor is, and how tall it would be upright,
 * in heights of the picture. Null when too little is seen.
 */
export function standing(pose: SeenPose): { x: number; floorY: number; height: number } | null {
  if (!isSomebody(pose)) return null;
  const [nose, shoulders, hips, ankles] = [
    jointOf(pose, 'nose'),
    middleOf(pose, 'left shoulder', 'right shoulder'),
    middleOf(pose, 'left hip', 'right hip'),
    middleOf(pose, 'left ankle', 'right ankle'),
  ];
  if (nose && ankles && ankles.y > nose.y) {
    const height = (ankles.y - nose.y) / NOSE_TO_ANKLE;
    return { x: (hips ?? nose).x, floorY: ankles.y + ANKLE_HEIGHT * height, height };
  }
  // Feet out of the picture, or behind something: the trunk tells the size.
  if (!shoulders || !hips || hips.y <= shoulders.y) return null;
  const height = (hips.y - shoulders.y) / SHOULDER_TO_HIP;
  return { x: hips.x, floorY: hips.y + HIP_HEIGHT * height, height };
}

/**
 * Whether the whole move will be in the picture from where the performer stands now, and if not,
 * which way to go. Left and right are the performer's own, facing the camera.
 * @param safe part of the picture that counts
 * @param aspect width over height
 */
export function frameHint(
  pose: SeenPose | null,
  room: MoveRoom,
  safe: number,
  aspect: number,
): FrameHint {
  const body = pose && standing(pose);
  if (!body) return 'nobody';
  const edge = (1 - safe) / 2;
  const box = {
    left: body.x - (room.left * body.height) / aspect,
    right: body.x + (room.right * body.height) / aspect,
    top: body.floorY - room.top * body.height,
    bottom: body.floorY,
  };
  const tooWide = box.right - box.left > safe + SLACK;
  const over = {
    left: edge - box.left,
    right: box.right - (1 - edge),
    top: edge - box.top,
    bottom: box.bottom - (1 - edge),
  };
  if (tooWide || over.top > SLACK || over.bottom > SLACK) return 'step back';
  // On the picture's left is the performer's right.
  if (over.left > SLACK) return 'move left';
  if (over.right > SLACK) return 'move right';
  return body.height < SMALLEST ? 'come closer' : 'good';
}

/** What is wrong with the light; null when nothing is. */
export const lightHints = ['too dark', 'too bright', 'light from behind'] as const;
export type LightHint = (typeof lightHints)[number];

const DARK = 55;
const BRIGHT = 225;
const BEHIND = 60;

/**
 * @param luma brightness of the picture, small, 0 to 255, row by row
 * @param width its width
 * @param body where the performer is, in parts of the picture; null when nobody is seen
 */
export function lightHint(luma: Uint8Array, width: number, body: Box | null): LightHint | null {
  const height = luma.length / width;
  const mean = { all: { sum: 0, n: 0 }, body: { sum: 0, n: 0 } };
  for (let y = 0; y < height; y += 1) {
    for (let x = 0; x < width; x += 1) {
      const value = luma[y * width + x] ?? 0;
      mean.all.sum += value;
      mean.all.n += 1;
      const [u, v] = [(x + 0.5) / width, (y + 0.5) / height];
      if (!body || u < body.left || u > body.right || v < body.top || v > body.bottom) continue;
      mean.body.sum += value;
      mean.body.n += 1;
    }
  }
  const all = mean.all.sum / Math.max(1, mean.all.n);
  const bodyMean = mean.body.n > 0 ? mean.body.sum / mean.body.n : all;
  const others =
    mean.all.n > mean.body.n ? (mean.all.sum - mean.body.sum) / (mean.all.n - mean.body.n) : all;
  if (bodyMean < DARK)
    return others - bodyMean > BEHIND && others > DARK * 2 ? 'light from behind' : 'too dark';
  if (others - bodyMean > BEHIND * 1.6) return 'light from behind';
  return bodyMean > BRIGHT ? 'too bright' : null;
}

export type SoundHint = 'silent' | 'too quiet' | 'good' | 'too loud' | 'wind';

const SILENT_DB = -56;
/**
 * Speech two metres away lies above the first; peaks near the ceiling above the second (common
 * practice).
 */
const GOOD_DB = { from: -36, to: -8 } as const;
const CLIPPED = 0.985;
/** Wind is a rumble far louder than the voice above it. */
const WIND_OVER_DB = 12;

/**
 * What is wrong with the sound of the last moments.
 * @param loudestDb the loudest short stretch, in dB under full scale
 * @param peak greatest sample, 0 to 1
 * @param rumbleDb power below 150 Hz, @param voiceDb power from 300 to 3,000 Hz, both in dB
 */
export function soundHint({
  loudestDb,
  peak,
  rumbleDb,
  voiceDb,
}: {
  loudestDb: number;
  peak: number;
  rumbleDb: number;
  voiceDb: number;
}): SoundHint {
  if (loudestDb < SILENT_DB) return 'silent';
  if (peak >= CLIPPED || loudestDb > GOOD_DB.to) return 'too loud';
  if (rumbleDb - voiceDb > WIND_OVER_DB && loudestDb > GOOD_DB.from - 10) return 'wind';
  return loudestDb < GOOD_DB.from ? 'too quiet' : 'good';
}

/** Waits until something has been so for a while before it is said. */
export function steady<T>(everyMs: number): (now: T, atMs: number) => T | null {
  let since = -Infinity;
  let seen: T | null = null;
  let said: T | null = null;
  return (now, atMs) => {
    if (now !== seen) [seen, since] = [now, atMs];
    if (atMs - since >= everyMs) said = now;
    return said;
  };
}
