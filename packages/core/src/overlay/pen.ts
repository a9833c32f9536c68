import { fitText, type Box, type FittedText, type Measure } from './layout.ts';

/** The part of a canvas context the painter needs; a browser's and the server's both have it. */
export interface PaintContext {
  globalAlpha: number;
  fillStyle: unknown;
  strokeStyle: unknown;
  lineWidth: number;
  lineCap: string;
  font: string;
  textAlign: string;
  textBaseline: string;
  direction: string;
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
  arc(
    x: number,
    y: number,
    radius: number,
    from: number,
    to: number,
    anticlockwise?: boolean,
  ): void;
  roundRect(x: number, y: number, width: number, height: number, radius: number): void;
  fill(): void;
  stroke(): void;
  fillText(text: string, x: number, y: number): void;
  measureText(text: string): { width: number };
}

/**
 * Families under which both shells load the shipped font files, so that both draw the same glyphs.
 */
export const FONT_FAMILIES = { regular: 'ZestRegular', bold: 'ZestBold' } as const;
/** Further files each family has, for letters the first one lacks. */
export const FONT_PARTS = ['Ext', 'Greek', 'Cyrillic', 'Arabic', 'Hebrew'] as const;
const stackOf = (family: string) =>
  [family, ...FONT_PARTS.map((part) => `${family}${part}`)].join(', ');
const stack = {
  regular: stackOf(FONT_FAMILIES.regular),
  bold: stackOf(FONT_FAMILIES.bold),
} as const;
export type Weight = keyof typeof stack;

export function setFont(ctx: PaintContext, weight: Weight, size: number): void {
  ctx.font = `${size}px ${stack[weight]}`;
}

export function measurer(ctx: PaintContext, weight: Weight): Measure {
  return (text, size) => {
    setFont(ctx, weight, size);
    return ctx.measureText(text).width;
  };
}

/** @param backing how much of the picture the ground covers, 0 to 1 */
export function panel(ctx: PaintContext, box: Box, fill: string, edge: string, backing = 1): void {
  ctx.beginPath();
  ctx.roundRect(box.x + 2, box.y + 2, box.width - 4, box.height - 4, 18);
  ctx.fillStyle = fill;
  ctx.globalAlpha = backing;
  ctx.fill();
  ctx.globalAlpha = 1;
  ctx.lineWidth = 4;
  ctx.strokeStyle = edge;
  ctx.stroke();
}

export function write(
  ctx: PaintContext,
  text: string,
  x: number,
  baseline: number,
  weight: Weight,
  size: number,
  colour: string,
): void {
  setFont(ctx, weight, size);
  ctx.textAlign = 'left';
  ctx.textBaseline = 'alphabetic';
  ctx.fillStyle = colour;
  ctx.fillText(text, x, baseline);
}

/**
 * Texts as they were fitted: the same few are painted over and over, and measuring letters is most
 * of the work.
 */
const fittedBefore = new Map<string, FittedText>();
const MOST_FITTED = 2_000;
/** Width of the widest digit, by size. */
const digitCells = new Map<number, number>();

/** Forgets how texts were fitted: with other fonts they are as wide as they are. */
export function forgetFitted(): void {
  fittedBefore.clear();
  digitCells.clear();
}

/** `fitText` in a weight, with what it gave before. */
export function fitIn(
  ctx: PaintContext,
  text: string,
  weight: Weight,
  width: number,
  maxLines: number,
  size: number,
): FittedText {
  const key = `${weight} ${width} ${maxLines} ${size} ${text}`;
  const known = fittedBefore.get(key);
  if (known) return known;
  if (fittedBefore.size >= MOST_FITTED) fittedBefore.clear();
  const fitted = fitText(text, width, maxLines, size, measurer(ctx, weight));
  fittedBefore.set(key, fitted);
  return fitted;
}

/** Whether a text is read from right to left: by its first letter. */
export function isRightToLeft(text: string): boolean {
  return /^[^\p{L}]*[\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Syriac}\p{Script=Thaana}\p{Script=Nko}]/u.test(
    text,
  );
}

/**
 * Writes fitted lines from `top` down, from the right edge where they are read so; gives the top of
 * what may follow.
 */
export function writeLines(
  ctx: PaintContext,
  text: string,
  at: { x: number; top: number; width: number },
  style: { weight: Weight; size: number; maxLines: number; colour: string },
): number {
  const fitted = fitIn(ctx, text, style.weight, at.width, style.maxLines, style.size);
  const lineHeight = Math.round(fitted.size * 1.14);
  const fromRight = isRightToLeft(text);
  fitted.lines.forEach((line, i) => {
    if (fromRight)
      writeFromRight(
        ctx,
        line,
        at.x + at.width,
        at.top + lineHeight * i + Math.round(fitted.size * 0.86),
        style.weight,
        fitted.size,
        style.colour,
      );
    else
      write(
        ctx,
        line,
        at.x,
        at.top + lineHeight * i + Math.round(fitted.size * 0.86),
        style.weight,
        fitted.size,
        style.colour,
      );
  });
  return at.top + lineHeight * fitted.lines.length;
}

function writeFromRight(
  ctx: PaintContext,
  text: string,
  right: number,
  baseline: number,
  weight: Weight,
  size: number,
  colour: string,
): void {
  setFont(ctx, weight, size);
  ctx.direction = 'rtl';
  ctx.textAlign = 'right';
  ctx.textBaseline = 'alphabetic';
  ctx.fillStyle = colour;
  ctx.fillText(text, right, baseline);
  ctx.direction = 'ltr';
}

/**
 * Writes digits each in a cell of the width of the widest one, centred on `centreX`, so that a
 * running clock does not tremble. Other characters (the colon) take their own width.
 */
export function writeDigits(
  ctx: PaintContext,
  text: string,
  centreX: number,
  baseline: number,
  size: number,
  colour: string,
): void {
  setFont(ctx, 'bold', size);
  ctx.textAlign = 'center';
  ctx.textBaseline = 'alphabetic';
  ctx.fillStyle = colour;
  const cell =
    digitCells.get(size) ??
    Math.max(...[...'0123456789'].map((digit) => ctx.measureText(digit).width));
  digitCells.set(size, cell);
  const widths = [...text].map((char) => (/\d/.test(char) ? cell : ctx.measureText(char).width));
  let x = centreX - widths.reduce((sum, width) => sum + width, 0) / 2;
  [...text].forEach((char, i) => {
    const width = widths[i] ?? 0;
    ctx.fillText(char, x + width / 2, baseline);
    x += width;
  });
}

/** One line with its middle at `x`. */
export function writeCentred(
  ctx: PaintContext,
  text: string,
  x: number,
  baseline: number,
  weight: Weight,
  size: number,
  colour: string,
): void {
  setFont(ctx, weight, size);
  ctx.textAlign = 'center';
  ctx.textBaseline = 'alphabetic';
  ctx.fillStyle = colour;
  ctx.fillText(text, x, baseline);
}
