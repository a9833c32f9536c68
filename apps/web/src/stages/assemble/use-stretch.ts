import type { Assembly } from '@zest/core/assembly';
import { indexAt } from '@zest/core/overlay';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { useChosenBlock } from '../../app/use-lesson.ts';
import type { LessonPlayer } from '../../player/player.ts';
import { useLatest } from '../../ui/use-latest.ts';
import type { PlayClock } from './play-clock.ts';
import type { LaneId } from './lanes/lane-items.ts';
import { inBlock, type Stretch } from './stretch.ts';

/** The stretch chosen in the lanes; its block is chosen with it. */
export function useStretch(
  assembly: Assembly,
  clock: PlayClock,
  player: RefObject<LessonPlayer | null>,
) {
  const { block, choose } = useChosenBlock();
  const [stretch, setStretch] = useState<Stretch | null>(null);
  const [lane, setLane] = useState<LaneId | null>(null);
  const startOfBlock = assembly.blocks.find(({ blockId }) => blockId === block?.id)?.startMs;

  // A block chosen on the ribbon takes the picture there.
  const stays = useRef(false);
  useEffect(() => {
    if (startOfBlock !== undefined && !stays.current) player.current?.seek(startOfBlock);
    stays.current = false;
  }, [player, startOfBlock]);

  const onStretch = useLatest((next: Stretch | null, of: LaneId | null = null) => {
    setStretch(next);
    setLane(of);
    const inside = next && inBlock(assembly, next);
    if (!inside || inside.blockId === block?.id) return;
    stays.current = true;
    choose(inside.blockId);
  });
  const inside = stretch && inBlock(assembly, stretch);
  return {
    stretch,
    setStretch,
    onStretch,
    /** The lane it was taken from; null where it was drawn. */
    lane,
    /** The stretch in its block's own time; null where it is of several blocks. */
    inside,
    /** The same, where it is of the chosen block. */
    ofBlock: inside && inside.blockId === block?.id ? inside : null,
    mark: (end: 'from' | 'to') => {
      const { ms } = clock;
      const around = assembly.blocks[indexAt(assembly.blocks, ms)];
      if (!around) return;
      onStretch(
        end === 'from'
          ? { startMs: ms, endMs: stretch && stretch.endMs > ms ? stretch.endMs : around.endMs }
          : {
              startMs: stretch && stretch.startMs < ms ? stretch.startMs : around.startMs,
              endMs: ms,
            },
      );
    },
  };
}
