import type { Sign } from '../lesson/index.ts';
import type { Ink } from './ink.ts';
import type { Box } from './layout.ts';
import { writeDigits, type PaintContext } from './pen.ts';

type Colour = Extract<Sign, { by: 'colour' }>['colour'];
type Shape = Extract<Sign, { by: 'card' }>['shape'] | 'ring' | 'cross';

/** Each colour has a shape of its own too, for those who cannot tell them apart by colour. */
const COLOURS: Record<Colour, readonly [fill: string, shape: Shape]> = {
  red: ['#e5484d', 'circle'],
  yellow: ['#ffd23f', 'triangle'],
  green: ['#2fa65a', 'square'],
  blue: ['#3d7bf0', 'star'],
  white: ['#ffffff', 'ring'],
  black: ['#101010', 'cross'],
};

const corners = (n: number, radiusOf: (i: number) => number) =>
  Array.from({ length: n }, (_, i) => {
    const turn = (i / n) * Math.PI * 2 - Math.PI / 2;
    return [Math.cos(turn) * radiusOf(i), Math.sin(turn) * radiusOf(i)] as const;
  });

/** A shape about its middle, filled or drawn with the present colours. */
function paintShape(ctx: PaintContext, shape: Shape, x: number, y: number, radius: number): void {
  ctx.beginPath();
  if (shape === 'circle' || shape === 'ring') ctx.arc(x, y, radius, 0, Math.PI * 2);
  else if (shape === 'square')
    ctx.roundRect(x - radius * 0.85, y - radius * 0.85, radius * 1.7, radius * 1.7, radius * 0.12);
  else if (shape === 'cross') {
    for (const [fx, fy] of [
      [-1, -1],
      [-1, 1],
    ] as const) {
      ctx.moveTo(x + fx * radius * 0.8, y + fy * radius * 0.8);
      ctx.lineTo(x - fx * radius * 0.8, y - fy * radius * 0.8);
    }
  } else {
    const points =
      shape === 'triangle'
        ? corners(3, () => radius)
        : corners(10, (i) => (i % 2 ? radius * 0.45 : radius));
    points.forEach(([dx, dy], i) =>
      i === 0 ? ctx.moveTo(x + dx, y + dy) : ctx.lineTo(x + dx, y + dy),
    );
    ctx.closePath();
  }
  if (shape !== 'ring' && shape !== 'cross') return ctx.fill();
  ctx.lineWidth = radius * 0.4;
  ctx.lineCap = 'round';
  ctx.stroke();
}

/** Rows of a card's shapes: two at most beside each other. */
function paintShapes(ctx: PaintContext, shape: Shape, n: number, box: Box): void {
  const columns = n > 3 ? 2 : 1;
  const rows = Math.ceil(n / columns);
  const [width, height] = [box.width / columns, box.height / rows];
  const radius = Math.min(width, height) * 0.38;
  for (let i = 0; i < n; i += 1) {
    const isAlone = i === n - 1 && n % columns === 1 && columns > 1;
    const x = box.x + (isAlone ? box.width / 2 : width * ((i % columns) + 0.5));
    paintShape(ctx, shape, x, box.y + height * (Math.floor(i / columns) + 0.5), radius);
  }
}

/** What is seen in place of a command's words: a colour, a number, a card, or beeps as dots. */
export function paintSign(ctx: PaintContext, sign: Sign, box: Box, ink: Ink): void {
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  switch (sign.by) {
    case 'colour': {
      const [fill, shape] = COLOURS[sign.colour];
      // On a light ground, so that black is seen as well as white.
      ctx.fillStyle = sign.colour === 'white' ? '#3a3a3a' : '#f1ede6';
      ctx.beginPath();
      ctx.roundRect(box.x, box.y, box.width, box.height, 16);
      ctx.fill();
      ctx.fillStyle = fill;
      ctx.strokeStyle = fill;
      return paintShape(ctx, shape, x, y, Math.min(box.width, box.height) * 0.4);
    }
    case 'number':
      return writeDigits(
        ctx,
        String(sign.number),
        x,
        y + box.height * 0.34,
        box.height * 0.95,
        ink.text,
      );
    case 'card': {
      const width = Math.min(box.width, box.height * 0.72);
      const card = { x: x - width / 2, y: box.y, width, height: box.height };
      ctx.fillStyle = '#fffaf0';
      ctx.beginPath();
      ctx.roundRect(card.x, card.y, card.width, card.height, 14);
      ctx.fill();
      ctx.fillStyle = '#2a2016';
      return paintShapes(ctx, sign.shape, sign.number, {
        ...{ x: card.x + 8, y: card.y + 8 },
        ...{ width: card.width - 16, height: card.height - 16 },
      });
    }
    case 'sound':
      ctx.fillStyle = ink.accent;
      for (let i = 0; i < sign.beeps; i += 1)
        paintShape(ctx, 'circle', x + (i - (sign.beeps - 1) / 2) * 58, y, 22);
  }
}
