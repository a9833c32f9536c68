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

/**
 * Longest piece rendered in one go: what a killed server loses at most, and what a small change
 * costs.
 */
const PIECE_FRAMES = 600;
/** Raised when the painter or the filters change what a piece looks like. */
const LOOK = 6;

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

/**
 * A stretch of the video rendered by itself and kept under the hash of everything that is seen in
 * it.
 */
export interface Piece {
  hash: string;
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

/** Cuts the assembly into pieces at segment borders and every `PIECE_FRAMES`. */
export function piecesOf(
  cut: Assembly,
  media: MediaByTake,
  settings: RenderSettings = STANDARD,
): Piece[] {
  const assembly = inShape(cut, settings);
  return assembly.segments.flatMap((segment) => {
    const first = firstFrameFrom(segment.startMs);
    const end = firstFrameFrom(segment.endMs);
    const pieces: Piece[] = [];
    for (let startFrame = first; startFrame < end; startFrame += PIECE_FRAMES)
      pieces.push(
        pieceOf(
          assembly,
          segment,
          startFrame,
          Math.min(PIECE_FRAMES, end - startFrame),
          media,
          settings,
        ),
      );
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
  return segment ? pieceOf(assembly, segment, frame, 1, media, settings) : null;
}

function pieceOf(
  assembly: Assembly,
  segment: Segment,
  startFrame: number,
  frames: number,
  media: MediaByTake,
  settings: RenderSettings,
): Piece {
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
  const seen = {
    frames,
    picture: pictureOf(
      segment,
      segment.source,
      segment.look,
      startFrame,
      parts,
      media,
      segment.beside,
    ),
    under:
      segment.under &&
      pictureOf(
        segment,
        segment.under.source,
        segment.under.look,
        startFrame,
        { from: 0, to: 0 },
        media,
        null,
      ),
    overlays,
    look: assembly.look,
  };
  return {
    hash: hashOf([LOOK, REFERENCE, settings, seen]),
    startFrame,
    ...seen,
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
