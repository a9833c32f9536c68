import type { FloorUse } from '../ledger/index.ts';
import type { Ink } from './ink.ts';
import { fitText, type Box } from './layout.ts';
import { measurer, writeCentred, type PaintContext } from './pen.ts';

/** Room left around the drawing, in centimetres. */
const AROUND_CM = 40;

/**
 * The floor of a block to scale, seen from above with the camera below: marks, the way, and where
 * the performer starts.
 */
export function paintCourt(
  ctx: PaintContext,
  { marks, reach, move }: FloorUse,
  box: Box,
  ink: Ink,
): void {
  const left = reach.screenLeftCm + AROUND_CM;
  const far = reach.farCm + AROUND_CM;
  const scale = Math.min(
    box.width / (left + reach.screenRightCm + AROUND_CM),
    box.height / (far + reach.nearCm + AROUND_CM),
  );
  const at = (rightCm: number, nearCm: number) => ({
    x: box.x + (left + rightCm) * scale,
    y: box.y + (far + nearCm) * scale,
  });
  ctx.strokeStyle = ink.cardLine;
  ctx.lineWidth = 4;
  for (const { mark, screenRightCm, nearCm, widthCm, depthCm } of marks) {
    const middle = at(screenRightCm, nearCm);
    ctx.strokeStyle = mark.kind === 'target' ? ink.accent : ink.rest;
    ctx.beginPath();
    if (mark.kind === 'travel') {
      const start = at(0, 0);
      ctx.moveTo(start.x, start.y);
      ctx.lineTo(middle.x, middle.y);
    } else if (mark.kind === 'marker') ctx.arc(middle.x, middle.y, 9, 0, Math.PI * 2);
    else
      ctx.roundRect(
        middle.x - (widthCm * scale) / 2,
        middle.y - (depthCm * scale) / 2,
        widthCm * scale,
        depthCm * scale,
        4,
      );
    ctx.stroke();
    const { size, lines } = fitText(mark.label, 260, 1, 36, measurer(ctx, 'regular'));
    if (lines[0])
      writeCentred(
        ctx,
        lines[0],
        middle.x,
        middle.y - (depthCm * scale) / 2 - 14,
        'regular',
        size,
        ink.dim,
      );
  }
  const start = at(0, 0);
  ctx.strokeStyle = ink.text;
  ctx.beginPath();
  ctx.roundRect(
    start.x - (move.widthCm * scale) / 2,
    start.y - (move.depthCm * scale) / 2,
    move.widthCm * scale,
    move.depthCm * scale,
    10,
  );
  ctx.stroke();
  ctx.fillStyle = ink.text;
  ctx.beginPath();
  ctx.arc(start.x, start.y, Math.max(10, 22 * scale), 0, Math.PI * 2);
  ctx.fill();
}
