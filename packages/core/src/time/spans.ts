/** A half-open stretch of time, `startMs` inclusive to `endMs` exclusive, in whole milliseconds. */
export interface TimeSpan {
  startMs: number;
  endMs: number;
}

/*
 * The arithmetic of half-open spans. Whatever their time base, both sides of an operation are of
 * one.
 */

export const spanLength = ({ startMs, endMs }: TimeSpan): number => endMs - startMs;
/** The length of all spans together; where two overlap, that time counts twice. */
export const totalLength = (spans: readonly TimeSpan[]): number =>
  spans.reduce((sum, span) => sum + spanLength(span), 0);

/** Whether both share time; spans that only touch do not. */
export const overlaps = (a: TimeSpan, b: TimeSpan): boolean =>
  a.startMs < b.endMs && a.endMs > b.startMs;

/** Whether the instant lies in the span, its end not included. */
export const contains = ({ startMs, endMs }: TimeSpan, ms: number): boolean =>
  ms >= startMs && ms < endMs;

/** Those that begin in the span. */
export const beginningIn = <T extends TimeSpan>(list: readonly T[], span: TimeSpan): T[] =>
  list.filter(({ startMs }) => contains(span, startMs));

/** The time both share; null where there is none. */
export function clip(span: TimeSpan, to: TimeSpan): TimeSpan | null {
  const startMs = Math.max(span.startMs, to.startMs);
  const endMs = Math.min(span.endMs, to.endMs);
  return endMs > startMs ? { startMs, endMs } : null;
}

/** The stretches a span of one list shares with one of the other, in the order of the first. */
export const intersect = (some: readonly TimeSpan[], others: readonly TimeSpan[]): TimeSpan[] =>
  some.flatMap((a) => others.flatMap((b) => clip(a, b) ?? []));

/**
 * Spans in order, those that overlap, touch or lie at most `withinMs` apart as one. What else they
 * carry goes.
 */
export function merge(spans: readonly TimeSpan[], withinMs = 0): TimeSpan[] {
  const merged: TimeSpan[] = [];
  for (const { startMs, endMs } of [...spans].sort((a, b) => a.startMs - b.startMs)) {
    const last = merged.at(-1);
    if (last && startMs - last.endMs <= withinMs) last.endMs = Math.max(last.endMs, endMs);
    else merged.push({ startMs, endMs });
  }
  return merged;
}

/** What of a span none of the others takes, in order. */
export function subtract(span: TimeSpan, taken: readonly TimeSpan[]): TimeSpan[] {
  const free: TimeSpan[] = [];
  let startMs = span.startMs;
  for (const hole of merge(taken.filter((other) => overlaps(other, span)))) {
    if (hole.startMs > startMs) free.push({ startMs, endMs: hole.startMs });
    startMs = Math.max(startMs, hole.endMs);
  }
  if (span.endMs > startMs) free.push({ startMs, endMs: span.endMs });
  return free;
}

/** The gaps of at least `leastMs` that the others leave in a span. */
export const gaps = (span: TimeSpan, taken: readonly TimeSpan[], leastMs: number): TimeSpan[] =>
  subtract(span, taken).filter((gap) => spanLength(gap) >= leastMs);

/** In the order of time. */
export const byStart = (a: TimeSpan, b: TimeSpan): number => a.startMs - b.startMs;
