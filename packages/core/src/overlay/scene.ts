import type { Assembly, CardText, CautionOverlay, ClockOverlay, ClockPhase, CounterOverlay, CueMoment, Overlay, Slot, Source } from '../assembly/index.ts';
import type { Finish, Side } from '../lesson/index.ts';
import { countdownText, elapsedText } from '../time/index.ts';
import { indexAt } from './find.ts';
import { SLOT_BOXES, type Box } from './layout.ts';
import { placesOf } from './placement.ts';

/** The ring moves in steps of this length, so that a burned-in video changes ten times a second at most. */
const RING_STEP_MS = 100;
/** In a calm look, or without a ring or bar, nothing changes but the second. */
const CALM_STEP_MS = 1_000;

export interface ClockItem {
  slot: 'clock';
  phase: ClockPhase;
  /** Seconds to go, or gone when it counts up, as shown. */
  digits: string;
  /** Part of the ring drawn, 0 to 1, in steps of `RING_STEP_MS`: the time to go, or gone when it counts up. */
  left: number;
  title: string;
  next: string;
  round: string;
}

export interface CounterItem {
  slot: 'counter';
  rep: number;
  reps: number;
  side: Side | null;
  note: string;
}

export interface CueItem {
  slot: 'cue';
  text: string;
  moment: CueMoment;
}

export interface CautionItem {
  slot: 'caution';
  text: string;
  tone: CautionOverlay['tone'];
}

/** Thousandths of the frame. */
export interface PointerItem {
  slot: 'pointer';
  text: string;
  x: number;
  y: number;
}

type Shown = ClockItem | CounterItem | CueItem | CautionItem | PointerItem;
/** Something on screen and where it stands, in layout units. */
export type SceneItem = Shown & { box: Box };

/** Everything on screen at one instant, resolved to what is read. */
export interface Scene {
  atMs: number;
  look: Finish['look'];
  /** The full-frame card below everything, when no footage is shown. */
  card: CardText | null;
  /** While it comes up over another picture: how far, 0 to 1, and the card it comes over, if that is one. */
  rising: { part: number; over: CardText | null } | null;
  /** At most one item a slot, in painting order. */
  items: SceneItem[];
  caption: string[] | null;
}

function breathWord({ inMs, outMs }: { inMs: number; outMs: number }, sinceMs: number): string {
  return sinceMs % (inMs + outMs) < inMs ? 'Breathe in' : 'Breathe out';
}

function clockItem(overlay: ClockOverlay, ms: number, stepMs: number): ClockItem {
  const { phase, title, round, up, breaths } = overlay;
  const goneMs = overlay.goneMs + ms - overlay.startMs;
  const remainingMs = overlay.ofMs - goneMs;
  const stepped = Math.ceil((up ? goneMs : remainingMs) / stepMs) * stepMs;
  return {
    slot: 'clock',
    phase,
    digits: up ? elapsedText(goneMs) : countdownText(remainingMs),
    left: Math.min(1, stepped / overlay.ofMs),
    title,
    next: breaths ? breathWord(breaths, goneMs) : overlay.next,
    round,
  };
}

/** On a count of 8 the number is the beat: beat `k` begins `k - 1` equal parts into the span. */
function counterItem({ startMs, goneMs, ofMs, rep, reps, side, note, beats }: CounterOverlay, ms: number): CounterItem {
  if (beats === null) return { slot: 'counter', rep, reps, side, note };
  const beat = Math.floor(((goneMs + ms - startMs) * beats) / ofMs) + 1;
  return { slot: 'counter', rep: beat, reps: beats, side, note };
}

function shownBy(overlay: Overlay, ms: number, { calm, clock }: Finish['look']): Shown {
  switch (overlay.slot) {
    case 'clock':
      return clockItem(overlay, ms, calm || clock === 'digits' ? CALM_STEP_MS : RING_STEP_MS);
    case 'counter':
      return counterItem(overlay, ms);
    case 'cue':
      return { slot: 'cue', text: overlay.text, moment: overlay.moment };
    case 'caution':
      return { slot: 'caution', text: overlay.text, tone: overlay.tone };
    case 'pointer':
      return { slot: 'pointer', text: overlay.text, x: overlay.x, y: overlay.y };
  }
}

/** What one slot shows at `ms`, or null. */
export function slotAt(assembly: Assembly, slot: Slot, ms: number): SceneItem | null {
  const overlay = assembly.lanes[slot][indexAt(assembly.lanes[slot], ms)];
  if (!overlay) return null;
  const box = placesOf(assembly)[indexAt(assembly.blocks, ms)]?.[slot] ?? SLOT_BOXES[slot];
  return { ...shownBy(overlay, ms, assembly.look), box };
}

const paintingOrder = ['pointer', 'caution', 'cue', 'counter', 'clock'] as const;

/**
 * The list of things on screen at `ms` of the finished video. Pure: the same assembly and instant give
 * the same scene in the preview, on the follow page and in the burned-in video.
 */
export function sceneAt(assembly: Assembly, ms: number): Scene {
  const items: SceneItem[] = [];
  for (const slot of paintingOrder) {
    const item = slotAt(assembly, slot, ms);
    if (item) items.push(item);
  }
  const segment = assembly.segments[indexAt(assembly.segments, ms)];
  const cardIn = (source: Source | undefined) => (source?.kind === 'card' ? source.card : null);
  return {
    atMs: ms,
    look: assembly.look,
    card: cardIn(segment?.source),
    rising: segment?.under ? { part: (ms - segment.startMs) / (segment.endMs - segment.startMs), over: cardIn(segment.under.source) } : null,
    items,
    caption: assembly.captions[indexAt(assembly.captions, ms)]?.lines ?? null,
  };
}

/** True when the slot would look the same: used to send a frame only when something changes. */
export function sameItem(a: SceneItem | null, b: SceneItem | null): boolean {
  if (a === b) return true;
  if (!a || !b || a.slot !== b.slot) return false;
  const other = b as unknown as Record<string, unknown>;
  return Object.entries(a).every(([key, value]) => other[key] === value);
}

