import { routes, urlOf, type Take } from '@zest/contract';
import { takeAnalysisSchema, type TakeAnalysis } from '@zest/core/signal';
import { useCallback, useEffect, useSyncExternalStore } from 'react';

/** What was seen and heard of takes, by its key, which names its content: read once a visit. */
const known = new Map<string, TakeAnalysis>();
const asked = new Set<string>();
const listeners = new Set<() => void>();
let version = 0;

async function read(takeId: string, key: string): Promise<void> {
  asked.add(key);
  try {
    const answer = await fetch(urlOf(routes.takeWatched, { takeId }));
    if (!answer.ok) throw new Error(String(answer.status));
    known.set(key, takeAnalysisSchema.parse(await answer.json()));
    version += 1;
    for (const listener of listeners) listener();
  } catch {
    // Without it the plan's own times stand; the next look at the takes asks again.
    asked.delete(key);
  }
}

function subscribe(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}

/** Reads what was seen and heard of takes, and gives what is there so far. */
export function useWatched(takes: readonly Take[]): (take: Take) => TakeAnalysis | undefined {
  const now = useSyncExternalStore(subscribe, () => version);
  useEffect(() => {
    for (const { id, watching, inBin } of takes)
      if (watching.key !== null && !inBin && !known.has(watching.key) && !asked.has(watching.key))
        void read(id, watching.key);
  }, [takes]);
  // Another function whenever there is more to give.
  return useCallback(
    (take: Take) =>
      now >= 0 && take.watching.key !== null ? known.get(take.watching.key) : undefined,
    [now],
  );
}
