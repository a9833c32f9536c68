import type { Class, ClassPlan, Student } from '@zest/contract';

/** What every part of a class's page gets. */
export interface ClassPart {
  schoolClass: Class;
  students: readonly Student[];
}

/** What a teacher sets of a class, without what the server adds. */
export const planOf = ({ name, keepWeeks, rule, credits }: Class): ClassPlan => ({
  name,
  keepWeeks,
  rule,
  credits,
});
