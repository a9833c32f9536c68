import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  clockText,
  countdownText,
  firstFrameFrom,
  frameCount,
  frameText,
  instantOfFrame,
  lengthText,
  parseLength,
} from './index.ts';

const instant = fc.integer({ min: 0, max: 4 * 3_600_000 });

describe('frames', () => {
  it('shows an event exactly from its first frame on', () => {
    fc.assert(
      fc.property(instant, fc.integer({ min: 0, max: 432_000 }), (ms, frame) => {
        expect(instantOfFrame(frame) >= ms).toBe(frame >= firstFrameFrom(ms));
      }),
    );
  });

  it('gets a frame back from its instant', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 432_000 }), (frame) => {
        expect(firstFrameFrom(instantOfFrame(frame))).toBe(frame);
      }),
    );
  });

  it('adds up: spans that tile a stretch have its frames together', () => {
    fc.assert(
      fc.property(fc.array(instant, { minLength: 2, maxLength: 20 }), (instants) => {
        const edges = [...instants].sort((a, b) => a - b);
        const parts = edges
          .slice(1)
          .map((endMs, i) => frameCount({ startMs: edges[i] ?? 0, endMs }));
        const whole = frameCount({ startMs: edges[0] ?? 0, endMs: edges.at(-1) ?? 0 });
        expect(parts.reduce((sum, n) => sum + n, 0)).toBe(whole);
      }),
    );
  });

  it('is 30 a second', () => {
    expect(firstFrameFrom(1_000)).toBe(30);
    expect(firstFrameFrom(120_000)).toBe(3_600);
    expect(frameText(61_100)).toBe('1:01:03');
  });
});

describe('words for time', () => {
  it('counts a begun second whole and ends on 1', () => {
    expect(countdownText(20_000)).toBe('20');
    expect(countdownText(19_001)).toBe('20');
    expect(countdownText(19_000)).toBe('19');
    expect(countdownText(1)).toBe('1');
    expect(countdownText(0)).toBe('0');
    expect(countdownText(60_000)).toBe('1:00');
  });

  it('writes clocks and lengths', () => {
    expect(clockText(59_999)).toBe('0:59');
    expect(clockText(3_723_000)).toBe('1:02:03');
    expect(lengthText(270_000)).toBe('4 min 30 s');
    expect(lengthText(240_000)).toBe('4 min');
    expect(lengthText(2_500)).toBe('2.5 s');
  });

  it.each([
    ['90', 90_000],
    ['90 s', 90_000],
    ['1:30', 90_000],
    ['1 min 30 s', 90_000],
    ['1.5 min', 90_000],
    ['1,5 min', 90_000],
    ['0', 0],
  ])('reads %s', (text, ms) => expect(parseLength(text)).toBe(ms));

  it.each(['', 'soon', '-5', '1:75', '5 x', '🙂'])('refuses %s', (text) =>
    expect(parseLength(text)).toBeNull(),
  );

  it('reads back what it writes, to the tenth of a second', () => {
    fc.assert(
      fc.property(instant, (ms) => {
        expect(parseLength(lengthText(ms))).toBe(Math.round(ms / 100) * 100);
      }),
    );
  });
});
