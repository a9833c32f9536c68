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

/**
 * Cuts the assembly into pieces at segment borders and every `PIECE_FRAMES`; those of their parts
 * that are kept already, or are in an earlier piece, are left out.
 */
export function piecesOf(
  cut: Assembly,
  media: MediaByTake,
  settings: RenderSettings = STANDARD,
  isKept: (part: PiecePart) => boolean = () => false,
): Piece[] {
  const assembly = inShape(cut, settings);
  return assembly.segments.flatMap((segment) => {
    const end = firstFrameFrom(segment.endMs);
    const most = partFrames(segment);
    const pieces: Piece[] = [];
    let parts: PiecePart[] = [];
    let frames = 0;
    const close = (at: number) => {
      if (frames > 0) pieces.push(pieceOf(assembly, segment, at - frames, parts, media, settings));
      [parts, frames] = [[], 0];
    };
    for (let at = firstFrameFrom(segment.startMs); at < end; at += most) {
      const length = Math.min(most, end - at);
      const part = partAt(assembly, segment, at, length, media, settings);
      const isThere = isKept(part);
      if (isThere || frames + length > PIECE_FRAMES) close(at);
      if (isThere) continue;
      parts.push(part);
      frames += length;
    }
    close(end);
    return pieces;
  });
}

/** A single frame of the video as a piece; null behind its end. */
export function pieceOfFrame(
  cut: Assembly,
  media: MediaByTake,
  frame: number,
  settings: RenderSettings,
): Piece | null {
  const assembly = inShape(cut, settings);
  const segment = assembly.segments.find(
    ({ startMs, endMs }) => firstFrameFrom(startMs) <= frame && frame < firstFrameFrom(endMs),
  );
  if (!segment) return null;
  const part = partAt(assembly, segment, frame, 1, media, settings);
  return pieceOf(assembly, segment, frame, [part], media, settings);
}

/** What is seen in a stretch of a segment. */
function seenIn(
  assembly: Assembly,
  segment: Segment,
  startFrame: number,
  frames: number,
  media: MediaByTake,
  settings: RenderSettings,
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

function partAt(
  assembly: Assembly,
  segment: Segment,
  startFrame: number,
  frames: number,
  media: MediaByTake,
  settings: RenderSettings,
): PiecePart {
  const seen = seenIn(assembly, segment, startFrame, frames, media, settings);
  return { hash: hashOf([LOOK, REFERENCE, settings, seen]), frames };
}

function pieceOf(
  assembly: Assembly,
  segment: Segment,
  startFrame: number,
  parts: PiecePart[],
  media: MediaByTake,
  settings: RenderSettings,
): Piece {
  const frames = parts.reduce((sum, part) => sum + part.frames, 0);
  return {
    hash: hashOf(parts.map(({ hash }) => hash)),
    parts,
    startFrame,
    ...seenIn(assembly, segment, startFrame, frames, media, settings),
    sound: soundOf(segment, startFrame, media),
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
