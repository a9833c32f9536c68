import { makeSeries, type CueEntry, type Series } from '@zest/core/lesson';
import { DAY_MS } from '@zest/core/results';
import { layOutWeeks } from '@zest/core/schedule';

/**
 * The club's autumn series: seven weeks, work time and rounds growing, three skills on their way.
 */
export const demoSeries: Series = {
  ...makeSeries('Quayside autumn'),
  about: 'Rope, disc and balance on the quay, three times a week.',
  weeks: 7,
  startsOn: '2026-11-09',
  weekdays: [1, 3, 5],
  atMinutes: 16 * 60,
  breaks: [{ id: 'ds-break', from: '2026-12-07', to: '2026-12-11', label: 'Quay regatta' }],
  progression: [
    {
      id: 'ds-work',
      of: 'figure',
      figure: 'workMs',
      values: [20_000, 25_000, 30_000, 30_000, 35_000],
      everyWeeks: 1,
      parts: ['practice', 'game'],
    },
    { id: 'ds-level', of: 'level', values: ['easier', 'standard', 'harder'], everyWeeks: 3 },
    { id: 'ds-sessions', of: 'sessions', values: [2, 3], everyWeeks: 2 },
  ],
  stageSchool: 'four',
  skills: [
    { id: 'ds-disc', name: 'Disc throw', from: [1, 3, 5, 7] },
    { id: 'ds-rope', name: 'Rope skipping', from: [1, 4, 6, null] },
    { id: 'ds-balance', name: 'Balance', from: [3, 5, null, null] },
  ],
  weekPlans: [
    { week: 3, focus: 'Standing throw', basis: null },
    { week: 4, focus: 'Throw while walking', basis: null },
    { week: 5, focus: 'The quay cup', basis: null },
    { week: 6, focus: 'Backwards on the rope', basis: 4 },
  ],
};

/** The week of the series that students are in. */
export const DEMO_WEEK = 6;
const dayOf = (date: string) => Date.parse(`${date}T00:00:00Z`) / DAY_MS;
const dateOf = (day: number) => new Date(day * DAY_MS).toISOString().slice(0, 10);

/** The series with its days moved by whole weeks, so that `now` lies in its sixth week. */
export function demoSeriesAt(now: number): Series {
  const begins = dayOf(layOutWeeks(demoSeries)[DEMO_WEEK - 1]?.dates[0] ?? '');
  const byDays = 7 * Math.floor((Math.floor(now / DAY_MS) - begins) / 7);
  const moved = (date: string) => dateOf(dayOf(date) + byDays);
  return {
    ...demoSeries,
    startsOn: moved(demoSeries.startsOn ?? ''),
    breaks: demoSeries.breaks.map((one) => ({
      ...one,
      from: moved(one.from),
      to: moved(one.to),
    })),
  };
}

const entry = (
  id: string,
  skill: string,
  text: string,
  moment: CueEntry['moment'],
  bodyPart: string,
  reason: string,
  wrong: string,
): CueEntry => ({ id, skill, text, moment, bodyPart, reason, right: '', wrong });

/** Cues the club says again and again. */
export const demoCues: CueEntry[] = [
  entry(
    'dc-side',
    'Disc throw',
    'Stand side-on',
    'ready',
    'feet',
    'the hips can turn into the throw',
    'Facing the target',
  ),
  entry(
    'dc-level',
    'Disc throw',
    'Disc level',
    'action',
    'wrist',
    'a tilted disc curves away',
    'Wrist rolled over: it dives',
  ),
  entry(
    'dc-snap',
    'Disc throw',
    'Snap and stop',
    'action',
    'wrist',
    'the spin keeps the disc in the air',
    'A long push without spin',
  ),
  entry(
    'dc-land',
    'Rope skipping',
    'Land softly',
    'action',
    'knees',
    'soft knees carry the landing',
    'Landing on straight legs',
  ),
  entry(
    'dc-look',
    'Balance',
    'Look at one point',
    'action',
    'eyes',
    'steady eyes steady the body',
    'Watching the feet',
  ),
];
