import { blocksOf, type BlockKind, type Lesson, type Movement } from '../lesson/index.ts';
import type { Schedule } from '../schedule/index.ts';

/** What a lesson looks like on a card: what is done most in it, and its blocks to scale. */
export interface Portrait {
  /** The first footage there is; null: nothing is filmed yet. */
  takeId: string | null;
  /** What the performer does longest. */
  movement: Movement;
  strip: { kind: BlockKind; effort: number; ms: number }[];
}

export function portraitOf(lesson: Lesson, { blocks }: Schedule): Portrait {
  const longest = new Map<Movement, number>();
  for (const { spans } of blocks)
    for (const { movement, startMs, endMs } of spans)
      if (movement !== undefined && movement !== 'other')
        longest.set(movement, (longest.get(movement) ?? 0) + endMs - startMs);
  const [most] = [...longest].sort(([, a], [, b]) => b - a);
  return {
    takeId: blocksOf(lesson).find(({ footage }) => footage)?.footage?.takeId ?? null,
    movement: most?.[0] ?? 'other',
    strip: blocks.map(({ block: { kind, effort }, durationMs }) => ({
      kind,
      effort,
      ms: durationMs,
    })),
  };
}
