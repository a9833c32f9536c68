import type { Cue, Side } from '../lesson/index.ts';
import type { TimeSpan } from '../time/index.ts';

/** What assembly must know of a take: the length of its working copy in frames at the output rate. */
export interface TakeFacts {
  id: string;
  frames: number;
  /** Where its sync marks say the block starts and ends, in milliseconds of the working copy; null without marks. */
  marked: { startMs: number; endMs: number | null } | null;
}

/** Text of a full-frame card, shown where there is no footage and at pauses. */
export interface CardText {
  heading: string;
  lines: string[];
}

/** Where a segment's picture comes from. */
export type Source =
  /** Frames of a working copy from `inFrame`; when they run out the last one is held. */
  | { kind: 'take'; takeId: string; inFrame: number; takeFrames: number }
  | { kind: 'card'; card: CardText };

/** A stretch of the output with one source; its frames are those of its span. */
export interface Segment extends TimeSpan {
  blockId: string;
  source: Source;
}

export type ClockPhase = 'lead-in' | 'work' | 'rest' | 'change' | 'hold' | 'watch' | 'think' | 'score';

/** A clock over its span, with what it counts and what comes next. */
export interface ClockOverlay extends TimeSpan {
  slot: 'clock';
  phase: ClockPhase;
  title: string;
  next: string;
  /** "2 of 4", the round or set; empty when there is only one. */
  round: string;
  /** Counts up instead of down. */
  up: boolean;
  /** Slow breaths to follow meanwhile. */
  breaths: { inMs: number; outMs: number } | null;
}

/** The number of one repetition, hold, lap or call, shown while it lasts. */
export interface CounterOverlay extends TimeSpan {
  slot: 'counter';
  rep: number;
  reps: number;
  side: Side | null;
  /** The line below, such as "Set 2 of 3" or "3 tokens left"; empty when there is none. */
  note: string;
  /** Counts this many equal beats instead of showing `rep`. */
  beats: number | null;
}

/** A cue's moment, or what stands in a cue's place. */
export type CueMoment = Cue['moment'] | 'command' | 'question';

export interface CueOverlay extends TimeSpan {
  slot: 'cue';
  text: string;
  moment: CueMoment;
}

export interface CautionOverlay extends TimeSpan {
  slot: 'caution';
  text: string;
}

export type Overlay = ClockOverlay | CounterOverlay | CueOverlay | CautionOverlay;
export type Slot = Overlay['slot'];
export const slots = ['clock', 'counter', 'cue', 'caution'] as const satisfies readonly Slot[];

/** Overlays by slot, each list sorted by start and without overlap. */
export interface OverlayLanes {
  clock: ClockOverlay[];
  counter: CounterOverlay[];
  cue: CueOverlay[];
  caution: CautionOverlay[];
}

export interface Caption extends TimeSpan {
  /** One or two lines. */
  lines: string[];
}

/** A sign to stop the video: shown over its span, then the student practises `practiceMs`. */
export interface PauseMark extends TimeSpan {
  blockId: string;
  practiceMs: number;
  prompt: string;
}

export interface Chapter extends TimeSpan {
  title: string;
}

/** Where each block came to lie in the finished video. */
export interface PlacedBlock extends TimeSpan {
  blockId: string;
}

/** The finished lesson as data: everything that is on screen when, computed from plan and takes. */
export interface Assembly {
  title: string;
  durationMs: number;
  /** Mirror the footage (not the overlays), so that students copy it as in a mirror. */
  mirrored: boolean;
  segments: Segment[];
  lanes: OverlayLanes;
  captions: Caption[];
  pauses: PauseMark[];
  chapters: Chapter[];
  blocks: PlacedBlock[];
}
