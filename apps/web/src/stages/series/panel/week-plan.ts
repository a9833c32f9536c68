import type { Series } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import type { ChangeSeries } from '../use-series.ts';

type WeekPlan = Series['weekPlans'][number];

/** Changes what is particular about a week. */
export const setOfWeek = (
  change: ChangeSeries,
  week: number,
  set: Partial<Pick<WeekPlan, 'focus' | 'basis'>>,
): void =>
  change(teacherText('series.week', { week }), (draft) => {
    const plan = draft.weekPlans.find((one) => one.week === week);
    if (plan) Object.assign(plan, set);
    else draft.weekPlans.push({ week, focus: '', basis: null, ...set });
  });
