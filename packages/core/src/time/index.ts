/**
 * Instants, spans and frames. Every duration in the document and the core is a whole number of
 * milliseconds; this is the only place that rounds to frames.
 */

import type { TimeSpan } from './spans.ts';

export type { BlockMs, StudentMs, TakeMs, VideoMs } from './bases.ts';
export * from './spans.ts';

/** Frames per second of every working copy and every exported video. */
export const OUTPUT_FPS = 30;

/** The first frame whose instant is at or after `ms`: where an event at `ms` becomes visible. */
export function firstFrameFrom(ms: number, fps: number = OUTPUT_FPS): number {
  return Math.ceil((ms * fps) / 1000);
}

/**
 * The instant of frame `n` in whole milliseconds. Floored: for a whole `ms`, `instantOfFrame(n) >=
 * ms` exactly when `n >= firstFrameFrom(ms)`, so a scene sampled per frame changes on the right
 * frame.
 */
export function instantOfFrame(n: number, fps: number = OUTPUT_FPS): number {
  return Math.floor((n * 1000) / fps);
}

/**
 * Frames shown for a span. Neighbouring spans share their border frame's decision, so the frame
 * counts of spans that tile a stretch always add up to the frame count of the stretch.
 */
export function frameCount(span: TimeSpan, fps: number = OUTPUT_FPS): number {
  return firstFrameFrom(span.endMs, fps) - firstFrameFrom(span.startMs, fps);
}

/** The nearest whole second, in milliseconds. */
export const wholeSeconds = (ms: number): number => Math.round(ms / 1_000) * 1_000;

/** `m:ss` (or `h:mm:ss`), the part of a second cut off. For elapsed time and lengths. */
export function clockText(ms: number): string {
  const total = Math.floor(Math.max(0, ms) / 1000);
  const seconds = String(total % 60).padStart(2, '0');
  const minutes = Math.floor(total / 60) % 60;
  const hours = Math.floor(total / 3600);
  return hours > 0
    ? `${hours}:${String(minutes).padStart(2, '0')}:${seconds}`
    : `${minutes}:${seconds}`;
}

/**
 * Digits of a countdown: seconds still to go, a begun second counting whole, so it ends on 1 and
 * never shows 0 early.
 */
export function countdownText(remainingMs: number): string {
  const seconds = Math.ceil(Math.max(0, remainingMs) / 1000);
  return seconds < 60 ? String(seconds) : clockText(seconds * 1000);
}

/** Digits of a clock that counts up: whole seconds gone. */
export function elapsedText(elapsedMs: number): string {
  const seconds = Math.floor(Math.max(0, elapsedMs) / 1000);
  return seconds < 60 ? String(seconds) : clockText(seconds * 1000);
}

/** `m:ss:ff` at the output rate, for frame steps. */
export function frameText(ms: number, fps: number = OUTPUT_FPS): string {
  const frame = firstFrameFrom(ms, fps);
  const text = clockText(Math.floor(frame / fps) * 1000);
  return `${text}:${String(frame % fps).padStart(2, '0')}`;
}

/** Words for a length: `45 s`, `4 min`, `4 min 30 s`, with tenths where there are any. */
export function lengthText(ms: number): string {
  const tenths = Math.round(ms / 100);
  const minutes = Math.floor(tenths / 600);
  const rest = (tenths % 600) / 10;
  const parts: string[] = [];
  if (minutes > 0) parts.push(`${minutes} min`);
  if (rest > 0 || minutes === 0) parts.push(`${rest} s`);
  return parts.join(' ');
}

/**
 * Reads a length as teachers write it: `90`, `90 s`, `1:30`, `1 min 30 s`, `1.5 min`; units in
 * English, German or Spanish.
 * @returns whole milliseconds, or null when the text is not a length.
 */
export function parseLength(text: string): number | null {
  const clean = text.trim().toLowerCase().replace(',', '.');
  const clock = /^(\d{1,3}):([0-5]?\d)$/.exec(clean);
  if (clock) return (Number(clock[1]) * 60 + Number(clock[2])) * 1000;
  const words =
    /^(?:(\d+(?:\.\d+)?)\s*m(?:in(?:ut(?:e[sn]?|os?))?)?\.?)?\s*(?:(\d+(?:\.\d+)?)\s*(?:s(?:ec(?:onds?)?|ek(?:unden?)?|eg(?:undos?)?)?\.?)?)?$/.exec(
      clean,
    );
  if (!words || (words[1] === undefined && words[2] === undefined)) return null;
  return Math.round(Number(words[1] ?? 0) * 60_000 + Number(words[2] ?? 0) * 1000);
}
