import { figureOf, readFigure, type Block } from '../lesson/index.ts';
import type { Label } from '../words/index.ts';
import type { Span, SpanKind } from './timeline-builder.ts';

/** A part of a block's time as one looks at it: repetitions of a side are one, with a tick for each. */
export interface StripPart {
  kind: SpanKind;
  /** In milliseconds of the block's own time. */
  fromMs: number;
  toMs: number;
  label: Label;
  side: Span['side'];
  /** The figure of the block its length comes from; null: none alone. */
  figure: string | null;
  /** Where the spans in it begin, but for the first. */
  ticks: number[];
}

/** Figures by what a span is, where that is all there is to know. */
const plain: Partial<Record<SpanKind, string>> = {
  'lead-in': 'leadInMs',
  'side-change': 'sideChangeMs',
  'set-rest': 'restBetweenSetsMs',
  'round-rest': 'restBetweenRoundsMs',
  talk: 'fixedMs',
  card: 'fixedMs',
  explain: 'explainMs',
  lap: 'lapMs',
  play: 'playMs',
  score: 'scoreMs',
  ask: 'askMs',
  think: 'thinkMs',
  answer: 'answerMs',
  'pause-sign': 'pauseAfter.signMs',
};

/** Which rung of a ladder a span of work and rest belongs to. */
const onRung = (rung: number, figure: 'workMs' | 'restMs') =>
  rung === 0 ? figure : `ladder.${rung - 1}.${figure}`;

function figureKey(block: Block, { kind, exercise }: Span, rung: number): string | undefined {
  const at = exercise ?? 0;
  switch (kind) {
    case 'work':
      return block.kind === 'called' ? 'calls' : onRung(rung, 'workMs');
    case 'rest':
      return block.kind !== 'intervals'
        ? 'restMs'
        : block.rests?.by === 'breaths'
          ? 'rests.breaths'
          : onRung(rung, 'restMs');
    case 'rep':
      return block.kind === 'reps'
        ? 'reps'
        : block.kind === 'intervals'
          ? `exercises.${at}.amount.reps`
          : `moves.${at}.amount.reps`;
    case 'hold':
      return block.kind === 'hold'
        ? block.by === 'breaths'
          ? 'breaths'
          : 'holdMs'
        : block.kind === 'intervals'
          ? `exercises.${at}.amount.holdMs`
          : `moves.${at}.amount.holdMs`;
    case 'count':
      return `moves.${at}.eights`;
    case 'move':
      return `moves.${at}.ms`;
    default:
      return plain[kind];
  }
}

/** What several spans of are one part. */
const joined: ReadonlySet<SpanKind> = new Set(['rep', 'count', 'part', 'show', 'work', 'lead-in']);

/** Whether a span goes on what the part before it is. */
function goesOn(block: Block, part: StripPart, last: Span, span: Span, figure: string | null) {
  if (part.kind !== span.kind || part.figure !== figure || !joined.has(span.kind)) return false;
  if (span.kind === 'work') return block.kind === 'called';
  const inTurn = block.kind === 'reps' && block.sides === 'alternating';
  return (
    last.round === span.round &&
    last.exercise === span.exercise &&
    (inTurn || span.kind === 'count' || last.side === span.side)
  );
}

/** A block's time as parts one can look at and take by their borders; they tile it. */
export function stripOf(block: Block, spans: readonly Span[]): StripPart[] {
  const parts: StripPart[] = [];
  let last: Span | undefined;
  let round: number | undefined;
  let works = 0;
  const rungLength = block.kind === 'intervals' ? block.exercises.length : 1;
  for (const span of spans) {
    if (span.round !== round) [round, works] = [span.round, 0];
    const isWork = span.kind === 'work';
    // A rest belongs to the rung of the work before it.
    const rung = Math.floor((isWork ? works : Math.max(0, works - 1)) / rungLength);
    if (isWork) works += 1;
    const key = figureKey(block, span, rung);
    const figure = key !== undefined && figureOf(block, key) ? key : null;
    const part = parts.at(-1);
    if (part && last && goesOn(block, part, last, span, figure)) {
      part.ticks.push(span.startMs);
      part.toMs = span.endMs;
    } else
      parts.push({
        ...{ kind: span.kind, fromMs: span.startMs, toMs: span.endMs },
        ...{ label: span.label, side: span.side, figure, ticks: [] },
      });
    last = span;
  }
  return parts;
}

/**
 * What a part's figure becomes where the part is drawn out to a length: whole seconds, repetitions,
 * breaths or eights, within the figure's bounds. Null where its length is no figure's.
 */
export function drawnOut(block: Block, part: StripPart, lengthMs: number): number | null {
  const figure = part.figure === null ? undefined : figureOf(block, part.figure);
  const now = figure && readFigure(block, figure.key);
  if (!figure || !now) return null;
  const perUnit = (part.toMs - part.fromMs) / now;
  const step = figure.unit === 'ms' ? 1_000 : 1;
  const value = Math.round(lengthMs / perUnit / step) * step;
  return Math.min(figure.range.max, Math.max(figure.range.min, value));
}
