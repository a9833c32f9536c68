import { useRef, useState } from 'react';
import type { Chapter } from '@zest/core/assembly';
import type { AskMoment } from './steps.ts';

/** Why the video waits: for a number, or between two parts. */
export type Stop =
  { kind: 'ask'; moment: AskMoment } | { kind: 'part'; done: string; next: string };

interface Stops {
  moments: readonly AskMoment[];
  chapters: readonly Chapter[];
  partByPart: boolean;
  durationMs: number;
}

/** A jump is no passing. */
const JUMP_MS = 1_000;
/** The last picture stands a frame before the end. */
const END_MS = 100;

/** Where the video stops by itself as it passes, and the count taken on the way there. */
export function useStops({ moments, chapters, partByPart, durationMs }: Stops) {
  const last = useRef(0);
  const passed = useRef(new Set<AskMoment>());
  const [stop, setStop] = useState<Stop | null>(null);
  const [counted, setCounted] = useState<number | null>(null);

  /** Told where the video is; true when it has just come to a stop. */
  const watch = (atMs: number, playing: boolean): boolean => {
    const from = last.current;
    last.current = atMs;
    if (atMs < from)
      for (const moment of passed.current) if (moment.startMs > atMs) passed.current.delete(moment);
    if (!playing || stop !== null || atMs <= from || atMs - from > JUMP_MS) return false;
    const hasCome = (ms: number) =>
      ms > from && (ms <= atMs || (ms >= durationMs && atMs >= durationMs - END_MS));
    const moment = moments.find((one) => hasCome(one.startMs) && !passed.current.has(one));
    if (moment) {
      passed.current.add(moment);
      setStop({ kind: 'ask', moment });
      return true;
    }
    const i = partByPart
      ? chapters.findIndex(({ endMs }) => endMs < durationMs && hasCome(endMs))
      : -1;
    const [done, next] = [chapters[i], chapters[i + 1]];
    if (i < 0 || !done || !next) return false;
    setStop({ kind: 'part', done: done.title, next: next.title });
    return true;
  };
  const leave = () => {
    setStop(null);
    setCounted(null);
  };
  return { stop, watch, leave, counted, setCounted };
}
