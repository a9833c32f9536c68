import { chance, PERIOD_S, poseAt, type Pose } from '../index.ts';

/** What the proof clips show; two of them hold no repetition. */
export const exercises = [
  'squat',
  'skip-rope',
  'seated-pull',
  'disc-throw',
  'step-and-reach',
  'star-jump',
  'overhead-reach',
  'knee-lift',
  'side-lunge',
  'bridge',
  'push-up',
  'one-leg-balance',
  'talk',
  'arm-circle',
  'bounce',
  'sit-to-stand',
] as const;
export type Exercise = (typeof exercises)[number];

export interface Movement {
  /** Usual seconds of one repetition. */
  periodS: number;
  /** Repetitions of one turn: those done left and right in turn have two. */
  repsPerTurn: 0 | 1 | 2;
  /** The pose at a part of the turn, 0 to 1; `seconds` for what sways by itself. */
  pose: (turn: number, seconds: number) => Pose;
}

const TAU = Math.PI * 2;
const swing = (turn: number) => (1 - Math.cos(turn * TAU)) / 2;
const mix = (a: number, b: number, part: number) => a + (b - a) * part;
/** Between -1 and 1, without a beat: it runs from one chance value to the next. */
function wobble(seconds: number, salt: number): number {
  const at = seconds * 1.7;
  const [a, b] = [chance(Math.floor(at) * 7 + salt), chance((Math.floor(at) + 1) * 7 + salt)];
  return 2 * (a + (b - a) * swing((at % 1) / 2)) - 1;
}
const standing = poseAt('squat', 0, 1);

/** Left in the first half of the turn, right in the second. */
const inTurn = (
  turn: number,
  pose: (part: number, side: 'left' | 'right', sign: 1 | -1) => Pose,
) => (turn < 0.5 ? pose(swing(turn * 2), 'left', 1) : pose(swing(turn * 2 - 1), 'right', -1));
/** On the floor, seen from the side: head to the viewer's right. */
const LYING = { width: 0.15, at: 0 } as const;

const drawn = (
  movement: Exclude<keyof typeof PERIOD_S, 'other'>,
  repsPerTurn: 0 | 1 | 2,
): Movement => ({
  periodS: PERIOD_S[movement],
  repsPerTurn,
  pose: (turn, seconds) =>
    repsPerTurn === 0 ? poseAt(movement, seconds) : poseAt(movement, turn, 1),
});

export const movements: Record<Exercise, Movement> = {
  squat: drawn('squat', 1),
  'skip-rope': drawn('skip-rope', 1),
  'seated-pull': drawn('seated-pull', 1),
  'disc-throw': drawn('disc-throw', 1),
  'step-and-reach': drawn('step-and-reach', 2),
  'star-jump': {
    periodS: 1.2,
    repsPerTurn: 1,
    pose: (turn) => {
      const out = swing(turn);
      const hop = 0.03 * swing(turn * 2);
      return {
        ...standing,
        pelvis: { x: 0, y: 0.52 - 0.04 * out + hop },
        hands: {
          left: { x: mix(0.2, 0.24, out) + 0.2 * Math.sin(Math.PI * out), y: mix(0.46, 1.12, out) },
          right: {
            x: mix(-0.2, -0.24, out) - 0.2 * Math.sin(Math.PI * out),
            y: mix(0.46, 1.12, out),
          },
        },
        feet: {
          left: { x: mix(0.06, 0.24, out), y: hop },
          right: { x: mix(-0.06, -0.24, out), y: hop },
        },
      };
    },
  },
  'overhead-reach': {
    periodS: 3,
    repsPerTurn: 1,
    pose: (turn) => {
      const up = swing(turn);
      return {
        ...standing,
        hands: {
          left: { x: mix(0.17, 0.12, up), y: mix(0.46, 1.14, up) },
          right: { x: mix(-0.17, -0.12, up), y: mix(0.46, 1.14, up) },
        },
      };
    },
  },
  'knee-lift': {
    periodS: 2,
    repsPerTurn: 2,
    pose: (turn) =>
      inTurn(turn, (part, side) => ({
        ...standing,
        hands: {
          left: { x: 0.2, y: side === 'right' ? mix(0.46, 0.7, part) : 0.46 },
          right: { x: -0.2, y: side === 'left' ? mix(0.46, 0.7, part) : 0.46 },
        },
        feet: {
          left: { x: 0.08, y: side === 'left' ? 0.3 * part : 0 },
          right: { x: -0.08, y: side === 'right' ? 0.3 * part : 0 },
        },
      })),
  },
  'side-lunge': {
    periodS: 5,
    repsPerTurn: 2,
    pose: (turn) =>
      inTurn(turn, (part, side, sign) => ({
        ...standing,
        pelvis: { x: 0.14 * part * sign, y: mix(0.52, 0.36, part) },
        lean: 0.15 * part * sign,
        hands: {
          left: { x: 0.12 + 0.12 * part * sign, y: mix(0.46, 0.55, part) },
          right: { x: -0.12 + 0.12 * part * sign, y: mix(0.46, 0.55, part) },
        },
        feet: {
          left: { x: side === 'left' ? mix(0.09, 0.3, part) : 0.09, y: 0 },
          right: { x: side === 'right' ? mix(-0.09, -0.3, part) : -0.09, y: 0 },
        },
      })),
  },
  bridge: {
    periodS: 3,
    repsPerTurn: 1,
    pose: (turn) => {
      const pelvis = { x: 0, y: mix(0.07, 0.24, swing(turn)) };
      const lean = Math.PI / 2 + Math.asin((pelvis.y - 0.06) / 0.3);
      return {
        ...standing,
        ...LYING,
        pelvis,
        lean,
        hands: { left: { x: 0.05, y: 0.03 }, right: { x: 0.05, y: 0.03 } },
        feet: { left: { x: -0.27, y: 0 }, right: { x: -0.27, y: 0 } },
      };
    },
  },
  'push-up': {
    periodS: 2.4,
    repsPerTurn: 1,
    pose: (turn) => {
      const shoulder = mix(0.37, 0.14, swing(turn));
      const pelvis = { x: 0, y: 0.04 + (shoulder - 0.04) * 0.62 };
      const lean = Math.PI / 2 - Math.asin(Math.min(1, (shoulder - pelvis.y) / 0.3));
      return {
        ...standing,
        ...LYING,
        pelvis,
        lean,
        hands: { left: { x: 0.28, y: 0.02 }, right: { x: 0.28, y: 0.02 } },
        feet: { left: { x: -0.47, y: 0 }, right: { x: -0.47, y: 0 } },
      };
    },
  },
  'one-leg-balance': {
    periodS: 8,
    repsPerTurn: 0,
    pose: (_turn, seconds) => {
      const up = poseAt('one-leg-balance', 2.5);
      // Swaying never comes back to where it was in time.
      const sway = 0.014 * wobble(seconds, 1);
      const hand = (y: number) => y + 0.03 * wobble(seconds, 2);
      return {
        ...up,
        pelvis: { x: up.pelvis.x + sway, y: up.pelvis.y },
        lean: 2 * sway,
        hands: {
          left: { ...up.hands.left, y: hand(up.hands.left.y) },
          right: { ...up.hands.right, y: hand(up.hands.right.y) + sway },
        },
      };
    },
  },
  talk: { periodS: 4, repsPerTurn: 0, pose: (_turn, seconds) => poseAt('other', seconds) },
  // The arms are widest on the way up and on the way down.
  'arm-circle': {
    periodS: 2.4,
    repsPerTurn: 1,
    pose: (turn) => {
      const raised = Math.PI * mix(0.03, 0.98, swing(turn));
      const [across, y] = [0.1 + 0.38 * Math.sin(raised), 0.82 - 0.38 * Math.cos(raised)];
      return { ...standing, hands: { left: { x: across, y }, right: { x: -across, y } } };
    },
  },
  // Two a second, and hardly higher than a hand.
  bounce: {
    periodS: 0.5,
    repsPerTurn: 1,
    pose: (turn) => {
      const hop = 0.05 * swing(turn);
      return {
        ...standing,
        pelvis: { x: 0, y: 0.51 + hop },
        hands: { left: { x: 0.2, y: 0.46 + hop }, right: { x: -0.2, y: 0.46 + hop } },
        feet: { left: { x: 0.05, y: hop }, right: { x: -0.05, y: hop } },
      };
    },
  },
  // From the side: whoever gets up or sits down leans forward first, and sits up again at the end.
  'sit-to-stand': {
    periodS: 3.4,
    repsPerTurn: 1,
    pose: (turn) => {
      const up = swing(Math.min(1, Math.max(0, (turn - 0.15) / 0.7)));
      const lean = 0.5 * swing(Math.min(1, 2 * turn)) + 0.5 * swing(Math.max(0, 2 * turn - 1));
      const hand = { x: mix(0.24, 0.06, up) + 0.2 * lean, y: mix(0.42, 0.46, up) };
      return {
        ...standing,
        pelvis: { x: mix(-0.2, 0, up), y: mix(0.3, 0.52, up) },
        lean,
        hands: { left: hand, right: hand },
        feet: { left: { x: 0.04, y: 0 }, right: { x: 0.02, y: 0 } },
        width: 0.3,
        seated: true,
      };
    },
  },
};
