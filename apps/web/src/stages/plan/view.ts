import { teacherText } from '@zest/core/words';
import { createContext, useContext, useMemo, useState } from 'react';

/** What opens in the run sheet's place. */
export type DrawerId = 'lesson' | 'time' | 'effort' | 'sides' | 'kit' | 'space' | 'parts' | 'calls';

/** What of the Plan bench is shown. */
interface PlanView {
  /** The leaf that is shown on a phone. */
  leaf: string;
  turn: (leaf: string) => void;
  drawer: DrawerId | null;
  /** Opens a drawer, and turns to it; null closes the one that is open. */
  open: (drawer: DrawerId | null) => void;
}

export const PlanViewContext = createContext<PlanView | null>(null);

export function usePlanView(): PlanView {
  const view = useContext(PlanViewContext);
  if (!view) throw new Error(teacherText('plan.drawers-open-plan-bench'));
  return view;
}

export function useMakePlanView(): PlanView {
  const [leaf, turn] = useState('blocks');
  const [drawer, setDrawer] = useState<DrawerId | null>(null);
  return useMemo(
    () => ({
      leaf,
      turn,
      drawer,
      open: (id) => {
        setDrawer(id);
        if (id !== null) turn('blocks');
      },
    }),
    [leaf, drawer],
  );
}
