import type { RemoteCommand } from '@zest/contract';
import { useEffect, useRef } from 'react';
import { useOpenLesson } from '../../../app/use-lesson.ts';
import { useLatest } from '../../../ui/use-latest.ts';
import type { FilmPreferences } from './preferences.ts';
import type { Cameras } from './use-cameras.ts';
import type { FilmLine } from './use-film-line.ts';
import { useFilmRun } from './use-film-run.ts';

/** Time to breathe before the next block starts by itself. */
const HANDS_FREE_GAP_MS = 2_000;

export type FilmAction = RemoteCommand | 'pause';

interface FilmActionParts {
  lines: FilmLine;
  cameras: Pick<Cameras, 'open' | 'now'>;
  preferences: FilmPreferences;
  onStart: () => void;
}

/** The run of a block before the cameras, and what a key, a button or the remote does to it. */
export function useFilmActions({ lines, cameras, preferences, onStart }: FilmActionParts) {
  const { id: lessonId, lesson } = useOpenLesson();
  const { at, line, isLast, goTo } = lines;
  const onDone = useRef<() => void>(() => undefined);
  const film = useFilmRun(cameras.now, onDone);
  const { run, phase } = film;
  const isEarly = useRef(false);
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined);

  const start = () => {
    if (!line) return;
    // The key was quicker than the cameras: it counts as soon as they are open.
    isEarly.current = cameras.open.length === 0;
    if (isEarly.current) return;
    onStart();
    const { speaks, recordsPacer, marksForOthers } = preferences;
    void run.go(
      { lessonId, block: line.toFilm.block, shotId: line.toFilm.shot.id, lesson },
      { settleMs: lesson.filming.settleMs, speaks, recordsPacer, marksForOthers },
    );
  };
  const startLater = useLatest(start);
  useEffect(() => () => clearTimeout(waiting.current), []);
  useEffect(() => {
    onDone.current = () => {
      if (isLast) return;
      goTo(at + 1);
      if (preferences.handsFree) waiting.current = setTimeout(startLater, HANDS_FREE_GAP_MS);
    };
  });
  useEffect(() => {
    if (cameras.open.length > 0 && isEarly.current) startLater();
  }, [cameras.open, startLater]);
  const moveTo = (next: number) => {
    clearTimeout(waiting.current);
    if (phase === 'ready') goTo(next);
  };
  const act: Record<FilmAction, () => void> = {
    go: () => {
      if (phase === 'ready') start();
      else if (phase === 'filming') run.finish();
      else if (phase === 'paused') run.resume();
    },
    back: () => {
      if (phase === 'ready') moveTo(at - 1);
      else void run.breakOff().then(() => goTo(at));
    },
    again: () => {
      void run.breakOff().then(() => {
        goTo(at);
        startLater();
      });
    },
    next: () => moveTo(at + 1),
    pause: () => {
      if (phase === 'paused') run.resume();
      else run.pause();
    },
  };
  /** Nothing starts by itself any more; true when no block is before the cameras. */
  const canLeave = () => {
    clearTimeout(waiting.current);
    return phase === 'ready';
  };
  return { ...film, act, canLeave };
}
