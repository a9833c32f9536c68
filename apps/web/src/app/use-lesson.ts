import {
  createContext,
  createElement,
  useCallback,
  useContext,
  useDeferredValue,
  useMemo,
  type ReactNode,
} from 'react';
import { assemble, type Assembly, type TakeFacts } from '@zest/core/assembly';
import { blocksOf, findBlock, type Block, type Lesson } from '@zest/core/lesson';
import { scheduleLesson, type Schedule } from '@zest/core/schedule';
import { isMaterial, type Take } from '@zest/contract';
import { useStore } from 'react-redux';
import { useSearchParams } from 'react-router';
import { api } from './api.ts';
import type { RootState } from './state.ts';
import { useWatched } from './watched.ts';
import { useSettled } from '../ui/use-settled.ts';
import { useAppSelector } from './store.ts';

export interface ShownLesson {
  id: string;
  revision: number;
  lesson: Lesson;
}

const Shown = createContext<ShownLesson | null>(null);

function sameBlocks(a: Lesson, b: Lesson): boolean {
  const [ours, theirs] = [blocksOf(a), blocksOf(b)];
  return ours.length === theirs.length && ours.every(({ id }, i) => id === theirs[i]?.id);
}

/**
 * Shows the open lesson to the benches. A figure or a text that changes follows in the next free
 * moments, so that typing never waits for a long lesson to be drawn; blocks that come or go are
 * there at once.
 */
export function ShownLessonProvider({ children }: { children: ReactNode }) {
  const open = useAppSelector((state) => state.lesson.open);
  const [id, revision, lesson] = [open?.id, open?.revision, open?.edited.lesson];
  const now = useMemo(
    () => (id !== undefined && revision !== undefined && lesson ? { id, revision, lesson } : null),
    [id, revision, lesson],
  );
  // Keys that come while the whole lesson is being drawn would begin the drawing anew, until it is
  // forced in one go.
  const later = useDeferredValue(useSettled(now));
  const shown =
    now && later && now.id === later.id && sameBlocks(now.lesson, later.lesson) ? later : now;
  return createElement(Shown.Provider, { value: shown }, children);
}

/** The open lesson as it is shown. Only for what the lesson shell shows once a lesson is open. */
export function useOpenLesson(): ShownLesson {
  const shown = useContext(Shown);
  if (!shown) throw new Error('No lesson is open.');
  return shown;
}

/**
 * Gives the open lesson as it is at the moment of asking: for what a click is to act on, which may
 * be ahead of what is shown.
 */
export function useLessonNow(): () => Lesson {
  const { lesson: shown } = useOpenLesson();
  const store = useStore<RootState>();
  return useCallback(() => store.getState().lesson.open?.edited.lesson ?? shown, [store, shown]);
}

/**
 * Something of the open lesson as it is this very moment, for fields: one that shows an older state
 * destroys what is typed into it.
 */
export function useLessonPart<T>(read: (lesson: Lesson) => T): T {
  const { lesson: shown } = useOpenLesson();
  return useAppSelector((state) => read(state.lesson.open?.edited.lesson ?? shown));
}

/** A block as it is this very moment; the one shown where it is gone. */
export function useBlockNow<B extends Block>(shown: B): B {
  // A block never changes its kind.
  return useLessonPart((lesson) => (findBlock(lesson, shown.id) as B | undefined) ?? shown);
}

export function useSchedule(): Schedule {
  const { lesson } = useOpenLesson();
  return useMemo(() => scheduleLesson(lesson), [lesson]);
}

const NO_TAKES: Take[] = [];

function useAllTakes(): Take[] {
  return api.useTakesQuery(useOpenLesson().id).data ?? NO_TAKES;
}

/** What was filmed for the open lesson. */
export function useTakes(): Take[] {
  const all = useAllTakes();
  return useMemo(() => all.filter((take) => !isMaterial(take)), [all]);
}

/** Pictures and music of the open lesson. */
export function useMaterials(): Take[] {
  const all = useAllTakes();
  return useMemo(() => all.filter((take) => isMaterial(take) && !take.inBin), [all]);
}

/** The first cut of the open lesson, or of one like it, with the takes that are ready. */
export function useAssembly(like?: Lesson): Assembly {
  const { lesson: open } = useOpenLesson();
  const lesson = like ?? open;
  const takes = useReadyTakes();
  return useMemo(() => assemble(lesson, takes), [lesson, takes]);
}

/** A take as the pages know it, with what was seen and heard of it once that is there. */
export type ReadyTake = Take & TakeFacts;

/** Everything of the open lesson whose working copy is ready, by id. */
export function useReadyTakes(): ReadonlyMap<string, ReadyTake> {
  const takes = useAllTakes();
  const watched = useWatched(takes);
  return useMemo(
    () =>
      new Map(
        takes
          .filter((take) => take.state === 'ready')
          .map((take) => [take.id, { ...take, watched: watched(take) }]),
      ),
    [takes, watched],
  );
}

/** The block every bench works on, kept in the address. */
export function useChosenBlock(): { block: Block | undefined; choose: (blockId: string) => void } {
  const { lesson } = useOpenLesson();
  const [params, setParams] = useSearchParams();
  const blocks = blocksOf(lesson);
  const block = blocks.find(({ id }) => id === params.get('block')) ?? blocks[0];
  // At once: it answers a click, and a page busy with keys would put it off.
  const choose = (blockId: string) =>
    setParams({ block: blockId }, { replace: true, flushSync: true });
  return { block, choose };
}
