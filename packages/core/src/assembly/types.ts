import type { FloorUse } from '../ledger/index.ts';
import type { Cue, EditOf, Finish, Level, Movement, Side, Sign } from '../lesson/index.ts';
import type { PacerTone } from '../script/index.ts';
import type { TakeAnalysis } from '../signal/index.ts';
import type { TimeSpan } from '../time/index.ts';
import type { DroppedEdit, BlockTimeMap } from './block-time-map.ts';

/**
 * What assembly must know of a take: the length of its working copy in frames at the output rate.
 */
export interface TakeFacts {
  id: string;
  frames: number;
  /**
   * Where its sync marks say the block starts and ends, in milliseconds of the working copy; null
   * without marks.
   */
  marked: { startMs: number; endMs: number | null; rate: number | null } | null;
  /** What was seen and heard of it; left out until somebody has looked. */
  watched?: TakeAnalysis | undefined;
  /** Where the sentences of its block's script were found, in milliseconds of the working copy. */
  said?:
    | {
        sentences: readonly {
          text: string;
          startMs: number | null;
          endMs: number | null;
          confidence: number;
        }[];
        added: readonly TimeSpan[];
        counts: readonly (TimeSpan & { numbers: number })[];
      }
    | null
    | undefined;
}

/** Text of a full-frame card, shown where there is no footage and at pauses. */
export interface CardText {
  heading: string;
  lines: string[];
  /** The floor drawn to scale beside the lines. */
  court?: FloorUse;
  /** Answers to choose from, large below the heading. */
  choices?: readonly CardChoice[];
}

export interface CardChoice {
  letter: string;
  text: string;
  movement: Movement;
  /** Null before it is told. */
  isRight: boolean | null;
}

/** Where a segment's picture comes from. */
export type Source =
  /**
   * Frames of a working copy from `inFrame`, `speed` of them for each shown; when they run out the
   * last one is held.
   */
  | { kind: 'take'; takeId: string; inFrame: number; takeFrames: number; speed: number }
  | { kind: 'card'; card: CardText };

/** A box in thousandths of the picture. */
export interface Region {
  x: number;
  y: number;
  width: number;
  height: number;
}

/**
 * How footage is shown, in this order: turned, fitted into the frame, blurred in places, a part of
 * it enlarged, mirrored.
 */
export interface Look {
  /** Quarter turns clockwise. */
  quarters: number;
  blurs: Region[];
  /**
   * The part of the frame that fills it, at the segment's start and end; its size does not change.
   * Null: all of it.
   */
  closer: { zoom: number; from: { x: number; y: number }; to: { x: number; y: number } } | null;
  mirrored: boolean;
}

export type TakeSource = Source & { kind: 'take' };

/** A stretch of the output with one source; its frames are those of its span. */
export interface Segment extends TimeSpan {
  blockId: string;
  source: Source;
  look: Look;
  /** A second view in the same frame. */
  beside: { source: TakeSource; layout: BesideLayout } | null;
  /** What is heard; null: nothing. */
  sound: { source: TakeSource; low: boolean } | null;
  /** The last picture before, which this one replaces slowly over the whole segment. */
  under: { source: Source; look: Look } | null;
}

export type BesideLayout = EditOf<'beside'>['layout'];

/** Part of something timed: what had passed of it before, and how long it is in all. */
export interface Timed extends TimeSpan {
  elapsedMs: number;
  totalMs: number;
}

export type ClockPhase =
  'lead-in' | 'work' | 'rest' | 'change' | 'hold' | 'watch' | 'think' | 'score';

/** A clock over its span, with what it counts and what comes next. */
export interface ClockOverlay extends Timed {
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
export interface CounterOverlay extends Timed {
  slot: 'counter';
  rep: number;
  reps: number;
  side: Side | null;
  /** The line below, such as "Set 2 of 3" or "3 tokens left"; empty when there is none. */
  note: string;
  /** Counts this many equal beats instead of showing `rep`. */
  beats: number | null;
  /** Done, but not as it should be: the number stays where it was. */
  missed: boolean;
}

/** A cue's moment, or what stands in a cue's place. */
export type CueMoment = Cue['moment'] | 'command' | 'question' | 'answer' | 'score' | 'again';

export interface CueOverlay extends TimeSpan {
  slot: 'cue';
  text: string;
  moment: CueMoment;
  /**
   * The right form beside the usual mistake; null when it is not said, or not long enough on
   * screen.
   */
  pair: { right: string; wrong: string } | null;
  /** What is seen in place of a command's words. */
  sign?: Sign;
}

export interface CautionOverlay extends TimeSpan {
  slot: 'caution';
  text: string;
  /** A correction puts right what was said or done. */
  tone: 'caution' | 'correction';
}

/** An arrow to a place of the frame, in thousandths of it. */
export interface PointerOverlay extends TimeSpan {
  slot: 'pointer';
  text: string;
  x: number;
  y: number;
  /** The side its words stand on. */
  words: Side;
}

/**
 * Where a side of the performer is seen: on that side of the screen, or nearer to or further from
 * the camera.
 */
export type SeenSide = 'left' | 'right' | 'near' | 'far';

/** Which side works, and how that is to be read. */
export interface SideOverlay extends TimeSpan {
  slot: 'side';
  side: Side;
  seen: SeenSide;
  /** The performer is seen from behind. */
  away: boolean;
  mirrored: boolean;
}

/** What is told beside the picture, one thing at a time. */
export type Board =
  | { kind: 'chapter'; title: string }
  | { kind: 'name'; name: string }
  | { kind: 'kit'; lines: string[] }
  | { kind: 'floor'; floor: FloorUse }
  /** How so many play it. */
  | { kind: 'rules'; players: string; text: string }
  | { kind: 'level'; form: Level['form']; text: string; rule: string }
  | { kind: 'next'; title: string; movement: Movement }
  /** The video waits until the student is ready for what is named. */
  | { kind: 'ready'; title: string; movement: Movement }
  /** First, then, done: sections done, the one now, the one after. */
  | { kind: 'strip'; done: number; of: number; now: string; then: string };

export interface BoardOverlay extends TimeSpan {
  slot: 'board';
  board: Board;
}

export type Overlay =
  | ClockOverlay
  | CounterOverlay
  | CueOverlay
  | CautionOverlay
  | PointerOverlay
  | SideOverlay
  | BoardOverlay;
export type Slot = Overlay['slot'];
export const slots = [
  'pointer',
  'clock',
  'counter',
  'cue',
  'caution',
  'side',
  'board',
] as const satisfies readonly Slot[];

/** Overlays by slot, each list sorted by start and without overlap. */
export interface OverlayLanes {
  pointer: PointerOverlay[];
  clock: ClockOverlay[];
  counter: CounterOverlay[];
  cue: CueOverlay[];
  caution: CautionOverlay[];
  side: SideOverlay[];
  board: BoardOverlay[];
}

/** Lanes with nothing in them. */
export const emptyLanes = (): OverlayLanes => ({
  pointer: [],
  clock: [],
  counter: [],
  cue: [],
  caution: [],
  side: [],
  board: [],
});

export interface Caption extends TimeSpan {
  /** One or two lines. */
  lines: string[];
}

/** A sentence of a script where it was heard, or set by hand, in the video. */
export interface SaidSentence extends TimeSpan {
  blockId: string;
  text: string;
  /** Where it is said is only guessed from its neighbours. */
  isGuess: boolean;
}

/**
 * A sign to stop the video: shown over its span, then the student practises, or rests until ready,
 * for about `practiceMs`.
 */
export interface PauseMark extends TimeSpan {
  blockId: string;
  isRest: boolean;
  practiceMs: number;
  prompt: string;
}

export interface Chapter extends TimeSpan {
  title: string;
}

/** Where each block came to lie in the finished video, and how its own time is laid out there. */
export interface PlacedBlock extends TimeSpan {
  blockId: string;
  timeMap: BlockTimeMap;
  /**
   * What must stay seen, in thousandths of the picture: the performer by the framing plan, or a
   * card's words; null where neither is.
   */
  performer: Region | null;
  /** Places chosen by hand: the left upper corner of what a slot shows, in thousandths. */
  places: { slot: Slot; x: number; y: number }[];
}

/**
 * The frame a lesson is shown in: 16:9, or 9:16 with the picture above and what is said about it
 * below.
 */
export const shapes = ['wide', 'upright'] as const;
export type Shape = (typeof shapes)[number];

/** The finished lesson as data: everything that is on screen when, computed from plan and takes. */
export interface Assembly {
  title: string;
  durationMs: number;
  shape: Shape;
  /**
   * The language of its texts, and the second one where both are shown: its translations by text.
   */
  words: {
    language: string;
    other: { language: string; texts: Readonly<Record<string, string>> } | null;
  };
  look: Finish['look'];
  sound: Finish['sound'];
  segments: Segment[];
  lanes: OverlayLanes;
  captions: Caption[];
  /** Sentences of blocks whose takes were listened to. */
  sentences: SaidSentence[];
  pauses: PauseMark[];
  chapters: Chapter[];
  blocks: PlacedBlock[];
  /** Tones of the pacer that are to be heard, by when. */
  tones: { atMs: number; tone: PacerTone }[];
  /** Words of the pacer that are to be spoken, in `language`. */
  spoken: { language: string; calls: { atMs: number; say: string }[] };
  /** Changes by hand that have no place any more. */
  dropped: DroppedEdit[];
}
