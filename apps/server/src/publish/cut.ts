import { clipOfBlock, firstCut, type Assembly, type TakeFacts } from '@zest/core/assembly';
import type { Lesson } from '@zest/core/lesson';
import type { TakeRow } from '../db/models.ts';
import { markedOf } from '../db/takes.ts';
import { refuse } from '../errors.ts';
import type { TakeMedia } from './pieces.ts';

const readyOf = (takes: readonly TakeRow[]) => takes.filter((take) => take.workingSha !== null && take.binnedAt === null);

/** What a cut must know of the takes that are ready, by id. */
export function factsOf(takes: readonly TakeRow[]): Map<string, TakeFacts> {
  return new Map(readyOf(takes).map((take) => [take.id, { id: take.id, frames: take.frames, marked: markedOf(take) }]));
}

/** The working copies of a lesson's takes that are ready, and the lesson's first cut from them. */
export function cutWith(lesson: Lesson, takes: readonly TakeRow[]): { assembly: Assembly; media: Map<string, TakeMedia> } {
  const media = new Map(readyOf(takes).map((take) => [take.id, { sha: take.workingSha ?? '', hasSound: take.hasSound }]));
  return { assembly: firstCut(lesson, factsOf(takes)), media };
}

/**
 * The cut of a whole lesson, or of one block of it.
 * @throws Refusal 422 when the block is not in it
 */
export function cutFor(lesson: Lesson, takes: readonly TakeRow[], blockId: string | null): ReturnType<typeof cutWith> {
  const { assembly, media } = cutWith(lesson, takes);
  if (blockId === null) return { assembly, media };
  const clip = clipOfBlock(assembly, blockId);
  if (!clip) throw refuse(422, 'no-block', 'The block to make a clip of is not in the lesson any more. Choose another one.');
  return { assembly: clip, media };
}
