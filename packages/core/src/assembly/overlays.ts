import { cuesOfExercise, exercisesOf, type Block, type Cue, type Side } from '../lesson/index.ts';
import { moveKinds, waitKinds, type Span, type SpanKind } from '../schedule/index.ts';
import { sentenceOfCue, spokenShare, type Sentence } from '../script/index.ts';
import { byStart, gaps, lengthText, overlaps, spanLength, type TimeSpan } from '../time/index.ts';
import { labelText, speaking, type Label, type Say } from '../words/index.ts';
import type { WorkedSides } from './by-hand.ts';
import type {
  CautionOverlay,
  ClockOverlay,
  ClockPhase,
  CounterOverlay,
  CueOverlay,
  SeenSide,
  SideOverlay,
} from './types.ts';

/**
 * A caution stays this long at the start of its block; several share the time one after the other.
 */
const CAUTION_MS = 5_000;
/** A cue is on screen at least this long, so that it can be read while moving. */
const CUE_MIN_MS = 2_500;
/** The right form and the mistake beside a cue take longer to be read. */
const PAIR_MIN_MS = 4_000;
/** A cue for the finish comes up this long before the end of what it belongs to. */
const FINISH_MS = 5_000;

const phaseOf: Partial<Record<SpanKind, ClockPhase>> = {
  'lead-in': 'lead-in',
  show: 'watch',
  work: 'work',
  part: 'work',
  move: 'work',
  play: 'work',
  hold: 'hold',
  rest: 'rest',
  'round-rest': 'rest',
  'set-rest': 'rest',
  'side-change': 'change',
  score: 'score',
  think: 'think',
};

/** Named after what follows: "Next: Squat". Everything else is told with its length. */
const NAMED: ReadonlySet<SpanKind> = new Set([
  'work',
  'talk',
  'move',
  'part',
  'play',
  'count',
  'lap',
  'show',
]);
const SIDED: ReadonlySet<SpanKind> = new Set(['rep', 'hold']);

/** Words of our own go on in the middle of a line; German writes nouns large even there. */
const inLine = (label: Label, language: string): string => {
  const text = labelText(label, language);
  return 'own' in label && !/^de\b/i.test(language) ? text.toLocaleLowerCase(language) : text;
};

function nextText(spans: readonly Span[], from: number, language: string): string {
  const say = speaking(language);
  const next = spans[from + 1];
  if (!next) return say('next.last');
  const after = (what: string) => say('next.what', { what });
  // The words of a command or an answer would give it away.
  if (next.kind === 'prompt') return after(say('next.listen'));
  if (next.kind === 'answer') return after(say('next.answer'));
  const label = labelText(next.label, language);
  if (SIDED.has(next.kind))
    return after(next.side ? `${label}, ${say(`side.${next.side}`)}` : label);
  if (NAMED.has(next.kind)) return after(label);
  return after(`${inLine(next.label, language)} ${lengthText(spanLength(next))}`);
}

/** A span as a whole of its own. */
const timed = ({ startMs, endMs }: TimeSpan) => ({
  startMs,
  endMs,
  elapsedMs: 0,
  totalMs: endMs - startMs,
});

/** Of several rounds, which one, as one of the round's texts says it; else nothing. */
const roundText = (
  { round, rounds }: Span,
  say: Say,
  word: 'count.round' | 'count.in-round' | 'count.set' | 'count.time' = 'count.round',
): string =>
  round !== undefined && rounds !== undefined && rounds > 1 ? say(word, { round, rounds }) : '';

/** What a clock runs for; its phase says already that it is watched. */
function clockTitle({ kind, label }: Span, language: string): string {
  const shown = kind === 'show' && 'own' in label ? label.values?.['title'] : undefined;
  return shown === undefined ? labelText(label, language) : String(shown);
}

/** The clock of every span that is timed, in the block's own time. */
export function clocksOf(spans: readonly Span[], language: string): ClockOverlay[] {
  return spans.flatMap((span, i) => {
    const phase = phaseOf[span.kind];
    if (!phase) return [];
    return {
      slot: 'clock',
      ...timed(span),
      phase,
      title: clockTitle(span, language),
      next: nextText(spans, i, language),
      round: roundText(span, speaking(language)),
      up: span.up,
      breaths:
        span.pace?.kind === 'breaths' ? { inMs: span.pace.inMs, outMs: span.pace.outMs } : null,
    };
  });
}

const COUNTED: ReadonlySet<SpanKind> = new Set([
  'rep',
  'hold',
  'lap',
  'count',
  'prompt',
  'show',
  'part',
]);

function noteOf(block: Block, span: Span, say: Say): string {
  if (block.kind === 'laps' && block.tokens > 0) {
    return say('count.tokens', { left: Math.max(0, block.tokens - (span.rep ?? 0) + 1) });
  }
  // Calls to try first do not count.
  if (block.kind === 'called') return span.round !== span.rounds ? say('count.trial') : '';
  const word =
    block.kind === 'intervals'
      ? 'count.in-round'
      : span.kind === 'count'
        ? 'count.time'
        : 'count.set';
  const round = roundText(span, say, word);
  if (round !== '') return round;
  return span.side !== undefined && 'sides' in block && block.sides !== 'both'
    ? say('count.each-side')
    : '';
}

/** Which run-through of a combination is on, on its side, one counter for all of its moves. */
function runCounters(spans: readonly Span[]): CounterOverlay[] {
  const runs: CounterOverlay[] = [];
  for (const { kind, round, rounds, side, startMs, endMs } of spans) {
    if (kind !== 'move' || round === undefined || rounds === undefined) continue;
    const last = runs.at(-1);
    if (last?.rep === round && last.side === (side ?? null) && last.endMs === startMs) {
      last.endMs = endMs;
      last.totalMs = endMs - last.startMs;
    } else
      runs.push({
        ...{ slot: 'counter', ...timed({ startMs, endMs }), rep: round, reps: rounds },
        ...{ side: side ?? null, note: '', beats: null, missed: false },
      });
  }
  return runs;
}

/** The number of every repetition, hold, lap, call and count of 8. A single one needs no number. */
export function countersOf(block: Block, spans: readonly Span[], say: Say): CounterOverlay[] {
  const isCombination = block.kind === 'routine' && block.combination !== undefined;
  const runs = isCombination ? runCounters(spans) : [];
  const each = numbersOf(block, spans, say);
  return runs.length > 0 ? [...runs, ...each].sort(byStart) : each;
}

function numbersOf(block: Block, spans: readonly Span[], say: Say): CounterOverlay[] {
  return spans.flatMap((span) => {
    const beats = span.pace?.kind === 'beats' ? span.pace.beats : null;
    if (beats === null && !COUNTED.has(span.kind)) return [];
    const { rep, reps } = span;
    if (
      rep === undefined ||
      reps === undefined ||
      (reps === 1 && beats === null && span.kind !== 'rep' && span.side === undefined)
    )
      return [];
    return {
      slot: 'counter' as const,
      ...timed(span),
      rep,
      reps,
      side: span.side ?? null,
      note: noteOf(block, span, say),
      beats,
      missed: false,
    };
  });
}

/** Each of these is a stretch of its own; others of one kind that follow each other are one. */
const ALONE: ReadonlySet<SpanKind> = new Set(['work', 'hold', 'play', 'lap']);

/** A stretch, and the exercise whose own cues it has; null: those of the block. */
interface Stretch extends TimeSpan {
  of: number | null;
}

/**
 * Runs of neighbouring spans of a kind, each as one stretch: the repetitions of one side, one work.
 */
function stretches(
  spans: readonly Span[],
  kinds: ReadonlySet<SpanKind>,
  speaker: (exercise: number | undefined) => number | null,
): Stretch[] {
  const found: (Stretch & { kind: SpanKind })[] = [];
  for (const { kind, startMs, endMs, exercise } of spans) {
    if (!kinds.has(kind)) continue;
    const last = found.at(-1);
    const of = speaker(exercise);
    const goesOn = last?.kind === kind && last.endMs === startMs && last.of === of;
    if (goesOn && !ALONE.has(kind)) last.endMs = endMs;
    else found.push({ kind, startMs, endMs, of });
  }
  return found;
}

/**
 * Shows the cues one after the other over the stretch, as many as have time to be read, equally
 * long.
 */
function spread(cues: readonly Cue[], over: TimeSpan): CueOverlay[] {
  const length = spanLength(over);
  const count = Math.min(cues.length, Math.max(1, Math.floor(length / CUE_MIN_MS)));
  return cues.slice(0, count).map(({ text, moment, right, wrong }, i): CueOverlay => {
    const startMs = over.startMs + Math.floor((length * i) / count);
    const endMs = over.startMs + Math.floor((length * (i + 1)) / count);
    const isPair = right.trim() !== '' && wrong.trim() !== '' && endMs - startMs >= PAIR_MIN_MS;
    return { slot: 'cue', startMs, endMs, text, moment, pair: isPair ? { right, wrong } : null };
  });
}

/**
 * A cue tied to a sentence comes up with it and stays this long, or until the next sentence with
 * one.
 */
const SPOKEN_MS = 5_000;

/**
 * Cues tied to sentences of a talk, each when its sentence is spoken; those of one sentence share
 * its time.
 */
/** When a sentence of the script is said, in the block's own time; null: not known. */
export type SaidAt = (sentence: Sentence) => number | null;

function spokenCues(
  script: string,
  cues: readonly Cue[],
  body: TimeSpan,
  saidAt: SaidAt,
): CueOverlay[] {
  const bySentence = new Map<number, Cue[]>();
  for (const cue of cues) {
    const share = spokenShare(script, cue);
    if (share === null) continue;
    const sentence = sentenceOfCue(script, cue);
    const startMs =
      (sentence && saidAt(sentence)) ?? body.startMs + Math.floor(spanLength(body) * share);
    bySentence.set(startMs, [...(bySentence.get(startMs) ?? []), cue]);
  }
  const starts = [...bySentence.keys()].sort((a, b) => a - b);
  return starts.flatMap((startMs, i) => {
    const spokenHere = bySentence.get(startMs) ?? [];
    return spread(spokenHere, {
      startMs,
      endMs: Math.min(startMs + SPOKEN_MS * spokenHere.length, starts[i + 1] ?? body.endMs),
    });
  });
}

/** Cues wherever nothing else stands long enough for one to be read. */
const fillers = (taken: readonly TimeSpan[], cues: readonly Cue[], over: TimeSpan): CueOverlay[] =>
  gaps(over, taken, CUE_MIN_MS).flatMap((gap) => spread(cues, gap));

/**
 * Turns a long list round by `by` places, so that what had no time in one stretch comes in the
 * next.
 */
function turned<T>(list: readonly T[], by: number): T[] {
  const at = list.length ? by % list.length : 0;
  return [...list.slice(at), ...list.slice(0, at)];
}

/** Whose cues an exercise has: its own, by its place in the list, or its block's (null). */
const speakerIn = (block: Block) => (exercise: number | undefined) =>
  exercise !== undefined && cuesOfExercise(block, exercise).length > 0 ? exercise : null;

/** What is to be written down after a try. */
function scoreText(block: Block, say: Say): string {
  if (block.kind !== 'game') return say('score.write');
  switch (block.scoring) {
    case 'count':
      return say('score.count');
    case 'time':
      return say('score.time');
    case 'streak':
      return say('score.streak');
    case 'points':
      return [say('score.points'), ...block.targets.map(({ name, points }) => `${name} ${points}`)]
        .join(', ')
        .replace(', ', ': ');
  }
}

/**
 * `ready` cues before the move, `action` cues while it runs, `finish` cues at its end; commands
 * where they are called.
 */
function moveCues(
  block: Block,
  cues: readonly Cue[],
  spans: readonly Span[],
  moves: readonly Stretch[],
  language: string,
): CueOverlay[] {
  const cuesAt = (of: number | null, moment: Cue['moment']) =>
    (of === null ? cues : cuesOfExercise(block, of)).filter((cue) => cue.moment === moment);
  const placed = stretches(spans, waitKinds, () => null).flatMap((wait) => {
    const next = moves.find(({ startMs }) => startMs >= wait.endMs);
    return spread(cuesAt(next?.of ?? null, 'ready'), wait);
  });
  const commands = spans.filter((span) => span.kind === 'prompt');
  placed.push(
    ...commands.map(({ startMs, endMs, label, command }): CueOverlay => {
      const sign = block.kind === 'called' && block.labels[command ?? -1]?.sign;
      return {
        ...{ slot: 'cue', startMs, endMs, text: labelText(label, language) },
        ...{ moment: 'command', pair: null },
        ...(sign && { sign }),
      };
    }),
  );
  placed.push(
    ...spans
      .filter((span) => span.kind === 'score')
      .map(({ startMs, endMs }) => ({
        slot: 'cue' as const,
        startMs,
        endMs,
        text: scoreText(block, speaking(language)),
        moment: 'score' as const,
        pair: null,
      })),
  );
  const shown = new Map<number | null, number>();
  for (const move of moves) {
    const finish = cuesAt(move.of, 'finish');
    const action = cuesAt(move.of, 'action');
    const before = shown.get(move.of) ?? 0;
    const finishMs = finish.length === 0 ? 0 : action.length === 0 ? spanLength(move) : FINISH_MS;
    const borderMs = Math.max(
      move.endMs - finishMs,
      move.startMs + (action.length ? Math.floor(spanLength(move) / 2) : 0),
    );
    const inAction = spread(turned(action, before), { startMs: move.startMs, endMs: borderMs });
    placed.push(...inAction, ...spread(finish, { startMs: borderMs, endMs: move.endMs }));
    shown.set(move.of, before + inAction.length);
  }
  return placed.sort(byStart);
}

function placedCues(
  block: Block,
  cues: readonly Cue[],
  spans: readonly Span[],
  body: TimeSpan,
  language: string,
  saidAt: SaidAt,
): CueOverlay[] {
  switch (block.kind) {
    case 'card':
      return [];
    case 'question': {
      // Choices are a card of their own while one thinks, and with the answer.
      const asked = spans.filter(
        ({ kind }) => kind === 'ask' || (kind === 'think' && !block.choices),
      );
      const answers = spans.filter(
        ({ kind }) => kind === 'answer' && !block.choices && block.answer.trim() !== '',
      );
      return [
        ...asked.map(({ startMs, endMs }): CueOverlay => ({
          slot: 'cue',
          startMs,
          endMs,
          text: block.question,
          moment: 'question',
          pair: null,
        })),
        ...answers.map(({ startMs, endMs }): CueOverlay => ({
          slot: 'cue',
          startMs,
          endMs,
          text: block.answer,
          moment: 'answer',
          pair: null,
        })),
      ];
    }
    case 'talk': {
      const unspoken = cues.filter((cue) => spokenShare(block.script, cue) === null);
      const spoken = spokenCues(block.script, cues, body, saidAt);
      return [...spoken, ...fillers(spoken, unspoken, body)].sort(byStart);
    }
    default: {
      const throughout = (list: readonly Cue[]) =>
        list.filter(({ moment }) => moment === 'throughout');
      const moves = stretches(spans, moveKinds, speakerIn(block));
      const placed = moveCues(block, cues, spans, moves, language);
      const alone = moves.filter(({ of }) => of !== null);
      // An exercise with cues of its own has those alone.
      const ofExercises = alone.flatMap((move) =>
        fillers(placed, throughout(cuesOfExercise(block, move.of ?? undefined)), move),
      );
      return [
        ...placed,
        ...ofExercises,
        ...fillers([...placed, ...ofExercises, ...alone], throughout(cues), body),
      ].sort(byStart);
    }
  }
}

/**
 * Cue cards of a block, at the moments they belong to; `throughout` cues wherever nothing else
 * stands. In a talk a cue comes with its sentence, and those without one follow each other in the
 * time between. Commands and questions take the place of cues.
 */
export function cuesOf(
  block: Block,
  spans: readonly Span[],
  body: TimeSpan,
  language: string,
  saidAt: SaidAt = () => null,
): CueOverlay[] {
  const cues = block.cues.filter((cue) => cue.text.trim() !== '');
  return placedCues(block, cues, spans, body, language, saidAt).filter(
    (cue) => cue.endMs > cue.startMs,
  );
}

/**
 * The block's cautions one after the other at its start, those of an exercise when it is first
 * waited for, shown or done.
 */
export function cautionsOf(block: Block, spans: readonly Span[], body: TimeSpan): CautionOverlay[] {
  const wanted = [
    ...block.cautions.map((text) => ({ text, fromMs: body.startMs })),
    ...exercisesOf(block).flatMap(({ details }, exercise) => {
      const first = spans.findIndex((span) => span.exercise === exercise);
      const before = spans[first - 1];
      const from = before && waitKinds.has(before.kind) ? before : spans[first];
      return from ? (details?.cautions ?? []).map((text) => ({ text, fromMs: from.startMs })) : [];
    }),
  ].filter(({ text }) => text.trim() !== '');
  const placed: CautionOverlay[] = [];
  for (const { text, fromMs } of wanted) {
    const startMs = Math.max(fromMs, placed.at(-1)?.endMs ?? body.startMs);
    const endMs = Math.min(startMs + CAUTION_MS, body.endMs);
    if (endMs > startMs) placed.push({ slot: 'caution', startMs, endMs, text, tone: 'caution' });
  }
  return placed;
}

/** A side seen for less than this is over before it is read. */
const SIDE_MIN_MS = 800;

/** Where the camera sees a side of the performer. */
function seenSide(side: Side, facing: Block['facing']['performer'], mirrored: boolean): SeenSide {
  if (facing === 'left side on') return side === 'left' ? 'near' : 'far';
  if (facing === 'right side on') return side === 'right' ? 'near' : 'far';
  // Who looks at the camera has the left side where the viewer sees the right one.
  return ((side === 'left') === (facing === 'away')) !== mirrored ? 'left' : 'right';
}

/**
 * Which side works when, as planned or as it was counted, neighbours of one side as one;
 * `mirroredAt` says whether the picture is turned round at a moment.
 */
export function sidesOf(
  { facing }: Block,
  spans: readonly Span[],
  mirroredAt: (ms: number) => boolean,
  worked: WorkedSides,
): SideOverlay[] {
  const byPlan = spans.flatMap(({ startMs, endMs, side, halves: isHalved }) => {
    if (side === undefined) return [];
    const middleMs = startMs + Math.floor((endMs - startMs) / 2);
    const other: Side = side === 'left' ? 'right' : 'left';
    return isHalved
      ? [
          { startMs, endMs: middleMs, side },
          { startMs: middleMs, endMs, side: other },
        ]
      : [{ startMs, endMs, side }];
  });
  const halves = [
    ...byPlan.filter((half) => !worked.of.some((span) => overlaps(half, span))),
    ...worked.sides,
  ].sort(byStart);
  const found: SideOverlay[] = [];
  for (const { startMs, endMs, side } of halves) {
    const last = found.at(-1);
    if (last?.side === side && last.endMs === startMs) last.endMs = endMs;
    else {
      const mirrored = mirroredAt(startMs);
      found.push({
        slot: 'side',
        startMs,
        endMs,
        side,
        seen: seenSide(side, facing.performer, mirrored),
        away: facing.performer === 'away',
        mirrored,
      });
    }
  }
  return found.filter(({ startMs, endMs }) => endMs - startMs >= SIDE_MIN_MS);
}
