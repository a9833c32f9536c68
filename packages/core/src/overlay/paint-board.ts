import type { Board } from '../assembly/index.ts';
import { paintCourt } from './court.ts';
import type { Ink } from './ink.ts';
import { MAIN_TEXT, type Box } from './layout.ts';
import { isDrawn, paintMovement } from './movement-figure.ts';
import { panel, writeLines, type PaintContext } from './pen.ts';
import type { BoardItem, SideItem } from './scene.ts';

type Point = readonly [number, number];

/**
 * Limbs of a standing figure, in layout units from the middle of the chest; of the screen's left
 * half, turned over for the right one.
 */
const LIMBS: readonly (readonly Point[])[] = [
  [
    [-14, -18],
    [-34, 8],
    [-40, 36],
  ],
  [
    [-9, 34],
    [-15, 66],
    [-17, 98],
  ],
];

/** A figure as the camera sees it, with the side that works in the accent. */
function paintFigure(
  ctx: PaintContext,
  { seen, away }: SideItem,
  x: number,
  y: number,
  ink: Ink,
): void {
  const isWorking = (half: 'left' | 'right') => seen === half || seen === 'near';
  ctx.lineCap = 'round';
  for (const half of ['left', 'right'] as const) {
    const way = half === 'left' ? 1 : -1;
    ctx.strokeStyle = isWorking(half) ? ink.accent : ink.track;
    ctx.lineWidth = isWorking(half) ? 16 : 11;
    for (const limb of LIMBS) {
      ctx.beginPath();
      limb.forEach(([dx, dy], i) =>
        i === 0 ? ctx.moveTo(x + way * dx, y + dy) : ctx.lineTo(x + way * dx, y + dy),
      );
      ctx.stroke();
    }
  }
  ctx.fillStyle = ink.dim;
  ctx.beginPath();
  ctx.roundRect(x - 20, y - 26, 40, 66, 16);
  ctx.fill();
  ctx.beginPath();
  ctx.arc(x, y - 48, 17, 0, Math.PI * 2);
  ctx.fill();
  if (away) return;
  // A face is seen from the front only.
  ctx.fillStyle = ink.panel;
  for (const eye of [-6, 6]) {
    ctx.beginPath();
    ctx.arc(x + eye, y - 50, 2.6, 0, Math.PI * 2);
    ctx.fill();
  }
}

export function paintSide(ctx: PaintContext, item: SideItem, box: Box, ink: Ink): void {
  panel(ctx, box, ink.panel, ink.accent, ink.backing);
  paintFigure(ctx, item, box.x + 64, box.y + 84, ink);
  const column = { x: box.x + 122, width: box.width - 136 };
  const top = writeLines(
    ctx,
    item.word,
    { ...column, top: box.y + 18 },
    { weight: 'bold', size: MAIN_TEXT, maxLines: 1, colour: ink.accent },
  );
  writeLines(
    ctx,
    item.reading,
    { ...column, top: top + 2 },
    { weight: 'regular', size: 36, maxLines: 3, colour: ink.dim },
  );
}

const COLUMN = 22;

/** Height of a line of the smallest text. */
const LINE = 41;

/** Lines one below the other as far as there is room; the last one may take what is left. */
function paintLines(
  ctx: PaintContext,
  lines: readonly string[],
  box: Box,
  top: number,
  colour: string,
): void {
  let at = top;
  lines.forEach((line, i) => {
    const room = Math.floor((box.y + box.height - 6 - at) / LINE);
    if (room < 1) return;
    at = writeLines(
      ctx,
      line,
      { x: box.x + COLUMN, top: at, width: box.width - 2 * COLUMN },
      { weight: 'regular', size: 36, maxLines: i === lines.length - 1 ? room : 1, colour },
    );
  });
}

/** One mark for each section: done ones filled, the present one large. */
function paintSteps(ctx: PaintContext, done: number, of: number, box: Box, ink: Ink): void {
  const step = Math.min(44, (box.width - 2 * COLUMN) / Math.max(1, of));
  for (let i = 0; i < of; i += 1) {
    const isNow = i === done;
    const size = Math.min(step - 8, isNow ? 30 : 20);
    ctx.beginPath();
    ctx.roundRect(box.x + COLUMN + i * step, box.y + 34 - size / 2, size, size, isNow ? 8 : 5);
    ctx.fillStyle = i <= done ? ink.accent : ink.track;
    ctx.fill();
  }
}

/** One line, large, with what it is in the other language below. */
function paintTitle(ctx: PaintContext, text: string, also: string, box: Box, ink: Ink): void {
  const low: Box = { ...box, height: also ? 138 : 96 };
  panel(ctx, low, ink.panel, ink.accent, ink.backing);
  const column = { x: box.x + COLUMN, width: box.width - 2 * COLUMN };
  const top = writeLines(
    ctx,
    text,
    { ...column, top: box.y + 20 },
    { weight: 'bold', size: 48, maxLines: 1, colour: ink.text },
  );
  writeLines(
    ctx,
    also,
    { ...column, top: top + 2 },
    { weight: 'regular', size: 40, maxLines: 1, colour: ink.dim },
  );
}

/** The two bars of a video that waits. */
function paintWaiting(ctx: PaintContext, x: number, y: number, ink: Ink): void {
  ctx.fillStyle = ink.ready;
  for (const dx of [-14, 4]) {
    ctx.beginPath();
    ctx.roundRect(x + dx, y - 18, 10, 36, 3);
    ctx.fill();
  }
}

function paintHeaded(
  ctx: PaintContext,
  board: Exclude<Board, { kind: 'chapter' | 'name' }>,
  { heading, also }: BoardItem,
  box: Box,
  ink: Ink,
): void {
  panel(ctx, box, ink.panel, ink.panelEdge, ink.backing);
  const column = { x: box.x + COLUMN, width: box.width - 2 * COLUMN };
  if (board.kind === 'strip') {
    paintSteps(ctx, board.done, board.of, box, ink);
    const top = writeLines(
      ctx,
      board.now,
      { ...column, top: box.y + 62 },
      { weight: 'bold', size: 44, maxLines: 1, colour: ink.text },
    );
    if (board.then !== '') paintLines(ctx, [`${heading}: ${board.then}`], box, top + 4, ink.dim);
    return;
  }
  const waits = board.kind === 'ready';
  if (waits) paintWaiting(ctx, column.x + 14, box.y + 32, ink);
  const top = writeLines(
    ctx,
    heading,
    {
      ...(waits ? { x: column.x + 44, width: column.width - 44 } : column),
      top: box.y + 8,
    },
    { weight: 'bold', size: 40, maxLines: 1, colour: ink.accent },
  );
  if (board.kind === 'next' || board.kind === 'ready') {
    const room = { x: box.x + box.width - 172, width: 160 };
    // The words that the video waits take the whole line.
    const below = waits ? 58 : 16;
    paintMovement(
      ctx,
      board.movement,
      { ...room, y: box.y + below, height: box.height - below - 14 },
      ink,
    );
    const under = writeLines(
      ctx,
      board.title,
      { x: column.x, top: top + 2, width: column.width - (isDrawn(board.movement) ? 150 : 0) },
      { weight: 'bold', size: 40, maxLines: also === '' ? 3 : 2, colour: ink.text },
    );
    if (also !== '') paintLines(ctx, [also], box, under, ink.dim);
  } else if (board.kind === 'kit') paintLines(ctx, board.lines, box, top + 2, ink.text);
  else if (board.kind === 'floor')
    paintCourt(
      ctx,
      board.floor,
      {
        x: box.x + box.width * 0.4,
        y: box.y + 12,
        width: box.width * 0.56,
        height: box.height - 24,
      },
      ink,
    );
  else {
    const below = board.kind === 'level' ? board.rule : '';
    const under = writeLines(
      ctx,
      board.text,
      { ...column, top: top + 2 },
      { weight: 'bold', size: 40, maxLines: also || below ? 2 : 3, colour: ink.text },
    );
    paintLines(
      ctx,
      [also || below].filter((line) => line !== ''),
      box,
      under,
      ink.dim,
    );
  }
}

export function paintBoard(ctx: PaintContext, item: BoardItem, box: Box, ink: Ink): void {
  const { board } = item;
  if (board.kind === 'chapter') paintTitle(ctx, board.title, item.also, box, ink);
  else if (board.kind === 'name') paintTitle(ctx, board.name, item.also, box, ink);
  else paintHeaded(ctx, board, item, box, ink);
}
