import type { Lesson } from '@zest/core/lesson';
import type { Scene } from '@zest/core/overlay';
import { useEffect, useMemo, useState, type RefObject } from 'react';
import { useAssembly } from '../../app/use-lesson.ts';
import type { LessonPlayer } from '../../player/player.ts';
import { usePlayClock } from './play-clock.ts';
import { withoutDraft, type Draft } from './use-changes.ts';
import { useWindow } from './use-window.ts';

/** The lesson as it plays on the bench: in which shape, with which sound, and where it is. */
export function usePreview(
  lesson: Lesson,
  draft: Draft | null,
  player: RefObject<LessonPlayer | null>,
) {
  const wide = useAssembly(useMemo(() => withoutDraft(lesson, draft), [lesson, draft]));
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
    setPlaying,
    fault,
    setFault,
    onScene: (scene: Scene) => {
      clock.show(scene);
      range.follow(scene.atMs);
    },
  };
}
