import type { ClockPhase } from '../assembly/index.ts';
import type { Finish } from '../lesson/index.ts';
import type { Ink } from './ink.ts';
import { MAIN_TEXT, MIN_TEXT, type Box } from './layout.ts';
import { panel, writeDigits, writeLines, type PaintContext } from './pen.ts';
import type { ClockItem, CounterItem } from './scene.ts';

type ClockStyle = Finish['look']['clock'];

const phaseColours: Record<ClockPhase, 'accent' | 'rest' | 'ready'> = {
  'lead-in': 'ready',
  work: 'accent',
  rest: 'rest',
  change: 'ready',
  hold: 'accent',
  watch: 'ready',
  think: 'rest',
  score: 'ready',
};

/**
 * The time to go, or gone, as a ring around the digits, a bar under them, or the digits alone.
 * @returns the width the drawing takes on the right
 */
function paintTime(
  ctx: PaintContext,
  item: ClockItem,
  box: Box,
  colour: string,
  style: ClockStyle,
  ink: Ink,
): number {
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
    writeDigits(
      ctx,
      item.digits,
      centre.x,
      centre.y + Math.round(size * 0.35),
      size,
      item.last ? colour : ink.text,
    );
    return radius * 2 + 26;
  }
  const width = item.digits.length <= 2 ? 184 : 220;
  const size = item.digits.length <= 2 ? 150 : item.digits.length <= 4 ? 92 : 64;
  const middle = box.y + box.height / 2 - (style === 'bar' ? 24 : 0);
  writeDigits(
    ctx,
    item.digits,
    right - width / 2,
    middle + Math.round(size * 0.35),
    size,
    style === 'digits' || item.last ? colour : ink.text,
  );
  if (style === 'bar') {
    const bar = { x: box.x + 22, y: box.y + box.height - 44, width: box.width - 44, height: 24 };
    ctx.fillStyle = ink.track;
    ctx.fillRect(bar.x, bar.y, bar.width, bar.height);
    ctx.fillStyle = colour;
    ctx.fillRect(bar.x, bar.y, bar.width * item.left, bar.height);
  }
  return width + 22;
}

export function paintClock(
  ctx: PaintContext,
  item: ClockItem,
  box: Box,
  { clock, calm }: Finish['look'],
  ink: Ink,
): void {
  const colour = ink[phaseColours[item.phase]];
  panel(ctx, box, ink.panel, colour, ink.backing);
  const column = {
    x: box.x + 22,
    width: box.width - 44 - paintTime(ctx, item, box, colour, clock, ink),
  };
  const bottom = box.y + box.height - (clock === 'bar' ? 54 : 8);
  const word = item.round ? `${item.word} ${item.round}` : item.word;
  const top = writeLines(
    ctx,
    word,
    { ...column, top: box.y + 10 },
    { weight: 'bold', size: MIN_TEXT, maxLines: 1, colour },
  );
  const title = item.title.toLowerCase() === item.word.toLowerCase() ? '' : item.title;
  const under = writeLines(
    ctx,
    title,
    { ...column, top: top + 2 },
    {
      weight: 'bold',
      size: MAIN_TEXT,
      maxLines: clock === 'bar' || item.also !== '' ? 1 : 2,
      colour: ink.text,
    },
  );
  // Two lines of a title leave one for what comes next.
  const roomLines = Math.floor((bottom - under - 4) / 41);
  const below = item.also || (calm ? '' : item.next);
  if (roomLines > 0)
    writeLines(
      ctx,
      below,
      { ...column, top: under + 4 },
      { weight: 'regular', size: MIN_TEXT, maxLines: Math.min(2, roomLines), colour: ink.dim },
    );
}

/** A tick, its middle at the place. */
function paintTick(ctx: PaintContext, x: number, y: number, colour: string): void {
  ctx.strokeStyle = colour;
  ctx.lineWidth = 9;
  ctx.lineCap = 'round';
  ctx.beginPath();
  ctx.moveTo(x - 24, y);
  ctx.lineTo(x - 7, y + 18);
  ctx.lineTo(x + 26, y - 22);
  ctx.stroke();
}

/** A mark for each beat of an eight: those gone filled, the one on now large. */
function paintBeats(ctx: PaintContext, { rep, beats }: CounterItem, box: Box, ink: Ink): void {
  const step = box.width / beats;
  for (let beat = 1; beat <= beats; beat += 1) {
    const isNow = beat === rep;
    const [width, height] = isNow ? [step - 4, box.height] : [step - 8, box.height * 0.5];
    ctx.beginPath();
    ctx.roundRect(
      box.x + (beat - 0.5) * step - width / 2,
      box.y + (box.height - height) / 2,
      width,
      height,
      4,
    );
    ctx.fillStyle = beat <= rep ? ink.accent : ink.track;
    ctx.fill();
  }
}

export function paintCounter(ctx: PaintContext, item: CounterItem, whole: Box, ink: Ink): void {
  const box: Box = { ...whole, height: item.note === '' ? 176 : whole.height };
  const colour = item.missed ? ink.ready : ink.accent;
  panel(ctx, box, ink.panel, colour, ink.backing);
  const digits = String(item.shown);
  writeDigits(
    ctx,
    digits,
    box.x + 112,
    box.y + 136,
    digits.length <= 2 ? 132 : 92,
    item.missed ? ink.dim : ink.text,
  );
  const column = { x: box.x + 208, width: box.width - 224 };
  writeLines(
    ctx,
    item.tail,
    { ...column, top: box.y + 40 },
    { weight: 'regular', size: MAIN_TEXT, maxLines: 1, colour: ink.dim },
  );
  if (item.missed) {
    // Struck through: seen, but not counted.
    ctx.strokeStyle = ink.ready;
    ctx.lineWidth = 9;
    ctx.lineCap = 'round';
    ctx.beginPath();
    ctx.moveTo(box.x + 40, box.y + 140);
    ctx.lineTo(box.x + 184, box.y + 36);
    ctx.stroke();
  } else if (item.reached) paintTick(ctx, column.x + 36, box.y + 124, ink.accent);
  if (item.beats > 0)
    paintBeats(
      ctx,
      item,
      { x: box.x + 208, y: box.y + 122, width: box.width - 226, height: 40 },
      ink,
    );
  writeLines(
    ctx,
    item.note,
    { x: box.x + 22, top: box.y + 168, width: box.width - 44 },
    { weight: 'regular', size: 36, maxLines: 1, colour: item.missed ? ink.ready : ink.dim },
  );
}
