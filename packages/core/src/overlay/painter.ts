import type { CardText, ClockPhase, Slot } from '../assembly/index.ts';
import { fitText, paintableText, REFERENCE, SAFE_AREA, SLOT_BOXES, type Box, type Measure } from './layout.ts';
import type { CautionItem, ClockItem, CounterItem, CueItem, Scene, SceneItem } from './scene.ts';
import { momentWords, phaseWords } from './words.ts';

/** The part of a canvas context the painter needs; a browser's and the server's both have it. */
export interface PaintContext {
  fillStyle: unknown;
  strokeStyle: unknown;
  lineWidth: number;
  lineCap: string;
  font: string;
  textAlign: string;
  textBaseline: string;
  save(): void;
  restore(): void;
  scale(x: number, y: number): void;
  translate(x: number, y: number): void;
  clearRect(x: number, y: number, width: number, height: number): void;
  fillRect(x: number, y: number, width: number, height: number): void;
  beginPath(): void;
  closePath(): void;
  moveTo(x: number, y: number): void;
  lineTo(x: number, y: number): void;
  arc(x: number, y: number, radius: number, from: number, to: number, anticlockwise?: boolean): void;
  roundRect(x: number, y: number, width: number, height: number, radius: number): void;
  fill(): void;
  stroke(): void;
  fillText(text: string, x: number, y: number): void;
  measureText(text: string): { width: number };
}

/** Families under which both shells load the shipped font files, so that both draw the same glyphs. */
export const FONT_FAMILIES = { regular: 'ZestRegular', bold: 'ZestBold' } as const;
const stack = { regular: 'ZestRegular, ZestRegularExt', bold: 'ZestBold, ZestBoldExt' } as const;
type Weight = keyof typeof stack;

/** Opaque colours: the picture behind never changes the contrast. Every text pair is at least 4.5:1. */
export const COLOURS = {
  panel: '#26211c',
  panelEdge: '#f6efe4',
  text: '#fffaf2',
  dim: '#e3d9ca',
  zest: '#ffb454',
  rest: '#8fd6c9',
  ready: '#ffe08a',
  track: '#5a5148',
  caution: '#ffe9b8',
  cautionText: '#2a2016',
  card: '#2f2923',
  cardLine: '#8a6a3a',
} as const;

const phaseColour: Record<ClockPhase, string> = {
  'lead-in': COLOURS.ready,
  work: COLOURS.zest,
  rest: COLOURS.rest,
  change: COLOURS.ready,
  hold: COLOURS.zest,
  watch: COLOURS.ready,
  think: COLOURS.rest,
  score: COLOURS.ready,
};
function setFont(ctx: PaintContext, weight: Weight, size: number): void {
  ctx.font = `${size}px ${stack[weight]}`;
}

function measurer(ctx: PaintContext, weight: Weight): Measure {
  return (text, size) => {
    setFont(ctx, weight, size);
    return ctx.measureText(text).width;
  };
}

function panel(ctx: PaintContext, box: Box, fill: string, edge: string): void {
  ctx.beginPath();
  ctx.roundRect(box.x + 2, box.y + 2, box.width - 4, box.height - 4, 18);
  ctx.fillStyle = fill;
  ctx.fill();
  ctx.lineWidth = 4;
  ctx.strokeStyle = edge;
  ctx.stroke();
}

function write(ctx: PaintContext, text: string, x: number, baseline: number, weight: Weight, size: number, colour: string): void {
  setFont(ctx, weight, size);
  ctx.textAlign = 'left';
  ctx.textBaseline = 'alphabetic';
  ctx.fillStyle = colour;
  ctx.fillText(text, x, baseline);
}

/** Writes fitted lines from `top` down; gives the top of what may follow. */
function writeLines(
  ctx: PaintContext,
  text: string,
  at: { x: number; top: number; width: number },
  style: { weight: Weight; size: number; maxLines: number; colour: string },
): number {
  const fitted = fitText(text, at.width, style.maxLines, style.size, measurer(ctx, style.weight));
  const lineHeight = Math.round(fitted.size * 1.14);
  fitted.lines.forEach((line, i) => {
    write(ctx, line, at.x, at.top + lineHeight * i + Math.round(fitted.size * 0.86), style.weight, fitted.size, style.colour);
  });
  return at.top + lineHeight * fitted.lines.length;
}

/**
 * Writes digits each in a cell of the width of the widest one, centred on `centreX`, so that a running
 * clock does not tremble. Other characters (the colon) take their own width.
 */
function writeDigits(ctx: PaintContext, text: string, centreX: number, baseline: number, size: number, colour: string): void {
  setFont(ctx, 'bold', size);
  ctx.textAlign = 'center';
  ctx.textBaseline = 'alphabetic';
  ctx.fillStyle = colour;
  const cell = Math.max(...[...'0123456789'].map((digit) => ctx.measureText(digit).width));
  const widths = [...text].map((char) => (/\d/.test(char) ? cell : ctx.measureText(char).width));
  let x = centreX - widths.reduce((sum, width) => sum + width, 0) / 2;
  [...text].forEach((char, i) => {
    const width = widths[i] ?? 0;
    ctx.fillText(char, x + width / 2, baseline);
    x += width;
  });
}

function paintClock(ctx: PaintContext, item: ClockItem): void {
  const box = SLOT_BOXES.clock;
  const colour = phaseColour[item.phase];
  panel(ctx, box, COLOURS.panel, colour);
  const radius = 88;
  const centre = { x: box.x + box.width - radius - 22, y: box.y + box.height / 2 };
  ctx.lineCap = 'butt';
  ctx.lineWidth = 18;
  ctx.strokeStyle = COLOURS.track;
  ctx.beginPath();
  ctx.arc(centre.x, centre.y, radius, 0, Math.PI * 2);
  ctx.stroke();
  if (item.left > 0) {
    ctx.strokeStyle = colour;
    ctx.beginPath();
    ctx.arc(centre.x, centre.y, radius, -Math.PI / 2, -Math.PI / 2 + Math.PI * 2 * item.left);
    ctx.stroke();
  }
  const size = item.digits.length <= 2 ? 100 : item.digits.length <= 4 ? 62 : 44;
  writeDigits(ctx, item.digits, centre.x, centre.y + Math.round(size * 0.35), size, COLOURS.text);
  const column = { x: box.x + 22, width: box.width - radius * 2 - 70 };
  const word = item.round ? `${phaseWords[item.phase]} ${item.round}` : phaseWords[item.phase];
  const top = writeLines(ctx, word, { ...column, top: box.y + 16 }, { weight: 'bold', size: 36, maxLines: 1, colour });
  const title = item.title.toLowerCase() === phaseWords[item.phase].toLowerCase() ? '' : item.title;
  const under = writeLines(ctx, title, { ...column, top: top + 4 }, { weight: 'bold', size: 44, maxLines: 2, colour: COLOURS.text });
  const roomLines = under + 84 < box.y + box.height - 10 ? 2 : 1;
  writeLines(ctx, item.next, { ...column, top: under + 6 }, { weight: 'regular', size: 36, maxLines: roomLines, colour: COLOURS.dim });
}

function paintCounter(ctx: PaintContext, item: CounterItem): void {
  const plain = item.side === null && item.note === '';
  const box: Box = { ...SLOT_BOXES.counter, height: plain ? 176 : SLOT_BOXES.counter.height };
  panel(ctx, box, COLOURS.panel, COLOURS.zest);
  const digits = String(item.rep);
  writeDigits(ctx, digits, box.x + 112, box.y + 136, digits.length <= 2 ? 132 : 92, COLOURS.text);
  write(ctx, `of ${item.reps}`, box.x + 212, box.y + 92, 'regular', 44, COLOURS.dim);
  const below = { x: box.x + 22, top: box.y + 168, width: box.width - 44 };
  if (item.side) {
    const badge: Box = { x: box.x + 204, y: box.y + 112, width: 144, height: 50 };
    ctx.beginPath();
    ctx.roundRect(badge.x, badge.y, badge.width, badge.height, 12);
    ctx.fillStyle = COLOURS.zest;
    ctx.fill();
    setFont(ctx, 'bold', 38);
    ctx.textAlign = 'center';
    ctx.textBaseline = 'alphabetic';
    ctx.fillStyle = COLOURS.cautionText;
    ctx.fillText(item.side === 'left' ? 'Left' : 'Right', badge.x + badge.width / 2, badge.y + 38);
  }
  writeLines(ctx, item.note, below, { weight: 'regular', size: 36, maxLines: 1, colour: COLOURS.dim });
}

function paintCue(ctx: PaintContext, item: CueItem): void {
  const box = SLOT_BOXES.cue;
  const measure = measurer(ctx, 'bold');
  const fitted = fitText(item.text, box.width - 54, 2, 52, measure);
  const height = 62 + Math.round(fitted.size * 1.14) * fitted.lines.length + 12;
  const card: Box = { ...box, height: Math.min(box.height, height) };
  panel(ctx, card, COLOURS.panel, COLOURS.panelEdge);
  ctx.fillStyle = COLOURS.zest;
  ctx.fillRect(card.x + 14, card.y + 18, 8, card.height - 36);
  const column = { x: card.x + 36, width: card.width - 54 };
  const top = writeLines(
    ctx,
    momentWords[item.moment],
    { ...column, top: card.y + 14 },
    { weight: 'regular', size: 36, maxLines: 1, colour: COLOURS.zest },
  );
  writeLines(ctx, item.text, { ...column, top: top + 2 }, { weight: 'bold', size: 52, maxLines: 2, colour: COLOURS.text });
}

function paintCaution(ctx: PaintContext, item: CautionItem): void {
  const slotBox = SLOT_BOXES.caution;
  const width = slotBox.width - 116;
  const fitted = fitText(item.text, width, 2, 40, measurer(ctx, 'bold'));
  const height = fitted.lines.length > 1 ? slotBox.height : 76;
  const box: Box = { ...slotBox, y: slotBox.y + slotBox.height - height, height };
  panel(ctx, box, COLOURS.caution, COLOURS.cautionText);
  const x = box.x + 26;
  const middle = box.y + box.height / 2;
  ctx.beginPath();
  ctx.moveTo(x + 22, middle - 22);
  ctx.lineTo(x + 46, middle + 20);
  ctx.lineTo(x - 2, middle + 20);
  ctx.closePath();
  ctx.fillStyle = COLOURS.cautionText;
  ctx.fill();
  ctx.fillStyle = COLOURS.caution;
  ctx.fillRect(x + 19, middle - 9, 6, 16);
  ctx.fillRect(x + 19, middle + 11, 6, 6);
  const top = middle - Math.round(fitted.size * 1.14) * (fitted.lines.length / 2);
  writeLines(ctx, item.text, { x: x + 64, top, width }, { weight: 'bold', size: 40, maxLines: 2, colour: COLOURS.cautionText });
}

/** Paints a full-frame card: heading, a court line, and its lines. */
function paintCard(ctx: PaintContext, card: CardText): void {
  ctx.fillStyle = COLOURS.card;
  ctx.fillRect(0, 0, REFERENCE.width, REFERENCE.height);
  ctx.strokeStyle = COLOURS.cardLine;
  ctx.lineWidth = 6;
  ctx.beginPath();
  ctx.arc(REFERENCE.width, REFERENCE.height, 300, Math.PI, Math.PI * 1.5);
  ctx.stroke();
  ctx.beginPath();
  ctx.moveTo(0, 676);
  ctx.lineTo(REFERENCE.width, 676);
  ctx.stroke();
  const column = { x: SAFE_AREA.x + 40, width: SAFE_AREA.width - 80 };
  let top = writeLines(
    ctx,
    card.heading,
    { ...column, top: 280 },
    { weight: 'bold', size: 76, maxLines: 2, colour: COLOURS.text },
  );
  ctx.fillStyle = COLOURS.zest;
  ctx.fillRect(column.x, top + 8, 180, 8);
  top += 32;
  const lines = card.lines.map(paintableText).filter((line) => line !== '');
  const room = Math.max(1, Math.floor((SAFE_AREA.y + SAFE_AREA.height - top) / 54));
  const shown = lines.length > room ? [...lines.slice(0, room - 1), `and ${lines.length - room + 1} more`] : lines;
  for (const line of shown) {
    writeLines(ctx, line, { ...column, top }, { weight: 'regular', size: 46, maxLines: 1, colour: COLOURS.dim });
    top += 54;
  }
}

function paintItem(ctx: PaintContext, item: SceneItem): void {
  switch (item.slot) {
    case 'clock':
      return paintClock(ctx, item);
    case 'counter':
      return paintCounter(ctx, item);
    case 'cue':
      return paintCue(ctx, item);
    case 'caution':
      return paintCaution(ctx, item);
  }
}

/**
 * Paints a scene on a cleared canvas of `width` pixels (16:9): the one picture of an overlay there is.
 * Where footage shows, the canvas stays transparent.
 */
export function paintScene(ctx: PaintContext, scene: Scene, width: number): void {
  const scale = width / REFERENCE.width;
  ctx.clearRect(0, 0, width, Math.round(REFERENCE.height * scale));
  ctx.save();
  ctx.scale(scale, scale);
  if (scene.card) paintCard(ctx, scene.card);
  for (const item of scene.items) paintItem(ctx, item);
  ctx.restore();
}

/** Paints one slot alone on a cleared canvas of exactly its box, for burning in by regions. Null clears it. */
export function paintSlot(ctx: PaintContext, slot: Slot, item: SceneItem | null): void {
  const box = SLOT_BOXES[slot];
  ctx.clearRect(0, 0, box.width, box.height);
  if (!item) return;
  ctx.save();
  ctx.translate(-box.x, -box.y);
  paintItem(ctx, item);
  ctx.restore();
}
