import type { Movement } from '../lesson/index.ts';
import type { Ink } from './ink.ts';
import type { Box } from './layout.ts';
import type { PaintContext } from './pen.ts';

type Point = readonly [x: number, y: number];
type Limb = readonly [number, number, number, number, number, number];

/** A body at the telling moment of a movement, in hundredths of its height, y up from the floor. */
export interface MovementFigure {
  head: Point;
  /** Two arms, each shoulder, elbow and hand, then two legs, each hip, knee and foot: x, y, x, y … */
  limbs: readonly [Limb, Limb, Limb, Limb];
  prop?: 'rope' | 'disc' | 'band';
}

/** As the drawn performer stands then; a test holds them against it. */
export const movementFigures: Partial<Record<Movement, MovementFigure>> = {
  'skip-rope': {
    head: [0, 97],
    limbs: [
      [12, 83, 12, 64, 29, 56],
      [-11, 83, -12, 64, -29, 56],
      [6, 57, 14, 34, 5, 11],
      [-6, 57, -14, 34, -5, 11],
    ],
    prop: 'rope',
  },
  'disc-throw': {
    head: [1, 90],
    limbs: [
      [12, 76, 12, 57, 30, 52],
      [-11, 76, 8, 82, -7, 70],
      [7, 50, 18, 28, 14, 4],
      [-5, 50, -17, 28, -17, 4],
    ],
    prop: 'disc',
  },
  'seated-pull': {
    head: [0, 70],
    limbs: [
      [12, 56, 17, 38, 33, 49],
      [-11, 56, -17, 38, -33, 49],
      [6, 30, 12, 26, 13, 4],
      [-6, 30, -12, 26, -13, 4],
    ],
    prop: 'band',
  },
  'one-leg-balance': {
    head: [-7, 92],
    limbs: [
      [4, 78, 23, 75, 42, 73],
      [-19, 78, -28, 62, -42, 75],
      [-1, 52, 22, 42, 2, 28],
      [-13, 52, -13, 27, -7, 4],
    ],
  },
  'step-and-reach': {
    head: [17, 88],
    limbs: [
      [27, 74, 31, 93, 42, 108],
      [4, 74, -5, 57, -20, 46],
      [18, 48, 32, 28, 29, 4],
      [6, 48, -9, 28, -9, 4],
    ],
  },
  squat: {
    head: [0, 71],
    limbs: [
      [12, 57, 24, 43, 26, 62],
      [-11, 57, -24, 43, -26, 62],
      [6, 31, 30, 23, 15, 4],
      [-6, 31, -30, 23, -15, 4],
    ],
  },
};

/** Whether there is a picture of the movement. */
export const isDrawn = (movement: Movement): boolean => movement in movementFigures;

/** Of the picture's height, what a standing body takes with its arms up. */
const TALLEST = 116;

function paintProp(
  ctx: PaintContext,
  prop: MovementFigure['prop'],
  [left, right]: readonly [Point, Point],
  floorY: number,
  unit: number,
): void {
  ctx.beginPath();
  if (prop === 'rope') {
    // Half an ellipse from hand to hand, under the feet.
    const [middle, low] = [(left[0] + right[0]) / 2, floorY - 2 * unit];
    for (let step = 0; step <= 12; step += 1) {
      const angle = (Math.PI * step) / 12;
      const [x, y] = [
        middle + ((left[0] - right[0]) / 2) * Math.cos(angle),
        left[1] + (low - left[1]) * Math.sin(angle),
      ];
      if (step === 0) ctx.moveTo(x, y);
      else ctx.lineTo(x, y);
    }
    ctx.stroke();
  } else if (prop === 'band') {
    ctx.moveTo(...left);
    ctx.lineTo(...right);
    ctx.stroke();
  } else if (prop === 'disc') {
    ctx.arc(right[0], right[1], 8 * unit, 0, Math.PI * 2);
    ctx.fill();
  }
}

/** The figure of a movement, standing on the lower edge of a box. */
export function paintMovement(ctx: PaintContext, movement: Movement, box: Box, ink: Ink): void {
  const figure = movementFigures[movement];
  if (!figure) return;
  const unit = box.height / TALLEST;
  const middle = box.x + box.width / 2;
  const at = ([x, y]: Point): Point => [middle + x * unit, box.y + box.height - y * unit];
  ctx.lineCap = 'round';
  ctx.strokeStyle = ink.text;
  ctx.fillStyle = ink.text;
  ctx.lineWidth = 8 * unit;
  const [leftArm, rightArm, leftLeg, rightLeg] = figure.limbs;
  for (const [x, y, jointX, jointY, endX, endY] of figure.limbs) {
    ctx.beginPath();
    ctx.moveTo(...at([x, y]));
    ctx.lineTo(...at([jointX, jointY]));
    ctx.lineTo(...at([endX, endY]));
    ctx.stroke();
  }
  ctx.beginPath();
  ctx.moveTo(...at([leftArm[0], leftArm[1]]));
  for (const [x, y] of [rightArm, rightLeg, leftLeg, leftArm]) ctx.lineTo(...at([x, y]));
  ctx.fill();
  ctx.stroke();
  ctx.beginPath();
  ctx.arc(...at(figure.head), 9 * unit, 0, Math.PI * 2);
  ctx.fill();
  ctx.strokeStyle = ink.accent;
  ctx.fillStyle = ink.accent;
  ctx.lineWidth = 3.5 * unit;
  const hands = [at([leftArm[4], leftArm[5]]), at([rightArm[4], rightArm[5]])] as const;
  paintProp(ctx, figure.prop, hands, box.y + box.height, unit);
}
