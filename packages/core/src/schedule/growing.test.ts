import fc from 'fast-check';
import { produce } from 'immer';
import { describe, expect, it } from 'vitest';
import {
  allKit,
  blocksOf,
  figureChangeText,
  makeBlock,
  makeKit,
  makeLesson,
  makeSection,
  makeSeries,
  readFigure,
  seriesSchema,
  withStageFrom,
  writeFigure,
  type Block,
  type BlockOf,
  type FigureRule,
  type FloorMark,
  type Lesson,
  type ProgressRule,
  type Series,
} from '../lesson/index.ts';
import {
  canSetInWeek,
  figureInWeek,
  goOnFrom,
  isLighter,
  kitChanges,
  layOutWeeks,
  progressChanges,
  valuesWith,
} from './index.ts';

let ids = 0;
const makeId = () => `g-${(ids += 1)}`;
const target = (rightCm: number, forwardCm: number, rest: Partial<FloorMark> = {}): FloorMark => ({
  ...{ id: makeId(), kind: 'target', label: '', rightCm, forwardCm, widthCm: 60, depthCm: 40 },
  ...rest,
});
const throwing = (change: Partial<Block> = {}): Block =>
  ({ ...makeBlock('game', makeId), title: 'Bottles', part: 'game', ...change }) as Block;
const lessonOf = (...blocks: Block[]): Lesson => ({
  ...makeLesson('Throws', makeId),
  sections: [{ ...makeSection('One', makeId), blocks }],
});
const seriesOf = (...progression: ProgressRule[]): Series =>
  seriesSchema.parse({ ...makeSeries('Quay term'), weeks: 8, progression });
const figure = (
  name: 'distance' | 'targetSize' | 'height' | 'moves',
  values: number[],
): ProgressRule => ({
  ...{ id: makeId(), of: 'figure', figure: name, values, everyWeeks: 1 },
  parts: ['game', 'practice'],
});
/** The lesson of a later week, made week by week. */
function inWeek(lesson: Lesson, series: Series, week: number): Block {
  const weeks = layOutWeeks(series);
  const made = weeks
    .slice(0, week)
    .reduce((basis, at) => goOnFrom(basis, series, at, makeId), lesson);
  const [block] = blocksOf(made);
  if (!block) throw new Error('one block');
  return block;
}

describe('what grows over the weeks', () => {
  it('may be the distance: the nearest target as said, the others in their ratio', () => {
    const lesson = lessonOf(throwing({ floor: [target(0, 200), target(0, 300), target(90, 120)] }));
    const series = seriesOf(figure('distance', [150, 200, 250]));
    // 90 and 120 make 150; then 200 (times 4/3: 267, 400), then 250 (times 5/4: 334, 500).
    expect(inWeek(lesson, series, 3).floor.map((m) => [m.rightCm, m.forwardCm])).toEqual([
      [0, 334],
      [0, 500],
      [150, 200],
    ]);
  });

  it('may be the distance between players', () => {
    const ways = [{ id: 'w', players: 2, rules: '', distanceCm: 300 }];
    const series = seriesOf(figure('distance', [300, 350]));
    expect(inWeek(lessonOf(throwing({ ways })), series, 2).ways?.[0]?.distanceCm).toBe(350);
  });

  it('may be the size of targets, which keep their shape', () => {
    const lesson = lessonOf(throwing({ floor: [target(0, 200), target(0, 300, { widthCm: 90 })] }));
    const block = inWeek(lesson, seriesOf(figure('targetSize', [60, 40])), 2);
    expect(block.floor.map((m) => [m.widthCm, m.depthCm])).toEqual([
      // Two thirds of 60 × 40, and of 90 × 40; nothing is below 30 cm.
      [40, 30],
      [60, 30],
    ]);
  });

  it('may be heights, which rise together', () => {
    const floor = [
      target(0, 200, { heightCm: 20 }),
      target(0, 300, { heightCm: 35 }),
      target(0, 50),
    ];
    const block = inWeek(lessonOf(throwing({ floor })), seriesOf(figure('height', [20, 30])), 2);
    expect(block.floor.map(({ heightCm }) => heightCm)).toEqual([30, 45, undefined]);
  });

  it('may be the number of moves; of all of them nothing is stored', () => {
    const lesson = lessonOf({ ...makeBlock('routine', makeId), part: 'practice' });
    const series = seriesOf(figure('moves', [1, 2, 3]));
    const upTo = (week: number) => (inWeek(lesson, series, week) as BlockOf<'routine'>).upTo;
    expect([1, 2, 3].map(upTo)).toEqual([1, 2, undefined]);
  });

  it('may be the kind of kit, of the parts it is for and nothing else', () => {
    const kit = ['Balloon', 'rope'].map((name) => makeKit(name, makeId));
    const lesson = lessonOf(
      throwing({ kit }),
      throwing({ part: 'warm-up', kit: [makeKit('balloon', makeId)] }),
    );
    const rule: ProgressRule = {
      ...{ id: 'k', of: 'kit', values: ['balloon', 'soft ball', 'ball'], everyWeeks: 2 },
      parts: ['game'],
    };
    const series = seriesOf(rule);
    expect(kitChanges(lesson, series, 2)).toEqual([]);
    expect(kitChanges(lesson, series, 3)).toMatchObject([{ from: 'Balloon', to: 'soft ball' }]);
    const names = (week: number) => allKit(inWeek(lesson, series, week)).map(({ name }) => name);
    expect([1, 3, 5, 8].map(names)).toEqual([
      ['Balloon', 'rope'],
      ['soft ball', 'rope'],
      ['ball', 'rope'],
      ['ball', 'rope'],
    ]);
  });

  it('is asked for once, whatever lies where, and is told in metres', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(fc.integer({ min: -500, max: 500 }), fc.integer({ min: -500, max: 500 })),
          {
            minLength: 1,
            maxLength: 4,
          },
        ),
        fc.integer({ min: 30, max: 800 }),
        (places, cm) => {
          fc.pre(places.some(([right, ahead]) => Math.round(Math.hypot(right, ahead)) > 0));
          const block = throwing({ floor: places.map(([right, ahead]) => target(right, ahead)) });
          const after = produce(block, (draft) => writeFigure(draft, 'floor.distance', cm));
          expect(readFigure(after, 'floor.distance')).toBe(cm);
        },
      ),
    );
    const series = seriesOf(figure('distance', [250]));
    const lesson = lessonOf(throwing({ floor: [target(0, 200)] }));
    expect(progressChanges(lesson, series, 1).map(figureChangeText)).toEqual([
      'Distance of “Bottles”: 2 m → 2.5 m',
    ]);
  });
});

describe('a value written in a week', () => {
  const rule = fc.record({
    values: fc.array(fc.integer({ min: 1, max: 60 }), { minLength: 1, maxLength: 5 }),
    everyWeeks: fc.integer({ min: 1, max: 3 }),
    grows: fc.constantFrom(
      undefined,
      { by: 'step' as const, step: 2 },
      { by: 'percent' as const, percent: 10 },
    ),
    lighter: fc.constantFrom(undefined, { every: 4, percent: 60 }),
    until: fc.constantFrom(undefined, 40),
  });

  it('stands there, and the weeks before stay as they were', () => {
    fc.assert(
      fc.property(
        rule,
        fc.integer({ min: 1, max: 20 }),
        fc.integer({ min: 1, max: 90 }),
        (given, week, value) => {
          const before: FigureRule = {
            ...{ id: 'r', of: 'figure', figure: 'reps', parts: ['practice'] },
            ...Object.fromEntries(Object.entries(given).filter(([, v]) => v !== undefined)),
          } as FigureRule;
          fc.pre(canSetInWeek(before, week));
          const after = { ...before, values: valuesWith(before, week, value) };
          expect(figureInWeek(after, week)).toBe(value);
          const place = (w: number) =>
            Math.floor((w - (given.lighter ? Math.floor(w / 4) : 0) - 1) / given.everyWeeks);
          for (let w = 1; w < week; w += 1) {
            if (place(w) >= place(week)) continue;
            const offBy = Math.abs(figureInWeek(after, w) - figureInWeek(before, w));
            // A lighter week has part of a value that was rounded when it was written down.
            expect(offBy).toBeLessThanOrEqual(isLighter(before, w) ? 1 : 0);
          }
        },
      ),
    );
  });

  it('is none of its own in a lighter week, nor past the sixtieth', () => {
    const lighter = { ...figure('moves', [3]), lighter: { every: 4, percent: 60 } } as FigureRule;
    expect([3, 4, 5].map((week) => canSetInWeek(lighter, week))).toEqual([true, false, true]);
    expect([60, 61].map((week) => canSetInWeek(figure('moves', [3]), week))).toEqual([true, false]);
  });
});

describe('the week a stage begins in', () => {
  it('never passes the stages beside it', () => {
    expect(withStageFrom([1, 3, 5], 1, 4)).toEqual([1, 4, 5]);
    expect(withStageFrom([1, 3, 5], 1, 9)).toEqual([1, 4, 5]);
    expect(withStageFrom([1, 3, 5], 1, 1)).toEqual([1, 2, 5]);
    expect(withStageFrom([1], 3, 6)).toEqual([1, null, null, 6]);
    expect(withStageFrom([1, 3, 5], 2, null)).toEqual([1, 3, null]);
  });
});
