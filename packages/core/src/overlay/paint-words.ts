import type { Ink } from './ink.ts';
import {
  fitText,
  MAIN_TEXT,
  MIN_TEXT,
  REFERENCE,
  SLOT_BOXES,
  type Box,
  type FittedText,
  type Measure,
} from './layout.ts';
import {
  fitIn,
  isRightToLeft,
  measurer,
  panel,
  writeCentred,
  writeLines,
  type PaintContext,
} from './pen.ts';
import { paintSign } from './paint-sign.ts';
import type { CaptionItem, CautionItem, CueItem, PointerItem } from './scene.ts';

/** Room of the sign before a line. */
const JUDGED = 38;

/** Words with a sign before them: a tick, or a cross. */
function paintJudged(
  ctx: PaintContext,
  text: string,
  isRight: boolean,
  at: { x: number; top: number; width: number },
  style: { size: number; maxLines: number },
  ink: Ink,
): number {
  const [x, y] = [at.x + 14, at.top + Math.round(style.size * 0.6)];
  ctx.strokeStyle = isRight ? ink.rest : ink.ready;
  ctx.lineWidth = 6;
  ctx.lineCap = 'round';
  ctx.beginPath();
  ctx.moveTo(x - 12, isRight ? y : y - 12);
  if (isRight) ctx.lineTo(x - 3, y + 10);
  ctx.lineTo(x + 12, isRight ? y - 12 : y + 12);
  if (!isRight) {
    ctx.moveTo(x + 12, y - 12);
    ctx.lineTo(x - 12, y + 12);
  }
  ctx.stroke();
  return writeLines(
    ctx,
    text,
    { ...at, x: at.x + JUDGED, width: at.width - JUDGED },
    { weight: 'regular', ...style, colour: ink.text },
  );
}

/**
 * The right form above the usual mistake; where either needs two lines, the cue itself, which they
 * spell out, gives its place.
 */
function paintPair(
  ctx: PaintContext,
  item: CueItem,
  card: Box,
  column: { x: number; width: number },
  ink: Ink,
): void {
  const isShort = [item.right, item.wrong].every(
    (text) => measurer(ctx, 'regular')(text, MAIN_TEXT) <= column.width - JUDGED,
  );
  let top = card.y + 8;
  if (isShort)
    top = writeLines(
      ctx,
      item.text,
      { ...column, top },
      { weight: 'bold', size: MAIN_TEXT, maxLines: 1, colour: ink.text },
    );
  const style = isShort ? { size: MAIN_TEXT, maxLines: 1 } : { size: MIN_TEXT, maxLines: 2 };
  top = paintJudged(ctx, item.right, true, { ...column, top }, style, ink);
  paintJudged(ctx, item.wrong, false, { ...column, top: top + (isShort ? 0 : 4) }, style, ink);
}

/** Room of a cue's words beside the bar and the edges. */
const CUE_MARGIN = 54;

/**
 * A cue's words as they are set in their place: as large as all words that are followed while
 * moving, smaller only where they are too many.
 */
export const fitCue = (text: string, hasOther: boolean, measure: Measure): FittedText =>
  fitText(text, SLOT_BOXES.cue.width - CUE_MARGIN, hasOther ? 1 : 2, MAIN_TEXT, measure);

const CAUTION_MARGIN = 116;

/** A caution's words as they are set in their place. */
export const fitCaution = (text: string, hasOther: boolean, measure: Measure): FittedText =>
  fitText(text, SLOT_BOXES.caution.width - CAUTION_MARGIN, hasOther ? 1 : 2, MAIN_TEXT, measure);

export function paintCue(ctx: PaintContext, item: CueItem, box: Box, ink: Ink): void {
  if (item.sign) {
    panel(ctx, box, ink.panel, ink.panelEdge, ink.backing);
    const inner = { x: box.x + 24, y: box.y + 16, width: box.width - 48, height: box.height - 32 };
    return paintSign(ctx, item.sign, inner, ink);
  }
  const isPair = item.right !== '' && item.wrong !== '';
  const words = {
    weight: 'bold',
    size: MAIN_TEXT,
    maxLines: item.also ? 1 : 2,
    colour: ink.text,
  } as const;
  const fitted = fitIn(ctx, item.text, 'bold', box.width - CUE_MARGIN, words.maxLines, words.size);
  const height = 62 + Math.round(fitted.size * 1.14) * fitted.lines.length + (item.also ? 64 : 12);
  const card: Box = { ...box, height: isPair ? box.height : Math.min(box.height, height) };
  panel(ctx, card, ink.panel, ink.panelEdge, ink.backing);
  // The bar stands where reading begins.
  const fromRight = isRightToLeft(item.text);
  ctx.fillStyle = ink.accent;
  ctx.fillRect(
    fromRight ? card.x + card.width - 22 : card.x + 14,
    card.y + 18,
    8,
    card.height - 36,
  );
  const column = { x: card.x + (fromRight ? 18 : 36), width: card.width - CUE_MARGIN };
  if (isPair) return paintPair(ctx, item, card, column, ink);
  const top = writeLines(
    ctx,
    item.word,
    { ...column, top: card.y + 14 },
    { weight: 'regular', size: 36, maxLines: 1, colour: ink.accent },
  );
  const under = writeLines(ctx, item.text, { ...column, top: top + 2 }, words);
  writeLines(
    ctx,
    item.also,
    { ...column, top: under + 4 },
    { weight: 'regular', size: MAIN_TEXT, maxLines: 1, colour: ink.dim },
  );
}

function paintWarningSign(ctx: PaintContext, x: number, middle: number, ink: Ink): void {
  ctx.beginPath();
  ctx.moveTo(x + 22, middle - 22);
  ctx.lineTo(x + 46, middle + 20);
  ctx.lineTo(x - 2, middle + 20);
  ctx.closePath();
  ctx.fillStyle = ink.cautionText;
  ctx.fill();
  ctx.fillStyle = ink.caution;
  ctx.fillRect(x + 19, middle - 9, 6, 16);
  ctx.fillRect(x + 19, middle + 11, 6, 6);
}

/** An exchange: one arrow there, one back. */
function paintCorrectionSign(ctx: PaintContext, x: number, middle: number, ink: Ink): void {
  ctx.strokeStyle = ink.cautionText;
  ctx.lineWidth = 5;
  for (const way of [1, -1]) {
    const y = middle - way * 9;
    ctx.beginPath();
    ctx.moveTo(x - way * 20, y);
    ctx.lineTo(x + way * 18, y);
    ctx.moveTo(x + way * 8, y - 8);
    ctx.lineTo(x + way * 20, y);
    ctx.lineTo(x + way * 8, y + 8);
    ctx.stroke();
  }
}

export function paintCaution(ctx: PaintContext, item: CautionItem, slotBox: Box, ink: Ink): void {
  const width = slotBox.width - CAUTION_MARGIN;
  const maxLines = item.also === '' ? 2 : 1;
  const fitted = fitIn(ctx, item.text, 'bold', width, maxLines, MAIN_TEXT);
  const height = fitted.lines.length > 1 || item.also !== '' ? slotBox.height : 88;
  const box: Box = { ...slotBox, y: slotBox.y + slotBox.height - height, height };
  const isCorrection = item.tone === 'correction';
  panel(ctx, box, isCorrection ? ink.correction : ink.caution, ink.cautionText, ink.backing);
  const x = box.x + 26;
  const middle = box.y + box.height / 2;
  if (isCorrection) paintCorrectionSign(ctx, x + 22, middle, ink);
  else paintWarningSign(ctx, x, middle, ink);
  const lines = fitted.lines.length + (item.also === '' ? 0 : 1);
  const top = middle - Math.round(fitted.size * 1.14) * (lines / 2);
  const under = writeLines(
    ctx,
    item.text,
    { x: x + 64, top, width },
    { weight: 'bold', size: MAIN_TEXT, maxLines, colour: ink.cautionText },
  );
  writeLines(
    ctx,
    item.also,
    { x: x + 64, top: under, width },
    { weight: 'regular', size: MAIN_TEXT, maxLines: 1, colour: ink.cautionText },
  );
}

/** How far the words stand from what they point at, in layout units. */
const POINTER = { across: 190, down: 130, ring: 26 } as const;

/** A ring around the place, an arrow to it and its words. */
export function paintPointer(ctx: PaintContext, item: PointerItem, ink: Ink): void {
  const place = { x: (item.x * REFERENCE.width) / 1_000, y: (item.y * REFERENCE.height) / 1_000 };
  const across = item.words === 'right' ? 1 : -1;
  const down = place.y < REFERENCE.height / 2 ? 1 : -1;
  const tail = { x: place.x + across * POINTER.across, y: place.y + down * POINTER.down };
  const length = Math.hypot(POINTER.across, POINTER.down);
  const [ux, uy] = [(tail.x - place.x) / length, (tail.y - place.y) / length];
  const tip = { x: place.x + ux * POINTER.ring, y: place.y + uy * POINTER.ring };
  ctx.lineCap = 'round';
  // A dark line under the bright one is seen on any background.
  for (const [width, colour] of [
    [14, ink.panel],
    [7, ink.accent],
  ] as const) {
    ctx.lineWidth = width;
    ctx.strokeStyle = colour;
    ctx.beginPath();
    ctx.arc(place.x, place.y, POINTER.ring, 0, Math.PI * 2);
    ctx.stroke();
    ctx.beginPath();
    ctx.moveTo(tail.x, tail.y);
    ctx.lineTo(tip.x, tip.y);
    for (const side of [1, -1]) {
      ctx.moveTo(tip.x, tip.y);
      ctx.lineTo(tip.x + ux * 26 - side * uy * 16, tip.y + uy * 26 + side * ux * 16);
    }
    ctx.stroke();
  }
  const fitted = fitIn(ctx, item.text, 'bold', 360, 2, 48);
  if (fitted.lines.length === 0) return;
  const measure = measurer(ctx, 'bold');
  const width = Math.max(...fitted.lines.map((line) => measure(line, fitted.size))) + 48;
  const height = Math.round(fitted.size * 1.14) * fitted.lines.length + 28;
  const box: Box = { x: tail.x - (across > 0 ? 0 : width), y: tail.y - height / 2, width, height };
  panel(ctx, box, ink.panel, ink.accent, ink.backing);
  writeLines(
    ctx,
    item.text,
    { x: box.x + 24, top: box.y + 14, width: 360 },
    { weight: 'bold', size: 48, maxLines: 2, colour: ink.text },
  );
}

/** White on black under each line: common practice for captions, and readable over any picture. */
const CAPTION = {
  line: 46,
  ground: 44,
  margin: 16,
  smallest: 24,
  back: '#000000',
  text: '#ffffff',
} as const;

/** The lines of a caption in the middle of their place, the last one at its lower border. */
export function paintCaption(ctx: PaintContext, { text }: CaptionItem, box: Box): void {
  const lines = text.split('\n');
  const measure = measurer(ctx, 'bold');
  const middle = box.x + box.width / 2;
  lines.forEach((line, i) => {
    const {
      size,
      lines: [fitted = ''],
    } = fitText(line, box.width - 2 * CAPTION.margin, 1, MIN_TEXT, measure, CAPTION.smallest);
    const width = measure(fitted, size) + 2 * CAPTION.margin;
    const top =
      box.y + box.height - CAPTION.line * (lines.length - i) + CAPTION.line - CAPTION.ground;
    ctx.beginPath();
    ctx.roundRect(middle - width / 2, top, width, CAPTION.ground, 8);
    ctx.fillStyle = CAPTION.back;
    ctx.fill();
    ctx.direction = isRightToLeft(fitted) ? 'rtl' : 'ltr';
    writeCentred(
      ctx,
      fitted,
      middle,
      top + CAPTION.ground / 2 + Math.round(size * 0.34),
      'bold',
      size,
      CAPTION.text,
    );
    ctx.direction = 'ltr';
  });
}
