import {
  allKit,
  blocksOf,
  exercisesOf,
  type Block,
  type Lesson,
  type Shot,
} from '../lesson/index.ts';
import { timeBlock } from '../schedule/index.ts';
import { usualAngle } from './body-room.ts';

/** A shot to be filmed, with what deciding about it needs. */
export interface ShotToFilm {
  /** Unique in the lesson. */
  id: string;
  block: Block;
  shot: Shot;
  /** Kit that has to lie ready, by name. */
  kit: readonly string[];
  /** Length of one take from the block's first moment to its last. */
  durationMs: number;
}

/** What has footage of its own by computing, and is not filmed. */
const isDrawn = (block: Block) => block.kind === 'card';

/**
 * The block's shots: as planned, else one as the performer faces; the whole body where something
 * moves.
 */
export function shotsOf(block: Block): Shot[] {
  if (isDrawn(block)) return [];
  if (block.shots.length > 0) return block.shots;
  const moves = exercisesOf(block).length > 0 || block.kind === 'called';
  return [
    {
      id: 'usual',
      angle: usualAngle(block),
      framing: moves ? 'whole body' : 'waist up',
      place: '',
      performers: 1,
      fresh: false,
      note: '',
    },
  ];
}

export const shotId = (blockId: string, shot: string) => `${blockId}.${shot}`;

/** Every shot of the lesson, in the lesson's order. */
export function shotsToFilm(lesson: Lesson): ShotToFilm[] {
  return blocksOf(lesson).flatMap((block) => {
    const shots = shotsOf(block);
    if (shots.length === 0) return [];
    const durationMs =
      timeBlock(block, lesson).spans.findLast(({ kind }) => kind !== 'pause-sign')?.endMs ?? 0;
    const kit = [
      ...new Set(
        allKit(block)
          .map(({ name }) => name.trim().toLowerCase())
          .filter((name) => name !== ''),
      ),
    ].sort();
    return shots.map((shot) => ({ id: shotId(block.id, shot.id), block, shot, kit, durationMs }));
  });
}
