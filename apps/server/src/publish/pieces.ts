import { takeFrameAt, slots, type Assembly, type Segment, type Slot } from '@zest/core/assembly';
import { COLOURS, REFERENCE, SLOT_BOXES } from '@zest/core/overlay';
import { firstFrameFrom } from '@zest/core/time';
import { hashOf } from '../media/store.ts';
import { slotChanges, type SlotChange } from './paint.ts';

/** Longest piece rendered in one go: what a killed server loses at most, and what a small change costs. */
const PIECE_FRAMES = 600;
/** Raised when the painter or the filters change what a piece looks like. */
const LOOK = 1;

/** A stretch of the video rendered by itself and kept under the hash of everything that is in it. */
export interface Piece {
  hash: string;
  startFrame: number;
  frames: number;
  source: { kind: 'take'; sha: string; inFrame: number; hasSound: boolean; mirrored: boolean } | (Segment['source'] & { kind: 'card' });
  overlays: { slot: Slot; changes: SlotChange[] }[];
}

/** What rendering must know of a take: the content hash of its working copy and whether it has sound. */
export interface TakeMedia {
  sha: string;
  hasSound: boolean;
}

/** Cuts the assembly into pieces at segment borders and every `PIECE_FRAMES`. */
export function piecesOf(assembly: Assembly, media: ReadonlyMap<string, TakeMedia>): Piece[] {
  return assembly.segments.flatMap((segment) => {
    const first = firstFrameFrom(segment.startMs);
    const end = firstFrameFrom(segment.endMs);
    const pieces: Piece[] = [];
    for (let startFrame = first; startFrame < end; startFrame += PIECE_FRAMES) {
      const frames = Math.min(PIECE_FRAMES, end - startFrame);
      const overlays = slots.flatMap((slot) => {
        const changes = slotChanges(assembly, slot, startFrame, startFrame + frames);
        return changes.length > 0 ? [{ slot, changes }] : [];
      });
      const content = { frames, source: sourceOf(segment, startFrame, assembly.mirrored, media), overlays };
      pieces.push({ hash: hashOf([LOOK, COLOURS, SLOT_BOXES, REFERENCE, content]), startFrame, ...content });
    }
    return pieces;
  });
}

function sourceOf(segment: Segment, frame: number, mirrored: boolean, media: ReadonlyMap<string, TakeMedia>): Piece['source'] {
  const { source } = segment;
  if (source.kind === 'card') return source;
  const take = media.get(source.takeId);
  if (!take) throw new Error(`The working copy of take ${source.takeId} is missing.`);
  return { kind: 'take', ...take, inFrame: takeFrameAt(segment, source, frame), mirrored };
}
