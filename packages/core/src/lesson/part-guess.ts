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

/** What a block that is exercised is taken for, by its kind, its place and its effort. */
function exercisedPart(
  block: Block,
  before: readonly Block[],
  after: readonly Block[],
): LessonPart {
  if (block.kind === 'game' || block.kind === 'called') return 'game';
  const isHarder = ({ effort }: Block) => effort > block.effort;
  if (block.effort <= EASY) {
    if (after.length === 0 && before.some(isHarder)) return 'cool-down';
    if (before.length === 0 && after.some(isHarder)) return 'warm-up';
  }
  return isTaught(block) ? 'skill' : 'practice';
}

function guessed(blocks: readonly Block[], at: number): LessonPart {
  const block = blocks[at];
  if (!block || block.kind === 'question') return 'other';
  if (block.kind === 'card')
    return block.about === 'kit' || block.about === 'space' ? block.about : 'other';
  const before = blocks.slice(0, at).filter(isExercised);
  const after = blocks.slice(at + 1).filter(isExercised);
  if (block.kind !== 'talk') return exercisedPart(block, before, after);
  if (at === 0) return 'greeting';
  return at === blocks.length - 1 && before.length > 0 ? 'sign-off' : 'other';
}

/**
 * The part each block of a lesson is, by its id. What nobody says is guessed from the block's kind,
 * place and effort (common practice: easy work first warms up, easy work last cools down).
 */
export function partsOf(lesson: Pick<Lesson, 'sections'>): ReadonlyMap<string, PartOf> {
  const blocks = blocksOf(lesson as Lesson);
  return new Map(
    blocks.map((block, at) => {
      const isGuess = block.part === 'other';
      return [block.id, { part: isGuess ? guessed(blocks, at) : block.part, isGuess }];
    }),
  );
}

/** The part each block of a lesson grows with: one that is neither said nor guessed is practice. */
export function grownParts(lesson: Pick<Lesson, 'sections'>): (block: Block) => LessonPart {
  const parts = partsOf(lesson);
  return ({ id }) => {
    const part = parts.get(id)?.part ?? 'other';
    return part === 'other' ? 'practice' : part;
  };
}
