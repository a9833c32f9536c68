import { useCallback, useSyncExternalStore } from 'react';

/** What the check had to say of a lesson when somebody last looked: causes by their keys. */
interface Checked {
  open: number;
  /** All there were since the window was opened, settled ones too. */
  all: ReadonlySet<string>;
}

const known = new Map<string, Checked>();
const listeners = new Set<() => void>();

/**
 * Told by the Check bench, which is the only place that looks: what is open, and what was ignored.
 */
export function sayChecked(
  lessonId: string,
  open: readonly string[],
  ignored: readonly string[],
): void {
  const before = known.get(lessonId);
  const all = new Set([...(before?.all ?? []), ...ignored, ...open]);
  if (before?.open === open.length && before.all.size === all.size) return;
  known.set(lessonId, { open: open.length, all });
  for (const listener of listeners) listener();
}

function listen(listener: () => void): () => void {
  listeners.add(listener);
  return () => void listeners.delete(listener);
}

const useChecked = (lessonId: string): Checked | null =>
  useSyncExternalStore(
    listen,
    useCallback(() => known.get(lessonId) ?? null, [lessonId]),
  );

/** How many things were open; null when nobody looked since the window was opened. */
export const useFindings = (lessonId: string): number | null => useChecked(lessonId)?.open ?? null;

/** How many things there were since then, and how many of them are settled. */
export function useSettled(lessonId: string): { settled: number; of: number } {
  const { open, all } = useChecked(lessonId) ?? { open: 0, all: new Set() };
  return { settled: all.size - open, of: all.size };
}
