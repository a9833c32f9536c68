import {
  allKit,
  applyChanges,
  blocksOf,
  figureOf,
  findBlock,
  grownParts,
  progressFigures,
  readFigure,
  SERIES_LIMITS,
  type FigureChange,
  type FigureRule,
  type Lesson,
  type LessonEdit,
  type ProgressRule,
  type Series,
} from '../lesson/index.ts';
import { teacherText } from '../words/index.ts';

/** Whether a week is one of the rule's lighter ones. */
export const isLighter = ({ lighter }: Pick<FigureRule, 'lighter'>, week: number): boolean =>
  lighter !== undefined && week % lighter.every === 0;

/**
 * Which of the rule's values a week has, counted from 0; past the last one it stays or grows on.
 * Lighter weeks, and the week itself where it is one, add nothing.
 */
function placeInWeek(rule: ProgressRule, week: number): number {
  const every = rule.of === 'figure' ? rule.lighter?.every : undefined;
  const counted = Math.max(1, every === undefined ? week : week - Math.floor(week / every));
  return Math.floor((counted - 1) / rule.everyWeeks);
}

/** The value a progression has reached in a week: one after another, the last stays. */
export function valueInWeek<T>(
  rule: ProgressRule,
  values: readonly T[],
  week: number,
): T | undefined {
  return values[Math.min(placeInWeek(rule, week), values.length - 1)];
}

function grown(value: number, { grows }: FigureRule, times: number): number {
  if (!grows) return value;
  return grows.by === 'step'
    ? value + grows.step * times
    : value * (1 + grows.percent / 100) ** times;
}

/**
 * The figure a progression asks for in a week: its values one after another, then grown on from the
 * last. A lighter week has part of the week before, and afterwards it goes on where it was. Times in
 * whole seconds, all within the figure's bounds.
 */
export function figureInWeek(rule: FigureRule, week: number): number {
  const { values, lighter, until, figure } = rule;
  const { range, unit } = progressFigures[figure];
  const place = placeInWeek(rule, week);
  const last = values.length - 1;
  const listed = values[Math.min(place, last)] ?? range.min;
  const reached = grown(listed, rule, Math.max(0, place - last));
  const bounded =
    until === undefined
      ? reached
      : listed <= until
        ? Math.min(until, reached)
        : Math.max(until, reached);
  const value = isLighter(rule, week) ? (bounded * (lighter?.percent ?? 100)) / 100 : bounded;
  const grid = unit === 'ms' ? 1_000 : 1;
  // A value that was written down stands as it is.
  const whole = value === listed ? value : Math.round(value / grid) * grid;
  return Math.min(range.max, Math.max(range.min, whole));
}

/**
 * Whether a week's value can be written down: a lighter week's follows from the week before, and a
 * rule has room for so many values.
 */
export const canSetInWeek = (rule: ProgressRule, week: number): boolean =>
  placeInWeek(rule, week) < SERIES_LIMITS.values &&
  !(rule.of === 'figure' && isLighter(rule, week));

/**
 * The rule's values with another one in a week, and in those that share it; what it came to in the
 * weeks before is written down. From the last value it stays, or grows on, as before.
 */
export function valuesWith<R extends ProgressRule>(
  rule: R,
  week: number,
  value: R['values'][number],
): R['values'] {
  const place = placeInWeek(rule, week);
  const before = (at: number): R['values'][number] => {
    if (rule.of !== 'figure') return rule.values.at(-1) ?? value;
    let first = 1;
    while (placeInWeek(rule, first) < at || isLighter(rule, first)) first += 1;
    return figureInWeek(rule, first);
  };
  return Array.from({ length: Math.max(rule.values.length, place + 1) }, (_, at) =>
    at === place ? value : (rule.values[at] ?? before(at)),
  ) as R['values'];
}

/**
 * What the progression asks of the week's lesson that it does not have yet. Locked figures, and
 * bounds of a block, are kept.
 */
export function progressChanges(lesson: Lesson, series: Series, week: number): FigureChange[] {
  const partOf = grownParts(lesson);
  return series.progression.flatMap((rule) => {
    if (rule.of !== 'figure') return [];
    const value = figureInWeek(rule, week);
    const { key, word, unit } = progressFigures[rule.figure];
    const label = teacherText(word);
    return blocksOf(lesson).flatMap((block): FigureChange[] => {
      const figure =
        rule.parts.includes(partOf(block)) && !block.locked.includes(key)
          ? figureOf(block, key)
          : undefined;
      if (!figure) return [];
      const from = readFigure(block, key);
      const to = Math.min(Math.max(value, figure.range.min), figure.range.max);
      return from === to
        ? []
        : [{ blockId: block.id, blockTitle: block.title, key, label, unit, from, to }];
    });
  });
}

/** Kit of a block that a progression exchanges. */
export interface KitChange {
  blockId: string;
  kitId: string;
  from: string;
  to: string;
}

const plainName = (name: string) => name.trim().toLocaleLowerCase();

/** What kit the progression asks for in a week instead of what the lesson has. */
export function kitChanges(lesson: Lesson, series: Series, week: number): KitChange[] {
  const partOf = grownParts(lesson);
  return series.progression.flatMap((rule) => {
    const to = rule.of === 'kit' ? valueInWeek(rule, rule.values, week) : undefined;
    if (rule.of !== 'kit' || to === undefined) return [];
    const kinds = new Set(rule.values.map(plainName));
    return blocksOf(lesson)
      .filter((block) => rule.parts.includes(partOf(block)))
      .flatMap((block) =>
        allKit(block)
          .filter(({ name }) => kinds.has(plainName(name)) && plainName(name) !== plainName(to))
          .map(({ id, name }) => ({ blockId: block.id, kitId: id, from: name, to })),
      );
  });
}

/** Exchanges the kit. What changed meanwhile, or is gone, is left alone. */
export const exchangeKit =
  (changes: readonly KitChange[]): LessonEdit =>
  (draft) => {
    for (const { blockId, kitId, from, to } of changes) {
      const block = findBlock(draft, blockId);
      const item = block && allKit(block).find(({ id, name }) => id === kitId && name === from);
      if (item) item.name = to;
    }
  };

/** All that the progression asks of the week's lesson, as one edit. */
export function progressTo(lesson: Lesson, series: Series, week: number): LessonEdit {
  const figures = applyChanges(progressChanges(lesson, series, week));
  const kit = exchangeKit(kitChanges(lesson, series, week));
  return (draft) => {
    figures(draft);
    kit(draft);
  };
}
