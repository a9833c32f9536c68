import {
  closerRegion,
  slots,
  takeFrameAt,
  type Assembly,
  type BesideLayout,
  type CardText,
  type Look,
  type Region,
  type Segment,
  type Source,
  type TakeSource,
} from '@zest/core/assembly';
import { REFERENCE, type Box } from '@zest/core/overlay';
import type { Finish } from '@zest/core/lesson';
import { firstFrameFrom } from '@zest/core/time';
import { textToSay } from '@zest/core/words';
import type { TakeMedia } from '../cut/cut.ts';
import { shapeOf } from './frame-size.ts';
import { hashOf } from '../media/store.ts';
import { slotChanges, type Burned, type SlotChange } from './paint.ts';

/** Longest piece rendered in one go: what a killed server loses at most. */
const PIECE_FRAMES = 600;
/** Longest part kept by itself: what a small change costs. Each begins with a key frame. */
export const PART_FRAMES = 60;
/** Raised when the painter or the filters change what a piece looks like. */
const LOOK = 7;

/** A lowered sound is this much softer, in dB. */
export const LOW_DB = -12;

/**
 * Frames of a working copy: from `inFrame`, at most `available` of them, `speed` for each frame
 * shown.
 */
export interface Shot {
  sha: string;
  inFrame: number;
  available: number;
  speed: number;
}

/**
 * How a shot is shown; a closer view goes from one region of the frame to another of the same size.
 */
export type ShotLook = Omit<Look, 'closer'> & { closer: { from: Region; to: Region } | null };

export type PiecePicture =
  | {
      kind: 'take';
      shot: Shot;
      look: ShotLook;
      beside: { shot: Shot; layout: BesideLayout } | null;
    }
  | { kind: 'card'; card: CardText };

/** A part of a piece, kept by itself under the hash of everything that is seen in it. */
export interface PiecePart {
  hash: string;
  frames: number;
}

/** A stretch of the video rendered in one go. */
export interface Piece {
  /** That of its parts together. */
  hash: string;
  parts: PiecePart[];
  startFrame: number;
  frames: number;
  picture: PiecePicture;
  /** What it replaces slowly. */
  under: PiecePicture | null;
  /** What each slot shows, and where it stands. */
  overlays: { box: Box; changes: SlotChange[] }[];
  look: Finish['look'];
  sound: { shot: Shot; low: boolean } | null;
}

type MediaByTake = ReadonlyMap<string, TakeMedia>;

/** What a video is rendered as. */
export interface RenderSettings {
  /** Pixels of the frame, 16:9 or 9:16, both even. */
  width: number;
  height: number;
  format: 'mp4' | 'webm' | 'gif';
  /** Whether clocks, counts and cues are burned in. */
  overlays: boolean;
  /** Whether captions are. */
  captions: boolean;
}

/** What is rendered for an export: a GIF is made from the finished video. */
export const videoFormat = ({ format }: Pick<RenderSettings, 'format'>): 'mp4' | 'webm' =>
  format === 'gif' ? 'mp4' : format;

export const STANDARD: RenderSettings = {
  ...REFERENCE,
  format: 'mp4',
  overlays: true,
  captions: false,
};

/** The assembly in the shape of what is rendered; the same one where it has that shape. */
function inShape(assembly: Assembly, settings: RenderSettings): Assembly {
  const shape = shapeOf(settings);
  return assembly.shape === shape ? assembly : { ...assembly, shape };
}

/** What comes up over another picture does so over the whole of its piece, which stays whole. */
const partFrames = ({ under }: Segment) => (under ? PIECE_FRAMES : PART_FRAMES);

/** What is cut into pieces, from which media and for what. */
interface Cutting {
  assembly: Assembly;
  media: MediaByTake;
  settings: RenderSettings;
}

const cuttingOf = (cut: Assembly, media: MediaByTake, settings: RenderSettings): Cutting => ({
  assembly: inShape(cut, settings),
  media,
  settings,
});

const segmentAt = ({ segments }: Assembly, frame: number) =>
  segments.find(
    ({ startMs, endMs }) => firstFrameFrom(startMs) <= frame && frame < firstFrameFrom(endMs),
  );

/** Cuts the assembly into pieces at segment borders and every `PIECE_FRAMES`. */
export function piecesOf(
  cut: Assembly,
  media: MediaByTake,
  settings: RenderSettings = STANDARD,
): Piece[] {
  const cutting = cuttingOf(cut, media, settings);
  return cutting.assembly.segments.flatMap((segment) => {
    const end = firstFrameFrom(segment.endMs);
    const pieces: Piece[] = [];
    for (let at = firstFrameFrom(segment.startMs); at < end; at += PIECE_FRAMES)
      pieces.push(
        pieceOf(
          cutting,
          segment,
          at,
          partsOf(cutting, segment, at, Math.min(PIECE_FRAMES, end - at)),
        ),
      );
    return pieces;
  });
}

/** Of these pieces of a cut what is not kept yet; parts of a piece that follow each other in one go. */
export function missingOf(
  pieces: readonly Piece[],
  cut: Assembly,
  media: MediaByTake,
  settings: RenderSettings,
  isKept: (part: PiecePart) => boolean,
): Piece[] {
  const cutting = cuttingOf(cut, media, settings);
  return pieces.flatMap((piece) => {
    const segment = segmentAt(cutting.assembly, piece.startFrame);
    const runs: { startFrame: number; parts: PiecePart[] }[] = [];
    let at = piece.startFrame;
    let isOpen = false;
    for (const part of piece.parts) {
      const isThere = isKept(part);
      if (!isThere && !isOpen) runs.push({ startFrame: at, parts: [] });
      if (!isThere) runs.at(-1)?.parts.push(part);
      isOpen = !isThere;
      at += part.frames;
    }
    if (runs[0]?.parts.length === piece.parts.length) return [piece];
    if (!segment) throw new Error('The pieces are of another cut.');
    return runs.map(({ startFrame, parts }) => pieceOf(cutting, segment, startFrame, parts));
  });
}

/** A single frame of the video as a piece; null behind its end. */
export function pieceOfFrame(
  cut: Assembly,
  media: MediaByTake,
  frame: number,
  settings: RenderSettings,
): Piece | null {
  const cutting = cuttingOf(cut, media, settings);
  const segment = segmentAt(cutting.assembly, frame);
  return segment ? pieceOf(cutting, segment, frame, partsOf(cutting, segment, frame, 1)) : null;
}

/** What is seen in a stretch of a segment. */
function seenIn(
  { assembly, media, settings }: Cutting,
  segment: Segment,
  startFrame: number,
  frames: number,
): Pick<Piece, 'frames' | 'picture' | 'under' | 'overlays' | 'look'> {
  const first = firstFrameFrom(segment.startMs);
  const end = firstFrameFrom(segment.endMs);
  const burned: Burned[] = [
    ...(settings.overlays ? slots : []),
    ...(settings.captions ? (['caption'] as const) : []),
  ];
  const overlays = burned.flatMap((slot) => {
    const changes = slotChanges(assembly, slot, startFrame, startFrame + frames);
    const box = changes.find(({ item }) => item)?.item?.box;
    return box ? [{ box, changes }] : [];
  });
  const parts = {
    from: (startFrame - first) / (end - first),
    to: (startFrame + frames - first) / (end - first),
  };
  const { source, look, under, beside } = segment;
  return {
    frames,
    picture: pictureOf(segment, source, look, startFrame, parts, media, beside),
    under:
      under &&
      pictureOf(segment, under.source, under.look, startFrame, { from: 0, to: 0 }, media, null),
    overlays,
    look: assembly.look,
  };
}

function partsOf(
  cutting: Cutting,
  segment: Segment,
  startFrame: number,
  frames: number,
): PiecePart[] {
  const most = partFrames(segment);
  return Array.from({ length: Math.ceil(frames / most) }, (_, i) => {
    const seen = seenIn(cutting, segment, startFrame + i * most, Math.min(most, frames - i * most));
    return { hash: hashOf([LOOK, REFERENCE, cutting.settings, seen]), frames: seen.frames };
  });
}

function pieceOf(
  cutting: Cutting,
  segment: Segment,
  startFrame: number,
  parts: PiecePart[],
): Piece {
  const frames = parts.reduce((sum, part) => sum + part.frames, 0);
  return {
    hash: hashOf(parts.map(({ hash }) => hash)),
    parts,
    startFrame,
    ...seenIn(cutting, segment, startFrame, frames),
    sound: soundOf(segment, startFrame, cutting.media),
  };
}

function mediaOf(takeId: string, media: MediaByTake): TakeMedia {
  const take = media.get(takeId);
  if (!take) throw new Error(textToSay('server.copy-missing', { take: takeId }));
  return take;
}

function shotOf(segment: Segment, source: TakeSource, frame: number, media: MediaByTake): Shot {
  const inFrame = takeFrameAt(segment, source, frame);
  return {
    sha: mediaOf(source.takeId, media).sha,
    inFrame,
    available: source.takeFrames - inFrame,
    speed: source.speed,
  };
}

function pictureOf(
  segment: Segment,
  source: Source,
  look: Look,
  frame: number,
  parts: { from: number; to: number },
  media: MediaByTake,
  beside: Segment['beside'],
): PiecePicture {
  if (source.kind === 'card') return source;
  return {
    kind: 'take',
    shot: shotOf(segment, source, frame, media),
    look: {
      ...look,
      closer: look.closer && {
        from: closerRegion(look.closer, parts.from),
        to: closerRegion(look.closer, parts.to),
      },
    },
    beside: beside && { shot: shotOf(segment, beside.source, frame, media), layout: beside.layout },
  };
}

function soundOf(segment: Segment, frame: number, media: MediaByTake): Piece['sound'] {
  if (!segment.sound || !mediaOf(segment.sound.source.takeId, media).hasSound) return null;
  return { shot: shotOf(segment, segment.sound.source, frame, media), low: segment.sound.low };
}
