import type { CardText, Shape } from '../assembly/index.ts';
import { paintCourt } from './court.ts';
import type { Ink } from './ink.ts';
import { FRAMES, MAIN_TEXT, paintableText, SAFE_AREA, type Box } from './layout.ts';
import { paintChoices } from './paint-choices.ts';
import { writeLines, type PaintContext } from './pen.ts';

/** Height of a line of a card. */
const CARD_LINE = 60;

/** A question above its choices, beside the clock. */
function paintAsked(ctx: PaintContext, { heading, lines }: CardText, shape: Shape, ink: Ink): void {
  const at = shape === 'wide' ? { x: 64, top: 44, width: 650 } : { x: 24, top: 40, width: 672 };
  const top = writeLines(ctx, heading, at, {
    ...{ weight: 'bold', size: 60, colour: ink.text },
    maxLines: lines.length > 0 ? 2 : 3,
  });
  for (const line of lines)
    writeLines(
      ctx,
      line,
      { ...at, top: top + 8 },
      { weight: 'regular', size: MAIN_TEXT, maxLines: 1, colour: ink.accent },
    );
}

/** Paints a full-frame card: heading, a court line, and its lines. */
export function paintCard(ctx: PaintContext, card: CardText, shape: Shape, ink: Ink): void {
  const { width, height } = FRAMES[shape];
  const isWide = shape === 'wide';
  const safe = isWide ? SAFE_AREA : { x: 24, y: 64, width: 672, height: 1088 };
  ctx.fillStyle = ink.card;
  ctx.fillRect(0, 0, width, height);
  ctx.strokeStyle = ink.cardLine;
  ctx.lineWidth = 6;
  ctx.beginPath();
  ctx.arc(width, height, 300, Math.PI, Math.PI * 1.5);
  ctx.stroke();
  ctx.beginPath();
  ctx.moveTo(0, height - 44);
  ctx.lineTo(width, height - 44);
  ctx.stroke();
  // With a court the words keep to the left half, or the upper one.
  const column = {
    x: safe.x + 40,
    width: card.court && isWide ? safe.width / 2 - 60 : safe.width - 80,
  };
  const room: Box = isWide
    ? { x: width / 2 + 20, y: safe.y + 40, width: safe.width / 2 - 40, height: safe.height - 80 }
    : { x: safe.x, y: height / 2, width: safe.width, height: safe.height / 2 - 80 };
  if (card.court) paintCourt(ctx, card.court, room, ink);
  if (card.choices) {
    paintAsked(ctx, card, shape, ink);
    paintChoices(ctx, card.choices, shape, ink);
    return;
  }
  let top = writeLines(
    ctx,
    card.heading,
    { ...column, top: isWide ? 280 : 200 },
    { weight: 'bold', size: 76, maxLines: 2, colour: ink.text },
  );
  ctx.fillStyle = ink.accent;
  ctx.fillRect(column.x, top + 8, 180, 8);
  top += 32;
  const lines = card.lines.map(paintableText).filter((line) => line !== '');
  const fits = Math.max(1, Math.floor((safe.y + safe.height - top) / CARD_LINE));
  const shown =
    lines.length > fits
      ? [...lines.slice(0, fits - 1), `and ${lines.length - fits + 1} more`]
      : lines;
  for (const line of shown) {
    writeLines(
      ctx,
      line,
      { ...column, top },
      { weight: 'regular', size: MAIN_TEXT, maxLines: 1, colour: ink.dim },
    );
    top += CARD_LINE;
  }
}
