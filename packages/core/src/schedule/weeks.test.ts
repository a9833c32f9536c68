import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  applyChanges,
  applyEdit,
  figureChangeText,
  beginEditing,
  blocksOf,
  LessonError,
  makeBlock,
  makeLesson,
  makeSeries,
  seriesSchema,
  type Block,
  type Edit,
  type FigureRule,
  type Lesson,
  type Series,
} from '../lesson/index.ts';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import {
  figureInWeek,
  goOnFrom,
  layOutWeeks,
  makingOrder,
  neighbourWords,
  progressChanges,
  scheduleLesson,
  skillTimes,
  weekNotes,
} from './index.ts';

const series: Series = {
  ...makeSeries('Quay term'),
  weeks: 5,
  progression: [
    {
      id: 'work',
      of: 'figure',
      figure: 'workMs',
      values: [30_000, 35_000, 40_000, 50_000],
      everyWeeks: 1,
      parts: ['practice'],
    },
    {
      id: 'rounds',
      of: 'figure',
      figure: 'rounds',
      values: [3, 4],
      everyWeeks: 2,
      parts: ['practice'],
    },
    { id: 'sessions', of: 'sessions', values: [2, 3], everyWeeks: 3 },
    { id: 'level', of: 'level', values: ['easier', 'standard'], everyWeeks: 2 },
  ],
};
const lessonOf = (...blocks: Partial<Block>[]): Lesson => {
  const makeId = counter();
  return {
    ...makeLesson('Ropes', makeId),
    sections: [
      {
        id: 's',
        title: 'S',
        blocks: blocks.map(
          (b) =>
            ({ ...makeBlock('intervals', makeId), title: 'Rope', part: 'practice', ...b }) as Block,
        ),
      },
    ],
  };
};

describe('weeks of a series', () => {
  it('step through each rule and stay at its last value', () => {
    const weeks = layOutWeeks(series);
    expect(weeks.map(({ level }) => level)).toEqual([
      'easier',
      'easier',
      'standard',
      'standard',
      'standard',
    ]);
    expect(weeks.map(({ sessions }) => sessions)).toEqual([2, 2, 2, 3, 3]);
    const changes = (week: number) =>
      progressChanges(lessonOf({}), series, week).map(figureChangeText);
    expect(changes(1)).toEqual(['Work of “Rope”: 20 s → 30 s', 'Rounds of “Rope”: 4 → 3']);
    expect(changes(5)).toEqual(['Work of “Rope”: 20 s → 50 s']);
  });

  it('grow by steps or per cent up to a limit, and go back in lighter weeks', () => {
    const rule = (more: Partial<FigureRule>): FigureRule => ({
      ...{ id: 'r', of: 'figure', figure: 'reps', values: [10], everyWeeks: 1 },
      parts: ['practice'],
      ...more,
    });
    const weeks = (more: Partial<FigureRule>, n = 8) =>
      Array.from({ length: n }, (_, i) => figureInWeek(rule(more), i + 1));
    // Two more each week, no more than 20.
    expect(weeks({ grows: { by: 'step', step: 2 }, until: 20 })).toEqual([
      ...[10, 12, 14, 16, 18, 20, 20, 20],
    ]);
    // 10, 11, 12.1, 13.31, 14.64, 16.1: whole repetitions.
    expect(weeks({ grows: { by: 'percent', percent: 10 } }, 6)).toEqual([10, 11, 12, 13, 15, 16]);
    // Written ones first, each for two weeks.
    expect(weeks({ values: [8, 10], grows: { by: 'step', step: 3 }, everyWeeks: 2 })).toEqual([
      8, 8, 10, 10, 13, 13, 16, 16,
    ]);
    // Every fourth week half of the week before; then it goes on where it was.
    expect(weeks({ grows: { by: 'step', step: 2 }, lighter: { every: 4, percent: 50 } })).toEqual([
      10, 12, 14, 7, 16, 18, 20, 10,
    ]);
    // Rests get shorter, not below ten seconds; times are whole seconds.
    expect(
      weeks(
        {
          figure: 'restMs',
          values: [30_000],
          grows: { by: 'percent', percent: -25 },
          until: 10_000,
        },
        6,
      ),
    ).toEqual([30_000, 23_000, 17_000, 13_000, 10_000, 10_000]);
    expect(weeks({ values: [8, 10, 12] }, 5)).toEqual([8, 10, 12, 12, 12]);
  });

  it('grow a block whose part is not said as practice, and no warm-up', () => {
    const changes = (part: Block['part']) =>
      progressChanges(lessonOf({ part }), series, 5).map(figureChangeText);
    expect(changes('other')).toEqual(changes('practice'));
    expect(changes('warm-up')).toEqual([]);
  });

  it('are dated on the session days, without those a break takes; a week a break takes whole is none', () => {
    // 21 October 2026 is a Wednesday (GNU date).
    const dated = layOutWeeks({
      ...series,
      weeks: 3,
      startsOn: '2026-10-21',
      weekdays: [1, 3, 5],
      progression: [],
      breaks: [{ id: 'b', from: '2026-10-26', to: '2026-11-02', label: 'Half term' }],
    });
    expect(dated.map(({ dates }) => dates)).toEqual([
      ['2026-10-21', '2026-10-23'],
      ['2026-11-04', '2026-11-06'],
      ['2026-11-09', '2026-11-11', '2026-11-13'],
    ]);
  });

  it('number 200 with every date in order and never on a day without session', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 1, max: 7 }), { minLength: 1 }),
        fc.date({ min: new Date('2024-01-01'), max: new Date('2030-12-31'), noInvalidDate: true }),
        (weekdays, date) => {
          const startsOn = date.toISOString().slice(0, 10);
          const weeks = layOutWeeks({ ...series, weeks: 200, startsOn, weekdays, progression: [] });
          const dates = weeks.flatMap((week) => week.dates);
          expect(weeks).toHaveLength(200);
          expect(dates).toEqual([...dates].sort());
          expect(dates[0] !== undefined && dates[0] >= startsOn).toBe(true);
          for (const day of dates)
            expect(weekdays).toContain(new Date(`${day}T12:00:00Z`).getUTCDay() || 7);
        },
      ),
      { numRuns: 30 },
    );
  });

  it('go on from the week before or the one named, and are made in that order; never in a circle', () => {
    const plan = (week: number, basis: number) => ({ week, basis, focus: '' });
    const weeks = layOutWeeks({ ...series, weekPlans: [plan(2, 4), plan(4, 1)] });
    expect(weeks.map(({ basis }) => basis)).toEqual([null, 4, 2, 1, 4]);
    expect(makingOrder(weeks).map(({ week }) => week)).toEqual([1, 4, 2, 3, 5]);
    expect(() => layOutWeeks({ ...series, weekPlans: [plan(3, 5), plan(5, 3)] })).toThrow(
      'circle: 3 ← 5 ← 3',
    );
    expect(() => layOutWeeks({ ...series, weekPlans: [plan(2, 2)] })).toThrow(LessonError);
    const ring = Array.from({ length: 200 }, (_, i) => plan(i + 1, i === 0 ? 200 : i));
    expect(() => layOutWeeks({ ...series, weeks: 200, weekPlans: ring })).toThrow('circle');
  });

  it('keep the stage of each skill in sight, in either school', () => {
    const skills = [{ id: 'k', name: 'Disc throw', from: [2, 4, null] }];
    const stages = (of: Series) => layOutWeeks(of).map(({ stages }) => stages[0]?.stage ?? '');
    expect(stages({ ...series, skills })).toEqual([
      '',
      'finding out',
      'finding out',
      'refining',
      'refining',
    ]);
    expect(
      stages({
        ...series,
        stageSchool: 'four',
        skills: [{ id: 'k', name: 'Disc throw', from: [1, null, null, 5] }],
      }),
    ).toEqual(['introduce', 'introduce', 'introduce', 'introduce', 'show']);
  });

  it('change only figures the rule is for: not those of other parts, locked, or of blocks without them', () => {
    const lesson = lessonOf(
      { part: 'warm-up' },
      { locked: ['workMs'] },
      makeBlock('talk', counter()),
    );
    expect(progressChanges(lesson, series, 2).map(figureChangeText)).toEqual([
      'Rounds of “Rope”: 4 → 3',
    ]);
  });

  it('are progressed once: after its changes a lesson needs none, and it stays a lesson', () => {
    fc.assert(
      fc.property(arbitraryLesson, fc.integer({ min: 1, max: 5 }), (lesson, week) => {
        const parted = {
          ...lesson,
          sections: lesson.sections.map((s) => ({
            ...s,
            blocks: s.blocks.map((b) => ({ ...b, part: 'practice' as const })),
          })),
        };
        let state = beginEditing(parted);
        for (const change of progressChanges(parted, series, week))
          state = applyEdit(state, 'Progress', applyChanges([change]));
        expect(progressChanges(state.lesson, series, week)).toEqual([]);
      }),
    );
  });
});

describe('the lesson of a week', () => {
  const [, second] = layOutWeeks({
    ...series,
    weekPlans: [{ week: 2, focus: 'Backwards', basis: null }],
  });

  it('keeps sections and order, and carries no footage, outcome or neighbours over', () => {
    const basis = {
      ...lessonOf({ footage: { takeId: 't', startsAtMs: 0 } }),
      outcome: 'Ten skips.',
    };
    if (!second) throw new Error('The series has a second week.');
    const made = goOnFrom(basis, series, second, () => 'new');
    expect(made).toMatchObject({
      title: 'Backwards',
      outcome: '',
      series: { name: 'Quay term', week: 2, level: 'easier' },
    });
    expect(made.sections.map(({ title }) => title)).toEqual(['S']);
    expect(progressChanges(made, series, 2)).toEqual([]);
    expect(blocksOf(made).map(({ id, title, footage }) => [id, title, footage])).toEqual([
      ['new', 'Rope', null],
    ]);
  });

  it('carries nothing over that was done by hand to last week’s footage', () => {
    const edits: Edit[] = [
      { id: 'e1', kind: 'leave-out', fromMs: 0, toMs: 2_000 },
      { id: 'e2', kind: 'taps', taps: [{ atMs: 1_000, side: null, missed: false }] },
    ];
    const basis = lessonOf({ footage: { takeId: 't', startsAtMs: 0 }, edits });
    const worked: Lesson = {
      ...basis,
      waived: [{ key: 'still b', word: 'It is meant so.' }],
      filming: { ...basis.filming, order: ['s2', 's1'] },
    };
    if (!second) throw new Error('The series has a second week.');
    const made = goOnFrom(worked, series, second, () => 'new');
    expect([made.waived, made.filming.order, blocksOf(made).map((block) => block.edits)]).toEqual([
      [],
      [],
      [[]],
    ]);
  });

  it('knows its neighbours, over weeks without a lesson too', () => {
    const lesson = (week: number | null, outcome: string) => ({
      week,
      title: `Title ${week}`,
      outcome,
    });
    const lessons = [lesson(1, 'One.'), lesson(3, ''), lesson(6, 'Six.'), lesson(null, 'Single.')];
    expect(neighbourWords(lessons, 4, 'en')).toEqual({
      recap: 'Last time: Title 3',
      teaser: 'Next time: Six.',
    });
    expect(neighbourWords(lessons, 1, 'en')).toEqual({ recap: '', teaser: 'Next time: Title 3' });
  });

  it('is told of sessions without a day, skills nobody trains and sections in another order', () => {
    const skills = [{ id: 'k', name: 'Disc throw', from: [1, null, null] }];
    const [, week] = layOutWeeks({
      ...series,
      skills,
      startsOn: '2026-09-07',
      weekdays: [1],
      progression: [{ id: 's', of: 'sessions', values: [2], everyWeeks: 1 }],
    });
    if (!week) throw new Error('The series has a second week.');
    const lesson = (...sections: string[]) => ({ sections, skills: [{ skill: 'disc throw' }] });
    expect(weekNotes(week, true, undefined, undefined)).toEqual(['2 sessions, but 1 day for them']);
    expect(weekNotes(week, false, lesson('A', 'B'), lesson('A', 'B'))).toEqual([]);
    expect(weekNotes(week, false, { ...lesson('B', 'A'), skills: [] }, lesson('A', 'B'))).toEqual([
      'no block trains Disc throw',
      'other sections, or in another order, than week 1',
    ]);
  });

  it('adds up the time of each skill', () => {
    const schedule = scheduleLesson(
      lessonOf({ skill: 'Ropes' }, { skill: ' Ropes' }, { skill: '' }, { skill: 'Discs' }),
    );
    expect(skillTimes(schedule)).toEqual([
      { skill: 'Ropes', studentMs: 2 * (schedule.blocks[0]?.studentMs ?? 0) },
      { skill: 'Discs', studentMs: schedule.blocks[3]?.studentMs },
    ]);
  });
});

describe('a series document', () => {
  it.each([
    [{ weeks: 201 }, 'At most 200'],
    [{ weeks: 0 }, 'At least 1'],
    [{ startsOn: '7.9.2026' }, 'year-month-day'],
    [{ startsOn: '2026-02-30' }, 'year-month-day'],
    [
      { breaks: [{ id: 'b', from: '2026-02-03', to: '2026-02-01', label: '' }] },
      'ends on or after',
    ],
    [
      {
        progression: [
          {
            id: 'r',
            of: 'figure',
            figure: 'rounds',
            values: [3, 99],
            everyWeeks: 1,
            parts: ['practice'],
          },
        ],
      },
      'Rounds lies between 1 and 50',
    ],
    [{ weekPlans: [1, 1].map((week) => ({ week, focus: '', basis: null })) }, 'planned twice'],
  ])('with %j is refused in words', (wrong, words) => {
    const read = seriesSchema.safeParse({ ...series, ...wrong });
    expect(read.error?.issues.map(({ message }) => message).join(' ')).toContain(words);
  });
});
