import { useEffect, useRef, useState } from 'react';
import { joinSeen, type SeenStretch } from '@zest/core/results';
import { useLatest } from '../ui/use-latest.ts';
import { entryId } from './outbox.ts';
import { isMiddle, type KeepsPlace } from './place.ts';
import type { Log } from './use-log.ts';

const TELL_EVERY_MS = 15_000;
/** A video that plays goes no further than time does, but for this; what goes further is a jump. */
const JUMP_MS = 1_500;

interface Progress {
  note: Log['note'];
  place: KeepsPlace;
  atMs: number;
  playing: boolean;
  durationMs: number;
}

/**
 * Tells what was played in this visit: one entry that grows; and keeps the place. Gives the
 * furthest place that was played, in milliseconds, and what takes down a stretch that the page
 * itself passes over, for something else was done in its time.
 */
export function useProgress({ note, place, atMs, playing, durationMs }: Progress): {
  furthestMs: number;
  passOver: (fromMs: number, toMs: number) => void;
} {
  const [visit] = useState(entryId);
  const [furthest, setFurthest] = useState(0);
  const seen = useRef<SeenStretch[]>([]);
  const last = useRef<{ atMs: number; wallMs: number } | null>(null);
  if (atMs > furthest && playing) setFurthest(atMs);
  useEffect(() => {
    const from = last.current;
    const wallMs = performance.now();
    last.current = playing ? { atMs, wallMs } : null;
    if (
      !playing ||
      from === null ||
      atMs <= from.atMs ||
      atMs - from.atMs > wallMs - from.wallMs + JUMP_MS
    )
      return;
    const on = seen.current.at(-1);
    if (on?.[1] === from.atMs) on[1] = atMs;
    else seen.current.push([from.atMs, atMs]);
  }, [atMs, playing]);
  const tell = useLatest(() => {
    const whole = joinSeen(
      seen.current.map(([from, to]): SeenStretch => [
        Math.round(from),
        Math.min(durationMs, Math.round(to)),
      ]),
    );
    if (whole.length > 0)
      note(
        { kind: 'reached', atMs: Math.min(furthest, durationMs), totalMs: durationMs, seen: whole },
        visit,
      );
    // A page that only just opens has not been anywhere.
    if (whole.length > 0 || furthest > 0)
      place.keep(
        isMiddle({ atMs, totalMs: durationMs })
          ? { atMs: Math.round(atMs), totalMs: durationMs }
          : null,
      );
  });
  useEffect(() => note({ kind: 'opened' }), [note]);
  // At every halt, and now and then meanwhile.
  useEffect(() => {
    if (!playing) {
      tell();
      return;
    }
    const timer = setInterval(tell, TELL_EVERY_MS);
    return () => clearInterval(timer);
  }, [playing, tell]);
  useEffect(() => {
    // Before the outbox sends what it has for the last time.
    addEventListener('pagehide', tell, { capture: true });
    return () => removeEventListener('pagehide', tell, { capture: true });
  }, [tell]);
  const passOver = useLatest(
    (fromMs: number, toMs: number) => void seen.current.push([fromMs, toMs]),
  );
  return { furthestMs: furthest, passOver };
}
