import {
  progressFigureNames,
  progressFigures,
  trainedParts,
  weekLevels,
  type ProgressFigure,
  type ProgressRule,
  type WeekLevel,
} from '@zest/core/lesson';
import { lengthText, parseLength } from '@zest/core/time';
import { levelNames } from '../../ui/level-names.ts';

/** What a progression changes. */
export type What = ProgressFigure | 'level' | 'sessions';
export const whats: readonly (readonly [What, string])[] = [
  ...progressFigureNames.map((name) => [name, progressFigures[name].label] as const),
  ['level', 'Form of the exercises'],
  ['sessions', 'Sessions a week'],
];
export const whatOf = (rule: ProgressRule): What => (rule.of === 'figure' ? rule.figure : rule.of);

/** A progression with everyday values, ready to be changed. */
export function makeRule(what: What, id: string): ProgressRule {
  const common = { id, everyWeeks: 1 };
  if (what === 'level') return { ...common, of: 'level', values: ['easier', 'standard', 'harder'] };
  if (what === 'sessions') return { ...common, of: 'sessions', values: [2, 3] };
  const usual: Record<ProgressFigure, number[]> = {
    ...{
      workMs: [30_000, 35_000, 40_000, 50_000],
      restMs: [30_000, 25_000, 20_000],
      rounds: [3, 4],
      sets: [1, 2],
      reps: [8, 10, 12],
    },
    ...{
      holdMs: [10_000, 15_000, 20_000],
      breaths: [3, 4, 5],
      laps: [3, 4, 5],
      bpm: [100, 110, 120],
      target: [10, 15, 20],
      playMs: [60_000, 90_000, 120_000],
      calls: [10, 14, 18],
      lapMs: [30_000, 28_000, 26_000],
      practiceMs: [180_000, 240_000, 300_000],
    },
  };
  return { ...common, of: 'figure', figure: what, values: usual[what], parts: [...trainedParts] };
}

const levelWord = (level: WeekLevel) => levelNames.find(([id]) => id === level)?.[1] ?? level;

/** The values of a rule as teachers write them: "30 s, 35 s, 40 s". */
export function valuesText(rule: ProgressRule): string {
  if (rule.of === 'level') return rule.values.map(levelWord).join(', ');
  const isTime = rule.of === 'figure' && progressFigures[rule.figure].unit === 'ms';
  return rule.values.map((value) => (isTime ? lengthText(value) : String(value))).join(', ');
}

/** Reads values as teachers write them; null where one is none. */
export function readValues(rule: ProgressRule, text: string): ProgressRule['values'] | null {
  const parts = text
    .split(/[,;]/)
    .map((part) => part.trim().toLowerCase())
    .filter((part) => part !== '');
  if (parts.length === 0) return null;
  if (rule.of === 'level') {
    const read = parts.map((part) =>
      weekLevels.find((level) => level === part || levelWord(level) === part),
    );
    return read.every((level) => level !== undefined) ? read : null;
  }
  const isTime = rule.of === 'figure' && progressFigures[rule.figure].unit === 'ms';
  const read = parts.map((part) =>
    isTime ? parseLength(part) : /^\d{1,6}$/.test(part) ? Number(part) : null,
  );
  return read.every((value) => value !== null) ? read : null;
}
