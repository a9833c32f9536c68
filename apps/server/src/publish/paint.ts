import { createRequire } from 'node:module';
import type { Writable } from 'node:stream';
import type { Assembly, CardText, Slot } from '@zest/core/assembly';
import {
  captionAt,
  FONT_FAMILIES,
  FONT_PARTS,
  FRAMES,
  measurer,
  paintItemAt,
  paintScene,
  REFERENCE,
  sameItem,
  slotAt,
  type Box,
  type BurnedItem,
  type Measure,
  type PaintContext,
} from '@zest/core/overlay';
import type { Finish } from '@zest/core/lesson';
import { instantOfFrame, OUTPUT_FPS } from '@zest/core/time';
import { createCanvas, GlobalFonts, type SKRSContext2D } from '@napi-rs/canvas';
import { pictureHead, streamHead, TICKS_PER_SECOND } from '../media/matroska.ts';
import { write } from '../media/run.ts';
import { scaleOf, shapeOf, type FrameSize } from './frame-size.ts';

const resolve = createRequire(import.meta.url).resolve;
let loaded = false;

/** The package and the part of it a family's further letters come from. */
const fontFiles: Record<'' | (typeof FONT_PARTS)[number], (weight: number) => string> = {
  '': (weight) =>
    `atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal`,
  Ext: (weight) =>
    `atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-ext-${weight}-normal`,
  Greek: (weight) => `noto-sans/files/noto-sans-greek-${weight}-normal`,
  Cyrillic: (weight) => `noto-sans/files/noto-sans-cyrillic-${weight}-normal`,
  Arabic: (weight) => `noto-sans-arabic/files/noto-sans-arabic-arabic-${weight}-normal`,
  Hebrew: (weight) => `noto-sans-hebrew/files/noto-sans-hebrew-hebrew-${weight}-normal`,
};

/** Makes the shipped font known under the painter's families; the pages load the same files. */
export function loadFonts(): void {
  if (loaded) return;
  for (const [family, weight] of [
    [FONT_FAMILIES.regular, 400],
    [FONT_FAMILIES.bold, 700],
  ] as const) {
    for (const part of ['', ...FONT_PARTS] as const) {
      const file = resolve(`@fontsource/${fontFiles[part](weight)}.woff2`);
      if (!GlobalFonts.registerFromPath(file, `${family}${part}`))
        throw new Error(`The font file ${file} cannot be read.`);
    }
  }
  loaded = true;
}

function context(width: number, height: number): SKRSContext2D & PaintContext {
  loadFonts();
  return createCanvas(width, height).getContext('2d') as SKRSContext2D & PaintContext;
}

/** Measures bold text as overlays set it. */
export function textMeasure(): Measure {
  return measurer(context(1, 1), 'bold');
}

/** One whole scene as straight RGBA, of a picture of that size. */
export function sceneRgba(
  scene: Parameters<typeof paintScene>[1],
  { width, height }: FrameSize = REFERENCE,
): Buffer {
  const ctx = context(width, height);
  const frame = FRAMES[scene.shape];
  paintScene(ctx, scene, (height * frame.width) / frame.height);
  return Buffer.from(ctx.getImageData(0, 0, width, height).data.buffer);
}

/** A full-frame card as RGBA. */
export function cardRgba(card: CardText, look: Finish['look'], size: FrameSize): Buffer {
  return sceneRgba(
    { atMs: 0, shape: shapeOf(size), look, card, rising: null, items: [], caption: null },
    size,
  );
}

/** The pixels of a picture a box is drawn on: scaled, out to even borders. */
export function boxPixels(
  box: Box,
  size: FrameSize,
): { left: number; top: number; width: number; height: number; scale: number } {
  const scale = scaleOf(size);
  const [left, top] = [2 * Math.floor((box.x * scale) / 2), 2 * Math.floor((box.y * scale) / 2)];
  return {
    left,
    top,
    width: 2 * Math.ceil(((box.x + box.width) * scale) / 2) - left,
    height: 2 * Math.ceil(((box.y + box.height) * scale) / 2) - top,
    scale,
  };
}

/** What is burned in by itself: a slot, or the captions. */
export type Burned = Slot | 'caption';

/**
 * What a slot shows over a stretch of frames: one entry for each change, frames counted from the
 * stretch's start.
 */
export interface SlotChange {
  frame: number;
  item: BurnedItem | null;
}

/** The changes of a slot over output frames `from` up to `to`; none when it stays empty. */
export function slotChanges(
  assembly: Assembly,
  slot: Burned,
  from: number,
  to: number,
): SlotChange[] {
  const changes: SlotChange[] = [];
  let last: BurnedItem | null = null;
  for (let frame = from; frame < to; frame += 1) {
    const item =
      slot === 'caption'
        ? captionAt(assembly, instantOfFrame(frame))
        : slotAt(assembly, slot, instantOfFrame(frame));
    if (frame === from || !sameItem(item, last)) changes.push({ frame: frame - from, item });
    last = item;
  }
  return changes.some((change) => change.item) ? changes : [];
}

/** Writes a slot's pictures as a timestamped stream, a picture only where something changes. */
export async function streamSlot(
  to: Writable,
  box: Box,
  changes: readonly SlotChange[],
  look: Finish['look'],
  size: FrameSize,
): Promise<void> {
  const { left, top, width, height, scale } = boxPixels(box, size);
  const ctx = context(width, height);
  await write(to, streamHead(width, height));
  for (const { frame, item } of changes) {
    ctx.clearRect(0, 0, width, height);
    if (item) paintItemAt(ctx, item, look, { left, top, scale });
    // Straight alpha: the overlay filter of this ffmpeg darkens premultiplied whites.
    const pixels = Buffer.from(ctx.getImageData(0, 0, width, height).data.buffer);
    await write(
      to,
      Buffer.concat([
        pictureHead(Math.floor((frame * TICKS_PER_SECOND) / OUTPUT_FPS), pixels.length),
        pixels,
      ]),
    );
  }
}
