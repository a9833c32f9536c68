import {
  effortAdvice,
  effortCurve,
  kitLedger,
  missingParts,
  sidesLedger,
  spaceLedger,
} from '@zest/core/ledger';
import type { Lesson } from '@zest/core/lesson';
import type { Schedule } from '@zest/core/schedule';
import { useMemo } from 'react';

/** What the plan adds up to besides time, reckoned once for its meters and what opens from them. */
export function useLedgers(lesson: Lesson, schedule: Schedule) {
  return useMemo(() => {
    const curve = effortCurve(schedule);
    return {
      curve,
      advice: effortAdvice(curve, schedule.studentMs),
      sides: sidesLedger(schedule),
      kit: kitLedger(schedule, lesson.settings.language),
      space: spaceLedger(lesson),
      missing: missingParts(lesson),
    };
  }, [lesson, schedule]);
}
export type Ledgers = ReturnType<typeof useLedgers>;
