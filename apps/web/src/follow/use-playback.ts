import { useEffect, useRef, useState, type RefObject } from 'react';
import type { PauseMark } from '@zest/core/assembly';
import type { Scene } from '@zest/core/overlay';
import type { LessonPlayer } from '../player/player.ts';
import type { Footage } from './use-footage.ts';
import { say } from './words/index.ts';

const SLOWLY = 0.5;
/** Who waits longer gets a smaller picture. */
const PATIENCE_MS = 1_500;

interface PlaybackParts {
  player: RefObject<LessonPlayer | null>;
  footage: Pick<Footage, 'takeUrl' | 'slower'>;
  hasSound: boolean;
  /** Where it begins, in milliseconds. */
  fromMs: number;
}

/** The video as it plays: where it is, how fast, whether it waits for footage or the student. */
export function usePlayback({
  player,
  footage: { takeUrl, slower },
  hasSound,
  fromMs,
}: PlaybackParts) {
  const [scene, setScene] = useState<Scene | null>(null);
  const [playing, setPlaying] = useState(false);
  const [pause, setPause] = useState<PauseMark | null>(null);
  const pausedAt = useRef(0);
  const [fault, setFault] = useState<string | null>(null);
  /** Where a stretch shown slowly ends. */
  const [slowUntil, setSlowUntil] = useState<number | null>(null);
  const [isStalled, setStalled] = useState(false);
  const rate = slowUntil === null ? 1 : SLOWLY;

  useEffect(() => {
    if (fromMs > 0) player.current?.seek(fromMs);
    player.current?.play();
  }, [player, fromMs]);
  useEffect(() => {
    if (!isStalled) return;
    const timer = setTimeout(slower, PATIENCE_MS);
    return () => clearTimeout(timer);
  }, [isStalled, slower]);
  const shownFrom = useRef(takeUrl);
  useEffect(() => {
    if (shownFrom.current === takeUrl) return;
    shownFrom.current = takeUrl;
    player.current?.seek(player.current.positionMs);
  }, [player, takeUrl]);
  useEffect(() => player.current?.setMuted(!hasSound), [player, hasSound]);
  useEffect(() => player.current?.setRate(rate), [player, rate]);

  return {
    scene,
    atMs: scene?.atMs ?? 0,
    playing,
    pause,
    fault,
    rate,
    showSlowlyUntil: setSlowUntil,
    /** The student goes on; gives how long the practice lasted, in milliseconds, if there was one. */
    endPause: (): number | null => {
      setPause(null);
      return pause && Math.round(performance.now() - pausedAt.current);
    },
    /** What the stage tells. */
    heard: {
      onScene: (next: Scene) => {
        setScene(next);
        if (slowUntil !== null && next.atMs >= slowUntil) setSlowUntil(null);
      },
      onPlaying: (now: boolean) => {
        setPlaying(now);
        if (now) setFault(null);
      },
      onPause: (mark: PauseMark) => {
        pausedAt.current = performance.now();
        setPause(mark);
      },
      onFault: () => setFault(say('fault.video')),
      onStall: setStalled,
    },
  };
}

export type Playback = ReturnType<typeof usePlayback>;
