import { describe, expect, it } from 'vitest';
import { clockRate, markedStretches } from './line-up.ts';
import { autocorrelation, correlation, median, quantile, runsOf, smoothed } from './numbers.ts';
import {
  boxAbout,
  joints,
  nextCrop,
  onWideFrame,
  poseFrom,
  wholeCrop,
  type SeenPose,
} from './pose.ts';
import { soundFigures, type SoundFrame } from './sound-quality.ts';
import {
  bandSound,
  FEATURES,
  fromOtherTract,
  inRoom,
  mfccOf,
  noiseFloor,
  speechFrames,
  speechPower,
  type BandSound,
} from './speech-sound.ts';
import {
  markGapMs,
  markLengthMs,
  markSamples,
  numberOfGap,
  sweep,
  sweepLength,
} from './sync-mark.ts';

describe('numbers', () => {
  it('quantiles lie between their neighbours', () => {
    expect(quantile([], 0.5)).toBe(0);
    expect([0, 0.25, 0.5, 0.75, 1].map((part) => quantile([4, 1, 3, 2], part))).toEqual([
      ...[1, 1.75, 2.5, 3.25, 4],
    ]);
    expect([quantile([1, 2], -1), quantile([1, 2], 2), median([3, 9, 5])]).toEqual([1, 2, 5]);
  });

  it('smoothing keeps what is even and spreads a peak as a bell', () => {
    expect([...smoothed([2, 2, 2, 2], 1)]).toEqual([2, 2, 2, 2]);
    const peak = smoothed([0, 0, 0, 0, 1, 0, 0, 0, 0], 1);
    // The bell over seven samples: 1, e^-0.5, e^-2, e^-4.5 on either side; sum 2.5059.
    const sum = 1 + 2 * (Math.exp(-0.5) + Math.exp(-2) + Math.exp(-4.5));
    expect(peak[4]).toBeCloseTo(1 / sum, 9);
    expect(peak[5]).toBeCloseTo(Math.exp(-0.5) / sum, 9);
    expect(peak[7]).toBeCloseTo(Math.exp(-4.5) / (sum - Math.exp(-2) - Math.exp(-4.5)), 9);
    expect(peak[0]).toBe(0);
    expect(smoothed([1, 0], 0.1)[0]).toBeCloseTo(1, 9);
  });

  it('runs go from their first to after their last', () => {
    const of = (text: string) => runsOf(text.length, (i) => text[i] === 'x');
    expect(of('xx..x')).toEqual([
      { from: 0, to: 2 },
      { from: 4, to: 5 },
    ]);
    expect(of('...')).toEqual([]);
  });

  it('correlate as Pearson says', () => {
    // By hand: means 2 and 2; ab = 1, aa = 2, bb = 2.
    expect(correlation([1, 2, 3], [1, 3, 2])).toBeCloseTo(0.5, 9);
    expect(correlation([1, 2, 3], [6, 4, 2])).toBeCloseTo(-1, 9);
    expect(correlation([1, 2, 3, 9], [9, 1, 2, 3], 1)).toBeCloseTo(1, 9);
    expect(correlation([9, 1, 2, 3, 9], [9, 1, 3, 2, 9], 0, 1, 4)).toBeCloseTo(0.5, 9);
    expect([correlation([1, 1], [1, 2]), correlation([1, 2], [1, 1])]).toEqual([0, 0]);
    expect([correlation([1, 2], [1, 2], 1), correlation([1, 2], [1, 2])]).toEqual([0, 1]);
    expect(autocorrelation([1, 0, 1, 0, 1, 0], 2)).toBeCloseTo(1, 9);
    expect(autocorrelation([1, 0, 1, 0, 1, 0], 1)).toBeCloseTo(-1, 9);
  });
});

describe('the sync mark', () => {
  it('says its number by the distance of its sweeps, 15 ms a number', () => {
    expect([markGapMs(0), markGapMs(1), markLengthMs(95)]).toEqual([260, 275, 1_785]);
    expect(
      [259, 264, 265, 267, 271, 256, 255]
        .map(numberOfGap)
        .map((number) => (number === null ? null : Math.abs(number))),
    ).toEqual([...[0, 0, null, null, 1, 0, null]]);
    expect([numberOfGap(markGapMs(95)), numberOfGap(markGapMs(96)), numberOfGap(245)]).toEqual([
      ...[95, null, null],
    ]);
  });

  it('is two sweeps at their distance and nothing between', () => {
    const samples = markSamples('start', 2, 10_000);
    expect(samples.length).toBe(2_900 + 1_000);
    expect(samples.subarray(1_000, 2_900).every((value) => value === 0)).toBe(true);
    expect([...samples.subarray(2_900)]).toEqual([...samples.subarray(0, 1_000)]);
    expect(() => markSamples('start', 96, 10_000)).toThrow(/0 to 95, not 96/);
    expect(() => markSamples('start', -1, 10_000)).toThrow(RangeError);
    expect(() => markSamples('start', 0.5, 10_000)).toThrow(RangeError);
    expect(() => markSamples('end', 0, 10_000)).not.toThrow();
  });

  it('sweeps up before and down after, softly at both ends, a quarter turn apart', () => {
    const rate = 48_000;
    const n = sweepLength(rate);
    expect(n).toBe(4_800);
    const up = sweep('start', rate);
    const crossings = (wave: Float64Array, from: number, to: number) => {
      let count = 0;
      for (let i = from + 1; i < to; i += 1)
        if (Math.sign(wave[i] ?? 0) !== Math.sign(wave[i - 1] ?? 0)) count += 1;
      return count;
    };
    // From 1,500 to 6,000 Hz in 100 ms: 262.5 + … waves in each tenth; by its mean pitch.
    const pitch = (wave: Float64Array, part: number) =>
      crossings(wave, Math.round(part * n), Math.round((part + 0.1) * n)) / 2 / 0.01;
    expect(Math.abs(pitch(up.inPhase, 0.2) - 2_625)).toBeLessThan(60);
    expect(Math.abs(pitch(up.inPhase, 0.8) - 5_325)).toBeLessThan(60);
    const down = sweep('end', rate).inPhase;
    expect(Math.abs(pitch(down, 0.2) - 4_875)).toBeLessThan(60);
    const loud = (i: number) => Math.hypot(up.inPhase[i] ?? 0, up.quarter[i] ?? 0);
    expect([loud(0), loud(n - 1)]).toEqual([0, 0]);
    expect(loud(n / 2)).toBeCloseTo(1, 9);
    expect(loud(0.05 * n)).toBeCloseTo(0.5, 6);
    expect(loud(0.11 * n)).toBeCloseTo(1, 9);
    expect(up.inPhase[Math.round(0.5 * n)]).toBeCloseTo(
      Math.sin(2 * Math.PI * (1_500 * 0.05 + (4_500 * 0.05 ** 2) / 0.2)),
      6,
    );
  });

  it('lays a recording on the plan: lead, tail and the rate of its clock', () => {
    const start = { kind: 'start' as const, number: 3, atMs: 1_000, score: 0.9 };
    const end = { kind: 'end' as const, number: 3, atMs: 37_500, score: 0.8 };
    expect(markedStretches([start, end])).toEqual([
      { number: 3, blockStartMs: 6_000, blockEndMs: 37_000, score: 0.9 },
    ]);
    expect(markedStretches([end, start])).toEqual([
      { number: 3, blockStartMs: 6_000, blockEndMs: null, score: 0.9 },
    ]);
    const next = { ...start, number: 4, atMs: 20_000 };
    expect(markedStretches([start, next, end]).map(({ blockEndMs }) => blockEndMs)).toEqual([
      ...[null, null],
    ]);
    expect(markedStretches([start, { ...end, number: 5 }])[0]?.blockEndMs).toBeNull();
    const stretch = { number: 3, blockStartMs: 6_000, blockEndMs: 36_000, score: 1 };
    expect(clockRate(stretch, 30_000)).toBe(1);
    // 30 s played, 30.07 s recorded: with lead and tail 35.57 of 35.5.
    expect(clockRate({ ...stretch, blockEndMs: 36_070 }, 30_000)).toBeCloseTo(35.57 / 35.5, 9);
    expect(clockRate({ ...stretch, blockEndMs: 36_072 }, 30_000)).toBeNull();
    expect(clockRate({ ...stretch, blockEndMs: 35_930 }, 30_000)).toBeCloseTo(35.43 / 35.5, 9);
    expect(clockRate({ ...stretch, blockEndMs: null }, 30_000)).toBeNull();
    expect([clockRate(stretch, 0), clockRate(stretch, -1)]).toEqual([null, null]);
  });
});

describe('a pose', () => {
  const at = (x: number, y: number, score = 0.8): SeenPose =>
    joints.map((_, i) => ({ x: x + (i % 2) * 0.1, y: y + (i > 8 ? 0.3 : 0), score }));

  it('has the least box about its places', () => {
    expect(
      boxAbout([
        { x: 0.2, y: 0.9 },
        { x: 0.6, y: 0.1 },
        { x: 0.4, y: 0.5 },
      ]),
    ).toEqual({ left: 0.2, right: 0.6, top: 0.1, bottom: 0.9 });
  });

  it('is looked for on the whole picture as a square, then about the performer', () => {
    expect(wholeCrop(2)).toEqual({ left: 0, top: -0.5, width: 1, height: 2 });
    expect(wholeCrop(0.5)).toEqual({ left: -0.5, top: 0, width: 2, height: 1 });
    expect(wholeCrop(1)).toEqual({ left: 0, top: 0, width: 1, height: 1 });
    expect(nextCrop(null, 2)).toEqual(wholeCrop(2));
    expect(nextCrop(at(0.4, 0.3, 0), 2)).toEqual(wholeCrop(2));
    // 0.2 wide in heights, 0.3 high: 1.5 × 0.3 about its middle (0.9, 0.45).
    const { left, top, width, height } = nextCrop(at(0.4, 0.3), 2);
    expect([left, top, width, height].map((value) => Math.round(value * 1e6) / 1e6)).toEqual([
      ...[0.3375, 0.225, 0.225, 0.45],
    ]);
    const small: SeenPose = joints.map(() => ({ x: 0.5, y: 0.5, score: 0.8 }));
    expect(nextCrop(small, 1).width).toBeCloseTo(0.375, 9);
    const large: SeenPose = joints.map((_, i) => ({ x: i % 2, y: i > 8 ? 1 : 0, score: 0.8 }));
    expect(nextCrop(large, 1).width).toBe(1);
  });

  it('lies on the wide frame where its picture is fitted', () => {
    const one = (aspect: number) => {
      const [joint] = onWideFrame([{ x: 0, y: 0.25, score: 0.7 }], aspect);
      return joint && [joint.x, joint.y, joint.score].map((value) => Math.round(value * 1e4) / 1e4);
    };
    expect([one(16 / 9), one(1), one(32 / 9)]).toEqual([
      [0, 0.25, 0.7],
      [0.2188, 0.25, 0.7],
      [0, 0.375, 0.7],
    ]);
  });

  it('is read from the model’s answer: y, x, score of each joint within the crop', () => {
    const output = Array.from({ length: 51 }, (_, i) => [0.25, 0.5, 0.9][i % 3] ?? 0);
    const pose = poseFrom(output, { left: 0.1, top: 0.2, width: 0.4, height: 0.8 });
    expect(pose).toHaveLength(17);
    expect(pose[16]?.x).toBeCloseTo(0.3, 9);
    expect(pose[16]?.y).toBeCloseTo(0.4, 9);
    expect(pose[16]?.score).toBe(0.9);
  });
});

const BANDS = 26;
const RATE = 16_000;
const hum = (hz: number, seconds: number, level = 0.3) =>
  Float32Array.from(
    { length: seconds * RATE },
    (_, i) => level * Math.sin((2 * Math.PI * hz * i) / RATE),
  );
const rows = (list: readonly (readonly number[])[]): BandSound => ({
  frames: list.length,
  powers: Float32Array.from(list.flat()),
});

describe('sound in bands', () => {
  it('has a tone in the band its pitch falls into, as loud as its power', () => {
    // Mel of 80 Hz is 121.9, of 7,600 Hz 2,787: bands 98.7 mel apart; 1,000 Hz is mel 1,000.
    const sound = bandSound(hum(1_000, 0.5), RATE);
    expect(sound.frames).toBe(Math.floor((8_000 - 480) / 320) + 1);
    const frame = [...sound.powers.subarray(10 * BANDS, 11 * BANDS)];
    expect(frame.indexOf(Math.max(...frame))).toBe(8);
    const double = bandSound(hum(1_000, 0.5, 0.6), RATE).powers[10 * BANDS + 8] ?? 0;
    expect(double / (frame[8] ?? 1)).toBeCloseTo(4, 3);
    expect(bandSound(new Float32Array(100), RATE).frames).toBe(0);
    expect(
      frame.map((power) => Math.round(Math.log10(power + 1e-9) * 100) / 100),
    ).toMatchSnapshot();
  });

  it('has its resonances lower from a longer vocal tract, higher from a shorter one', () => {
    const loudest = (by: number) => {
      const { powers } = fromOtherTract(bandSound(hum(1_000, 0.5), RATE), by);
      return [...powers.subarray(10 * BANDS, 11 * BANDS)].reduce(
        (best, power, b, all) => (power > (all[best] ?? 0) ? b : best),
        0,
      );
    };
    // 1,000 Hz divided by these: 840, 1,000, 1,180 and 1,390 Hz, mel 884, 1,000, 1,114 and 1,233.
    expect([1.19, 1, 0.85, 0.72].map(loudest)).toEqual([7, 8, 9, 10]);
  });

  it('is quiet where a tenth of its frames is', () => {
    const list = Array.from({ length: 11 }, (_, i) =>
      Array.from({ length: BANDS }, (__, b) => i + b),
    );
    expect([...noiseFloor(rows(list))].slice(0, 3)).toEqual([1, 2, 3]);
  });

  it('is speech from 160 ms on, with gaps of 120 ms in it; a beep is none', () => {
    const quiet = Array.from({ length: BANDS }, () => 1e-6);
    const loud = Array.from({ length: BANDS }, () => 1e-3);
    const beep = Array.from({ length: BANDS }, (_, b) => (b === 5 ? 1e-1 : 1e-6));
    const speechIn = (text: string) =>
      [
        ...speechFrames(
          rows([...text].map((c) => (c === 'x' ? loud : c === 'b' ? beep : quiet))),
          Float32Array.from(quiet),
        ),
      ]
        .map((one) => (one === 1 ? 'x' : '.'))
        .join('');
    expect(speechIn('....xxxxxxxx....')).toBe('....xxxxxxxx....');
    expect(speechIn('....xxxxxxx....')).toBe('...............');
    expect(speechIn('..xxxx......xxxx..')).toBe('..xxxxxxxxxxxxxx..');
    expect(speechIn('..xxxxxxxx.......xxxxxxxx..')).toBe('..xxxxxxxx.......xxxxxxxx..');
    expect(speechIn('..bbbbbbbbbb......')).toBe('..................');
    expect(speechIn('xxxxxxxxxbbbbxxxxxxxx')).toBe('xxxxxxxxx....xxxxxxxx');
    expect(speechIn('xxxxxxxxxbbbxxxxxxxx')).toBe('xxxxxxxxxxxxxxxxxxxx');
  });

  it('is laid into a room, and as loud as it is while somebody speaks', () => {
    const sound = rows([
      Array.from({ length: BANDS }, () => 2),
      Array.from({ length: BANDS }, () => 6),
    ]);
    const floor = Float32Array.from({ length: BANDS }, (_, b) => b);
    expect([...inRoom(sound, floor, 3).powers].slice(25, 28)).toEqual([31, 18, 19]);
    expect(inRoom(sound, floor, 3).frames).toBe(2);
    expect(speechPower(sound, Uint8Array.from([0, 1]))).toBe(6);
    expect(speechPower(sound, Uint8Array.from([1, 1]))).toBe(4);
    expect(speechPower(sound, Uint8Array.from([0, 0]))).toBe(0);
  });

  it('becomes features of mean 0 and spread 1 over what is spoken', () => {
    const list = Array.from({ length: 12 }, (_, i) =>
      Array.from({ length: BANDS }, (__, b) => 1 + ((i * 7 + b * 5) % 11)),
    );
    const speech = Uint8Array.from(list, (_, i) => (i > 1 && i < 10 ? 1 : 0));
    const features = mfccOf(rows(list), speech);
    expect(features).toHaveLength(12 * FEATURES);
    for (let f = 0; f < FEATURES; f += 1) {
      const column = Array.from({ length: 8 }, (_, i) => features[(i + 2) * FEATURES + f] ?? NaN);
      const mean = column.reduce((sum, value) => sum + value, 0) / 8;
      expect(mean).toBeCloseTo(0, 4);
      expect(column.reduce((sum, value) => sum + (value - mean) ** 2, 0) / 8).toBeCloseTo(1, 3);
    }
    const shown = (frame: number) =>
      [...features.subarray(frame * FEATURES, (frame + 1) * FEATURES)].map(
        (value) => Math.round(value * 1_000) / 1_000,
      );
    expect([shown(0), shown(5), shown(11)]).toMatchSnapshot();
    // Where nobody speaks, all of it counts.
    const silent = mfccOf(rows(list), new Uint8Array(12));
    const first = Array.from({ length: 12 }, (_, i) => silent[i * FEATURES] ?? NaN);
    expect(first.reduce((sum, value) => sum + value, 0)).toBeCloseTo(0, 3);
  });
});

describe('figures of frames of sound', () => {
  const frame = (more: Partial<SoundFrame> = {}): SoundFrame => ({
    ...{ level: -30, peak: 0.2, rumble: -60, voice: -32, tone: 0, tonal: 0.3 },
    ...more,
  });
  const times = (n: number, more: Partial<SoundFrame> = {}) =>
    Array.from({ length: n }, () => frame(more));
  const silent = (n: number) => new Uint8Array(n);

  it('speech is as loud as its power, what is between as its median, away from words', () => {
    const frames = [...times(4, { level: -20 }), ...times(8, { level: -50 })];
    const speech = Uint8Array.from(frames, (_, i) => (i < 4 ? 1 : 0));
    expect(soundFigures(frames, speech)).toMatchObject({ speechDb: -20, betweenDb: -50 });
    const two = [...times(1, { level: -20 }), ...times(1, { level: -30 })];
    // (10^-2 + 10^-3) / 2 is -22.6 dB.
    expect(soundFigures(two, Uint8Array.from([1, 1])).speechDb).toBe(-22.6);
    // Right beside words nothing counts: of eight frames six do, of five only four.
    expect(soundFigures(frames.slice(0, 9), speech.slice(0, 9)).betweenDb).toBeNull();
    expect(soundFigures(frames.slice(0, 10), speech.slice(0, 10)).betweenDb).toBe(-50);
    expect(soundFigures(times(9), silent(9))).toMatchObject({ speechDb: null, betweenDb: -30 });
  });

  it('what is between is music when it is held notes, and heard', () => {
    const music = (tonal: number, level = -40) =>
      soundFigures(times(9, { tonal, level }), silent(9)).isMusic;
    expect([music(0.76), music(0.75), music(0.9, -58), music(0.9, -57)]).toEqual([
      ...[true, false, false, true],
    ]);
    expect(soundFigures(times(4, { tonal: 0.9 }), silent(4)).isMusic).toBe(false);
  });

  it('overload is told from a tenth of a second on, silence from two', () => {
    const faults = (list: SoundFrame[]) => soundFigures(list, silent(list.length)).faults;
    expect(faults([...times(3), frame({ peak: 0.985 }), ...times(3)])).toEqual([
      { fault: 'overloaded', startMs: 300, endMs: 400 },
    ]);
    expect(faults([...times(3), frame({ peak: 0.984 })])).toEqual([]);
    expect(faults([...times(20, { level: -62.1 }), ...times(3)])).toEqual([
      { fault: 'silence', startMs: 0, endMs: 2_000 },
    ]);
    expect(faults([...times(19, { level: -62.1 }), ...times(3)])).toEqual([]);
    expect(faults(times(30, { level: -62 }))).toEqual([]);
    const both = faults([
      ...times(25, { level: -70 }),
      frame({ peak: 1 }),
      ...times(25, { level: -70 }),
    ]);
    expect(both.map(({ fault, startMs }) => [fault, startMs])).toEqual([
      ['silence', 0],
      ['overloaded', 2_500],
      ['silence', 2_600],
    ]);
  });

  it('a tone lasts from 80 ms to a second and a half, and is heard', () => {
    const tones = (n: number, more: Partial<SoundFrame> = {}) =>
      soundFigures([...times(2), ...times(n, { tone: 880, ...more }), ...times(2)], silent(n + 4))
        .tones;
    expect(tones(1)).toEqual([{ startMs: 200, endMs: 300, hz: 880 }]);
    expect(tones(15)).toEqual([{ startMs: 200, endMs: 1_700, hz: 880 }]);
    expect(tones(16)).toEqual([]);
    expect(tones(2, { level: -58 })).toEqual([]);
    expect(tones(2, { level: -57.9 })).toHaveLength(1);
  });
});
