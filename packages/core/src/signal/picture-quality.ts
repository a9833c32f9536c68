import { median, runsOf } from './numbers.ts';
import { greyCells, type Picture } from './picture.ts';
import { boxAbout, isSomebody, sureJoints, type SeenPose } from './pose.ts';
import { lightHint, type LightHint } from './watch.ts';

/** Cells a picture is judged in. */
export const CELLS = { columns: 64, rows: 36 } as const;
/** Brightness of the picture's rows and columns, for telling how far it has moved. */
const PROFILE = 160;
/** A picture moves at most so far from one frame to the next, in points of the profile. */
const FARTHEST = 12;

/** What is kept of one look at the picture. */
export interface PictureFrame {
  /** Mean brightness, 0 to 255. */
  luma: number;
  light: LightHint | null;
  /** Strength of its edges against its contrast. */
  sharp: number;
  /** How much it differs from the frame before, in levels of brightness. */
  change: number;
  /** How far all of it moved since then, in parts of its width and height. */
  moved: number;
}

interface Measured {
  cells: Uint8Array;
  across: Float64Array;
  down: Float64Array;
}

/** Profiles of the picture's outer parts, where the performer is not. */
function profiles({ rgb, width, height }: Picture): Pick<Measured, 'across' | 'down'> {
  const across = new Float64Array(PROFILE);
  const down = new Float64Array(PROFILE);
  const green = (x: number, y: number) => rgb[(y * width + x) * 3 + 1] as number;
  for (let i = 0; i < PROFILE; i += 1) {
    const [x, y] = [
      Math.floor(((i + 0.5) * width) / PROFILE),
      Math.floor(((i + 0.5) * height) / PROFILE),
    ];
    for (let s = 0; s < 24; s += 1) {
      const edge = (s + 0.5) / 24 / 4;
      across[i] = (across[i] as number) + green(x, Math.floor(edge * height));
      down[i] =
        (down[i] as number) +
        green(Math.floor(edge * 0.8 * width), y) +
        green(Math.floor((1 - edge * 0.8) * width) - 1, y);
    }
  }
  return { across, down };
}

/** Less change of the profile than this, in levels of 24 samples each, is grain. */
const LEAST_CHANGE = PROFILE * 24 * 0.8;
const EXPLAINED = 0.6;

/**
 * The shift that lays one profile best over another, with fractions of a point, in parts of its
 * length; 0 where it has no marks.
 */
function shiftOf(before: Float64Array, now: Float64Array): number {
  const cost = Array.from({ length: 2 * FARTHEST + 1 }, (_, s) => {
    let sum = 0;
    for (let i = FARTHEST; i < PROFILE - FARTHEST; i += 1)
      sum += Math.abs((now[i] as number) - (before[i + s - FARTHEST] as number));
    return sum;
  });
  const best = cost.indexOf(Math.min(...cost));
  const [a, b, c, unmoved] = [
    cost[best - 1],
    cost[best] as number,
    cost[best + 1],
    cost[FARTHEST] as number,
  ];
  // A flat wall fits anywhere, and grain everywhere as badly: only a shift that explains most of
  // the change is one.
  if (a === undefined || c === undefined || unmoved < LEAST_CHANGE || b > EXPLAINED * unmoved)
    return 0;
  return (best - FARTHEST + (a - c) / (2 * (a - 2 * b + c))) / PROFILE;
}

/** Edges along every fourth row against the contrast there. */
function sharpness({ rgb, width, height }: Picture): number {
  let [edge, sum, squares, count] = [0, 0, 0, 0];
  for (let y = 2; y < height; y += 4) {
    for (let x = 1; x + 1 < width; x += 1) {
      const at = (y * width + x) * 3 + 1;
      const value = rgb[at] as number;
      edge += (2 * value - (rgb[at - 3] as number) - (rgb[at + 3] as number)) ** 2;
      sum += value;
      squares += value * value;
      count += 1;
    }
  }
  const spread = squares / count - (sum / count) ** 2;
  return Math.sqrt(edge / count / Math.max(1, spread));
}

/** Measures one picture after the other. */
export class PictureWatch {
  #before: Measured | null = null;
  readonly #cells: Uint8Array[] = [];

  /** The grey cells of all pictures so far. */
  get cells(): readonly Uint8Array[] {
    return this.#cells;
  }

  add(picture: Picture, pose: SeenPose): PictureFrame {
    const cells = greyCells(picture, CELLS.columns, CELLS.rows);
    const now: Measured = { cells, ...profiles(picture) };
    const before = this.#before;
    this.#before = now;
    this.#cells.push(cells);
    const box = isSomebody(pose) ? boxAbout(sureJoints(pose)) : null;
    const mean = (values: Uint8Array, of: (value: number, i: number) => number) =>
      values.reduce((sum, value, i) => sum + of(value, i), 0) / values.length;
    return {
      luma: Math.round(mean(cells, (value) => value)),
      light: lightHint(cells, CELLS.columns, box),
      sharp: Math.round(sharpness(picture) * 1_000) / 1_000,
      change: before
        ? Math.round(
            mean(cells, (value, i) => Math.abs(value - (before.cells[i] as number))) * 100,
          ) / 100
        : 0,
      moved: before
        ? Math.round(
            Math.hypot(shiftOf(before.across, now.across), shiftOf(before.down, now.down)) * 10_000,
          ) / 10_000
        : 0,
    };
  }
}

export const pictureFaults = [
  'black',
  'too dark',
  'too bright',
  'light from behind',
  'shaken',
  'out of focus',
  'frozen',
] as const;
export type PictureFault = (typeof pictureFaults)[number];

export interface FaultStretch {
  fault: PictureFault;
  startMs: number;
  endMs: number;
}

const BLACK = 18;
/** Shaken: moved by more than this part of the picture a frame, most of the time. */
const SHAKEN = 0.004;
/** Less sharp than this part of the usual is out of focus. */
const BLURRED = 0.62;
/** No camera gives two pictures that are the same to this part of a level. */
const FROZEN = 0.01;
const LEAST_MS: Record<PictureFault, number> = {
  black: 300,
  'too dark': 1_500,
  'too bright': 1_500,
  'light from behind': 1_500,
  shaken: 700,
  'out of focus': 500,
  frozen: 1_500,
};

/** What is wrong with the picture, from when to when. */
export function faultsOf(frames: readonly PictureFrame[], everyMs: number): FaultStretch[] {
  const usual = median(frames.filter(({ luma }) => luma > BLACK).map(({ sharp }) => sharp));
  const shakes = frames.map(
    (_, i) =>
      frames.slice(Math.max(0, i - 3), i + 4).filter(({ moved }) => moved > SHAKEN).length >= 4,
  );
  const tests: Record<PictureFault, (frame: PictureFrame, i: number) => boolean> = {
    black: ({ luma }) => luma <= BLACK,
    'too dark': ({ luma, light }) => luma > BLACK && light === 'too dark',
    'too bright': ({ light }) => light === 'too bright',
    'light from behind': ({ luma, light }) => luma > BLACK && light === 'light from behind',
    shaken: (_, i) => shakes[i] === true,
    'out of focus': ({ sharp, luma }) => luma > BLACK && sharp < BLURRED * usual,
    frozen: ({ change }, i) => i > 0 && change < FROZEN,
  };
  return pictureFaults
    .flatMap((fault) =>
      runsOf(frames.length, (i) => tests[fault](frames[i] as PictureFrame, i))
        .filter(({ from, to }) => (to - from) * everyMs >= LEAST_MS[fault])
        .map(({ from, to }): FaultStretch => ({
          fault,
          startMs: (fault === 'frozen' ? from - 1 : from) * everyMs,
          endMs: to * everyMs,
        })),
    )
    .sort((a, b) => a.startMs - b.startMs);
}
