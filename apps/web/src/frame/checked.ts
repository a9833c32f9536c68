import { useCallback, useSyncExternalStore } from 'react';

/** Things the check left open when somebody last looked, by lesson. */
const open = new Map<string, number>();
const listeners = new Set<() => void>();

/** Told by the Check bench, which is the only place that looks. */
export function sayFindings(lessonId: string, count: number): void {
  if (open.get(lessonId) === count) return;
  open.set(lessonId, count);
  for (const listener of listeners) listener();
}

function listen(listener: () => void): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

/** How many things were open; null when nobody looked since the window was opened. */
export const useFindings = (lessonId: string): number | null =>
  useSyncExternalStore(
    listen,
    useCallback(() => open.get(lessonId) ?? null, [lessonId]),
  );
