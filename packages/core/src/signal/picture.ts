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
  const square = new Int32Array(side * side * 3);
  const [stepX, stepY] = [(crop.width * width) / side, (crop.height * height) / side];
  // The mean of a pixel's four quarters keeps thin limbs when the crop is made smaller.
  const columns = Int32Array.from({ length: side * 2 }, (_, i) => {
    const column = Math.floor(crop.left * width + ((i + 0.5) / 2) * stepX);
    return column < 0 || column >= width ? -1 : column * 3;
  });
  for (let y = 0; y < side; y += 1) {
    for (let half = 0; half < 2; half += 1) {
      const row = Math.floor(crop.top * height + ((y * 2 + half + 0.5) / 2) * stepY);
      if (row < 0 || row >= height) continue;
      const line = row * width * 3;
      let to = y * side * 3;
      for (let i = 0; i < columns.length; i += 1) {
        const column = columns[i] as number;
        if (column >= 0) {
          const from = line + column;
          square[to] = (square[to] as number) + (rgb[from] as number);
          square[to + 1] = (square[to + 1] as number) + (rgb[from + 1] as number);
          square[to + 2] = (square[to + 2] as number) + (rgb[from + 2] as number);
        }
        if (i % 2 === 1) to += 3;
      }
    }
  }
  for (let i = 0; i < square.length; i += 1) square[i] = (square[i] as number) >> 2;
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
