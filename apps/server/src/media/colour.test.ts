import { execFileSync } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { afterAll, describe, expect, it } from 'vitest';
import { footageFolder, frameOf } from '../testing/footage.ts';
import { makeWorkingCopy } from './ingest.ts';
import { probe } from './probe.ts';

const footage = footageFolder();
afterAll(() => footage.remove());

type Rgb = readonly [number, number, number];
const SIDE = 64;

/** The luma weights of BT.2020 and BT.709. */
const WEIGHTS = { bt2020nc: [0.2627, 0.678, 0.0593], bt709: [0.2126, 0.7152, 0.0722] } as const;

/**
 * A picture of patches side by side in 10 bits, as a phone stores it (BT.2020/BT.709, Y'CbCr,
 * limited or full range).
 */
function patches(
  colours: readonly Rgb[],
  matrix: keyof typeof WEIGHTS,
  range: 'tv' | 'pc',
): Buffer {
  const [wr, , wb] = WEIGHTS[matrix];
  const [yScale, yFrom, cScale] = range === 'tv' ? [876, 64, 896] : [1023, 0, 1023];
  const width = SIDE * colours.length;
  const planes = colours.map(([r, g, b]) => {
    const y = wr * r + WEIGHTS[matrix][1] * g + wb * b;
    return [
      yFrom + yScale * y,
      512 + (cScale * (b - y)) / (2 * (1 - wb)),
      512 + (cScale * (r - y)) / (2 * (1 - wr)),
    ].map(Math.round);
  });
  const plane = (index: number, step: number) =>
    Uint16Array.from(
      { length: (width / step) * (SIDE / step) },
      (_, i) => planes[Math.floor((i % (width / step)) / (SIDE / step))]?.[index] ?? 0,
    );
  return Buffer.concat(
    [plane(0, 1), plane(1, 2), plane(2, 2)].map((part) => Buffer.from(part.buffer)),
  );
}

interface Tags {
  primaries: string;
  transfer: string;
  matrix: keyof typeof WEIGHTS;
  range?: 'tv' | 'pc';
}

/** The patches as a phone's file, half a second of it, as ffmpeg would read it from a phone. */
function film(
  name: string,
  colours: readonly Rgb[],
  { primaries, transfer, matrix, range = 'tv' }: Tags,
): string {
  const raw = patches(colours, matrix, range);
  const tags = [
    '-color_primaries',
    primaries,
    '-color_trc',
    transfer,
    '-colorspace',
    matrix,
    '-color_range',
    range,
  ];
  execFileSync(
    'ffmpeg',
    [
      '-y',
      '-v',
      'error',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'yuv420p10le',
      '-s',
      `${SIDE * colours.length}x${SIDE}`,
      '-r',
      '30',
      ...tags,
      '-i',
      'pipe:0',
      '-c:v',
      'libx265',
      '-preset',
      'ultrafast',
      '-x265-params',
      `log-level=none:lossless=1:range=${range === 'tv' ? 'limited' : 'full'}`,
      ...tags,
      '-tag:v',
      'hvc1',
      footage.at(name),
    ],
    {
      input: Buffer.concat(Array.from({ length: 15 }, () => raw)),
    },
  );
  return footage.at(name);
}

/** What the middle of each patch of the working copy shows, 0 to 255. */
async function shown(file: string, count: number): Promise<number[][]> {
  const { video } = await makeWorkingCopy(file, mkdtempSync(footage.at('made-')), () => undefined);
  expect((await probe(video)).video).toMatchObject({
    colour: 'bt709',
    transfer: 'bt709',
    primaries: 'bt709',
    range: 'tv',
    pixels: 'yuv420p',
  });
  const frame = frameOf(video, 3);
  return Array.from({ length: count }, (_, i) => {
    const at = ((SIDE / 2) * SIDE * count + i * SIDE + SIDE / 2) * 3;
    return [...frame.subarray(at, at + 3)];
  });
}

/**
 * Display light in cd/m² of a hybrid log-gamma signal at a display of 1000 cd/m² (BT.2100-2, table
 * 5, system gamma 1.2).
 */
function hlgLight(signal: Rgb): Rgb {
  const [a, b, c] = [0.17883277, 0.28466892, 0.55991073];
  const scene = signal.map((e) => (e <= 0.5 ? e ** 2 / 3 : (Math.exp((e - c) / a) + b) / 12));
  const [r = 0, g = 0, bl = 0] = scene;
  const y = 0.2627 * r + 0.678 * g + 0.0593 * bl;
  return scene.map((e) => (y > 0 ? 1_000 * y ** 0.2 * e : 0)) as unknown as Rgb;
}

/** Display light in cd/m² of a perceptual quantizer signal (BT.2100-2, table 4). */
function pqLight(signal: Rgb): Rgb {
  const [m1, m2, c1, c2, c3] = [0.1593017578125, 78.84375, 0.8359375, 18.8515625, 18.6875];
  return signal.map(
    (e) => 10_000 * (Math.max(e ** (1 / m2) - c1, 0) / (c2 - c3 * e ** (1 / m2))) ** (1 / m1),
  ) as unknown as Rgb;
}

/** BT.2020 to BT.709 in linear light (BT.2087-0). */
const narrowed = ([r, g, b]: Rgb): Rgb => [
  1.6605 * r - 0.5876 * g - 0.0728 * b,
  -0.1246 * r + 1.1329 * g - 0.0083 * b,
  -0.0182 * r - 0.1006 * g + 1.1187 * b,
];

/**
 * The curve as it is documented: 203 cd/m² is 1; unchanged to 0.3, then a Möbius curve of the
 * largest part, which 1000 cd/m² takes to 1.
 */
function pressed(light: Rgb): Rgb {
  const [j, peak] = [0.3, 1_000 / 203];
  const a = (-(j ** 2) * (peak - 1)) / (j ** 2 - 2 * j + peak);
  const b = (j ** 2 - 2 * j * peak + peak) / (peak - 1);
  const parts = light.map((value) => value / 203);
  const most = Math.max(...parts);
  const to =
    most <= j ? most : ((b ** 2 + 2 * b * j + j ** 2) / (b - a)) * ((most + a) / (most + b));
  return parts.map((value) => (value * to) / most) as unknown as Rgb;
}

/** The 8-bit signal that gives this light on a display (BT.1886: gamma 2.4). */
const signalOf = (light: Rgb): number[] =>
  light.map((value) => 255 * Math.min(1, Math.max(0, value)) ** (1 / 2.4));

const grey = (e: number): Rgb => [e, e, e];
const MOST_OFF = 4;
const expectNear = (seen: readonly number[][], wanted: readonly number[][]) => {
  for (const [i, patch] of wanted.entries())
    for (const [c, value] of patch.entries())
      expect(
        Math.abs((seen[i]?.[c] ?? NaN) - value),
        `patch ${i}, part ${c}: ${seen[i]?.join(' ')} for ${patch.map(Math.round).join(' ')}`,
      ).toBeLessThanOrEqual(MOST_OFF);
};

describe('colours phones record', () => {
  it(
    'in hybrid log-gamma and in perceptual quantizer come out as the same grey and ' +
      'white (BT.2408-7, table 1: grey card 38 %, white 75 and 58 %)',
    async () => {
      const hlg = await shown(
        film('hlg-grey.mov', [grey(0.38), grey(0.75), grey(1)], {
          primaries: 'bt2020',
          transfer: 'arib-std-b67',
          matrix: 'bt2020nc',
        }),
        3,
      );
      const pq = await shown(
        film('pq-grey.mov', [grey(0.38), grey(0.58), grey(0.7518)], {
          primaries: 'bt2020',
          transfer: 'smpte2084',
          matrix: 'bt2020nc',
        }),
        3,
      );
      expectNear(hlg, pq);
      // A grey card is at 41 % of the signal of BT.709, white below all of it, and the brightest at
      // its end.
      expect(Math.abs((hlg[0]?.[0] ?? 0) / 255 - 0.41)).toBeLessThan(0.03);
      expect((hlg[1]?.[0] ?? 0) / 255).toBeGreaterThan(0.82);
      expect(hlg[2]?.[0]).toBeGreaterThanOrEqual(253);
    },
  );

  it.each([
    [
      'hybrid log-gamma',
      'arib-std-b67',
      hlgLight,
      [
        [0.6, 0.45, 0.4],
        [0.4, 0.55, 0.42],
        [0.35, 0.4, 0.55],
      ] as Rgb[],
    ],
    // The same steps are further apart in light here; outside the gamut of BT.709 there is nothing
    // to compare.
    [
      'perceptual quantizer',
      'smpte2084',
      pqLight,
      [
        [0.5, 0.45, 0.43],
        [0.46, 0.5, 0.46],
        [0.42, 0.44, 0.5],
      ] as Rgb[],
    ],
  ] as const)(
    'in %s follow the documented curve, colour by colour',
    async (_name, transfer, lightOf, hues) => {
      const colours: Rgb[] = [grey(0.2), grey(0.5), grey(0.65), ...hues];
      const seen = await shown(
        film(`${transfer}.mov`, colours, { primaries: 'bt2020', transfer, matrix: 'bt2020nc' }),
        colours.length,
      );
      expectNear(
        seen,
        colours.map((rgb) => signalOf(pressed(narrowed(lightOf(rgb))))),
      );
    },
  );

  it('are brought in from a wide gamut without high range, and from full range', async () => {
    const colours: Rgb[] = [grey(0.5), [0.6, 0.5, 0.45], [0.45, 0.55, 0.5]];
    const light = (rgb: Rgb) => rgb.map((e) => e ** 2.4) as unknown as Rgb;
    for (const range of ['tv', 'pc'] as const) {
      const wide = await shown(
        film(`wide-${range}.mov`, colours, {
          primaries: 'bt2020',
          transfer: 'bt709',
          matrix: 'bt2020nc',
          range,
        }),
        colours.length,
      );
      expectNear(
        wide,
        colours.map((rgb) => signalOf(narrowed(light(rgb)))),
      );
    }
    const full = await shown(
      film('full.mov', colours, {
        primaries: 'bt709',
        transfer: 'bt709',
        matrix: 'bt709',
        range: 'pc',
      }),
      colours.length,
    );
    expectNear(
      full,
      colours.map((rgb) => rgb.map((e) => 255 * e)),
    );
  });
});
