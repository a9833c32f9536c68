import { lengthText } from '../time/index.ts';
import { teacherText } from '../words/index.ts';
import { findBlock, type LessonEdit } from './edit.ts';
import { spaceText } from './units.ts';
import { figureOf, readFigure, writeFigure, type Figure } from './figures.ts';

/**
 * One figure of a block changed, whoever proposes it; `from` and `to` in the figure's own unit:
 * milliseconds, centimetres or a count.
 */
export interface FigureChange {
  blockId: string;
  blockTitle: string;
  key: string;
  label: string;
  unit: Figure['unit'];
  from: number;
  to: number;
}

/** Makes the changes. Figures that changed meanwhile, or whose block is gone, are left alone. */
export const applyChanges =
  (changes: readonly FigureChange[]): LessonEdit =>
  (draft) => {
    for (const { blockId, key, from, to } of changes) {
      const block = findBlock(draft, blockId);
      if (block && figureOf(block, key) && readFigure(block, key) === from)
        writeFigure(block, key, to);
    }
  };

/** A figure's value as it is written: a length, a distance in metres, or a number. */
export function figureText(value: number, unit: Figure['unit']): string {
  if (unit === 'ms') return lengthText(value);
  return unit === 'cm' ? spaceText(value, 'metric') : String(value);
}

/** A change in words: "Rounds of “Skip and step”: 4 → 3". */
export function figureChangeText({ label, blockTitle, unit, from, to }: FigureChange): string {
  const shown = (value: number) => figureText(value, unit);
  return teacherText('figure.changed', {
    figure: label,
    block: blockTitle || teacherText('untitled'),
    from: shown(from),
    to: shown(to),
  });
}
