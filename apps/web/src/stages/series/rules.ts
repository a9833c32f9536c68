import {
  figureText,
  parseSpace,
  progressFigureNames,
  progressFigures,
  trainedParts,
  weekLevels,
  type ProgressFigure,
  type ProgressRule,
  type WeekLevel,
} from '@zest/core/lesson';
import { parseLength } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { levelNames } from '../../ui/level-names.ts';

/** What a progression changes. */
export type What = ProgressFigure | 'kit' | 'level' | 'sessions';
export const whats: readonly (readonly [What, string])[] = [
  ...progressFigureNames.map((name) => [name, teacherText(progressFigures[name].word)] as const),
  ['kit', teacherText('progress.kit')],
  ['level', teacherText('series.form-exercises')],
  ['sessions', teacherText('series.sessions-week')],
];
export const whatOf = (rule: ProgressRule): What => (rule.of === 'figure' ? rule.figure : rule.of);

/** What a progression is called: by what it changes. */
export const ruleName = (rule: ProgressRule): string =>
  whats.find(([what]) => what === whatOf(rule))?.[1] ?? '';

/** A progression with everyday values, ready to be changed. */
export function makeRule(what: What, id: string): ProgressRule {
  const common = { id, everyWeeks: 1 };
  if (what === 'level') return { ...common, of: 'level', values: ['easier', 'standard', 'harder'] };
  if (what === 'kit')
    return {
      ...{ ...common, of: 'kit', parts: [...trainedParts] },
      values: ['balloon', 'soft ball', 'ball'],
    };
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
      moves: [3, 4, 5],
      distance: [200, 250, 300],
      targetSize: [100, 80, 60],
      height: [20, 30, 40],
    },
  };
  return { ...common, of: 'figure', figure: what, values: usual[what], parts: [...trainedParts] };
}

const levelWord = (level: WeekLevel) => levelNames.find(([id]) => id === level)?.[1] ?? level;

/** The values of a rule as teachers write them: "30 s, 35 s, 40 s". */
export function valuesText(rule: ProgressRule): string {
  if (rule.of === 'level') return rule.values.map(levelWord).join(', ');
  if (rule.of === 'kit') return rule.values.join(', ');
  const unit = rule.of === 'figure' ? progressFigures[rule.figure].unit : 'count';
  return rule.values.map((value) => figureText(value, unit)).join(', ');
}

/** Reads values as teachers write them; null where one is none. */
export function readValues(rule: ProgressRule, text: string): ProgressRule['values'] | null {
  const parts = text
    .split(/[,;]/)
    .map((part) => part.trim())
    .filter((part) => part !== '');
  if (parts.length === 0) return null;
  if (rule.of === 'kit') return parts;
  const plain = parts.map((part) => part.toLowerCase());
  if (rule.of === 'level') {
    const read = plain.map((part) =>
      weekLevels.find((level) => level === part || levelWord(level) === part),
    );
    return read.every((level) => level !== undefined) ? read : null;
  }
  const unit = rule.of === 'figure' ? progressFigures[rule.figure].unit : 'count';
  const readOne = {
    ms: parseLength,
    cm: (part: string) => parseSpace(part, 'metric'),
    count: (part: string) => (/^\d{1,6}$/.test(part) ? Number(part) : null),
  }[unit];
  const read = plain.map(readOne);
  return read.every((value) => value !== null) ? read : null;
}
