import type { Assembly } from '../assembly/index.ts';
import { CAPTION_PLACES, FRAMES, PICTURE_BOXES, sceneAt, type Box } from '../overlay/index.ts';
import { intersect, type TimeSpan } from '../time/index.ts';
import type { Finding } from './finding.ts';
import type { SeenAt } from './seen-at.ts';

/** Into a block so far, its first words and clock are up. */
const INTO_MS = 1_500;

const lanesOf = ({ lanes, captions }: Assembly, at: SeenAt): readonly TimeSpan[] =>
  at === 'picture' ? [] : at === 'caption' ? captions : lanes[at];

/** The moment of a block at which something there is first on screen. */
function firstSeen(cut: Assembly, block: TimeSpan, seenAt: readonly SeenAt[]): number | null {
  const shown = intersect(
    [block],
    seenAt.flatMap((at) => lanesOf(cut, at)),
  );
  return shown.length > 0 ? Math.min(...shown.map(({ startMs }) => startMs)) : null;
}

/**
 * The moment of the video at which a finding is seen, in milliseconds, and what of the frame shows
 * it, in layout units. Also of a cut in which it has been put right.
 */
export function whereSeen(
  { blockId, atMs, seenAt }: Pick<Finding, 'blockId' | 'atMs' | 'seenAt'>,
  cut: Assembly,
): { atMs: number; boxes: Box[] } {
  const block = cut.blocks.find((placed) => placed.blockId === blockId) ?? cut.blocks[0];
  const ms =
    atMs ??
    (block
      ? (firstSeen(cut, block, seenAt) ??
        block.startMs + Math.min(INTO_MS, (block.endMs - block.startMs) / 2))
      : 0);
  const items = sceneAt(cut, ms).items;
  const frame = { x: 0, y: 0, ...FRAMES[cut.shape] };
  const boxes = seenAt.flatMap((at): Box[] => {
    if (at === 'picture') return [PICTURE_BOXES[cut.shape]];
    if (at === 'caption') return [CAPTION_PLACES[cut.shape]];
    if (at === 'pointer') return [frame];
    return items.filter(({ slot }) => slot === at).map(({ box }) => box);
  });
  return { atMs: ms, boxes };
}
