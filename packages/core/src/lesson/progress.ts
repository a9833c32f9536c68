import type { TeacherWord } from '../words/index.ts';
import { type Block } from './blocks.ts';
import { figureOf } from './figures.ts';
import { LIMITS, type Range } from './limits.ts';
import type { LessonPart } from './parts.ts';

/** A figure that may change from week to week, with the key it has in its block. */
interface Progressing {
  key: string;
  word: TeacherWord;
  unit: 'ms' | 'count' | 'cm';
  range: Range;
  /** A usual step from one week to the next (common practice); null: only as a series says. */
  weekStep: number | null;
}

const figure =
  <U extends Progressing['unit']>(unit: U) =>
  (key: string, word: TeacherWord, range: Range, weekStep: number | null = null) => ({
    ...{ key, word, unit, range },
    weekStep,
  });
const time = figure('ms');
const count = figure('count');
const space = figure('cm');

/** Parts that are trained; warm-up and cool-down stay as they are (common practice). */
export const trainedParts: readonly LessonPart[] = ['skill', 'practice', 'game'];

/** Figures of a block that may change from week to week. */
export const progressFigures = {
  workMs: time('workMs', 'figure.work', LIMITS.workMs, 5_000),
  restMs: time('restMs', 'figure.rest', LIMITS.restMs),
  rounds: count('rounds', 'figure.rounds', LIMITS.rounds),
  sets: count('sets', 'figure.sets', LIMITS.sets),
  reps: count('reps', 'figure.reps', LIMITS.reps, 2),
  holdMs: time('holdMs', 'figure.hold', LIMITS.holdMs, 5_000),
  breaths: count('breaths', 'figure.breaths', LIMITS.breaths, 1),
  laps: count('laps', 'figure.laps', LIMITS.laps, 1),
  bpm: count('bpm', 'figure.bpm', LIMITS.bpm),
  target: count('target', 'figure.target', LIMITS.target),
  playMs: time('playMs', 'figure.play', LIMITS.workMs),
  calls: count('calls', 'figure.calls', LIMITS.calls),
  lapMs: time('lapMs', 'figure.lap', LIMITS.lapMs),
  moves: count('upTo', 'figure.moves', LIMITS.upTo),
  distance: space('floor.distance', 'common.distance', LIMITS.sideCm),
  targetSize: space('floor.size', 'figure.target-size', LIMITS.sideCm),
  height: space('floor.height', 'common.height', LIMITS.heightCm),
  practiceMs: time('pauseAfter.practiceMs', 'figure.practice-off-video', LIMITS.practiceMs),
} as const satisfies Record<string, Progressing>;
export type ProgressFigure = keyof typeof progressFigures;
export const progressFigureNames = Object.keys(progressFigures) as ProgressFigure[];

/** The figure that says how much of a block there is, by which it grows; undefined: none does. */
export function growingFigure(block: Block): (Progressing & { weekStep: number }) | undefined {
  for (const name of progressFigureNames) {
    const { weekStep, ...figure } = progressFigures[name];
    if (weekStep !== null && figureOf(block, figure.key)) return { ...figure, weekStep };
  }
  return undefined;
}
