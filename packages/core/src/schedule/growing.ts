import {
  allKit,
  applyChanges,
  blocksOf,
  figureOf,
  findBlock,
  grownParts,
  progressFigures,
  readFigure,
  type FigureChange,
  type FigureRule,
  type Lesson,
  type LessonEdit,
  type ProgressRule,
  type Series,
} from '../lesson/index.ts';

/** The value a progression has reached in a week: one after another, the last stays. */
export function valueInWeek<T>(
  { everyWeeks }: ProgressRule,
  values: readonly T[],
  week: number,
): T | undefined {
  return values[Math.min(Math.floor((week - 1) / everyWeeks), values.length - 1)];
}

/** Whether a week is one of the rule's lighter ones. */
export const isLighter = ({ lighter }: Pick<FigureRule, 'lighter'>, week: number): boolean =>
  lighter !== undefined && week % lighter.every === 0;

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
  const { everyWeeks, values, lighter, until, figure } = rule;
  const { range, unit } = progressFigures[figure];
  // Lighter weeks before it, and itself, add nothing.
  const counted = Math.max(1, lighter ? week - Math.floor(week / lighter.every) : week);
  const place = Math.floor((counted - 1) / everyWeeks);
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
 * What the progression asks of the week's lesson that it does not have yet. Locked figures, and
 * bounds of a block, are kept.
 */
export function progressChanges(lesson: Lesson, series: Series, week: number): FigureChange[] {
  const partOf = grownParts(lesson);
  return series.progression.flatMap((rule) => {
    if (rule.of !== 'figure') return [];
    const value = figureInWeek(rule, week);
    const { key, label, unit } = progressFigures[rule.figure];
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
