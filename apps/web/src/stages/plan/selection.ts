import { blocksOf } from '@zest/core/lesson';
import { createContext, useContext, useMemo, useState } from 'react';
import { useOpenLesson } from '../../app/use-lesson.ts';

/** The blocks chosen together on the Plan bench. */
export interface Selection {
  ids: ReadonlySet<string>;
  toggle: (blockId: string) => void;
  /** Chooses all from one block, or the one last toggled, to this one. */
  reach: (blockId: string, fromId?: string) => void;
  set: (ids: Iterable<string>) => void;
}

const NONE: ReadonlySet<string> = new Set();
export const SelectionContext = createContext<Selection>({
  ids: NONE,
  toggle: () => undefined,
  reach: () => undefined,
  set: () => undefined,
});
export const useSelection = (): Selection => useContext(SelectionContext);

/** Makes the selection; blocks that are gone are no longer in it. */
export function useMakeSelection(): Selection {
  const { lesson } = useOpenLesson();
  const [chosen, setChosen] = useState<ReadonlySet<string>>(NONE);
  const [last, setLast] = useState<string | null>(null);
  const order = useMemo(() => blocksOf(lesson).map(({ id }) => id), [lesson]);
  const ids = useMemo(() => {
    const there = order.filter((id) => chosen.has(id));
    return there.length === chosen.size ? chosen : new Set(there);
  }, [order, chosen]);
  return useMemo(
    () => ({
      ids,
      toggle: (id) => {
        setLast(id);
        setChosen((now) => {
          const next = new Set(now);
          if (!next.delete(id)) next.add(id);
          return next;
        });
      },
      reach: (id, fromId = last ?? id) => {
        const [a, b] = [order.indexOf(fromId), order.indexOf(id)];
        const between = order.slice(Math.min(a < 0 ? b : a, b), Math.max(a, b) + 1);
        setLast(id);
        setChosen((now) => new Set([...now, ...between]));
      },
      set: (next) => setChosen(new Set(next)),
    }),
    [ids, order, last],
  );
}
