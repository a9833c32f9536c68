import type { EditOf, Side } from '../lesson/index.ts';
import { median, onWideFrame, placeOfJoint } from '../signal/index.ts';
import { onScreen, type Pictures } from './pictures.ts';
import type { TakeAlignment } from './take-alignment.ts';
import type { PointerOverlay, TakeFacts } from './types.ts';

/** A joint that is lost for longer than this is not pointed at. */
const LOST_MS = 600;
/**
 * The arrow moves in steps of at least this, in thousandths of the picture: less would only
 * tremble.
 */
const STEP = 6;
/** Arrow and words need this much beside the place, in thousandths of the picture's width. */
const ROOM = 310;

/** The side of a place with more room for words. */
export const roomySide = ({ x }: { x: number }): Side => (x < 500 ? 'right' : 'left');

/**
 * One side for the whole stretch: away from the middle, where the body is, if there is room all the
 * time.
 */
function wordsSide(places: readonly { x: number }[]): Side {
  const xs = places.map(({ x }) => x);
  const usual = median(xs);
  if (usual >= 500 && Math.max(...xs) <= 1_000 - ROOM) return 'right';
  if (usual < 500 && Math.min(...xs) >= ROOM) return 'left';
  return roomySide({ x: usual });
}

/**
 * An arrow at a joint, look by look where the joint is seen, in the block's own time; none when
 * nobody has looked at the take.
 */
export function pointersAt(
  { fromMs, toMs, joint, text }: EditOf<'point'>,
  alignment: TakeAlignment,
  { watched }: TakeFacts,
  pictures: Pictures,
): PointerOverlay[] {
  if (!watched) return [];
  const { everyMs, poses, aspect } = watched;
  const found: PointerOverlay[] = [];
  let seenAt = -Infinity;
  for (let ms = fromMs; ms < toMs; ms += everyMs) {
    const untilMs = Math.min(toMs, ms + everyMs);
    const pose = poses[Math.round(alignment.toTake(ms) / everyMs)];
    const place = pose ? placeOfJoint(onWideFrame(pose, aspect), joint) : null;
    const last = found.at(-1);
    if (place) {
      seenAt = ms;
      const at = onScreen(pictures.lookAt(ms), {
        x: Math.round(place.x * 1_000),
        y: Math.round(place.y * 1_000),
      });
      if (last?.endMs === ms && Math.hypot(at.x - last.x, at.y - last.y) < STEP)
        last.endMs = untilMs;
      else if (at.x >= 0 && at.x <= 1_000 && at.y >= 0 && at.y <= 1_000)
        found.push({ slot: 'pointer', startMs: ms, endMs: untilMs, text, ...at, words: 'right' });
    } else if (last?.endMs === ms && ms - seenAt < LOST_MS) last.endMs = untilMs;
  }
  const words = wordsSide(found);
  return found.map((overlay) => ({ ...overlay, words }));
}
