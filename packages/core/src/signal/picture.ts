import type { Crop } from './pose.ts';

/** A picture as the camera gave it: rows of red, green and blue, 0 to 255. */
export interface Picture {
  rgb: Uint8Array;
  width: number;
  height: number;
}

/**
 * The crop as a square of `side` pixels, red, green and blue by row, for the pose model; what lies
 * beyond the picture is black.
 */
export function croppedSquare(
  { rgb, width, height }: Picture,
  crop: Crop,
  side: number,
): Int32Array {
  // The mean of a pixel's four quarters keeps thin limbs when the crop is made smaller.
  const places = (from: number, part: number, length: number, step: number) =>
    Int32Array.from({ length: side * 2 }, (_, i) => {
      const place = Math.floor(from * length + ((i + 0.5) / 2) * ((part * length) / side));
      return place < 0 || place >= length ? -1 : place * step;
    });
  const columns = places(crop.left, crop.width, width, 3);
  const rows = places(crop.top, crop.height, height, width * 3);
  const square = new Int32Array(side * side * 3);
  let to = 0;
  for (let y = 0; y < side; y += 1) {
    for (let x = 0; x < side; x += 1) {
      let [red, green, blue] = [0, 0, 0];
      for (let quarter = 0; quarter < 4; quarter += 1) {
        const row = rows[2 * y + (quarter >> 1)] as number;
        const column = columns[2 * x + (quarter & 1)] as number;
        if (row < 0 || column < 0) continue;
        const from = row + column;
        red += rgb[from] as number;
        green += rgb[from + 1] as number;
        blue += rgb[from + 2] as number;
      }
      square[to] = red >> 2;
      square[to + 1] = green >> 2;
      square[to + 2] = blue >> 2;
      to += 3;
    }
  }
  return square;
}

/** Brightness of the picture in `columns` x `rows` equal cells, 0 to 255 (ITU-R BT.709 weights). */
export function greyCells(
  { rgb, width, height }: Picture,
  columns: number,
  rows: number,
): Uint8Array {
  const cells = new Uint8Array(columns * rows);
  for (let row = 0; row < rows; row += 1) {
    const [top, bottom] = [
      Math.floor((row * height) / rows),
      Math.max(Math.floor((row * height) / rows) + 1, Math.floor(((row + 1) * height) / rows)),
    ];
    for (let column = 0; column < columns; column += 1) {
      const [left, right] = [
        Math.floor((column * width) / columns),
        Math.max(
          Math.floor((column * width) / columns) + 1,
          Math.floor(((column + 1) * width) / columns),
        ),
      ];
      let sum = 0;
      let count = 0;
      // Every other pixel is enough for a mean.
      for (let y = top; y < bottom; y += 2) {
        for (let x = left; x < right; x += 2) {
          const at = (y * width + x) * 3;
          sum +=
            0.2126 * (rgb[at] as number) +
            0.7152 * (rgb[at + 1] as number) +
            0.0722 * (rgb[at + 2] as number);
          count += 1;
        }
      }
      cells[row * columns + column] = Math.round(sum / Math.max(1, count));
    }
  }
  return cells;
}
