import { type Block } from './blocks.ts';
import { figureOf } from './figures.ts';
import { LIMITS, type Range } from './limits.ts';
import type { LessonPart } from './parts.ts';

/** A figure that may change from week to week, with the key it has in its block. */
interface Progressing {
  key: string;
  label: string;
  unit: 'ms' | 'count' | 'cm';
  range: Range;
  /** A usual step from one week to the next (common practice); null: only as a series says. */
  weekStep: number | null;
}

const time = (key: string, label: string, range: Range, weekStep: number | null = null) => ({
  key,
  label,
  unit: 'ms' as const,
  range,
  weekStep,
});
const count = (key: string, label: string, range: Range, weekStep: number | null = null) => ({
  key,
  label,
  unit: 'count' as const,
  range,
  weekStep,
});

const space = (key: string, label: string, range: Range) => ({
  ...{ key, label, range },
  unit: 'cm' as const,
  weekStep: null,
});

/** Parts that are trained; warm-up and cool-down stay as they are (common practice). */
export const trainedParts: readonly LessonPart[] = ['skill', 'practice', 'game'];

/** Figures of a block that may change from week to week. */
export const progressFigures = {
  workMs: time('workMs', 'Work', LIMITS.workMs, 5_000),
  restMs: time('restMs', 'Rest', LIMITS.restMs),
  rounds: count('rounds', 'Rounds', LIMITS.rounds),
  sets: count('sets', 'Sets', LIMITS.sets),
  reps: count('reps', 'Repetitions', LIMITS.reps, 2),
  holdMs: time('holdMs', 'Hold', LIMITS.holdMs, 5_000),
  breaths: count('breaths', 'Breaths', LIMITS.breaths, 1),
  laps: count('laps', 'Laps', LIMITS.laps, 1),
  bpm: count('bpm', 'Beats a minute', LIMITS.bpm),
  target: count('target', 'Target', LIMITS.target),
  playMs: time('playMs', 'Play', LIMITS.workMs),
  calls: count('calls', 'Calls', LIMITS.calls),
  lapMs: time('lapMs', 'One lap', LIMITS.lapMs),
  moves: count('upTo', 'Moves', LIMITS.upTo),
  distance: space('floor.distance', 'Distance', LIMITS.sideCm),
  targetSize: space('floor.size', 'Size of the target', LIMITS.sideCm),
  height: space('floor.height', 'Height', LIMITS.heightCm),
  practiceMs: time('pauseAfter.practiceMs', 'Practice off the video', LIMITS.practiceMs),
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
