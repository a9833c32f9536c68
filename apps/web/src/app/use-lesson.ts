import { useMemo } from 'react';
import { firstCut, type Assembly } from '@zest/core/assembly';
import { blocksOf, type Block, type Lesson } from '@zest/core/lesson';
import { scheduleLesson, type Schedule } from '@zest/core/schedule';
import type { Take } from '@zest/contract';
import { useSearchParams } from 'react-router';
import { api } from './api.ts';
import { useAppSelector } from './store.ts';

/** The open lesson. Only for what the lesson shell shows once a lesson is open. */
export function useOpenLesson(): { id: string; revision: number; lesson: Lesson } {
  const open = useAppSelector((state) => state.lesson.open);
  if (!open) throw new Error('No lesson is open.');
  return { id: open.id, revision: open.revision, lesson: open.edited.lesson };
}

export function useSchedule(): Schedule {
  const { lesson } = useOpenLesson();
  return useMemo(() => scheduleLesson(lesson), [lesson]);
}

const NO_TAKES: Take[] = [];

export function useTakes(): Take[] {
  return api.useTakesQuery(useOpenLesson().id).data ?? NO_TAKES;
}

/** The first cut of the open lesson with the takes that are ready. */
export function useAssembly(): Assembly {
  const { lesson } = useOpenLesson();
  const takes = useTakes();
  return useMemo(
    () => firstCut(lesson, new Map(takes.filter((take) => take.state === 'ready').map((take) => [take.id, take]))),
    [lesson, takes],
  );
}

/** The block every bench works on, kept in the address. */
export function useChosenBlock(): { block: Block | undefined; choose: (blockId: string) => void } {
  const { lesson } = useOpenLesson();
  const [params, setParams] = useSearchParams();
  const blocks = blocksOf(lesson);
  const block = blocks.find(({ id }) => id === params.get('block')) ?? blocks[0];
  const choose = (blockId: string) => setParams({ block: blockId }, { replace: true });
  return { block, choose };
}
