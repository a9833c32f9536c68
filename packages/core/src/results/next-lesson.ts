import {
  asPlanned,
  blocksOf,
  duplicateLesson,
  LIMITS,
  type Block,
  type BlockOf,
  type Lesson,
  type LessonPart,
  type MakeId,
  type Range,
} from '../lesson/index.ts';
import type { BlockHint, NextStep } from './class-view.ts';

/** A figure that changes by steps from week to week. */
interface Stepped {
  kind: Block['kind'];
  key: string;
  label: string;
  unit: 'ms' | 'count';
  by: number;
  range: Range;
}

const stepped = <K extends Block['kind']>(
  one: Stepped & { kind: K; key: keyof BlockOf<K> },
): Stepped => one;
/** Steps of a week (common practice: work time grows by 5 s or 10 s). */
const FIGURES: readonly Stepped[] = [
  stepped({
    kind: 'intervals',
    key: 'workMs',
    label: 'Work',
    unit: 'ms',
    by: 5_000,
    range: LIMITS.workMs,
  }),
  stepped({
    kind: 'reps',
    key: 'reps',
    label: 'Repetitions',
    unit: 'count',
    by: 2,
    range: LIMITS.reps,
  }),
  stepped({
    kind: 'hold',
    key: 'breaths',
    label: 'Breaths',
    unit: 'count',
    by: 1,
    range: LIMITS.breaths,
  }),
  stepped({
    kind: 'hold',
    key: 'holdMs',
    label: 'Hold',
    unit: 'ms',
    by: 5_000,
    range: LIMITS.holdMs,
  }),
  stepped({ kind: 'laps', key: 'laps', label: 'Laps', unit: 'count', by: 1, range: LIMITS.laps }),
];

/** The figure of a block that says how much of it there is; undefined where no figure does. */
function figureOf(block: Block): Stepped | undefined {
  return FIGURES.find(
    ({ kind, key }) =>
      kind === block.kind &&
      (block.kind !== 'hold' || (key === 'breaths') === (block.by === 'breaths')),
  );
}

/** Parts that are trained; warm-up and cool-down stay as they are. */
const TRAINED: ReadonlySet<LessonPart> = new Set(['skill', 'practice', 'game']);

/** A change proposed for next week's lesson. */
export interface StepChange {
  blockId: string;
  title: string;
  label: string;
  unit: 'ms' | 'count';
  from: number;
  to: number;
  why: string;
}

const DIRECTION = { harder: 1, same: 0, easier: -1, 'not known': 0 } as const;

/** Which way a block goes: what its students said of it comes before what the class's rule says. */
function directionOf(
  block: Block,
  step: NextStep['step'],
  hint: BlockHint | undefined,
): { way: number; why: string } {
  if (hint?.hint === 'it hurts') return { way: -1, why: 'it hurt somebody' };
  if (hint?.hint === 'too hard') return { way: -1, why: 'too hard for several' };
  if (hint?.hint === 'too easy') return { way: 1, why: 'too easy for several' };
  return { way: TRAINED.has(block.part) ? DIRECTION[step] : 0, why: 'by the class’s rule' };
}

/**
 * What would change in next week's lesson, by the class's rule and by what students said of single
 * blocks. Locked figures stay.
 */
export function stepChanges(
  lesson: Lesson,
  step: NextStep['step'],
  hints: readonly BlockHint[],
): StepChange[] {
  return blocksOf(lesson).flatMap((block): StepChange[] => {
    const figure = figureOf(block);
    const { way, why } = directionOf(
      block,
      step,
      hints.find(({ blockId }) => blockId === block.id),
    );
    if (!figure || way === 0 || block.locked.includes(figure.key)) return [];
    const from = (block as unknown as Record<string, number>)[figure.key] ?? 0;
    // Never by more than half at once.
    const by = Math.min(figure.by, Math.floor(from / 2));
    const to = Math.max(figure.range.min, Math.min(figure.range.max, from + way * by));
    return to === from
      ? []
      : [
          {
            blockId: block.id,
            title: block.title,
            label: figure.label,
            unit: figure.unit,
            from,
            to,
            why,
          },
        ];
  });
}

/** Next week's lesson: this one gone on with, the changes made, nothing filmed yet. */
export function nextLesson(lesson: Lesson, changes: readonly StepChange[], makeId: MakeId): Lesson {
  const planned = asPlanned(lesson);
  const changed: Lesson = {
    ...planned,
    sections: planned.sections.map((section) => ({
      ...section,
      blocks: section.blocks.map((block): Block => {
        const own = changes.find(({ blockId }) => blockId === block.id);
        const key = own && figureOf(block)?.key;
        return { ...block, ...(own && key && { [key]: own.to }) };
      }),
    })),
  };
  const week = lesson.series.week === null ? null : Math.min(LIMITS.weeks, lesson.series.week + 1);
  const title =
    week === null
      ? `${lesson.title.slice(0, LIMITS.title - 11)}, next week`
      : `${(lesson.series.name || lesson.title).slice(0, LIMITS.title - 10)}, week ${week}`;
  const recap = `Last time: ${lesson.outcome || lesson.title}`.slice(0, LIMITS.line);
  return {
    ...duplicateLesson(changed, makeId),
    title,
    series: { ...lesson.series, week, recap, teaser: '' },
  };
}
