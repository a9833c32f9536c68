import { useEffect, useState } from 'react';
import { useLatest } from '../ui/use-latest.ts';
import { entryId } from './outbox.ts';
import type { Log } from './use-log.ts';

const TELL_EVERY_MS = 15_000;

interface Progress {
  note: Log['note'];
  atMs: number;
  playing: boolean;
  durationMs: number;
}

/** Tells how far this visit has come: one entry that grows. Gives the furthest place, in milliseconds. */
export function useProgress({ note, atMs, playing, durationMs }: Progress): number {
  const [visit] = useState(entryId);
  const [furthest, setFurthest] = useState(0);
  if (atMs > furthest && playing) setFurthest(atMs);
  const tell = useLatest(() => {
    if (furthest > 0) note({ kind: 'reached', atMs: Math.min(furthest, durationMs), ofMs: durationMs }, visit);
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
  return furthest;
}
