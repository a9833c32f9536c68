import { byStart, spanLength } from '../time/index.ts';
import type { Say } from '../words/index.ts';
import { toVideo, type BlockTimeMap } from './block-time-map.ts';
import { onScreen, type Pictures } from './pictures.ts';
import { roomySide } from './pointers.ts';
import { slots, type Caption, type CueOverlay, type Overlay, type OverlayLanes } from './types.ts';

/** Scraps of text shorter than this cannot be read and are left away. */
const SCRAP_MS = 400;

/** An overlay or caption of the block's own time where it comes to lie in the video. */
export function laid<T extends Overlay | Caption>(item: T, timeMap: BlockTimeMap): T[] {
  const pieces = toVideo(timeMap, item);
  return pieces
    .filter((piece) => 'elapsedMs' in item || pieces.length === 1 || spanLength(piece) >= SCRAP_MS)
    .map(({ startMs, endMs, elapsedMs }) => ({
      ...item,
      startMs,
      endMs,
      ...('elapsedMs' in item && { elapsedMs: item.elapsedMs + elapsedMs }),
    }));
}

export function placeLanes(to: OverlayLanes, lanes: OverlayLanes, timeMap: BlockTimeMap): void {
  for (const slot of slots)
    (to[slot] as Overlay[]).push(
      ...lanes[slot].flatMap((overlay) => laid<Overlay>(overlay, timeMap)).sort(byStart),
    );
}

const speedWords = (speed: number, say: Say) =>
  speed === 100
    ? say('again.once')
    : speed === 50
      ? say('again.half')
      : speed === 25
        ? say('again.quarter')
        : say('again.at', { speed });

/**
 * What is said over something put in: that it is shown again, and what a still picture points at.
 */
export function placeExtras(
  lanes: OverlayLanes,
  { startMs: blockStartMs, runs }: BlockTimeMap,
  pictures: Pictures,
  say: Say,
): void {
  for (const run of runs) {
    if (run.kind !== 'extra') continue;
    const startMs = blockStartMs + run.atMs;
    const span = { startMs, endMs: startMs + run.lengthMs };
    const { edit } = run;
    const cue = (text: string, moment: CueOverlay['moment']) =>
      lanes.cue.push({ slot: 'cue', ...span, text, moment, pair: null });
    if (edit.kind === 'again') cue(speedWords(edit.speed, say), 'again');
    if (edit.kind !== 'freeze') continue;
    const at = edit.point && onScreen(pictures.lookAt(edit.atMs), edit.point);
    if (at)
      lanes.pointer.push({
        slot: 'pointer',
        ...span,
        text: edit.text,
        ...at,
        words: roomySide(at),
      });
    else if (edit.text !== '') cue(edit.text, 'throughout');
  }
  lanes.cue.sort(byStart);
  lanes.pointer.sort(byStart);
}
