import type { Block, Figure } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { createContext } from 'react';
import { useChange } from '../../../ui/use-change.ts';

/** The figure the keyboard is in. */
export interface FocusedFigure {
  blockId: string;
  key: string;
}
export const FigureFocus = createContext<FocusedFigure | null>(null);
/** Apart, so that figures are not drawn anew when the keyboard goes to another one. */
export const SetFigureFocus = createContext<(focused: FocusedFigure | null) => void>(
  () => undefined,
);

/** Whether fitting the lesson leaves a figure as it is, turned over. */
export function useToggleLock(block: Block): (figure: Figure) => void {
  const change = useChange(block);
  return ({ key, label }) =>
    change(
      teacherText('block.lock', { what: label.toLowerCase() }),
      (d) =>
        void (d.locked = d.locked.includes(key)
          ? d.locked.filter((one) => one !== key)
          : [...d.locked, key]),
      false,
    );
}
