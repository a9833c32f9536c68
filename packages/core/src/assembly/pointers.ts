import type { EditOf } from '../lesson/index.ts';
import { onWideFrame, placeOfJoint } from '../signal/index.ts';
import { onScreen, type Footing, type Pictures } from './pictures.ts';
import type { PointerOverlay, TakeFacts } from './types.ts';

/** A joint that is lost for longer than this is not pointed at. */
const LOST_MS = 600;
/** The arrow moves in steps of at least this, in thousandths of the picture: less would only tremble. */
const STEP = 6;

/** An arrow at a joint, look by look where the joint is seen, in the block's own time; none when nobody has looked at the take. */
export function pointersAt({ fromMs, toMs, joint, text }: EditOf<'point'>, { startMs, rate }: Footing, { watched }: TakeFacts, pictures: Pictures): PointerOverlay[] {
  if (!watched) return [];
  const { everyMs, poses, aspect } = watched;
  const found: PointerOverlay[] = [];
  let seenAt = -Infinity;
  for (let ms = fromMs; ms < toMs; ms += everyMs) {
    const untilMs = Math.min(toMs, ms + everyMs);
    const pose = poses[Math.round((startMs + ms * rate) / everyMs)];
    const place = pose ? placeOfJoint(onWideFrame(pose, aspect), joint) : null;
    const last = found.at(-1);
    if (place) {
      seenAt = ms;
      const at = onScreen(pictures.lookAt(ms), { x: Math.round(place.x * 1_000), y: Math.round(place.y * 1_000) });
      if (last?.endMs === ms && Math.hypot(at.x - last.x, at.y - last.y) < STEP) last.endMs = untilMs;
      else if (at.x >= 0 && at.x <= 1_000 && at.y >= 0 && at.y <= 1_000) found.push({ slot: 'pointer', startMs: ms, endMs: untilMs, text, ...at });
    } else if (last?.endMs === ms && ms - seenAt < LOST_MS) last.endMs = untilMs;
  }
  return found;
}
