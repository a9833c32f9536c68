import { useEffect } from 'react';
import { useLatest } from '../ui/use-latest.ts';

interface KeyActions {
  isOff: boolean;
  toggle: () => void;
  /** Goes on or back, in milliseconds. */
  step: (ms: number) => void;
  toStart: () => void;
  toggleCaptions: () => void;
  toggleFullScreen: () => void;
  again: (slowly: boolean) => void;
}

export const STEP_MS = 5_000;

/** The keys of the lesson, where no field or button wants them itself. */
export function useLessonKeys(keys: KeyActions) {
  const onKey = useLatest((event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || keys.isOff) return;
    const target = event.target instanceof HTMLElement ? event.target : null;
    if (target?.matches('input:not([type=range], [type=checkbox])')) return;
    const isInput = target?.tagName === 'INPUT';
    const actions: Record<string, (() => void) | undefined> = {
      ' ': target?.closest('button, input, a, summary') ? undefined : keys.toggle,
      ArrowLeft: isInput ? undefined : () => keys.step(-STEP_MS),
      ArrowRight: isInput ? undefined : () => keys.step(STEP_MS),
      Home: keys.toStart,
      w: keys.toggleCaptions,
      b: keys.toggleFullScreen,
      a: () => keys.again(false),
      s: () => keys.again(true),
    };
    const action = actions[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (!action) return;
    event.preventDefault();
    action();
  });
  useEffect(() => {
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [onKey]);
}
