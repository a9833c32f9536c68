import type { Point, Pose } from './pose.ts';

const ARM = 0.19;
const LEG = 0.246;
const SHOULDER = 0.115;
const HIP = 0.062;
const TRUNK = 0.3;

/** The middle joint of a limb of two equal bones; `bend` says to which side it goes. */
function joint(from: Point, to: Point, bone: number, bend: number): Point {
  const dx = to.x - from.x;
  const dy = to.y - from.y;
  const reach = Math.hypot(dx, dy);
  const height = Math.sqrt(Math.max(0, bone * bone - (reach * reach) / 4));
  const scale = reach > 0 ? height / reach : 0;
  return { x: (from.x + to.x) / 2 - dy * scale * bend, y: (from.y + to.y) / 2 + dx * scale * bend };
}

/** The end of a limb no longer than its bones allow. */
function within(from: Point, to: Point, length: number): Point {
  const reach = Math.hypot(to.x - from.x, to.y - from.y);
  if (reach <= length) return to;
  return {
    x: from.x + ((to.x - from.x) * length) / reach,
    y: from.y + ((to.y - from.y) * length) / reach,
  };
}

/**
 * Where all joints of a pose are, in body heights; what is drawn, and what a look at the drawing
 * should find.
 */
export interface Skeleton {
  neck: Point;
  head: Point;
  legs: Record<'left' | 'right', { hip: Point; knee: Point; foot: Point }>;
  arms: Record<'left' | 'right', { shoulder: Point; elbow: Point; hand: Point }>;
}

/** The joints between and at the ends a pose names. */
export function skeletonOf({ pelvis, lean, feet, hands, seated, width, at }: Pose): Skeleton {
  const isLying = Math.abs(lean) > 1;
  const neck = { x: pelvis.x + Math.sin(lean) * TRUNK, y: pelvis.y + Math.cos(lean) * TRUNK };
  const collar = {
    x: pelvis.x + (neck.x - pelvis.x) * 0.88,
    y: pelvis.y + (neck.y - pelvis.y) * 0.88,
  };
  const leg = (side: 'left' | 'right', sign: 1 | -1) => {
    const hip = { x: pelvis.x + HIP * sign * width, y: pelvis.y };
    const foot = within(hip, { x: feet[side].x, y: feet[side].y + 0.035 }, LEG * 2);
    // Seated, the thighs point at the viewer.
    const knee = seated
      ? { x: at + (foot.x - at) * 0.9, y: 0.26 }
      : joint(hip, foot, LEG, isLying ? -1 : sign);
    return { hip, knee, foot };
  };
  const arm = (side: 'left' | 'right', sign: 1 | -1) => {
    const shoulder = { x: collar.x + SHOULDER * sign * width, y: collar.y };
    const hand = within(shoulder, hands[side], ARM * 2);
    return {
      shoulder,
      hand,
      elbow: joint(shoulder, hand, ARM, hands[side].y > shoulder.y + 0.15 ? sign : -sign),
    };
  };
  return {
    neck,
    head: { x: neck.x + Math.sin(lean) * 0.1, y: neck.y + 0.1 },
    legs: { left: leg('left', 1), right: leg('right', -1) },
    arms: { left: arm('left', 1), right: arm('right', -1) },
  };
}
