import {
  applyChanges,
  blocksOf,
  growingFigure,
  LIMITS,
  readFigure,
  grownParts,
  trainedParts,
  type FigureChange,
  type Lesson,
  type LessonPart,
  type MakeId,
} from '../lesson/index.ts';
import { lessonOfWeek, weekTitle } from '../schedule/index.ts';
import { speaking, teacherText } from '../words/index.ts';
import type { BlockHint, NextStep } from './class-view.ts';

/** A change proposed for next week's lesson, and why. */
export interface StepChange extends FigureChange {
  why: string;
}

const DIRECTION = { harder: 1, same: 0, easier: -1, 'not known': 0 } as const;

/** Which way a block goes: what its students said of it comes before what the class's rule says. */
function directionOf(
  step: NextStep['step'],
  hint: BlockHint | undefined,
  part: LessonPart,
): { way: number; why: string } {
  if (hint?.hint === 'it hurts') return { way: -1, why: teacherText('next.hurt') };
  if (hint?.hint === 'too hard') return { way: -1, why: teacherText('next.too-hard') };
  if (hint?.hint === 'too easy') return { way: 1, why: teacherText('next.too-easy') };
  return {
    way: trainedParts.includes(part) ? DIRECTION[step] : 0,
    why: teacherText('next.by-rule'),
  };
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
  const partOf = grownParts(lesson);
  return blocksOf(lesson).flatMap((block): StepChange[] => {
    const figure = growingFigure(block);
    const hint = hints.find(({ blockId }) => blockId === block.id);
    const { way, why } = directionOf(step, hint, partOf(block));
    if (!figure || way === 0 || block.locked.includes(figure.key)) return [];
    const { key, word, unit, range, weekStep } = figure;
    const label = teacherText(word);
    const from = readFigure(block, key);
    // Never by more than half at once.
    const by = Math.min(weekStep, Math.floor(from / 2));
    const to = Math.max(range.min, Math.min(range.max, from + way * by));
    const change = { blockId: block.id, blockTitle: block.title, key, label, unit, from, to };
    return to === from ? [] : [{ ...change, why }];
  });
}

/** Next week's lesson: this one gone on with, the changes made, nothing filmed yet. */
export function nextLesson(lesson: Lesson, changes: readonly StepChange[], makeId: MakeId): Lesson {
  const { series, title, outcome, settings } = lesson;
  const say = speaking(settings.language);
  const week = series.week === null ? null : Math.min(LIMITS.weeks, series.week + 1);
  return lessonOfWeek(
    lesson,
    {
      title:
        week === null
          ? say('week.next', { name: title.slice(0, LIMITS.title - 20) })
          : weekTitle(series.name || title, week, settings.language),
      outcome,
      series: {
        ...series,
        week,
        recap: say('week.last-time', { what: outcome || title }).slice(0, LIMITS.line),
        teaser: '',
      },
    },
    () => applyChanges(changes),
    makeId,
  );
}
