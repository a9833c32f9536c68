import type { Edit, EditOf, Side } from '../lesson/index.ts';
import type { Span } from '../schedule/index.ts';
import {
  beginningIn,
  byStart,
  overlaps,
  subtract,
  type BlockMs,
  type TimeSpan,
} from '../time/index.ts';
import type { CautionOverlay, CounterOverlay, CueOverlay, Overlay, OverlayLanes } from './types.ts';

/** Part of an overlay; what had passed of it stays true. */
export function clipped<T extends Overlay>(overlay: T, startMs: number, endMs: number): T {
  return {
    ...overlay,
    startMs,
    endMs,
    ...('elapsedMs' in overlay && { elapsedMs: overlay.elapsedMs + startMs - overlay.startMs }),
  };
}

/** The list without what it shows in the stretch. */
function without<T extends Overlay>(list: readonly T[], taken: TimeSpan): T[] {
  return list.flatMap((overlay) =>
    overlaps(overlay, taken)
      ? subtract(overlay, [taken]).map((part) => clipped(overlay, part.startMs, part.endMs))
      : [overlay],
  );
}

const over = <T extends Overlay>(list: readonly T[], overlay: T): T[] =>
  [...without(list, overlay), overlay].sort(byStart);

/**
 * What begins in the stretch comes `byMs` later, as long as it stays in the block; the later of two
 * takes the screen.
 */
function shifted<T extends Overlay>(
  list: readonly T[],
  { fromMs, toMs, byMs }: EditOf<'shift'>,
  bodyMs: number,
): T[] {
  const moved = list
    .map((overlay) => {
      if (overlay.startMs < fromMs || overlay.startMs >= toMs) return overlay;
      return {
        ...overlay,
        startMs: Math.max(0, overlay.startMs + byMs),
        endMs: Math.min(bodyMs, overlay.endMs + byMs),
      };
    })
    .filter(({ startMs, endMs }) => endMs > startMs)
    .sort(byStart);
  return moved.flatMap((overlay, i) => {
    const endMs = Math.min(overlay.endMs, moved[i + 1]?.startMs ?? overlay.endMs);
    return endMs > overlay.startMs ? [clipped(overlay, overlay.startMs, endMs)] : [];
  });
}

/** The number of a repetition stays at most this long when no other follows. */
const LAST_REP_MS = 3_000;

/** A stretch in which repetitions are counted from 1: a side of a set, or a work. */
interface Bout extends TimeSpan {
  like: Pick<CounterOverlay, 'side' | 'note'>;
  /** The sides in the order they take turns; empty where they do not. */
  turn: Side[];
  planned: number;
}

function boutsOf(planned: readonly CounterOverlay[], spans: readonly Span[]): Bout[] {
  const bouts: Bout[] = [];
  planned.forEach(({ rep, side, note, startMs, endMs, reps }, i) => {
    const [last, before, next] = [bouts.at(-1), planned[i - 1], planned[i + 1]];
    // In turn: the other side's first repetition follows the first at once, and goes back to it.
    const isTurn =
      before?.rep === 1 &&
      before.side !== null &&
      side !== null &&
      before.side !== side &&
      before.endMs === startMs &&
      next?.side !== side;
    if (last && last.like.note === note && (rep > 1 || isTurn)) {
      if (isTurn && rep === 1 && before.side && side)
        Object.assign(last, { turn: [before.side, side] });
      Object.assign(last, {
        endMs,
        like: last.like.side === side ? last.like : { side: null, note },
      });
    } else bouts.push({ startMs, endMs, like: { side, note }, turn: [], planned: reps });
  });
  if (bouts.length > 0) return bouts;
  return spans
    .filter(({ kind }) => kind === 'work' || kind === 'play' || kind === 'move')
    .map(({ startMs, endMs }) => ({
      startMs,
      endMs,
      like: { side: null, note: '' },
      turn: [],
      planned: 0,
    }));
}

/** A repetition that was counted, tapped along or seen by the program, when it was done. */
export interface CountedRepetition {
  atMs: BlockMs;
  side: Side | null;
  /** Done, but not as it should be. */
  missed: boolean;
}

/** Counters at the counted moments: each lasts until the next; per side where sides were told. */
export function countersOfCounted(
  repetitions: readonly CountedRepetition[],
  planned: readonly CounterOverlay[],
  spans: readonly Span[],
): CounterOverlay[] {
  const bouts = boutsOf(planned, spans);
  const boutOf = (atMs: number) => bouts.findLast(({ startMs }) => startMs <= atMs) ?? bouts[0];
  const inBout = new Map<Bout | undefined, number>();
  // Where sides take turns, one that says none has its own by its place.
  const sorted = [...repetitions]
    .sort((a, b) => a.atMs - b.atMs)
    .map((one) => {
      const bout = boutOf(one.atMs);
      const place = inBout.get(bout) ?? 0;
      inBout.set(bout, place + 1);
      return { ...one, side: one.side ?? bout?.turn[place % 2] ?? null };
    });
  const counted = new Map<string, number>();
  const keys = sorted.map(({ atMs, side }) => `${boutOf(atMs)?.startMs ?? 0} ${side ?? ''}`);
  const totals = new Map<string, number>();
  keys.forEach((key, i) => totals.set(key, (totals.get(key) ?? 0) + (sorted[i]?.missed ? 0 : 1)));
  return sorted.flatMap(({ atMs, side, missed }, i): CounterOverlay[] => {
    const bout = boutOf(atMs);
    const key = keys[i] ?? '';
    const rep = (counted.get(key) ?? 0) + (missed ? 0 : 1);
    counted.set(key, rep);
    const next = sorted[i + 1];
    const isLast = next === undefined || boutOf(next.atMs) !== bout;
    const nextMs = next?.atMs ?? Infinity;
    const endMs = isLast
      ? Math.min(nextMs, atMs + LAST_REP_MS, bout && bout.endMs > atMs ? bout.endMs : Infinity)
      : nextMs;
    if (endMs <= atMs) return [];
    return [
      {
        slot: 'counter',
        startMs: atMs,
        endMs,
        elapsedMs: 0,
        totalMs: endMs - atMs,
        rep,
        reps: Math.max(bout?.planned ?? 0, totals.get(key) ?? rep),
        side: side ?? bout?.like.side ?? null,
        note: bout?.like.note ?? '',
        beats: null,
        missed,
      },
    ];
  });
}

/**
 * Which side works when, as it was counted: each until its repetition is done. `of`: the stretches
 * that tell of.
 */
export interface WorkedSides {
  of: TimeSpan[];
  sides: (TimeSpan & { side: Side })[];
}

/** The sides of what was counted, where every repetition of a stretch has one. */
export function workedSides(
  counted: readonly CounterOverlay[],
  planned: readonly CounterOverlay[],
): WorkedSides {
  const worked: WorkedSides = { of: [], sides: [] };
  for (const { startMs, endMs } of boutsOf(planned, [])) {
    const within = beginningIn(counted, { startMs, endMs });
    if (within.length === 0 || within.some(({ side }) => side === null)) continue;
    worked.of.push({ startMs, endMs });
    let fromMs = startMs;
    for (const { side, startMs: doneMs } of within) {
      if (side !== null && doneMs > fromMs)
        worked.sides.push({ startMs: fromMs, endMs: doneMs, side });
      fromMs = doneMs;
    }
  }
  return worked;
}

/** The lanes with one slot's list changed. */
function withSlot(
  lanes: OverlayLanes,
  slot: EditOf<'hide'>['slot'],
  change: <T extends Overlay>(list: readonly T[]) => T[],
): OverlayLanes {
  return { ...lanes, [slot]: change<Overlay>(lanes[slot]) };
}

/**
 * The lanes of a block in its own time, with what was changed by hand; stretches end with the block
 * at the latest.
 */
export function withHand(
  planned: OverlayLanes,
  edits: readonly Edit[],
  bodyMs: number,
): OverlayLanes {
  let lanes = planned;
  for (const edit of edits) {
    switch (edit.kind) {
      case 'cue':
        lanes = {
          ...lanes,
          cue: over<CueOverlay>(lanes.cue, {
            slot: 'cue',
            startMs: edit.fromMs,
            endMs: edit.toMs,
            text: edit.text,
            moment: edit.moment,
            pair: null,
          }),
        };
        break;
      case 'note':
        lanes = {
          ...lanes,
          caution: over<CautionOverlay>(lanes.caution, {
            slot: 'caution',
            startMs: edit.fromMs,
            endMs: edit.toMs,
            text: edit.text,
            tone: 'correction',
          }),
        };
        break;
      case 'hide':
        lanes = withSlot(lanes, edit.slot, (list) =>
          without(list, { startMs: edit.fromMs, endMs: edit.toMs }),
        );
        break;
      case 'shift':
        lanes = withSlot(lanes, edit.slot, (list) => shifted(list, edit, bodyMs));
        break;
      default:
        // Pictures and time are laid out elsewhere.
        break;
    }
  }
  return lanes;
}
