import type { Lesson } from '@zest/core/lesson';
import type { Scene } from '@zest/core/overlay';
import type { TimeSpan } from '@zest/core/time';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { useAssembly } from '../../app/use-lesson.ts';
import type { LessonPlayer } from '../../player/player.ts';
import { usePlayClock } from './play-clock.ts';
import { withDraft, type Draft } from './with-draft.ts';
import { useWindow } from './use-window.ts';

/** A stretch that is tried is heard and seen so long before and after. */
const AROUND_MS = 1_000;

/** The lesson as it plays on the bench: in which shape, with which sound, and where it is. */
export function usePreview(
  lesson: Lesson,
  draft: Draft | null,
  player: RefObject<LessonPlayer | null>,
) {
  const wide = useAssembly(useMemo(() => withDraft(lesson, draft), [lesson, draft]));
  const [isUpright, setUpright] = useState(false);
  const [isFinished, setFinished] = useState(false);
  const [playing, setPlaying] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  // A place is chosen on the wide picture.
  const showsUpright = isUpright && draft === null;
  const assembly = useMemo(
    () => (showsUpright ? { ...wide, shape: 'upright' as const } : wide),
    [wide, showsUpright],
  );
  const clock = usePlayClock();
  const range = useWindow(assembly.durationMs);
  const endMs = useRef<number | null>(null);
  // The other sound begins where this one was.
  useEffect(() => player.current?.seek(player.current.positionMs), [player, isFinished]);
  return {
    assembly,
    clock,
    range,
    isUpright,
    showsUpright,
    toggleUpright: () => setUpright(!isUpright),
    isFinished,
    toggleFinished: () => setFinished(!isFinished),
    playing,
    onPlaying: (now: boolean) => {
      if (!now) endMs.current = null;
      setPlaying(now);
    },
    /** Plays a stretch of the video, and a little about it. */
    playAround: ({ startMs, endMs: toMs }: TimeSpan) => {
      player.current?.seek(Math.max(0, startMs - AROUND_MS));
      player.current?.play();
      endMs.current = toMs + AROUND_MS;
    },
    fault,
    setFault,
    onScene: (scene: Scene) => {
      clock.show(scene);
      range.follow(scene.atMs);
      if (endMs.current !== null && scene.atMs >= endMs.current) player.current?.pause();
    },
  };
}
