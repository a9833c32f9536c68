import { OUTPUT_FPS } from '@zest/core/time';
import { isTyping } from './typing.ts';

interface StageActions {
  toggle: () => void;
  step: (frames: number) => void;
  mark?: () => void;
}

/** The keys of every bench with a picture; typing and pressed buttons keep theirs. */
export function onStageKey(event: KeyboardEvent, { toggle, step, mark }: StageActions): void {
  const target = event.target instanceof HTMLElement ? event.target : null;
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  if (isTyping(target)) return;
  const pressed = target?.closest('button, a, [role="button"], [role="tab"]');
  const actions: Record<string, (() => void) | undefined> = {
    ' ': pressed ? undefined : toggle,
    '[': () => step(-1),
    ']': () => step(1),
    '{': () => step(-OUTPUT_FPS),
    '}': () => step(OUTPUT_FPS),
    m: mark,
    M: mark,
  };
  const action = actions[event.key];
  if (!action) return;
  event.preventDefault();
  action();
}
