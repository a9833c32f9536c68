import type { PaintContext } from '@zest/core/overlay';
import type { Point, Pose } from './pose.ts';
import { skeletonOf } from './skeleton.ts';
import { plainView, type PlacedView } from './view.ts';

/** What drawing needs of a canvas context, in a browser and on the server alike. */
export interface DrawContext extends PaintContext {
  lineJoin: string;
  quadraticCurveTo(cx: number, cy: number, x: number, y: number): void;
  ellipse(
    x: number,
    y: number,
    rx: number,
    ry: number,
    turn: number,
    from: number,
    to: number,
  ): void;
}

const WALL = '#e8dcc8';
const WALL_LOW = '#d9c8ad';
const FLOOR = '#c99f6b';
const LINE = '#f3ead9';
/** A colour in shade and in light. */
interface Shaded {
  dark: string;
  light: string;
}
/** What the performer wears and is like; `stout` widens trunk and limbs, 1 as usual. */
export interface Dress {
  skin: Shaded;
  shirt: Shaded;
  shorts: Shaded;
  hair: string;
  stout: number;
}
export const usualDress: Dress = {
  skin: { dark: '#8f5b3c', light: '#b5794f' },
  shirt: { dark: '#1f5f66', light: '#2f8089' },
  shorts: { dark: '#2b2d42', light: '#3f4260' },
  hair: '#2a1a12',
  stout: 1,
};
const SHOE = '#f6f1e7';
const ROPE = '#d1495b';
const SIDES = [
  ['left', 1],
  ['right', -1],
] as const;

export type Room = 'hall' | 'living room' | 'garden';
/** Wall, its lower part, floor, and lines on it. */
const ROOMS: Record<Room, { wall: string; low: string; floor: string; line: string }> = {
  hall: { wall: WALL, low: WALL_LOW, floor: FLOOR, line: LINE },
  'living room': { wall: '#c9cfc4', low: '#a9b5ad', floor: '#7b6a58', line: '#9a8a77' },
  garden: { wall: '#bcd6e6', low: '#6f9a63', floor: '#7fae5f', line: '#a7c98b' },
};

export function backdrop(
  ctx: DrawContext,
  width: number,
  height: number,
  floorY: number,
  room: Room,
): void {
  const { wall, low, floor, line } = ROOMS[room];
  ctx.fillStyle = wall;
  ctx.fillRect(0, 0, width, height);
  ctx.fillStyle = low;
  ctx.fillRect(0, floorY - height * 0.42, width, height * 0.3);
  ctx.fillStyle = floor;
  ctx.fillRect(0, floorY - height * 0.12, width, height);
  ctx.strokeStyle = line;
  ctx.lineWidth = height * 0.008;
  ctx.beginPath();
  ctx.moveTo(0, floorY + height * 0.08);
  ctx.lineTo(width, floorY + height * 0.08);
  ctx.stroke();
  ctx.beginPath();
  ctx.ellipse(width / 2, floorY + height * 0.02, width * 0.3, height * 0.075, 0, 0, Math.PI * 2);
  ctx.stroke();
}

/** Draws room and performer, `width` x `height` pixels, the performer where `view` says. */
export function drawPerformer(
  ctx: DrawContext,
  pose: Pose,
  width: number,
  height: number,
  view: PlacedView = plainView(width, height),
  room: Room = 'hall',
): void {
  backdrop(ctx, width, height, view.floorY, room);
  drawFigure(ctx, pose, view, usualDress);
}

/** Draws a performer alone, over what is there. */
export function drawFigure(
  ctx: DrawContext,
  pose: Pose,
  view: PlacedView,
  { skin, shirt, shorts, hair, stout }: Dress,
): void {
  const { floorY, unit } = view;
  const at = (p: Point): Point => ({ x: view.middleX + p.x * unit, y: floorY - p.y * unit });
  ctx.lineCap = 'round';
  ctx.lineJoin = 'round';

  const stroke = (points: Point[], thick: number, colours: { dark: string; light: string }) => {
    for (const [colour, part, shift] of [
      [colours.dark, 1, 0],
      [colours.light, 0.62, -0.14],
    ] as const) {
      ctx.strokeStyle = colour;
      ctx.lineWidth = thick * unit * part;
      ctx.beginPath();
      points.forEach((point, i) => {
        const { x, y } = at(point);
        const nudged = x + shift * thick * unit;
        if (i === 0) ctx.moveTo(nudged, y);
        else ctx.lineTo(nudged, y);
      });
      ctx.stroke();
    }
  };
  const disc = (centre: Point, radius: number, colour: string) => {
    const { x, y } = at(centre);
    ctx.fillStyle = colour;
    ctx.beginPath();
    ctx.arc(x, y, radius * unit, 0, Math.PI * 2);
    ctx.fill();
  };

  const shadow = at({ x: pose.pelvis.x, y: 0 });
  ctx.fillStyle = 'rgba(60,40,20,0.28)';
  ctx.beginPath();
  ctx.ellipse(shadow.x, shadow.y + unit * 0.02, unit * 0.22, unit * 0.035, 0, 0, Math.PI * 2);
  ctx.fill();

  if (pose.seated) {
    const seat = at({ x: pose.at - 0.17, y: 0.27 });
    ctx.fillStyle = '#7a5a3a';
    ctx.fillRect(seat.x, seat.y, unit * 0.34, unit * 0.04);
    ctx.fillRect(seat.x + unit * 0.02, seat.y, unit * 0.03, unit * 0.27);
    ctx.fillRect(seat.x + unit * 0.29, seat.y, unit * 0.03, unit * 0.27);
  }

  const { pelvis } = pose;
  const { neck, head, legs, arms } = skeletonOf(pose);
  for (const [side, sign] of SIDES) {
    const { hip, knee, foot } = legs[side];
    stroke([hip, knee, foot], 0.082 * stout, skin);
    stroke([hip, { x: (hip.x + knee.x) / 2, y: (hip.y + knee.y) / 2 }], 0.12 * stout, shorts);
    const sole = at(foot);
    ctx.fillStyle = SHOE;
    ctx.beginPath();
    ctx.ellipse(
      sole.x + sign * unit * 0.015,
      sole.y + unit * 0.012,
      unit * 0.052,
      unit * 0.03,
      0,
      0,
      Math.PI * 2,
    );
    ctx.fill();
  }
  if (pose.prop.kind === 'rope' && Math.cos(pose.prop.turn * Math.PI * 2) < 0)
    drawRope(ctx, pose, at, unit);

  stroke(
    [
      { x: pelvis.x, y: pelvis.y + 0.02 },
      { x: pelvis.x, y: pelvis.y - 0.03 },
    ],
    0.2 * stout,
    shorts,
  );
  const along = (part: number) => ({
    x: pelvis.x + (neck.x - pelvis.x) * part,
    y: pelvis.y + (neck.y - pelvis.y) * part,
  });
  stroke([along(0.23), along(0.8)], 0.21 * stout, shirt);
  stroke([neck, head], 0.06, skin);
  for (const [side] of SIDES) {
    if (pose.arms !== 'both' && pose.arms !== side) continue;
    const { shoulder, elbow, hand } = arms[side];
    stroke([shoulder, elbow, hand], 0.062 * stout, skin);
    stroke(
      [shoulder, { x: (shoulder.x + elbow.x) / 2, y: (shoulder.y + elbow.y) / 2 }],
      0.082 * stout,
      shirt,
    );
    disc(hand, 0.036, skin.light);
  }
  disc({ x: head.x, y: head.y + 0.012 }, 0.078, hair);
  disc(head, 0.07, skin.light);
  disc({ x: head.x - 0.024, y: head.y + 0.01 }, 0.009, hair);
  disc({ x: head.x + 0.024, y: head.y + 0.01 }, 0.009, hair);
  const lips = at({ x: head.x, y: head.y - 0.03 });
  ctx.fillStyle = '#5d2a22';
  ctx.beginPath();
  ctx.ellipse(lips.x, lips.y, unit * 0.018, unit * (0.003 + 0.013 * pose.mouth), 0, 0, Math.PI * 2);
  ctx.fill();
  drawProp(ctx, pose, at, unit);
}

function drawRope(ctx: DrawContext, pose: Pose, at: (p: Point) => Point, unit: number): void {
  if (pose.prop.kind !== 'rope') return;
  const left = at(pose.hands.left);
  const right = at(pose.hands.right);
  const swing = Math.cos(pose.prop.turn * Math.PI * 2);
  // A quadratic's middle is half-way to its control point: under the feet at turn 0, above the head
  // at half a turn.
  const middle = at({ x: pose.at, y: swing > 0 ? 0.5 - 1.06 * swing : 0.5 - 1.36 * swing });
  ctx.strokeStyle = ROPE;
  ctx.lineWidth = unit * 0.014;
  ctx.beginPath();
  ctx.moveTo(left.x, left.y);
  ctx.quadraticCurveTo(middle.x, middle.y, right.x, right.y);
  ctx.stroke();
}

function drawProp(ctx: DrawContext, pose: Pose, at: (p: Point) => Point, unit: number): void {
  switch (pose.prop.kind) {
    case 'rope':
      if (Math.cos(pose.prop.turn * Math.PI * 2) >= 0) drawRope(ctx, pose, at, unit);
      return;
    case 'disc': {
      const { x, y } = at(pose.prop.at);
      ctx.fillStyle = '#f2542d';
      ctx.beginPath();
      ctx.ellipse(x, y, unit * 0.075, unit * 0.022, pose.prop.tilt, 0, Math.PI * 2);
      ctx.fill();
      return;
    }
    case 'band': {
      const left = at(pose.hands.left);
      const right = at(pose.hands.right);
      ctx.strokeStyle = '#e0a526';
      ctx.lineWidth = unit * 0.02;
      ctx.beginPath();
      ctx.moveTo(left.x, left.y);
      ctx.lineTo(right.x, right.y);
      ctx.stroke();
      return;
    }
    case 'none':
  }
}
