import { blocksOf } from '@zest/core/lesson';
import { useEffect, useRef } from 'react';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson, useTakes } from '../../app/use-lesson.ts';
import { chooseTake, needsFootage } from './uploads.ts';

/**
 * Takes that found their block by their sync marks are seen there at once, unless the block has
 * footage that can be used already. Each only once: undone, it stays undone.
 */
export function useMarkedTakes(): void {
  const { lesson } = useOpenLesson();
  const takes = useTakes();
  const dispatch = useAppDispatch();
  const handled = useRef(new Set<string>());
  useEffect(() => {
    for (const take of takes) {
      if (take.state !== 'ready' || !take.marked || take.inBin || handled.current.has(take.id))
        continue;
      handled.current.add(take.id);
      const block = blocksOf(lesson).find(({ id }) => id === take.blockId);
      if (block && dispatch(needsFootage(take.lessonId, block)))
        dispatch(chooseTake(block, take.id, null));
    }
  }, [takes, lesson, dispatch]);
}
