import {
  slots,
  type Assembly,
  type Board,
  type CardText,
  type CautionOverlay,
  type ClockOverlay,
  type ClockPhase,
  type CounterOverlay,
  type CueMoment,
  type Overlay,
  type SeenSide,
  type Shape,
  type SideOverlay,
  type Slot,
  type Source,
} from '../assembly/index.ts';
import type { Finish, Side, Sign } from '../lesson/index.ts';
import { countdownText, elapsedText, spanLength } from '../time/index.ts';
import { lessonWord, type LessonWord } from '../words/index.ts';
import { indexAt } from './find.ts';
import { CAPTION_PLACES, SLOT_BOXES, type Place } from './layout.ts';
import { placesOf } from './placement.ts';
import { momentWords, phaseWords } from './words.ts';

/**
 * The ring moves in steps of this length: it is read at a glance beside its digits, and a burned-in
 * video changes twice a second at most.
 */
const RING_STEP_MS = 500;
/** In a calm look, or without a ring or bar, nothing changes but the second. */
const CALM_STEP_MS = 1_000;

export interface ClockItem {
  slot: 'clock';
  phase: ClockPhase;
  /** What the phase is called, or what is called out now. */
  word: string;
  /** The last seconds are on. */
  last: boolean;
  /** Seconds to go, or gone when it counts up, as shown. */
  digits: string;
  /**
   * Part of the ring drawn, 0 to 1, in steps of `RING_STEP_MS`: the time to go, or gone when it
   * counts up.
   */
  left: number;
  title: string;
  next: string;
  round: string;
  /** The title in the second language; empty when there is none. */
  also: string;
}

export interface CounterItem {
  slot: 'counter';
  rep: number;
  reps: number;
  side: Side | null;
  note: string;
  /** The number as it is shown: done, or still to go. */
  shown: number;
  /** What stands beside it: "of 10", "to go". */
  tail: string;
  /** Beats of the count; 0 when it has none. */
  beats: number;
  /** The last one is done. */
  reached: boolean;
  missed: boolean;
}

export interface CueItem {
  slot: 'cue';
  text: string;
  moment: CueMoment;
  word: string;
  also: string;
  /** The right form and the usual mistake; empty when they are not said. */
  right: string;
  wrong: string;
  /** What is seen in place of its words. */
  sign?: Sign;
}

export interface CautionItem {
  slot: 'caution';
  text: string;
  tone: CautionOverlay['tone'];
  also: string;
}

export interface SideItem {
  slot: 'side';
  side: Side;
  seen: SeenSide;
  away: boolean;
  word: string;
  /** How it is to be read on this picture. */
  reading: string;
}

export interface BoardItem {
  slot: 'board';
  board: Board;
  heading: string;
  /** What it says in the second language; empty when there is none. */
  also: string;
}

/** Thousandths of the picture. */
export interface PointerItem {
  slot: 'pointer';
  text: string;
  x: number;
  y: number;
  /** The side its words stand on. */
  words: Side;
}

type Shown = ClockItem | CounterItem | CueItem | CautionItem | PointerItem | SideItem | BoardItem;
/** Something on screen and where it stands, in layout units. */
export type SceneItem = Shown & { box: Place };

/** A caption as it is burned in; pages show it as text of their own. */
export interface CaptionItem {
  slot: 'caption';
  /** Its lines, one below the other. */
  text: string;
  box: Place;
}
export type BurnedItem = SceneItem | CaptionItem;

/** Everything on screen at one instant, resolved to what is read. */
export interface Scene {
  atMs: number;
  shape: Shape;
  look: Finish['look'];
  /** The full-frame card below everything, when no footage is shown. */
  card: CardText | null;
  /**
   * While it comes up over another picture: how far, 0 to 1, and the card it comes over, if that is
   * one.
   */
  rising: { part: number; over: CardText | null } | null;
  /** At most one item a slot, in painting order. */
  items: SceneItem[];
  caption: string[] | null;
}

type Breaths = NonNullable<ClockOverlay['breaths']>;

function breathWord({ inMs, outMs }: Breaths, sinceMs: number): LessonWord {
  return sinceMs % (inMs + outMs) < inMs ? 'breath.in' : 'breath.out';
}

type Words = Assembly['words'];

/** The program's own word, in both languages where both are shown. */
function sayIn({ language, other }: Words, word: LessonWord): string {
  const first = lessonWord(language, word);
  const second = other ? lessonWord(other.language, word) : first;
  return second === first ? first : `${first} · ${second}`;
}

const otherOf = ({ other }: Words, text: string): string => other?.texts[text] ?? '';

const CALLED: ReadonlySet<ClockPhase> = new Set(['work', 'hold']);
/**
 * Halfway is called from this length on, and the last seconds from that one; as the pacer does
 * (common practice).
 */
const HALFWAY_FROM_MS = 20_000;
const LAST_FROM_MS = 10_000;
const LAST_MS = 5_000;
const CALL_MS = 2_000;

/** What is called out at a moment of a work, where something is. */
function calledAt({ phase, totalMs }: ClockOverlay, elapsedMs: number): LessonWord | null {
  if (!CALLED.has(phase)) return null;
  if (totalMs >= LAST_FROM_MS && totalMs - elapsedMs <= LAST_MS) return 'call.last-five';
  const sinceHalf = elapsedMs - totalMs / 2;
  return totalMs >= HALFWAY_FROM_MS && sinceHalf >= 0 && sinceHalf < CALL_MS
    ? 'call.halfway'
    : null;
}

function clockItem(
  overlay: ClockOverlay,
  ms: number,
  { calm, clock }: Finish['look'],
  words: Words,
): ClockItem {
  const { phase, title, round, up, breaths } = overlay;
  const stepMs = calm || clock === 'digits' ? CALM_STEP_MS : RING_STEP_MS;
  const elapsedMs = overlay.elapsedMs + ms - overlay.startMs;
  const remainingMs = overlay.totalMs - elapsedMs;
  const stepped = Math.ceil((up ? elapsedMs : remainingMs) / stepMs) * stepMs;
  const called = calm ? null : calledAt(overlay, elapsedMs);
  return {
    slot: 'clock',
    phase,
    word: lessonWord(words.language, called ?? phaseWords[phase]),
    last: called === 'call.last-five',
    digits: up ? elapsedText(elapsedMs) : countdownText(remainingMs),
    left: Math.min(1, stepped / overlay.totalMs),
    title,
    next: breaths ? lessonWord(words.language, breathWord(breaths, elapsedMs)) : overlay.next,
    // The call takes the whole line.
    round: called ? '' : round,
    also: otherOf(words, title),
  };
}

/** On a count of 8 the number is the beat: beat `k` begins `k - 1` equal parts into the span. */
function counterItem(
  { startMs, elapsedMs, totalMs, rep, reps, side, note, beats, missed }: CounterOverlay,
  ms: number,
  { counting }: Finish['look'],
  words: Words,
): CounterItem {
  const isDown = counting === 'down' && beats === null;
  const [now, all] =
    beats === null
      ? [rep, reps]
      : [Math.floor(((elapsedMs + ms - startMs) * beats) / totalMs) + 1, beats];
  return {
    slot: 'counter',
    rep: now,
    reps: all,
    side,
    note: missed ? sayIn(words, 'count.missed') : note,
    shown: isDown ? all - now : now,
    tail: isDown
      ? lessonWord(words.language, 'count.to-go')
      : lessonWord(words.language, 'count.of', { all }),
    beats: beats ?? 0,
    reached: beats === null && reps > 1 && rep === reps && !missed,
    missed,
  };
}

function sideItem({ side, seen, away, mirrored }: SideOverlay, words: Words): SideItem {
  const readings = {
    near: 'side.near',
    far: 'side.far',
    left: 'side.seen-left',
    right: 'side.seen-right',
  } as const satisfies Record<SeenSide, LessonWord>;
  const reading =
    mirrored && (seen === 'left' || seen === 'right') ? 'side.mirror' : readings[seen];
  return {
    slot: 'side',
    side,
    seen,
    away,
    word: lessonWord(words.language, `side.sign-${side}`),
    reading: lessonWord(words.language, reading),
  };
}

function boardItem(board: Board, words: Words): BoardItem {
  switch (board.kind) {
    case 'chapter':
      return { slot: 'board', board, heading: '', also: otherOf(words, board.title) };
    case 'name':
      return { slot: 'board', board, heading: '', also: otherOf(words, board.name) };
    case 'kit':
      return { slot: 'board', board, heading: sayIn(words, 'board.kit'), also: '' };
    case 'floor':
      return { slot: 'board', board, heading: sayIn(words, 'board.floor'), also: '' };
    case 'rules':
      return { slot: 'board', board, heading: board.players, also: otherOf(words, board.text) };
    case 'level':
      return {
        slot: 'board',
        board,
        heading: sayIn(words, `board.${board.form}`),
        also: otherOf(words, board.text),
      };
    case 'next':
    case 'ready':
      return {
        slot: 'board',
        board,
        heading: sayIn(words, board.kind === 'next' ? 'board.next' : 'phase.ready'),
        also: otherOf(words, board.title),
      };
    case 'strip':
      return { slot: 'board', board, heading: lessonWord(words.language, 'board.then'), also: '' };
  }
}

function shownBy(overlay: Overlay, ms: number, { look, words }: Assembly): Shown {
  switch (overlay.slot) {
    case 'clock':
      return clockItem(overlay, ms, look, words);
    case 'counter':
      return counterItem(overlay, ms, look, words);
    case 'cue':
      return {
        slot: 'cue',
        text: overlay.text,
        moment: overlay.moment,
        word: sayIn(words, momentWords[overlay.moment]),
        also: otherOf(words, overlay.text),
        right: overlay.pair?.right ?? '',
        wrong: overlay.pair?.wrong ?? '',
        ...(overlay.sign && { sign: overlay.sign }),
      };
    case 'caution':
      return {
        slot: 'caution',
        text: overlay.text,
        tone: overlay.tone,
        also: otherOf(words, overlay.text),
      };
    case 'pointer':
      return {
        slot: 'pointer',
        text: overlay.text,
        x: overlay.x,
        y: overlay.y,
        words: overlay.words,
      };
    case 'side':
      return sideItem(overlay, words);
    case 'board':
      return boardItem(overlay.board, words);
  }
}

/** What one slot shows at `ms`, or null. */
export function slotAt(assembly: Assembly, slot: Slot, ms: number): SceneItem | null {
  const overlay = assembly.lanes[slot][indexAt(assembly.lanes[slot], ms)];
  if (!overlay) return null;
  const box = placesOf(assembly)[indexAt(assembly.blocks, ms)]?.[slot] ?? SLOT_BOXES[slot];
  return { ...shownBy(overlay, ms, assembly), box };
}

/** The caption at `ms`, to be burned in; null where nothing is said. */
export function captionAt({ captions, shape }: Assembly, ms: number): CaptionItem | null {
  const caption = captions[indexAt(captions, ms)];
  return caption
    ? { slot: 'caption', text: caption.lines.join('\n'), box: CAPTION_PLACES[shape] }
    : null;
}

/**
 * The list of things on screen at `ms` of the finished video. Pure: the same assembly and instant
 * give the same scene in the preview, on the follow page and in the burned-in video.
 */
export function sceneAt(assembly: Assembly, ms: number): Scene {
  const items: SceneItem[] = [];
  for (const slot of slots) {
    const item = slotAt(assembly, slot, ms);
    if (item) items.push(item);
  }
  const segment = assembly.segments[indexAt(assembly.segments, ms)];
  const cardIn = (source: Source | undefined) => (source?.kind === 'card' ? source.card : null);
  return {
    atMs: ms,
    shape: assembly.shape,
    look: assembly.look,
    card: cardIn(segment?.source),
    rising: segment?.under
      ? {
          part: (ms - segment.startMs) / spanLength(segment),
          over: cardIn(segment.under.source),
        }
      : null,
    items,
    caption: assembly.captions[indexAt(assembly.captions, ms)]?.lines ?? null,
  };
}

/** True when the slot would look the same: used to send a frame only when something changes. */
export function sameItem(a: BurnedItem | null, b: BurnedItem | null): boolean {
  if (a === b) return true;
  if (!a || !b || a.slot !== b.slot) return false;
  const other = b as unknown as Record<string, unknown>;
  return Object.entries(a).every(([key, value]) => other[key] === value);
}
