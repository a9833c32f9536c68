import type { Class, ClassPlan } from '@zest/contract';

/** What a teacher sets of a class, without what the server adds. */
export const planOf = ({ name, keepWeeks, rule, credits }: Class): ClassPlan => ({ name, keepWeeks, rule, credits });
