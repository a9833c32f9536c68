import type { Block } from './blocks.ts';
import { blocksOf } from './edit.ts';
import type { LessonPart } from './parts.ts';
import type { Lesson } from './schema.ts';

/** The part of a lesson a block is, as the teacher says or as one would take it to be. */
export interface PartOf {
  /** `other`: neither said nor to be guessed. */
  part: LessonPart;
  isGuess: boolean;
}

/** Efforts up to this one prepare or calm down (1 to 5). */
const EASY = 2;
const isExercised = ({ kind }: Block) => !['talk', 'card', 'question'].includes(kind);
const isTaught = (block: Block) =>
  ('demo' in block && block.demo !== null) || (block.kind === 'reps' && block.parts !== null);

/** What a guess goes by besides the block itself. */
interface Around {
  blocks: readonly Block[];
  /** The blocks that are exercised. */
  exercised: readonly Block[];
  hardest: number;
}

/** What a block that is exercised is taken for, by its kind, its place and its effort. */
function exercisedPart(block: Block, { exercised, hardest }: Around): LessonPart {
  if (block.kind === 'game' || block.kind === 'called') return 'game';
  if (block.effort <= EASY && block.effort < hardest) {
    if (block === exercised.at(-1)) return 'cool-down';
    if (block === exercised[0]) return 'warm-up';
  }
  return isTaught(block) ? 'skill' : 'practice';
}

function guessed(block: Block, around: Around): LessonPart {
  if (block.kind === 'question') return 'other';
  if (block.kind === 'card')
    return block.about === 'kit' || block.about === 'space' ? block.about : 'other';
  if (block.kind !== 'talk') return exercisedPart(block, around);
  const { blocks, exercised } = around;
  if (block === blocks[0]) return 'greeting';
  return block === blocks.at(-1) && exercised.length > 0 ? 'sign-off' : 'other';
}

/**
 * The part each block of a lesson is, by its id. What nobody says is guessed from the block's kind,
 * place and effort (common practice: easy work first warms up, easy work last cools down).
 */
export function partsOf(lesson: Lesson): ReadonlyMap<string, PartOf> {
  const blocks = blocksOf(lesson);
  const exercised = blocks.filter(isExercised);
  const hardest = exercised.reduce((most, { effort }) => Math.max(most, effort), 0);
  const around = { blocks, exercised, hardest };
  return new Map(
    blocks.map((block) => {
      const isGuess = block.part === 'other';
      return [block.id, { part: isGuess ? guessed(block, around) : block.part, isGuess }];
    }),
  );
}

/** The part each block of a lesson grows with: one that is neither said nor guessed is practice. */
export function grownParts(lesson: Lesson): (block: Block) => LessonPart {
  const parts = partsOf(lesson);
  return ({ id }) => {
    const part = parts.get(id)?.part ?? 'other';
    return part === 'other' ? 'practice' : part;
  };
}
