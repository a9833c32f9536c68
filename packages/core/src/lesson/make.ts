import type { Block, BlockKind, Exercise, Lesson, Section } from './schema.ts';
import { LESSON_VERSION } from './schema.ts';

/** Makes a fresh id; injected because the core has no source of chance of its own. */
export type MakeId = () => string;

export function makeLesson(title: string, makeId: MakeId): Lesson {
  return {
    format: 'zest-lesson',
    version: LESSON_VERSION,
    title,
    series: { name: '', week: null },
    outcome: '',
    audience: { ageFrom: 8, ageTo: 11 },
    targetMs: 600_000,
    settings: { lastRest: 'dropped', sides: 'performer', speechWpm: 130 },
    sections: [makeSection('Welcome', makeId)],
  };
}

export function makeSection(title: string, makeId: MakeId): Section {
  return { id: makeId(), title, blocks: [] };
}

export function makeExercise(title: string, makeId: MakeId): Exercise {
  return { id: makeId(), title, movement: 'other' };
}

/** A block of the kind with everyday figures, ready to be changed. */
export function makeBlock(kind: BlockKind, makeId: MakeId): Block {
  const base = {
    id: makeId(),
    script: '',
    cues: [],
    kit: [],
    cautions: [],
    footage: null,
    pauseAfter: null,
  };
  switch (kind) {
    case 'talk':
      return { ...base, kind, title: 'Talk', effort: 1, fixedMs: null };
    case 'intervals':
      return {
        ...base,
        kind,
        title: 'Work and rest',
        effort: 4,
        exercises: [makeExercise('Exercise 1', makeId)],
        workMs: 20_000,
        restMs: 10_000,
        rounds: 4,
        restBetweenRoundsMs: null,
        leadInMs: 5_000,
      };
    case 'reps':
      return {
        ...base,
        kind,
        title: 'Repetitions',
        effort: 3,
        exercise: makeExercise('Exercise', makeId),
        reps: 8,
        sides: 'each',
        startSide: 'right',
        tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
        sets: 1,
        restBetweenSetsMs: 20_000,
        sideChangeMs: 5_000,
        leadInMs: 5_000,
      };
  }
}

/** Milliseconds of one repetition at the block's tempo. */
export function repMs(tempo: { downMs: number; holdMs: number; upMs: number; topHoldMs: number }): number {
  return tempo.downMs + tempo.holdMs + tempo.upMs + tempo.topHoldMs;
}

/** The exercises of a block, in order; none for a talk. */
export function exercisesOf(block: Block): Exercise[] {
  switch (block.kind) {
    case 'talk':
      return [];
    case 'intervals':
      return block.exercises;
    case 'reps':
      return [block.exercise];
  }
}
