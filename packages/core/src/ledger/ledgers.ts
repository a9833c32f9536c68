import type { Lesson, LessonPart } from '../lesson/index.ts';
import type { Schedule } from '../schedule/index.ts';
import { effortAdvice, type Advice } from './advice.ts';
import { missingParts } from './completeness.ts';
import { effortCurve, type EffortCurve } from './effort.ts';
import { kitLedger, type KitLine } from './kit.ts';
import { sidesLedger, type SidesLedger } from './sides.ts';
import { spaceLedger, type SpaceLedger } from './space.ts';

/** All that a plan adds up to besides time. */
export interface Ledgers {
  curve: EffortCurve;
  advice: Advice[];
  sides: SidesLedger;
  kit: KitLine[];
  space: SpaceLedger;
  missing: LessonPart[];
}

/** All ledgers of a lesson as it is scheduled. */
export function ledgersOf(lesson: Lesson, schedule: Schedule): Ledgers {
  const curve = effortCurve(schedule);
  return {
    curve,
    advice: effortAdvice(curve, schedule.studentMs),
    sides: sidesLedger(schedule),
    kit: kitLedger(schedule, lesson.settings.language),
    space: spaceLedger(lesson),
    missing: missingParts(lesson),
  };
}
