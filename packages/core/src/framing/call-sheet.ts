import type { Lesson } from '../lesson/index.ts';
import { teacherText } from '../words/index.ts';
import { valueName } from '../lesson/index.ts';
import { bestOrder } from './shot-order.ts';
import { shotsToFilm, type ShotToFilm } from './shots.ts';

/**
 * What a change between two shots costs a lone teacher, in milliseconds (common practice, rounded).
 */
const CHANGE_MS = {
  place: 180_000,
  angle: 60_000,
  framing: 45_000,
  performers: 60_000,
  kitThing: 20_000,
} as const;
/** From this effort on a move is hard. */
const HARD_EFFORT = 4;
/** Rest before another hard shot, for each step of effort over easy (common practice). */
const REST_PER_STEP_MS = 60_000;
/**
 * What each place further back costs a shot that has to be filmed fresh: enough to outweigh a
 * change of angle.
 */
const STALE_MS = 75_000;
/** From the end of a take to the start of the next: look at it, walk back. */
const BETWEEN_TAKES_MS = 20_000;
/**
 * Of orders that cost the same, the one nearer to the lesson's; too little to outweigh any change.
 */
const KEEP_ORDER = 0.01;
/** Mark and count-in before the block, and what is filmed after it. */
const ROUND_THE_TAKE_MS = 8_000;

/** What there is to do between two shots. */
export interface Change {
  place: boolean;
  angle: boolean;
  framing: boolean;
  performers: boolean;
  fetch: string[];
  putAway: string[];
  /** Rest that the changes themselves do not cover. */
  restMs: number;
  /** All of it. */
  totalMs: number;
}

export function changeBetween(from: ShotToFilm, to: ShotToFilm): Change {
  const fetch = to.kit.filter((name) => !from.kit.includes(name));
  const putAway = from.kit.filter((name) => !to.kit.includes(name));
  const place = from.shot.place.trim().toLowerCase() !== to.shot.place.trim().toLowerCase();
  // At another place the camera is set up anew in any case.
  const angle = !place && from.shot.angle !== to.shot.angle;
  const framing = !place && from.shot.framing !== to.shot.framing;
  const performers = from.shot.performers !== to.shot.performers;
  const workMs =
    (place ? CHANGE_MS.place : 0) +
    (angle ? CHANGE_MS.angle : 0) +
    (framing ? CHANGE_MS.framing : 0) +
    (performers ? CHANGE_MS.performers : 0) +
    CHANGE_MS.kitThing * (fetch.length + putAway.length);
  const steps = Math.min(from.block.effort, to.block.effort) - HARD_EFFORT + 1;
  const restMs = Math.max(0, steps * REST_PER_STEP_MS - workMs);
  return { place, angle, framing, performers, fetch, putAway, restMs, totalMs: workMs + restMs };
}

export interface CallSheetLine {
  toFilm: ShotToFilm;
  /** Null before the first shot. */
  change: Change | null;
  /** Expected start from the beginning of filming, changes and rests included. */
  startMs: number;
  /** The shot with its takes. */
  filmingMs: number;
}

export interface CallSheet {
  lines: CallSheetLine[];
  totalMs: number;
  /** Of it, changes and rests between shots. */
  changesMs: number;
  /**
   * How long changes and rests would take in the order with the fewest; equal when this is that
   * order.
   */
  bestChangesMs: number;
  byHand: boolean;
}

/** Changes, rests and lateness of an order, in milliseconds: what the search makes least. */
export function orderCost(order: readonly ShotToFilm[]): number {
  return order.reduce((sum, shot, i) => {
    const before = order[i - 1];
    return (
      sum +
      (shot.shot.fresh ? STALE_MS * i : 0) +
      (before ? changeBetween(before, shot).totalMs : 0)
    );
  }, 0);
}

/**
 * The shots in the order that costs least: exact up to 12 shots, good for more. The same list gives
 * the same order.
 */
export function orderShots(shots: readonly ShotToFilm[]): ShotToFilm[] {
  const between = shots.map((from) =>
    shots.map((to) => (from === to ? 0 : changeBetween(from, to).totalMs)),
  );
  const late = shots.map(
    ({ shot }, i) => (shot.fresh ? STALE_MS : 0) + (shots.length - i) * KEEP_ORDER,
  );
  return bestOrder(between, late).flatMap((i) => shots[i] ?? []);
}

/** The order by hand, with shots it does not name behind those of the lesson before them. */
function handOrder(shots: readonly ShotToFilm[], ids: readonly string[]): ShotToFilm[] {
  const at = new Map(ids.map((id, i) => [id, i]));
  let last = -1;
  const placed = shots.map((shot, i) => {
    last = at.get(shot.id) ?? last;
    return { shot, at: at.get(shot.id) ?? last + 0.5, i };
  });
  return placed.sort((a, b) => a.at - b.at || a.i - b.i).map(({ shot }) => shot);
}

function takesMs({ durationMs }: ShotToFilm, takes: number): number {
  return takes * (durationMs + ROUND_THE_TAKE_MS) + (takes - 1) * BETWEEN_TAKES_MS;
}

/**
 * The order of filming with what changes between the shots and the time it takes.
 * @param only ids of the shots to film, such as those to be filmed again; all when left out
 */
export function callSheet(lesson: Lesson, only?: ReadonlySet<string>): CallSheet {
  const shots = shotsToFilm(lesson).filter(({ id }) => !only || only.has(id));
  const { order, takesEach, settleMs } = lesson.filming;
  const best = orderShots(shots);
  const byHand = order.length > 0;
  const ordered = byHand ? handOrder(shots, order) : best;
  const changesOf = (list: readonly ShotToFilm[]) =>
    list.reduce(
      (sum, shot, i) =>
        sum + (list[i - 1] ? changeBetween(list[i - 1] as ShotToFilm, shot).totalMs : 0),
      0,
    );
  let atMs = 0;
  const lines = ordered.map((toFilm, i): CallSheetLine => {
    const before = ordered[i - 1];
    const change = before ? changeBetween(before, toFilm) : null;
    const startMs = atMs + (change?.totalMs ?? 0);
    const filmingMs = takesMs(toFilm, takesEach) + takesEach * settleMs;
    atMs = startMs + filmingMs;
    return { toFilm, change, startMs, filmingMs };
  });
  return {
    lines,
    totalMs: atMs,
    changesMs: changesOf(ordered),
    bestChangesMs: changesOf(best),
    byHand,
  };
}

/** What changes before a shot, in words; empty when nothing does. */
export function changeText(change: Change, to: ShotToFilm): string[] {
  const words: string[] = [];
  if (change.place)
    words.push(
      to.shot.place.trim()
        ? teacherText('call-sheet.go-to', { place: to.shot.place.trim() })
        : teacherText('call-sheet.go-back'),
    );
  if (change.angle)
    words.push(teacherText('call-sheet.camera-to', { angle: valueName(to.shot.angle) }));
  if (change.framing)
    words.push(teacherText('call-sheet.frame', { framing: valueName(to.shot.framing) }));
  if (change.performers)
    words.push(teacherText('call-sheet.performers', { n: to.shot.performers }));
  if (change.fetch.length > 0)
    words.push(teacherText('call-sheet.fetch', { kit: change.fetch.join(', ') }));
  if (change.putAway.length > 0)
    words.push(teacherText('call-sheet.put-away', { kit: change.putAway.join(', ') }));
  if (change.restMs > 0) words.push(teacherText('call-sheet.rest', { restMs: change.restMs }));
  return words;
}
