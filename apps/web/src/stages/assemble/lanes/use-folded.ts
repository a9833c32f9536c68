import { useCallback, useState } from 'react';
import type { LaneId } from './lane-items.ts';

const KEPT = 'zest-lanes-folded';

function read(): ReadonlySet<LaneId> {
  try {
    return new Set(JSON.parse(localStorage.getItem(KEPT) ?? '[]') as LaneId[]);
  } catch {
    return new Set();
  }
}

/** The lanes a teacher has folded, kept in the browser. */
export function useFolded(): { folded: ReadonlySet<LaneId>; fold: (id: LaneId) => void } {
  const [folded, setFolded] = useState(read);
  const fold = useCallback(
    (id: LaneId) =>
      setFolded((known) => {
        const next = new Set(known);
        if (!next.delete(id)) next.add(id);
        localStorage.setItem(KEPT, JSON.stringify([...next]));
        return next;
      }),
    [],
  );
  return { folded, fold };
}
