import type { Block, Cue } from '../lesson/index.ts';
import type { Span } from '../schedule/index.ts';
import { lengthText, type TimeSpan } from '../time/index.ts';
import type { CautionOverlay, ClockOverlay, ClockPhase, CounterOverlay, CueOverlay } from './types.ts';

/** A caution stays this long at the start of its block; several share the time one after the other. */
const CAUTION_MS = 5_000;
/** A cue is on screen at least this long, so that it can be read while moving. */
const CUE_MIN_MS = 2_500;
/** A cue for the finish comes up this long before the end of what it belongs to. */
const FINISH_MS = 5_000;

const phaseOf: Partial<Record<Span['kind'], ClockPhase>> = {
  'lead-in': 'lead-in',
  work: 'work',
  rest: 'rest',
  'round-rest': 'rest',
  'set-rest': 'rest',
  'side-change': 'change',
};

function nextText(spans: readonly Span[], from: number): string {
  const next = spans[from + 1];
  if (!next) return 'Last one';
  switch (next.kind) {
    case 'work':
    case 'talk':
      return `Next: ${next.label}`;
    case 'rep':
      return `Next: ${next.label}${next.side ? `, ${next.side}` : ''}`;
    default:
      return `Next: ${next.label.toLowerCase()} ${lengthText(next.endMs - next.startMs)}`;
  }
}

function roundText(span: Span): string {
  return span.rounds !== undefined && span.rounds > 1 ? `${span.round} of ${span.rounds}` : '';
}

/** The clock of every span that is counted down; `atMs` is where the block starts in the video. */
export function clocksOf(spans: readonly Span[], atMs: number): ClockOverlay[] {
  return spans.flatMap((span, i) => {
    const phase = phaseOf[span.kind];
    if (!phase) return [];
    return {
      slot: 'clock',
      startMs: atMs + span.startMs,
      endMs: atMs + span.endMs,
      phase,
      title: span.label,
      next: nextText(spans, i),
      round: roundText(span),
    };
  });
}

/** The number of every repetition. */
export function countersOf(spans: readonly Span[], atMs: number): CounterOverlay[] {
  return spans.flatMap((span) =>
    span.kind === 'rep' && span.rep !== undefined && span.reps !== undefined
      ? {
          slot: 'counter',
          startMs: atMs + span.startMs,
          endMs: atMs + span.endMs,
          rep: span.rep,
          reps: span.reps,
          side: span.side ?? null,
          set: roundText(span),
        }
      : [],
  );
}

/** Runs of neighbouring spans of the kind, each as one stretch: the repetitions of one side, one work. */
function stretches(spans: readonly Span[], kind: Span['kind']): TimeSpan[] {
  const found: TimeSpan[] = [];
  for (const span of spans) {
    if (span.kind !== kind) continue;
    const last = found.at(-1);
    if (kind === 'rep' && last?.endMs === span.startMs) last.endMs = span.endMs;
    else found.push({ startMs: span.startMs, endMs: span.endMs });
  }
  return found;
}

/** Shows the cues one after the other over the stretch, as many as have time to be read, equally long. */
function spread(cues: readonly Cue[], over: TimeSpan): CueOverlay[] {
  const length = over.endMs - over.startMs;
  const count = Math.min(cues.length, Math.max(1, Math.floor(length / CUE_MIN_MS)));
  return cues.slice(0, count).map((cue, i) => ({
    slot: 'cue',
    startMs: over.startMs + Math.floor((length * i) / count),
    endMs: over.startMs + Math.floor((length * (i + 1)) / count),
    text: cue.text,
    moment: cue.moment,
  }));
}

/** Turns a long list round by `by` places, so that what had no time in one stretch comes in the next. */
function turned<T>(list: readonly T[], by: number): T[] {
  const at = list.length ? by % list.length : 0;
  return [...list.slice(at), ...list.slice(0, at)];
}

/**
 * Cue cards of a block: `ready` cues before the move, `action` cues while it runs, `finish` cues at its
 * end, `throughout` cues wherever nothing else stands. In a talk they follow each other over the talk.
 */
export function cuesOf(block: Block, spans: readonly Span[], body: TimeSpan, atMs: number): CueOverlay[] {
  const cues = block.cues.filter((cue) => cue.text.trim() !== '');
  const of = (moment: Cue['moment']) => cues.filter((cue) => cue.moment === moment);
  const placed: CueOverlay[] = [];
  if (block.kind === 'talk') {
    placed.push(...spread(cues, body));
  } else {
    const moves = stretches(spans, block.kind === 'reps' ? 'rep' : 'work');
    for (const kind of ['lead-in', 'rest', 'round-rest', 'set-rest', 'side-change'] as const) {
      for (const wait of stretches(spans, kind)) placed.push(...spread(of('ready'), wait));
    }
    let shown = 0;
    for (const move of moves) {
      const finish = of('finish');
      const action = of('action');
      const finishMs = finish.length === 0 ? 0 : action.length === 0 ? move.endMs - move.startMs : FINISH_MS;
      const borderMs = Math.max(move.endMs - finishMs, move.startMs + (action.length ? Math.floor((move.endMs - move.startMs) / 2) : 0));
      const inAction = spread(turned(action, shown), { startMs: move.startMs, endMs: borderMs });
      placed.push(...inAction, ...spread(finish, { startMs: borderMs, endMs: move.endMs }));
      shown += inAction.length;
    }
    placed.sort((a, b) => a.startMs - b.startMs);
    const filled: CueOverlay[] = [];
    let freeMs = body.startMs;
    for (const cue of [...placed, null]) {
      const untilMs = cue?.startMs ?? body.endMs;
      if (untilMs - freeMs >= CUE_MIN_MS) filled.push(...spread(of('throughout'), { startMs: freeMs, endMs: untilMs }));
      if (cue) {
        filled.push(cue);
        freeMs = cue.endMs;
      }
    }
    placed.splice(0, placed.length, ...filled);
  }
  return placed
    .filter((cue) => cue.endMs > cue.startMs)
    .map((cue) => ({ ...cue, startMs: atMs + cue.startMs, endMs: atMs + cue.endMs }));
}

/** The block's cautions one after the other at its start. */
export function cautionsOf(block: Block, body: TimeSpan, atMs: number): CautionOverlay[] {
  const texts = block.cautions.filter((text) => text.trim() !== '');
  return texts.flatMap((text, i) => {
    const startMs = body.startMs + i * CAUTION_MS;
    const endMs = Math.min(startMs + CAUTION_MS, body.endMs);
    return endMs > startMs ? [{ slot: 'caution' as const, startMs: atMs + startMs, endMs: atMs + endMs, text }] : [];
  });
}
