import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeBlock, makeLesson, type Block, type Lesson } from '../lesson/index.ts';
import {
  attainedIn,
  blockHints,
  compareWords,
  comparedOf,
  creditState,
  doingStreak,
  linesOf,
  madeUpName,
  nextStep,
  praiseList,
  readSpoken,
  sayCode,
  scorePrompts,
  spokenCode,
  standingOf,
  usualRule,
  valueWords,
  weekOf,
  weekStart,
  type EntryBody,
  type LineSum,
  type LogEntry,
  type Score,
} from './index.ts';

const DAY = 86_400_000;
/** Monday, 2 November 2026. */
const MONDAY = Date.UTC(2026, 10, 2);

let next = 0;
const entry = (
  body: EntryBody,
  at = MONDAY,
  studentId = 's',
  lessonId: string | null = 'l',
): LogEntry => ({ id: `e${(next += 1)}`, studentId, lessonId, at, by: 'student', body });
const score = (value: number, more: Partial<Score> = {}): Score => ({
  kind: 'score',
  blockId: 'b',
  key: 'rope | fast skips | count',
  title: 'Fast skips',
  measure: 'count',
  better: 'more',
  value,
  side: null,
  level: 'standard',
  seconds: 30,
  ...more,
});

function lessonOf(blocks: (Partial<Block> & { kind: Block['kind'] })[]): Lesson {
  const makeId = () => `i${(next += 1)}`;
  const lesson = makeLesson('L', makeId);
  lesson.sections = [
    {
      id: 's',
      title: 'S',
      blocks: blocks.map((block) => ({ ...makeBlock(block.kind, makeId), ...block }) as Block),
    },
  ];
  return lesson;
}

describe('lines over the weeks', () => {
  it('compare 20 s with 30 s by the second, and keep the best try of a lesson', () => {
    const [line] = linesOf([
      entry(score(24)),
      entry(score(27)),
      entry(score(20, { seconds: 20 }), MONDAY + 7 * DAY, 's', 'm'),
    ]);
    expect(line?.points.map(({ value, compared }) => [value, compared])).toEqual([
      [27, 0.9],
      [20, 1],
    ]);
    expect([line?.isRate, line?.best.value]).toEqual([true, 20]);
    expect(line && [valueWords(line, line.best), compareWords(line, line.best.compared)]).toEqual([
      '20 in 20 s',
      '1 a second',
    ]);
  });

  it('take the fastest time as the best, and keep sides and forms apart', () => {
    const time = (value: number, more: Partial<Score> = {}) =>
      entry(score(value, { measure: 'time', better: 'less', seconds: null, ...more }));
    const lines = linesOf([
      time(14.2),
      time(12.4),
      time(15, { side: 'left' }),
      time(9, { level: 'easier' }),
    ]);
    expect(lines.map(({ side, level, best }) => [side, level, best.value])).toEqual([
      [null, 'standard', 12.4],
      ['left', 'standard', 15],
      [null, 'easier', 9],
    ]);
    expect(valueWords({ measure: 'time' }, { value: 12.4, seconds: null })).toBe('12.4 s');
  });

  it('have a best no point of theirs beats, whatever was sent in which order', () => {
    const any = fc.record({
      value: fc.integer({ min: 0, max: 500 }),
      seconds: fc.constantFrom(20, 30, 60),
      lesson: fc.constantFrom('a', 'b', 'c'),
      better: fc.constantFrom('more' as const, 'less' as const),
      day: fc.integer({ min: 0, max: 60 }),
    });
    fc.assert(
      fc.property(fc.array(any, { minLength: 1, maxLength: 30 }), (sent) => {
        const better = sent[0]?.better ?? 'more';
        const entries = sent.map(({ value, seconds, lesson, day }) =>
          entry(score(value, { seconds, better }), MONDAY + day * DAY, 's', lesson),
        );
        const [line] = linesOf(entries);
        const rates = sent.map((result) => comparedOf({ measure: 'count', ...result }));
        expect(line?.best.compared).toBe(
          better === 'more' ? Math.max(...rates) : Math.min(...rates),
        );
        expect(line?.points).toHaveLength(new Set(sent.map(({ lesson }) => lesson)).size);
        const turned = linesOf([...entries].reverse())[0];
        expect(turned?.best.compared).toBe(line?.best.compared);
      }),
    );
  });
});

describe('streaks of doing', () => {
  it('count weeks running with something done; a week that is not over breaks nothing', () => {
    const done = (week: number) => entry(score(1), MONDAY + week * 7 * DAY + 3 * DAY);
    expect(
      doingStreak([done(0), done(1), done(1), done(3), done(4), done(5)], MONDAY + 6 * 7 * DAY),
    ).toEqual({ now: 3, longest: 3 });
    expect(doingStreak([done(0), done(1), done(3)], MONDAY + 5 * 7 * DAY)).toEqual({
      now: 0,
      longest: 2,
    });
    expect(doingStreak([entry({ kind: 'opened' })], MONDAY)).toEqual({ now: 0, longest: 0 });
  });

  it('begin weeks on Monday, where the students are', () => {
    expect(weekOf(MONDAY) - weekOf(MONDAY - 1)).toBe(1);
    expect(weekOf(MONDAY)).toBe(weekOf(MONDAY + 7 * DAY - 1));
    // Sunday 23:30 UTC is Monday two hours to the east.
    expect(weekOf(MONDAY - DAY / 48, 2 * 3_600_000)).toBe(weekOf(MONDAY));
  });
});

describe('a class', () => {
  const students = Array.from({ length: 8 }, (_, i) => `s${i}`);
  const all = (body: (i: number) => EntryBody | null, at = MONDAY) =>
    students.flatMap((id, i) => (body(i) ? [entry(body(i) ?? { kind: 'opened' }, at, id)] : []));

  it('hints at blocks many left out or watched again, and at pain from the first', () => {
    const entries = [
      ...all(() => ({ kind: 'opened' })),
      ...all((i) =>
        i < 2 ? { kind: 'skipped', blockId: 'a', title: 'A', reason: 'too hard' } : null,
      ),
      ...all((i) =>
        i < 1 ? { kind: 'skipped', blockId: 'b', title: 'B', reason: 'no space' } : null,
      ),
      ...all((i) =>
        i < 1 ? { kind: 'skipped', blockId: 'c', title: 'C', reason: 'it hurts' } : null,
      ),
      ...all((i) => (i > 5 ? { kind: 'replayed', blockId: 'd', title: 'D' } : null)),
    ];
    expect(blockHints(entries).map(({ blockId, hint, of }) => [blockId, hint, of])).toEqual([
      ['a', 'too hard', 8],
      ['c', 'it hurts', 8],
      ['d', 'watched again', 8],
    ]);
  });

  it('is praised for trying and for beating oneself, never beside others', () => {
    const week = 7 * DAY;
    const { key, title, measure, better, side, level } = score(1);
    const sum = (studentId: string, before: number | null, since: number | null): LineSum => ({
      studentId,
      key,
      title,
      measure,
      better,
      side,
      level,
      isRate: true,
      before,
      since,
      best: 0,
    });
    const praise = praiseList(['s0', 's1', 's2', 's3'], {
      lines: [
        sum('s3', null, 1),
        sum('s1', 1, 28 / 30),
        sum('s0', 20 / 30, 24 / 30),
        sum('s2', 9 / 30, null),
      ],
      doing: ['s0', 's1', 's3'],
    });
    expect([
      weekStart(MONDAY + week + DAY),
      weekStart(MONDAY + week + DAY, 1),
      weekStart(MONDAY + 1, 0, 2 * 3_600_000),
    ]).toEqual([MONDAY + week, MONDAY, MONDAY - 2 * 3_600_000]);
    expect(praise.tried).toEqual(['s0', 's1', 's3']);
    expect(praise.quiet).toEqual(['s2']);
    expect(praise.improved.map(({ studentId, from, to }) => [studentId, from, to])).toEqual([
      ['s0', 20 / 30, 24 / 30],
    ]);
  });

  it('goes on, stays or eases by the teacher’s rule', () => {
    const lesson = (reached: number, effort: number | null) => [
      ...all(() => ({ kind: 'reached', atMs: reached, totalMs: 100 })),
      ...all(() => (effort === null ? null : { kind: 'effort', value: effort })),
    ];
    expect(nextStep(lesson(100, 2), usualRule)).toEqual({
      step: 'harder',
      opened: 8,
      finished: 8,
      effort: 2,
    });
    const mixed = [
      ...lesson(100, 3),
      ...all((i) => (i < 4 ? { kind: 'effort', value: 4 } : null), MONDAY + 1),
    ];
    expect(nextStep(mixed, usualRule)).toMatchObject({ step: 'same', effort: 3.5 });
    expect(nextStep(lesson(100, 4), usualRule).step).toBe('easier');
    expect(nextStep(lesson(100, 5), usualRule).step).toBe('easier');
    expect(nextStep(lesson(30, 2), usualRule).step).toBe('easier');
    expect(nextStep(lesson(100, null), usualRule)).toMatchObject({ step: 'same', effort: null });
    expect(nextStep(lesson(100, 2).slice(0, 2), usualRule).step).toBe('not known');
  });

  it('reaches levels by numbers or by the teacher’s word', () => {
    const level = {
      id: 'l',
      name: 'Blue',
      criteria: [
        { id: 'n', text: '25 skips', measured: { key: score(1).key, atLeast: 25 } },
        { id: 'w', text: 'Shows it to a friend', measured: null },
        { id: 'x', text: 'Ties the knot', measured: null },
      ],
    };
    const entries = [
      entry(score(24)),
      entry(score(25)),
      entry({ kind: 'signed', levelId: 'l', criterionId: 'w' }),
      entry({ kind: 'signed', levelId: 'other', criterionId: 'x' }),
    ];
    expect(creditState(level, attainedIn(entries)).map(({ met }) => met)).toEqual([
      'measured',
      'signed',
      null,
    ]);
    expect(creditState(level, attainedIn(entries.slice(0, 1))).map(({ met }) => met)).toEqual([
      null,
      null,
      null,
    ]);
  });
});

describe('how one student stands to a lesson', () => {
  it('takes the visit that got furthest and the last word on effort', () => {
    const standing = standingOf([
      entry({ kind: 'reached', atMs: 30, totalMs: 100 }),
      entry({ kind: 'reached', atMs: 80, totalMs: 100 }),
      entry({ kind: 'effort', value: 5 }, MONDAY + 1),
      entry({ kind: 'effort', value: 2 }, MONDAY + 2),
      entry({ kind: 'practised', blockId: 'b', ms: 60_000 }),
      entry({ kind: 'practised', blockId: 'b', ms: 30_000 }),
    ]);
    expect(standing).toMatchObject({ opened: true, reached: 0.8, effort: 2, practisedMs: 90_000 });
    expect(standingOf([])).toMatchObject({ opened: false, reached: 0, effort: null });
  });
});

describe('numbers a lesson brings home', () => {
  it('asks for games and laps, offers works and holds, and knows the same exercise again next week', () => {
    const lesson = lessonOf([
      { kind: 'talk' },
      { kind: 'game', skill: 'Rope', scoring: 'time', goal: 'target', target: 50, tries: 3 },
      { kind: 'laps' },
      { kind: 'intervals', skill: 'Rope' },
      { kind: 'hold', sides: 'each' },
    ]);
    const prompts = scorePrompts(lesson);
    expect(
      prompts.map(({ measure, better, isAsked, sides }) => [
        measure,
        better,
        isAsked,
        sides.length,
      ]),
    ).toEqual(
      expect.arrayContaining([
        ['time', 'less', true, 0],
        ['count', 'more', false, 0],
        ['time', 'more', false, 2],
      ]),
    );
    expect(prompts[0]).toMatchObject({ tries: 3, target: 50, seconds: null });
    const renamed = lessonOf([
      { ...(lesson.sections[0]?.blocks[1] as Block & { kind: 'game' }), skill: ' rope ' },
    ]);
    expect(scorePrompts(renamed)[0]?.key).toBe(prompts[0]?.key);
  });
});

describe('made-up names and codes', () => {
  it('are always free and read back however they are typed', () => {
    fc.assert(
      fc.property(
        fc.infiniteStream(fc.double({ min: 0, max: 0.999_999, noNaN: true })),
        (stream) => {
          const chance = () => Number(stream.next().value);
          const code = spokenCode(chance);
          expect(code).toMatch(/^[A-HJKMNP-Z2-9]{6}$/);
          expect(readSpoken(` ${sayCode(code).toLowerCase()}-`)).toBe(code);
        },
      ),
    );
    const taken = new Set<string>();
    let seed = 1;
    const chance = () => ((seed = (seed * 48_271) % 2_147_483_647) - 1) / 2_147_483_646;
    for (let i = 0; i < 2_000; i += 1) taken.add(madeUpName(taken, chance));
    expect(taken.size).toBe(2_000);
  });
});
