import type { Block, BlockOf } from './blocks.ts';
import type { Cue, Demo, Details, Kit, Level, ListedExercise } from './parts.ts';

/** The moves of a routine or of counts that are done: the first so many, or all. */
export const movesDone = <B extends BlockOf<'counts' | 'routine'>>({ moves, upTo }: B) =>
  (upTo === undefined ? moves : moves.slice(0, upTo)) as B['moves'];

/** The exercises or moves of a block, in order; none where nothing is moved. */
export function exercisesOf(block: Block): ListedExercise[] {
  switch (block.kind) {
    case 'talk':
    case 'question':
    case 'card':
      return [];
    case 'called':
      return block.base ? [block.base] : [];
    case 'intervals':
      return block.exercises;
    case 'counts':
    case 'routine':
      return block.moves;
    case 'reps':
    case 'hold':
    case 'laps':
    case 'game':
      return [block.exercise];
  }
}

const detailsOf = (block: Block): Details[] =>
  exercisesOf(block).flatMap(({ details }) => details ?? []);

/** How an exercise is shown first: as it says itself, else as its block's are; null: not at all. */
export function demoOf(blocks: Demo | null, { details }: ListedExercise): Demo | null {
  const demo = details?.demo ?? blocks;
  return demo === 'none' ? null : demo;
}

/** Perceived effort of an exercise of the block, by its place in the list; of the block for none. */
export const effortOf = (block: Block, exercise: number | undefined): number =>
  (exercise === undefined ? undefined : exercisesOf(block)[exercise]?.details?.effort) ??
  block.effort;

const isSaid = ({ text }: { text: string }) => text.trim() !== '';

/** The cues an exercise has of its own, by its place in the list; none: its block's stand. */
export const cuesOfExercise = (block: Block, exercise: number | undefined): Cue[] =>
  exercise === undefined ? [] : (exercisesOf(block)[exercise]?.details?.cues ?? []).filter(isSaid);

/** The cues of a block and of its exercises. */
export const allCues = (block: Block): Cue[] => [
  ...block.cues,
  ...detailsOf(block).flatMap(({ cues }) => cues),
];

/** What a block and its exercises need. */
export const allKit = (block: Block): Kit[] => [
  ...block.kit,
  ...detailsOf(block).flatMap(({ kit }) => kit),
];

/** What is to be taken care of in a block and its exercises, each once. */
export const allCautions = (block: Block): string[] => [
  ...new Set([...block.cautions, ...detailsOf(block).flatMap(({ cautions }) => cautions)]),
];

/** A form of a block, or of one of its exercises. */
export interface FormOf extends Level {
  /** Place in the list of the exercise it is for; null: for the whole block. */
  exercise: number | null;
}

/** The easier and harder forms of a block, then those of its exercises. */
export const allForms = (block: Block): FormOf[] => [
  ...block.levels.map((level) => ({ ...level, exercise: null })),
  ...exercisesOf(block).flatMap(({ details }, exercise) =>
    (details?.levels ?? []).map((level) => ({ ...level, exercise })),
  ),
];

/** How many things an exercise says for itself. */
export const detailsSaid = ({ cues, levels, effort, demo, cautions, kit }: Details): number =>
  cues.length +
  levels.length +
  cautions.length +
  kit.length +
  Number(effort !== null) +
  Number(demo !== null);

/** Changes what an exercise says for itself, in place; where nothing is said, nothing is stored. */
export function changeDetails(draft: ListedExercise, change: (details: Details) => void): void {
  const details = (draft.details ??= {
    ...{ cues: [], levels: [], cautions: [], kit: [] },
    ...{ effort: null, demo: null },
  });
  change(details);
  if (detailsSaid(details) === 0) delete draft.details;
}
