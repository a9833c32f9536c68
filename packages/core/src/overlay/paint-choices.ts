import type { CardChoice, Shape } from '../assembly/index.ts';
import type { Ink } from './ink.ts';
import { MAIN_TEXT, type Box } from './layout.ts';
import { isDrawn, paintMovement } from './movement-figure.ts';
import { panel, writeDigits, writeLines, type PaintContext } from './pen.ts';

const GAP = 16;
/** Below the heading and the clock, above the caption lines. */
const ROOMS: Record<Shape, Box> = {
  wide: { x: 64, y: 288, width: 1152, height: 296 },
  upright: { x: 24, y: 420, width: 672, height: 720 },
};

/** So many tiles in a row: large ones first. */
const columnsOf = (n: number, shape: Shape): number =>
  shape === 'upright' ? (n <= 3 ? 1 : 2) : n <= 3 ? n : n === 4 ? 2 : 3;

/** Where each choice stands. */
export function choiceBoxes(n: number, shape: Shape): Box[] {
  const room = ROOMS[shape];
  const columns = columnsOf(n, shape);
  const rows = Math.ceil(n / columns);
  const width = (room.width - GAP * (columns - 1)) / columns;
  const height = (room.height - GAP * (rows - 1)) / rows;
  return Array.from({ length: n }, (_, i) => ({
    x: room.x + (i % columns) * (width + GAP),
    y: room.y + Math.floor(i / columns) * (height + GAP),
    ...{ width, height },
  }));
}

function paintBadge(ctx: PaintContext, { letter, isRight }: CardChoice, box: Box, ink: Ink): void {
  const [x, y, radius] = [box.x + 46, box.y + 46, 30];
  ctx.fillStyle = isRight === false ? ink.track : ink.accent;
  ctx.beginPath();
  ctx.arc(x, y, radius, 0, Math.PI * 2);
  ctx.fill();
  if (isRight !== true) {
    writeDigits(ctx, letter, x, y + 14, 40, isRight === null ? ink.onAccent : ink.dim);
    return;
  }
  ctx.strokeStyle = ink.onAccent;
  ctx.lineWidth = 8;
  ctx.lineCap = 'round';
  ctx.beginPath();
  ctx.moveTo(x - 15, y + 1);
  ctx.lineTo(x - 4, y + 12);
  ctx.lineTo(x + 16, y - 12);
  ctx.stroke();
}

/** Answers to choose from: letter, picture, words; once told, the right ones are ticked. */
export function paintChoices(
  ctx: PaintContext,
  choices: readonly CardChoice[],
  shape: Shape,
  ink: Ink,
): void {
  const boxes = choiceBoxes(choices.length, shape);
  choices.forEach((choice, i) => {
    const box = boxes[i];
    if (!box) return;
    const { text, movement, isRight } = choice;
    panel(ctx, box, ink.panel, isRight === true ? ink.accent : ink.track);
    paintBadge(ctx, choice, box, ink);
    const hasPicture = isDrawn(movement);
    const isTall = box.height > 200;
    // A tall tile has its picture above the words, a flat one beside them.
    if (hasPicture)
      paintMovement(
        ctx,
        movement,
        isTall
          ? { x: box.x + 60, y: box.y + 14, width: box.width - 120, height: box.height - 96 }
          : { x: box.x + box.width - 130, y: box.y + 14, width: 120, height: box.height - 28 },
        ink,
      );
    const size = isTall && !hasPicture ? MAIN_TEXT + 12 : MAIN_TEXT - 4;
    const words =
      hasPicture && isTall
        ? { x: box.x + 20, top: box.y + box.height - 70, width: box.width - 40, maxLines: 1 }
        : {
            x: box.x + 92,
            top: box.y + 20,
            width: box.width - 112 - (hasPicture ? 120 : 0),
            maxLines: Math.max(1, Math.floor((box.height - 28) / (size * 1.14))),
          };
    const { maxLines, ...at } = words;
    writeLines(ctx, text, at, {
      ...{ weight: 'bold', size, maxLines },
      colour: isRight === false ? ink.dim : ink.text,
    });
  });
}
