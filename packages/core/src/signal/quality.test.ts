import { describe, expect, it } from 'vitest';
import { FlashWatch } from './flashes.ts';
import type { Picture } from './picture.ts';
import { faultsOf, PictureWatch, type PictureFrame } from './picture-quality.ts';
import { motionOf } from './motion.ts';
import type { SeenPose } from './pose.ts';
import { repetitionsInMotion } from './repetitions.ts';
import { soundFigures, soundFrames } from './sound-quality.ts';

const [WIDTH, HEIGHT] = [192, 108];
const NOBODY: SeenPose = [];
/** A picture by what each place of it is, red, green and blue alike. */
const picture = (of: (x: number, y: number) => number): Picture => ({
  width: WIDTH,
  height: HEIGHT,
  rgb: Uint8Array.from({ length: WIDTH * HEIGHT * 3 }, (_, i) =>
    of(Math.floor(i / 3) % WIDTH, Math.floor(i / 3 / WIDTH)),
  ),
});
/** A lively wall that never repeats nearby. */
const wall = (x: number, y: number) =>
  120 +
  50 * Math.sign(Math.sin(x / 9 + Math.sin(y / 23))) +
  40 * Math.sign(Math.sin(y / 7 + x / 41));
const grain = (x: number, y: number, n: number) => ((x * 7 + y * 13 + n * 31) % 5) - 2;

function looked(pictures: readonly Picture[]): PictureFrame[] {
  const watch = new PictureWatch();
  return pictures.map((one) => watch.add(one, NOBODY));
}
const faults = (pictures: readonly Picture[]) => faultsOf(looked(pictures), 100);
const still = (count: number) =>
  Array.from({ length: count }, (_, n) => picture((x, y) => wall(x, y) + grain(x, y, n)));

describe('faults of the picture', () => {
  it('are none in a steady one', () => {
    expect(faults(still(30))).toEqual([]);
  });

  it.each([
    ['black', Array.from({ length: 10 }, () => picture(() => 4))],
    [
      'too dark',
      Array.from({ length: 20 }, (_, n) =>
        picture((x, y) => 0.25 * wall(x, y) + grain(x, y, n) + 2),
      ),
    ],
    [
      'shaken',
      Array.from({ length: 20 }, (_, n) =>
        picture(
          (x, y) => wall(x + 6 * Math.sin(n * 2.2), y + 5 * Math.cos(n * 1.7)) + grain(x, y, n),
        ),
      ),
    ],
    ['frozen', Array.from({ length: 20 }, () => picture(wall))],
    [
      'out of focus',
      Array.from({ length: 12 }, (_, n) =>
        picture((x, y) => 120 + 60 * Math.sin(x / 90) + (grain(x, y, n) > 1 ? 1 : 0)),
      ),
    ],
  ] as const)('%s is found where it is', (fault, bad) => {
    const all = [...still(20), ...bad, ...still(20)];
    const found = faults(all).filter((one) => one.fault === fault);
    expect(found).toHaveLength(1);
    expect(Math.abs((found[0]?.startMs ?? 0) - 2_000)).toBeLessThanOrEqual(400);
    expect(Math.abs((found[0]?.endMs ?? 0) - (2_000 + bad.length * 100))).toBeLessThanOrEqual(400);
  });
});

describe('what moves where no body is found', () => {
  const [COLUMNS, ROWS] = [64, 36];
  /** A box of grey that stands at a height of the picture, in one that flickers a little. */
  const frame = (height: number, n: number) =>
    Uint8Array.from(
      { length: COLUMNS * ROWS },
      (_, i) =>
        (Math.abs((i % COLUMNS) - 30) < 8 && Math.abs(Math.floor(i / COLUMNS) - height) < 6
          ? 200
          : 90) +
        ((i * 7 + n * 13) % 4) +
        (n % 3),
    );
  it('is counted, with less confidence than a body', () => {
    const heights = Array.from({ length: 200 }, (_, n) =>
      n < 20 || n >= 180 ? 24 : 24 - 6 * (1 - Math.cos(((n - 20) / 20) * 2 * Math.PI)),
    );
    const found = repetitionsInMotion(motionOf(heights.map(frame)), 100);
    expect(found).toHaveLength(8);
    expect(
      found.every(({ confidence, side }) => confidence > 0.4 && confidence <= 0.7 && side === null),
    ).toBe(true);
    found.forEach(({ atMs }, i) => expect(Math.abs(atMs - (4_000 + i * 2_000))).toBeLessThan(400));
  });
  it('is none where nothing comes again', () => {
    let state = 5;
    const heights = Array.from({ length: 200 }, () => {
      state = (state * 48_271) % 2_147_483_647;
      return 10 + (state % 16);
    });
    expect(repetitionsInMotion(motionOf(heights.map(frame)), 100)).toEqual([]);
    expect(motionOf([])).toEqual([]);
  });
});

describe('flashes, by WCAG 2.2, 2.3.1', () => {
  const flashing = (perSecond: number, from: number, to: number) => {
    const watch = new FlashWatch();
    for (let frame = 0; frame < 90; frame += 1)
      watch.add(
        picture(() => (Math.floor((frame * perSecond * 2) / 30) % 2 === 0 ? from : to)),
        (frame * 1_000) / 30,
      );
    return watch.found;
  };
  it('are fine up to three a second, and not above', () => {
    expect(flashing(3, 20, 250)).toEqual([]);
    expect(flashing(5, 20, 250).length).toBe(1);
  });
  it('do not count below a tenth of the greatest luminance, nor between two bright states', () => {
    expect(flashing(5, 100, 130)).toEqual([]);
    expect(flashing(5, 235, 255)).toEqual([]);
  });
});

const RATE = 22_050;
const sound = (seconds: number, of: (s: number) => number) =>
  Float32Array.from({ length: seconds * RATE }, (_, i) => of(i / RATE));
const hum = (hz: number, level: number) => (s: number) => level * Math.sin(2 * Math.PI * hz * s);

describe('figures of the sound', () => {
  it('have the level of a sine: -3 dB under its peak', () => {
    const [frame] = soundFrames(sound(1, hum(1_000, 0.5)), RATE);
    expect(frame?.level).toBeCloseTo(-9, 0);
    expect(frame?.voice).toBeCloseTo(-9, 0);
    expect(Math.abs((frame?.tone ?? 0) - 1_000)).toBeLessThan(11);
  });

  it('tell wind, overload, silence and a tone of the pacer, where they are', () => {
    const all = sound(12, (s) => {
      if (s < 2) return hum(60, 0.4)(s) + hum(800, 0.01)(s);
      if (s < 3) return 1.4 * Math.sin(2 * Math.PI * 300 * s);
      if (s < 6) return 0;
      if (s >= 8 && s < 8.5) return hum(880, 0.2)(s);
      return (
        0.02 * Math.sin(2 * Math.PI * 400 * s) +
        0.02 * Math.sin(2 * Math.PI * 1_730 * s) +
        0.02 * Math.sin(2 * Math.PI * 2_910 * s)
      );
    }).map((value) => Math.max(-1, Math.min(1, value)));
    const frames = soundFrames(all, RATE);
    const { faults: found, tones } = soundFigures(frames, new Uint8Array(frames.length));
    const of = (fault: string) => found.filter((one) => one.fault === fault);
    expect(of('wind')).toEqual([{ fault: 'wind', startMs: 0, endMs: 2_000 }]);
    expect(of('overloaded')).toEqual([{ fault: 'overloaded', startMs: 2_000, endMs: 3_000 }]);
    expect(of('silence')).toEqual([{ fault: 'silence', startMs: 3_000, endMs: 6_000 }]);
    expect(
      tones.some(
        ({ startMs, endMs, hz }) => startMs >= 7_900 && endMs <= 8_600 && Math.abs(hz - 880) < 11,
      ),
    ).toBe(true);
  });

  it('say how far speech stands over what is between, and whether that is music', () => {
    const frames = soundFrames(
      sound(
        10,
        (s) => hum(220, 0.02)(s) + hum(440, 0.01)(s) + (s > 3 && s < 7 ? hum(700, 0.2)(s) : 0),
      ),
      RATE,
    );
    const speech = Uint8Array.from(frames, (_, i) => (i >= 30 && i < 70 ? 1 : 0));
    const { speechDb, betweenDb, isMusic } = soundFigures(frames, speech);
    expect((speechDb ?? 0) - (betweenDb ?? 0)).toBeCloseTo(19.1, 0);
    expect(isMusic).toBe(true);
  });
});
