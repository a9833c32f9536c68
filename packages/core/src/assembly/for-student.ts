import { LIMITS, type Level } from '../lesson/index.ts';
import { byStart, gaps, overlaps, type TimeSpan } from '../time/index.ts';
import type { Assembly, BoardOverlay, CueOverlay, OverlayLanes } from './types.ts';

/** A form of a block, or of the exercise of that name in it. */
export interface ChosenForm extends Pick<Level, 'form' | 'text' | 'rule'> {
  exercise: string | null;
}

/** How a student wants to see a lesson. */
export interface StudentView {
  larger: boolean;
  contrast: boolean;
  calm: boolean;
  /** The forms chosen for a block, by its id; blocks without one are done as they are shown. */
  levels: ReadonlyMap<string, readonly ChosenForm[]>;
}

/** Shorter gaps stay empty: nothing is to flicker. */
const GAP_MIN_MS = 2_000;
/** Long enough to read a form twice. */
const CUE_MS = 8_000;

/** The form stands on the board throughout, and where the block says how to begin. */
function withLevel(
  lanes: OverlayLanes,
  span: TimeSpan,
  { form, text, rule }: ChosenForm,
): OverlayLanes {
  const boards = lanes.board.filter(
    (board) =>
      !overlaps(board, span) || (board.board.kind !== 'level' && board.board.kind !== 'strip'),
  );
  const shown = gaps(span, boards, GAP_MIN_MS).map((gap): BoardOverlay => ({
    slot: 'board',
    ...gap,
    board: { kind: 'level', form, text, rule },
  }));
  const begins = (cue: CueOverlay) => overlaps(cue, span) && cue.moment === 'ready';
  const hasBegin = lanes.cue.some(begins);
  const cues = lanes.cue.map((cue) => (begins(cue) ? { ...cue, text, pair: null } : cue));
  const gap = hasBegin ? undefined : gaps(span, cues, GAP_MIN_MS)[0];
  const added: CueOverlay[] = gap
    ? [
        {
          slot: 'cue',
          startMs: gap.startMs,
          endMs: Math.min(gap.endMs, gap.startMs + CUE_MS),
          text,
          moment: 'ready',
          pair: null,
        },
      ]
    : [];
  return {
    ...lanes,
    board: [...boards, ...shown].sort(byStart),
    cue: [...cues, ...added].sort(byStart),
  };
}

/** When the exercise of that name is done in a block: while its clock runs. */
const whenDone = ({ lanes }: Assembly, block: TimeSpan, exercise: string): TimeSpan[] =>
  lanes.clock.filter(
    (clock) => clock.phase === 'work' && clock.title === exercise && overlaps(clock, block),
  );

/**
 * A lesson as one student wants to see it: the same cut and times, other sizes and colours, and the
 * chosen forms in place of the usual ones.
 */
export function forStudent(
  assembly: Assembly,
  { larger, contrast, calm, levels }: StudentView,
): Assembly {
  const { look } = assembly;
  const slots = larger
    ? (Object.fromEntries(
        Object.entries(look.slots).map(([slot, style]) => [
          slot,
          { ...style, size: LIMITS.slotSize.max },
        ]),
      ) as typeof look.slots)
    : look.slots;
  const lanes = assembly.blocks.reduce((all, { blockId, startMs, endMs }) => {
    const block = { startMs, endMs };
    return (levels.get(blockId) ?? []).reduce((lanes, form) => {
      const spans = form.exercise === null ? [block] : whenDone(assembly, block, form.exercise);
      return spans.reduce((within, span) => withLevel(within, span, form), lanes);
    }, all);
  }, assembly.lanes);
  return {
    ...assembly,
    look: {
      ...look,
      slots,
      calm: look.calm || calm,
      theme: contrast ? 'high contrast' : look.theme,
    },
    lanes,
  };
}

/** Less than this after its beginning, "the last move" is the one before. */
const JUST_BEGUN_MS = 1_500;
const SHOWN = new Set(['work', 'hold', 'watch']);

/** Where the move that was last shown or done began: to see it once more. */
export function lastMoveStart(
  { lanes, blocks }: Pick<Assembly, 'lanes' | 'blocks'>,
  ms: number,
): number {
  const starts = [
    ...blocks.map(({ startMs }) => startMs),
    ...lanes.clock
      .filter(({ phase, elapsedMs }) => SHOWN.has(phase) && elapsedMs === 0)
      .map(({ startMs }) => startMs),
    ...lanes.counter
      .filter(({ rep, elapsedMs }) => rep === 1 && elapsedMs === 0)
      .map(({ startMs }) => startMs),
  ];
  return Math.max(0, ...starts.filter((startMs) => startMs <= ms - JUST_BEGUN_MS));
}

/**
 * When a student is asked for a number: after each try of a block, in the order of tries. Where the
 * video leaves time to write it down, that time is part of it.
 */
export function scoreMoments(
  { lanes, blocks }: Pick<Assembly, 'lanes' | 'blocks'>,
  blockId: string,
): TimeSpan[] {
  const block = blocks.find((placed) => placed.blockId === blockId);
  if (!block) return [];
  const written = lanes.clock
    .filter((clock) => clock.phase === 'score' && clock.elapsedMs === 0 && overlaps(clock, block))
    .map(({ startMs, endMs }) => ({ startMs, endMs }));
  return written.length > 0 ? written : [{ startMs: block.endMs, endMs: block.endMs }];
}
