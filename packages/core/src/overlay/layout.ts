import type { BesideLayout, Shape, Slot } from '../assembly/index.ts';

/** The canvas every overlay is laid out on; other sizes scale it. In layout units. */
export const REFERENCE = { width: 1280, height: 720 } as const;

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** The frame of each shape, in layout units. */
export const FRAMES: Record<Shape, { width: number; height: number }> = {
  wide: REFERENCE,
  upright: { width: 720, height: 1280 },
};

/**
 * Where the picture stands in the frame: all of it, or above in an upright one, whose overlays
 * never cover it.
 */
export const PICTURE_BOXES: Record<Shape, Box> = {
  wide: { x: 0, y: 0, ...REFERENCE },
  upright: { x: 0, y: 0, width: 720, height: 404 },
};

/** A box, and how large what is in it is drawn, of its usual size. */
export interface Place extends Box {
  scale: number;
}

/** Graphics safe area, 90 % of width and height (EBU R 95, SMPTE ST 2046-1). In layout units. */
export const SAFE_AREA: Box = { x: 64, y: 36, width: 1152, height: 648 };

/**
 * Words that are followed while moving (cues, cautions, the side, what is done now), in layout
 * units: 16 minutes of arc on a laptop at 2 m.
 */
export const MAIN_TEXT = 52;

/**
 * Smallest text of an overlay, for notes and for words too long for their place, in layout units: 5
 * % of the picture height.
 */
export const MIN_TEXT = 36;

/**
 * The usual place of each slot: clock top right, count top left, the side between them, cue below
 * the count, board below the clock, caution above the caption lines. They never overlap (an arrow,
 * which may point anywhere on a still picture, aside), leave the middle to the performer and the
 * bottom to captions. Even numbers, so that they fall on whole chroma samples of a 1280x720 video.
 */
export const SLOT_BOXES: Record<Slot, Place> = {
  pointer: { x: 0, y: 0, width: REFERENCE.width, height: REFERENCE.height, scale: 1 },
  clock: { x: 736, y: 36, width: 480, height: 228, scale: 1 },
  counter: { x: 64, y: 36, width: 368, height: 228, scale: 1 },
  cue: { x: 64, y: 268, width: 420, height: 192, scale: 1 },
  caution: { x: 64, y: 460, width: 1152, height: 132, scale: 1 },
  side: { x: 440, y: 36, width: 288, height: 196, scale: 1 },
  board: { x: 796, y: 268, width: 420, height: 192, scale: 1 },
};

/**
 * Where each slot stands in an upright frame: below the picture, one under the other, above the
 * caption lines.
 */
export const UPRIGHT_BOXES: Record<Slot, Place> = {
  pointer: { ...PICTURE_BOXES.upright, scale: PICTURE_BOXES.upright.width / REFERENCE.width },
  clock: { x: 336, y: 424, width: 360, height: 172, scale: 0.75 },
  counter: { x: 24, y: 424, width: 276, height: 172, scale: 0.75 },
  side: { x: 24, y: 612, width: 218, height: 156, scale: 0.8 },
  board: { x: 262, y: 612, width: 434, height: 206, scale: 1 },
  cue: { x: 24, y: 834, width: 672, height: 196, scale: 1 },
  caution: { x: 24, y: 1036, width: 672, height: 114, scale: 0.85 },
};

/** The lines of a caption, where they are burned in: below all slots. */
export const CAPTION_PLACES: Record<Shape, Place> = {
  wide: { x: 64, y: 592, width: 1152, height: 92, scale: 1 },
  upright: { x: 24, y: 1156, width: 672, height: 92, scale: 1 },
};

/** Where a small second view stands: in a lower corner, inside the safe area. */
export const BESIDE_BOXES: Record<Exclude<BesideLayout, 'halves'>, Box> = {
  'inset left': { x: 64, y: 450, width: 416, height: 234 },
  'inset right': { x: 800, y: 450, width: 416, height: 234 },
};

/**
 * Measures text at a size in layout units; the painter's context does it, tests may use their own.
 */
export type Measure = (text: string, size: number) => number;

/** Text broken to a width: the size it was set at, and its lines. */
export interface FittedText {
  size: number;
  lines: string[];
}

/**
 * Text as it can be painted: pictographs and control characters are left out (the shipped font has
 * none), white space becomes single blanks. The document keeps what was typed.
 */
export function paintableText(text: string): string {
  return text
    .replace(/[\p{Extended_Pictographic}\u{FE0F}\u{200D}\u{1F3FB}-\u{1F3FF}\p{Cc}]/gu, (c) =>
      /[\d#*]/.test(c) ? c : ' ',
    )
    .replace(/\s+/gu, ' ')
    .trim();
}

function wrap(text: string, width: number, size: number, measure: Measure): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(' ')) {
    const joined = line ? `${line} ${word}` : word;
    if (line && measure(joined, size) > width) {
      lines.push(line);
      line = word;
    } else {
      line = joined;
    }
  }
  if (line) lines.push(line);
  return lines;
}

function shorten(line: string, width: number, size: number, measure: Measure): string {
  if (measure(line, size) <= width) return line;
  const letters = [...line];
  while (letters.length > 0 && measure(`${letters.join('')}…`, size) > width) letters.pop();
  return `${letters.join('').trimEnd()}…`;
}

/**
 * Sets text as large as fits `width` in `maxLines` lines, from `size` down to `smallest`; what does
 * not fit at the smallest size ends in an ellipsis. Sizes and widths in layout units.
 */
export function fitText(
  text: string,
  width: number,
  maxLines: number,
  size: number,
  measure: Measure,
  smallest: number = MIN_TEXT,
): FittedText {
  const clean = paintableText(text);
  if (clean === '') return { size, lines: [] };
  for (let tried = size; tried >= smallest; tried -= 2) {
    const lines = wrap(clean, width, tried, measure);
    if (lines.length <= maxLines && lines.every((line) => measure(line, tried) <= width))
      return { size: tried, lines };
  }
  const lines = wrap(clean, width, smallest, measure);
  const kept = lines.slice(0, maxLines);
  const last = kept.pop() ?? '';
  const tail = lines.length > maxLines ? `${last} ${lines.slice(maxLines).join(' ')}` : last;
  return {
    size: smallest,
    lines: [...kept, tail].map((line) => shorten(line, width, smallest, measure)),
  };
}
