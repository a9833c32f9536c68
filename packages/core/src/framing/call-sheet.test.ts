import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  makeBlock,
  makeLesson,
  shotAngles,
  shotFramings,
  type Block,
  type Lesson,
  type Shot,
} from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import {
  callSheet,
  changeBetween,
  changeText,
  orderCost,
  orderShots,
  shotsOf,
  shotsToFilm,
  type ShotToFilm,
} from './index.ts';

const rawShot = fc.record({
  angle: fc.constantFrom(...shotAngles),
  framing: fc.constantFrom(...shotFramings),
  place: fc.constantFrom('', 'Garden', 'hall'),
  performers: fc.integer({ min: 1, max: 2 }),
  fresh: fc.boolean(),
  kit: fc.subarray(['rope', 'disc', 'band']),
  effort: fc.integer({ min: 1, max: 5 }),
});

type Raw = typeof rawShot extends fc.Arbitrary<infer T> ? T : never;
const plain: Raw = {
  angle: 'front',
  framing: 'whole body',
  place: '',
  performers: 1,
  kit: [],
  fresh: false,
  effort: 1,
};

function lessonOf(raws: readonly Raw[]): Lesson {
  const makeId = counter();
  const lesson = makeLesson('A lesson', makeId);
  const blocks = raws.map(({ kit, effort, ...shot }): Block => {
    const filmed: Shot = { id: 's', note: '', ...shot };
    return {
      ...makeBlock('reps', makeId),
      effort,
      kit: kit.map((name) => ({
        id: makeId(),
        name,
        quantity: 1,
        share: 'each' as const,
        standIn: '',
      })),
      shots: [filmed],
    };
  });
  return { ...lesson, sections: [{ id: 'only', title: 'All', blocks }] };
}

function permutations<T>(items: readonly T[]): T[][] {
  if (items.length <= 1) return [[...items]];
  return items.flatMap((first, i) =>
    permutations([...items.slice(0, i), ...items.slice(i + 1)]).map((rest) => [first, ...rest]),
  );
}

describe('the order of filming', () => {
  it('costs the least of all orders, for up to 7 shots by trying them all', () => {
    fc.assert(
      fc.property(fc.array(rawShot, { minLength: 1, maxLength: 7 }), (raws) => {
        const shots = shotsToFilm(lessonOf(raws));
        const least = Math.min(...permutations(shots).map(orderCost));
        expect(orderCost(orderShots(shots))).toBe(least);
      }),
      { numRuns: 25 },
    );
  });

  it('costs the least of all orders for 8 shots', () => {
    fc.assert(
      fc.property(fc.array(rawShot, { minLength: 8, maxLength: 8 }), (raws) => {
        const shots = shotsToFilm(lessonOf(raws));
        let least = Infinity;
        for (const order of permutations(shots)) least = Math.min(least, orderCost(order));
        expect(orderCost(orderShots(shots))).toBe(least);
      }),
      { numRuns: 3 },
    );
  });

  it('holds every shot once and costs no more than the lesson’s own order, for 60 shots too', () => {
    fc.assert(
      fc.property(fc.array(rawShot, { minLength: 13, maxLength: 60 }), (raws) => {
        const shots = shotsToFilm(lessonOf(raws));
        const order = orderShots(shots);
        expect(new Set(order)).toEqual(new Set(shots));
        expect(order).toHaveLength(shots.length);
        expect(orderCost(order)).toBeLessThanOrEqual(orderCost(shots));
        expect(orderShots(shots)).toEqual(order);
      }),
      { numRuns: 5 },
    );
  });

  it('is near the exact one where both can be had', () => {
    // 13 shots in two groups that never touch: the best order is each group in one piece.
    const shots = shotsToFilm(
      lessonOf(
        Array.from({ length: 20 }, (_, i) => ({
          ...plain,
          place: i % 2 ? ('Garden' as const) : ('hall' as const),
        })),
      ),
    );
    expect(orderCost(orderShots(shots))).toBe(180_000);
  });

  it('has fresh shots first and hard ones apart', () => {
    const [a, hard1, hard2, fresh] = shotsToFilm(
      lessonOf([
        plain,
        { ...plain, effort: 5 },
        { ...plain, effort: 5 },
        { ...plain, fresh: true },
      ]),
    ) as [ShotToFilm, ShotToFilm, ShotToFilm, ShotToFilm];
    const order = orderShots([a, hard1, hard2, fresh]);
    expect(order[0]).toBe(fresh);
    expect(Math.abs(order.indexOf(hard1) - order.indexOf(hard2))).toBeGreaterThan(1);
    expect(changeBetween(hard1, hard2).restMs).toBe(120_000);
  });
});

describe('the call sheet', () => {
  it('adds up, and says what changes', () => {
    fc.assert(
      fc.property(fc.array(rawShot, { maxLength: 9 }), (raws) => {
        const lesson = lessonOf(raws);
        const { lines, totalMs, changesMs, bestChangesMs } = callSheet(lesson);
        expect(totalMs).toBe(changesMs + lines.reduce((sum, line) => sum + line.filmingMs, 0));
        expect(changesMs).toBe(bestChangesMs);
        for (const { change, toFilm } of lines)
          if (change) expect(changeText(change, toFilm).length > 0).toBe(change.totalMs > 0);
      }),
      { numRuns: 40 },
    );
  });

  it('keeps an order by hand, with its price, and puts new shots behind their neighbour', () => {
    const lesson = lessonOf([
      plain,
      { ...plain, place: 'Garden' },
      plain,
      { ...plain, place: 'Garden' },
    ]);
    const ids = shotsToFilm(lesson).map(({ id }) => id) as [string, string, string, string];
    const byHand = {
      ...lesson,
      filming: { ...lesson.filming, order: [ids[0], ids[1], ids[3], 'gone'] },
    };
    const sheet = callSheet(byHand);
    expect(sheet.lines.map(({ toFilm }) => toFilm.id)).toEqual([ids[0], ids[1], ids[2], ids[3]]);
    expect(sheet.changesMs - sheet.bestChangesMs).toBe(360_000);
    expect(callSheet(byHand, new Set([ids[3]])).lines).toHaveLength(1);
  });

  it('films nothing of a card, and a talk from the waist up', () => {
    const makeId = counter();
    expect(shotsOf(makeBlock('card', makeId))).toEqual([]);
    expect(shotsOf(makeBlock('talk', makeId))[0]?.framing).toBe('waist up');
    expect(
      shotsOf({
        ...makeBlock('reps', makeId),
        facing: { performer: 'left side on', viewer: 'screen' },
      })[0]?.angle,
    ).toBe('left side');
  });
});
