import { useEffect, useState } from 'react';
import { PacerPlayer } from '../../record/pacer-player.ts';
import type { PacerEvent } from '@zest/core/script';

/** The last seconds of a practice are heard and felt. */
export const LAST_MS = 10_000;

/** What is heard and felt, by the time that is left: a call, the last three seconds, the end. */
const signals = [
  { leftMs: LAST_MS, tone: 'last-five', feltMs: 200 },
  { leftMs: 3_000, tone: 'tick', feltMs: 80 },
  { leftMs: 2_000, tone: 'tick', feltMs: 80 },
  { leftMs: 1_000, tone: 'tick', feltMs: 80 },
  { leftMs: 0, tone: 'stop', feltMs: 400 },
] as const;

/** Signals of a practice of this length, by when; what lies before its beginning is left out. */
export const signalsOf = (practiceMs: number) =>
  signals
    .filter(({ leftMs }) => leftMs < practiceMs)
    .map(({ leftMs, ...signal }) => ({ atMs: practiceMs - leftMs, ...signal }));

interface TimeLeft {
  practiceMs: number;
  isHeard: boolean;
  isFelt: boolean;
}

/** The time a practice has left, in milliseconds, with its signals at the end. */
export function useTimeLeft({ practiceMs, isHeard, isFelt }: TimeLeft): number {
  const [since] = useState(() => performance.now());
  const [leftMs, setLeftMs] = useState(practiceMs);
  useEffect(() => {
    const timer = setInterval(
      () => setLeftMs(Math.max(0, practiceMs - (performance.now() - since))),
      250,
    );
    return () => clearInterval(timer);
  }, [practiceMs, since]);
  useEffect(() => {
    if (!isHeard) return;
    const audio = new AudioContext();
    const pacer = new PacerPlayer(audio, audio.destination, new Map());
    const gone = performance.now() - since;
    pacer.start(
      signalsOf(practiceMs).map(({ atMs, tone }): PacerEvent => ({ atMs, tone, say: '' })),
      audio.currentTime - gone / 1_000,
    );
    return () => {
      pacer.stop();
      void audio.close();
    };
  }, [practiceMs, since, isHeard]);
  useEffect(() => {
    if (!isFelt || !('vibrate' in navigator)) return;
    const gone = performance.now() - since;
    const timers = signalsOf(practiceMs)
      .filter(({ atMs }) => atMs > gone)
      .map(({ atMs, feltMs }) => setTimeout(() => navigator.vibrate(feltMs), atMs - gone));
    return () => timers.forEach(clearTimeout);
  }, [practiceMs, since, isFelt]);
  return leftMs;
}
