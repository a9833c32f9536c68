import { useEffect, useEffectEvent } from 'react';
import { isTyping } from './typing.ts';

/** Buttons and lists keep these keys for themselves. */
const PRESSING = new Set([' ', 'Enter']);

/**
 * Keys of a whole view, while it is shown; typing, pressed buttons and the browser's own
 * combinations are left alone.
 */
export function useKeys(actions: Readonly<Record<string, (() => void) | undefined>>): void {
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    // Whoever had the key before has used it.
    if (event.defaultPrevented) return;
    if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return;
    const isPressed =
      event.target instanceof HTMLElement &&
      event.target.closest('button, [role="combobox"], [role="option"]') !== null;
    const action = isPressed && PRESSING.has(event.key) ? undefined : actions[event.key];
    if (!action) return;
    event.preventDefault();
    action();
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
}
