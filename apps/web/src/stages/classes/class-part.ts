import type { Class, ClassLog, ClassPlan } from '@zest/contract';

/** What every part of a class's page gets. */
export interface ClassPart {
  own: Class;
  log: ClassLog;
}

/** What a teacher sets of a class, without what the server adds. */
export const planOf = ({ name, keepWeeks, rule, credits }: Class): ClassPlan => ({ name, keepWeeks, rule, credits });
