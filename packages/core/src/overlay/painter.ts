import type { CardText, ClockPhase } from '../assembly/index.ts';
import type { Finish } from '../lesson/index.ts';
import { paintCourt } from './court.ts';
import { inkOf, type Ink } from './ink.ts';
import { fitText, paintableText, REFERENCE, SAFE_AREA, type Box } from './layout.ts';
import { measurer, panel, write, writeCentred, writeDigits, writeLines, type PaintContext } from './pen.ts';
import type { CautionItem, ClockItem, CounterItem, CueItem, PointerItem, Scene, SceneItem } from './scene.ts';
import { momentWords, phaseWords } from './words.ts';

type ClockStyle = Finish['look']['clock'];

const phaseColours: Record<ClockPhase, 'accent' | 'rest' | 'ready'> = { 'lead-in': 'ready', work: 'accent', rest: 'rest', change: 'ready', hold: 'accent', watch: 'ready', think: 'rest', score: 'ready' };

/** The time to go, or gone, as a ring around the digits, a bar under them, or the digits alone. @returns the width the drawing takes on the right */
function paintTime(ctx: PaintContext, item: ClockItem, box: Box, colour: string, style: ClockStyle, ink: Ink): number {
  const right = box.x + box.width - 22;
  if (style === 'ring') {
    const radius = 88;
    const centre = { x: right - radius, y: box.y + box.height / 2 };
    ctx.lineCap = 'butt';
    ctx.lineWidth = 18;
    ctx.strokeStyle = ink.track;
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
    writeDigits(ctx, item.digits, centre.x, centre.y + Math.round(size * 0.35), size, ink.text);
    return radius * 2 + 26;
  }
  const width = item.digits.length <= 2 ? 184 : 220;
  const size = item.digits.length <= 2 ? 150 : item.digits.length <= 4 ? 92 : 64;
  const middle = box.y + box.height / 2 - (style === 'bar' ? 24 : 0);
  writeDigits(ctx, item.digits, right - width / 2, middle + Math.round(size * 0.35), size, style === 'digits' ? colour : ink.text);
  if (style === 'bar') {
    const bar = { x: box.x + 22, y: box.y + box.height - 44, width: box.width - 44, height: 24 };
    ctx.fillStyle = ink.track;
    ctx.fillRect(bar.x, bar.y, bar.width, bar.height);
    ctx.fillStyle = colour;
    ctx.fillRect(bar.x, bar.y, bar.width * item.left, bar.height);
  }
  return width + 22;
}

function paintClock(ctx: PaintContext, item: ClockItem, box: Box, { clock, calm }: Finish['look'], ink: Ink): void {
  const colour = ink[phaseColours[item.phase]];
  panel(ctx, box, ink.panel, colour);
  const column = { x: box.x + 22, width: box.width - 44 - paintTime(ctx, item, box, colour, clock, ink) };
  const bottom = box.y + box.height - (clock === 'bar' ? 54 : 10);
  const word = item.round ? `${phaseWords[item.phase]} ${item.round}` : phaseWords[item.phase];
  const top = writeLines(ctx, word, { ...column, top: box.y + 16 }, { weight: 'bold', size: 36, maxLines: 1, colour });
  const title = item.title.toLowerCase() === phaseWords[item.phase].toLowerCase() ? '' : item.title;
  const under = writeLines(ctx, title, { ...column, top: top + 4 }, { weight: 'bold', size: 44, maxLines: clock === 'bar' ? 1 : 2, colour: ink.text });
  const roomLines = Math.floor((bottom - under - 6) / 41);
  if (!calm && roomLines > 0) writeLines(ctx, item.next, { ...column, top: under + 6 }, { weight: 'regular', size: 36, maxLines: Math.min(2, roomLines), colour: ink.dim });
}

function paintCounter(ctx: PaintContext, item: CounterItem, whole: Box, ink: Ink): void {
  const plain = item.side === null && item.note === '';
  const box: Box = { ...whole, height: plain ? 176 : whole.height };
  panel(ctx, box, ink.panel, ink.accent);
  const digits = String(item.rep);
  writeDigits(ctx, digits, box.x + 112, box.y + 136, digits.length <= 2 ? 132 : 92, ink.text);
  write(ctx, `of ${item.reps}`, box.x + 212, box.y + 92, 'regular', 44, ink.dim);
  const below = { x: box.x + 22, top: box.y + 168, width: box.width - 44 };
  if (item.side) {
    const badge: Box = { x: box.x + 204, y: box.y + 112, width: 144, height: 50 };
    ctx.beginPath();
    ctx.roundRect(badge.x, badge.y, badge.width, badge.height, 12);
    ctx.fillStyle = ink.accent;
    ctx.fill();
    writeCentred(ctx, item.side === 'left' ? 'Left' : 'Right', badge.x + badge.width / 2, badge.y + 38, 'bold', 38, ink.onAccent);
  }
  writeLines(ctx, item.note, below, { weight: 'regular', size: 36, maxLines: 1, colour: ink.dim });
}

function paintCue(ctx: PaintContext, item: CueItem, box: Box, ink: Ink): void {
  const measure = measurer(ctx, 'bold');
  const fitted = fitText(item.text, box.width - 54, 2, 52, measure);
  const height = 62 + Math.round(fitted.size * 1.14) * fitted.lines.length + 12;
  const card: Box = { ...box, height: Math.min(box.height, height) };
  panel(ctx, card, ink.panel, ink.panelEdge);
  ctx.fillStyle = ink.accent;
  ctx.fillRect(card.x + 14, card.y + 18, 8, card.height - 36);
  const column = { x: card.x + 36, width: card.width - 54 };
  const top = writeLines(
    ctx,
    momentWords[item.moment],
    { ...column, top: card.y + 14 },
    { weight: 'regular', size: 36, maxLines: 1, colour: ink.accent },
  );
  writeLines(ctx, item.text, { ...column, top: top + 2 }, { weight: 'bold', size: 52, maxLines: 2, colour: ink.text });
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

function paintCaution(ctx: PaintContext, item: CautionItem, slotBox: Box, ink: Ink): void {
  const width = slotBox.width - 116;
  const fitted = fitText(item.text, width, 2, 40, measurer(ctx, 'bold'));
  const height = fitted.lines.length > 1 ? slotBox.height : 76;
  const box: Box = { ...slotBox, y: slotBox.y + slotBox.height - height, height };
  const isCorrection = item.tone === 'correction';
  panel(ctx, box, isCorrection ? ink.correction : ink.caution, ink.cautionText);
  const x = box.x + 26;
  const middle = box.y + box.height / 2;
  if (isCorrection) paintCorrectionSign(ctx, x + 22, middle, ink);
  else paintWarningSign(ctx, x, middle, ink);
  const top = middle - Math.round(fitted.size * 1.14) * (fitted.lines.length / 2);
  writeLines(ctx, item.text, { x: x + 64, top, width }, { weight: 'bold', size: 40, maxLines: 2, colour: ink.cautionText });
}

/** How far the words stand from what they point at, in layout units. */
const POINTER = { across: 190, down: 130, ring: 26 } as const;

/** A ring around the place, an arrow to it and its words, towards the side with more room. */
function paintPointer(ctx: PaintContext, item: PointerItem, ink: Ink): void {
  const place = { x: (item.x * REFERENCE.width) / 1_000, y: (item.y * REFERENCE.height) / 1_000 };
  const across = place.x < REFERENCE.width / 2 ? 1 : -1;
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
  const fitted = fitText(item.text, 360, 2, 48, measurer(ctx, 'bold'));
  if (fitted.lines.length === 0) return;
  const measure = measurer(ctx, 'bold');
  const width = Math.max(...fitted.lines.map((line) => measure(line, fitted.size))) + 48;
  const height = Math.round(fitted.size * 1.14) * fitted.lines.length + 28;
  const box: Box = { x: tail.x - (across > 0 ? 0 : width), y: tail.y - height / 2, width, height };
  panel(ctx, box, ink.panel, ink.accent);
  writeLines(ctx, item.text, { x: box.x + 24, top: box.y + 14, width: 360 }, { weight: 'bold', size: 48, maxLines: 2, colour: ink.text });
}

/** Paints a full-frame card: heading, a court line, and its lines. */
function paintCard(ctx: PaintContext, card: CardText, ink: Ink): void {
  ctx.fillStyle = ink.card;
  ctx.fillRect(0, 0, REFERENCE.width, REFERENCE.height);
  ctx.strokeStyle = ink.cardLine;
  ctx.lineWidth = 6;
  ctx.beginPath();
  ctx.arc(REFERENCE.width, REFERENCE.height, 300, Math.PI, Math.PI * 1.5);
  ctx.stroke();
  ctx.beginPath();
  ctx.moveTo(0, 676);
  ctx.lineTo(REFERENCE.width, 676);
  ctx.stroke();
  // With a court the words keep to the left half.
  const column = { x: SAFE_AREA.x + 40, width: card.court ? SAFE_AREA.width / 2 - 60 : SAFE_AREA.width - 80 };
  if (card.court) paintCourt(ctx, card.court, { x: REFERENCE.width / 2 + 20, y: SAFE_AREA.y + 40, width: SAFE_AREA.width / 2 - 40, height: SAFE_AREA.height - 80 }, ink);
  let top = writeLines(
    ctx,
    card.heading,
    { ...column, top: 280 },
    { weight: 'bold', size: 76, maxLines: 2, colour: ink.text },
  );
  ctx.fillStyle = ink.accent;
  ctx.fillRect(column.x, top + 8, 180, 8);
  top += 32;
  const lines = card.lines.map(paintableText).filter((line) => line !== '');
  const room = Math.max(1, Math.floor((SAFE_AREA.y + SAFE_AREA.height - top) / 54));
  const shown = lines.length > room ? [...lines.slice(0, room - 1), `and ${lines.length - room + 1} more`] : lines;
  for (const line of shown) {
    writeLines(ctx, line, { ...column, top }, { weight: 'regular', size: 46, maxLines: 1, colour: ink.dim });
    top += 54;
  }
}

function paintItem(ctx: PaintContext, item: SceneItem, look: Finish['look']): void {
  const ink = inkOf(look);
  switch (item.slot) {
    case 'clock':
      return paintClock(ctx, item, item.box, look, ink);
    case 'counter':
      return paintCounter(ctx, item, item.box, ink);
    case 'cue':
      return paintCue(ctx, item, item.box, ink);
    case 'caution':
      return paintCaution(ctx, item, item.box, ink);
    case 'pointer':
      return paintPointer(ctx, item, ink);
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
  const part = scene.rising?.part ?? 1;
  if (scene.rising?.over) {
    ctx.globalAlpha = scene.card ? 1 : 1 - part;
    paintCard(ctx, scene.rising.over, inkOf(scene.look));
  }
  if (scene.card) {
    ctx.globalAlpha = part;
    paintCard(ctx, scene.card, inkOf(scene.look));
  }
  ctx.globalAlpha = 1;
  for (const item of scene.items) paintItem(ctx, item, scene.look);
  ctx.restore();
}

/** Paints one item alone on a cleared part of a picture, for burning in by regions: `scale` pixels a layout unit, from `left` and `top` of the picture on. */
export function paintItemAt(ctx: PaintContext, item: SceneItem, look: Finish['look'], { left, top, scale }: { left: number; top: number; scale: number }): void {
  ctx.save();
  ctx.translate(-left, -top);
  ctx.scale(scale, scale);
  paintItem(ctx, item, look);
  ctx.restore();
}
