import type { Movement } from '@zest/core/lesson';

/** A point in body heights: x to the viewer's right, y up from the floor. */
export interface Point {
  x: number;
  y: number;
}

/** Where the joints' ends are; elbows and knees follow from them. Sides are the performer's. */
export interface Pose {
  pelvis: Point;
  /** Lean of the trunk to the viewer's right, in radians. */
  lean: number;
  hands: { left: Point; right: Point };
  feet: { left: Point; right: Point };
  /** 0 closed to 1 open. */
  mouth: number;
  prop:
    | { kind: 'none' }
    | { kind: 'rope'; /** Turn of the rope, 0 to 1, 0 under the feet. */ turn: number }
    | { kind: 'disc'; at: Point; tilt: number }
    | { kind: 'band' };
  seated: boolean;
  /** The arms this performer has. */
  arms: 'both' | 'left';
  /** How wide the body is seen: 1 from the front, less from the side. */
  width: number;
  /** Where the performer stands, to the viewer's right of the place. */
  at: number;
}

const TAU = Math.PI * 2;
const wave = (turn: number) => Math.sin(turn * TAU);
/** 0 to 1 and back over a turn, smooth at both ends. */
const swing = (turn: number) => (1 - Math.cos(turn * TAU)) / 2;
const mix = (a: number, b: number, part: number) => a + (b - a) * part;

/** Seconds one repetition takes. Rope skipping about 100 a minute. */
export const PERIOD_S: Record<Movement, number> = {
  other: 4,
  'skip-rope': 0.6,
  'disc-throw': 2.5,
  'seated-pull': 2,
  'one-leg-balance': 8,
  'step-and-reach': 4,
  squat: 2.5,
};

const standing: Pose = {
  pelvis: { x: 0, y: 0.52 },
  lean: 0,
  // Facing the viewer: the performer's left is on the viewer's right.
  hands: { left: { x: 0.2, y: 0.46 }, right: { x: -0.2, y: 0.46 } },
  feet: { left: { x: 0.09, y: 0 }, right: { x: -0.09, y: 0 } },
  mouth: 0,
  prop: { kind: 'none' },
  seated: false,
  arms: 'both',
  width: 1,
  at: 0,
};

const poses: Record<Movement, (turn: number, seconds: number) => Pose> = {
  other: (turn, seconds) => ({
    ...standing,
    lean: 0.02 * wave(turn),
    hands: {
      left: { x: 0.24 + 0.05 * wave(seconds * 0.7), y: 0.58 + 0.07 * wave(seconds * 0.9) },
      right: {
        x: -0.22 + 0.04 * wave(seconds * 0.6 + 0.3),
        y: 0.56 + 0.06 * wave(seconds * 0.8 + 0.4),
      },
    },
  }),
  'skip-rope': (turn) => {
    // A repetition begins and ends on the ground, the rope overhead.
    const ropeTurn = turn + 0.5;
    const hop = 0.07 * Math.max(0, Math.cos(ropeTurn * TAU));
    const circle = { x: 0.02 * wave(ropeTurn), y: 0.02 * Math.cos(ropeTurn * TAU) };
    return {
      ...standing,
      pelvis: { x: 0, y: 0.5 + hop },
      hands: {
        left: { x: 0.29 + circle.x, y: 0.5 + hop * 0.5 + circle.y },
        right: { x: -0.29 - circle.x, y: 0.5 + hop * 0.5 + circle.y },
      },
      feet: { left: { x: 0.05, y: hop }, right: { x: -0.05, y: hop } },
      prop: { kind: 'rope', turn: ropeTurn % 1 },
    };
  },
  'disc-throw': (turn) => {
    const back = swing(Math.min(1, turn / 0.45) / 2);
    const out = turn < 0.45 ? 0 : Math.min(1, (turn - 0.45) / 0.12);
    const home = turn < 0.75 ? 0 : (turn - 0.75) / 0.25;
    const reach = mix(mix(-0.12, 0.22, back) * (1 - out) + -0.48 * out, -0.12, home);
    const hand = { x: reach, y: 0.68 + 0.05 * out * (1 - home) };
    const flown = turn < 0.57 ? 0 : (turn - 0.57) / 0.43;
    return {
      ...standing,
      pelvis: { x: mix(0.05, -0.05, out * (1 - home)), y: 0.5 },
      lean: mix(0.08 * back, -0.1, out) * (1 - home),
      hands: { left: { x: 0.3, y: 0.52 }, right: hand },
      feet: { left: { x: 0.14, y: 0 }, right: { x: -0.14 - 0.08 * out * (1 - home), y: 0 } },
      prop: {
        kind: 'disc',
        at: flown > 0 ? { x: -0.48 - 2.2 * flown, y: 0.73 + 0.12 * wave(flown / 2) } : hand,
        tilt: 0.06,
      },
    };
  },
  'seated-pull': (turn) => {
    const pull = swing(turn);
    return {
      ...standing,
      pelvis: { x: 0, y: 0.3 },
      lean: 0,
      hands: {
        left: { x: mix(0.08, 0.33, pull), y: mix(0.47, 0.49, pull) },
        right: { x: mix(-0.08, -0.33, pull), y: mix(0.47, 0.49, pull) },
      },
      feet: { left: { x: 0.13, y: 0 }, right: { x: -0.13, y: 0 } },
      prop: { kind: 'band' },
      seated: true,
    };
  },
  'one-leg-balance': (turn, seconds) => {
    const up = Math.min(1, swing(turn) * 1.6);
    const sway = 0.012 * wave(seconds * 0.9) * up;
    return {
      ...standing,
      pelvis: { x: -0.06 * up + sway, y: 0.52 },
      lean: sway * 2,
      hands: {
        left: { x: mix(0.2, 0.42, up), y: mix(0.46, 0.74, up) + sway },
        right: { x: mix(-0.2, -0.42, up), y: mix(0.46, 0.74, up) - sway },
      },
      feet: { left: { x: mix(0.09, 0.02, up), y: 0.24 * up }, right: { x: -0.07, y: 0 } },
    };
  },
  'step-and-reach': (turn) => {
    const toLeft = turn < 0.5;
    const part = swing((turn * 2) % 1);
    const side = toLeft ? 1 : -1;
    return {
      ...standing,
      pelvis: { x: 0.12 * part * side, y: 0.52 - 0.04 * part },
      lean: 0.12 * part * side,
      hands: {
        left: toLeft ? { x: mix(0.2, 0.42, part), y: mix(0.46, 1.08, part) } : standing.hands.left,
        right: toLeft
          ? standing.hands.right
          : { x: mix(-0.2, -0.42, part), y: mix(0.46, 1.08, part) },
      },
      feet: {
        left: { x: 0.09 + (toLeft ? 0.2 * part : 0), y: 0 },
        right: { x: -0.09 - (toLeft ? 0 : 0.2 * part), y: 0 },
      },
    };
  },
  squat: (turn) => {
    const down = swing(turn);
    return {
      ...standing,
      pelvis: { x: 0, y: mix(0.52, 0.31, down) },
      hands: {
        left: { x: mix(0.2, 0.26, down), y: mix(0.46, 0.62, down) },
        right: { x: mix(-0.2, -0.26, down), y: mix(0.46, 0.62, down) },
      },
      feet: { left: { x: 0.15, y: 0 }, right: { x: -0.15, y: 0 } },
    };
  },
};

/**
 * The performer's pose at `seconds` into the movement.
 * @param periodS seconds of one repetition; the movement's usual one when left out
 * @param speech loudness of the voice, 0 to 1, which opens the mouth
 */
export function poseAt(
  movement: Movement,
  seconds: number,
  periodS = PERIOD_S[movement],
  speech = 0,
): Pose {
  const turn = (((seconds / periodS) % 1) + 1) % 1;
  return { ...poses[movement](turn, seconds), mouth: speech };
}
