import type { Finish } from '../lesson/index.ts';
import { inkOf } from './ink.ts';
import { FRAMES } from './layout.ts';
import { paintBoard, paintSide } from './paint-board.ts';
import { paintCard } from './paint-card.ts';
import { paintClock, paintCounter } from './paint-time.ts';
import { paintCaption, paintCaution, paintCue, paintPointer } from './paint-words.ts';
import type { PaintContext } from './pen.ts';
import type { BurnedItem, Scene } from './scene.ts';

/** Paints an item where it stands, as large as its place says. */
function paintItem(ctx: PaintContext, item: BurnedItem, look: Finish['look']): void {
  const ink = inkOf(look);
  const { x, y, scale } = item.box;
  const box = { x: 0, y: 0, width: item.box.width / scale, height: item.box.height / scale };
  ctx.save();
  ctx.translate(x, y);
  ctx.scale(scale, scale);
  switch (item.slot) {
    case 'clock':
      paintClock(ctx, item, box, look, ink);
      break;
    case 'counter':
      paintCounter(ctx, item, box, ink);
      break;
    case 'cue':
      paintCue(ctx, item, box, ink);
      break;
    case 'caution':
      paintCaution(ctx, item, box, ink);
      break;
    case 'pointer':
      paintPointer(ctx, item, ink);
      break;
    case 'side':
      paintSide(ctx, item, box, ink);
      break;
    case 'board':
      paintBoard(ctx, item, box, ink);
      break;
    case 'caption':
      paintCaption(ctx, item, box);
      break;
  }
  ctx.restore();
}

/**
 * Paints a scene on a cleared canvas of `width` pixels, of the scene's shape: the one picture of an
 * overlay there is. Where footage shows, the canvas stays transparent.
 */
export function paintScene(ctx: PaintContext, scene: Scene, width: number): void {
  const frame = FRAMES[scene.shape];
  const scale = width / frame.width;
  ctx.clearRect(0, 0, width, Math.round(frame.height * scale));
  ctx.save();
  ctx.scale(scale, scale);
  const part = scene.rising?.part ?? 1;
  if (scene.rising?.over) {
    ctx.globalAlpha = scene.card ? 1 : 1 - part;
    paintCard(ctx, scene.rising.over, scene.shape, inkOf(scene.look));
  }
  if (scene.card) {
    ctx.globalAlpha = part;
    paintCard(ctx, scene.card, scene.shape, inkOf(scene.look));
  }
  ctx.globalAlpha = 1;
  for (const item of scene.items) paintItem(ctx, item, scene.look);
  ctx.restore();
}

/**
 * Paints one item alone on a cleared part of a picture, for burning in by regions: `scale` pixels a
 * layout unit, from `left` and `top` of the picture on.
 */
export function paintItemAt(
  ctx: PaintContext,
  item: BurnedItem,
  look: Finish['look'],
  { left, top, scale }: { left: number; top: number; scale: number },
): void {
  ctx.save();
  ctx.translate(-left, -top);
  ctx.scale(scale, scale);
  paintItem(ctx, item, look);
  ctx.restore();
}
