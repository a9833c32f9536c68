import { firstCut, type Assembly } from '@zest/core/assembly';
import type { Lesson } from '@zest/core/lesson';
import type { TakeRow } from '../db/models.ts';
import { markedOf } from '../db/takes.ts';
import type { TakeMedia } from './pieces.ts';

/** The working copies of a lesson's takes that are ready, and the lesson's first cut from them. */
export function cutWith(lesson: Lesson, takes: readonly TakeRow[]): { assembly: Assembly; media: Map<string, TakeMedia> } {
  const ready = takes.filter((take) => take.workingSha !== null && take.binnedAt === null);
  const facts = new Map(ready.map((take) => [take.id, { id: take.id, frames: take.frames, marked: markedOf(take) }]));
  const media = new Map(ready.map((take) => [take.id, { sha: take.workingSha ?? '', hasSound: take.hasSound }]));
  return { assembly: firstCut(lesson, facts), media };
}
