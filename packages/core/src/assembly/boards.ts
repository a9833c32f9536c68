import { floorUse } from '../ledger/index.ts';
import {
  exercisesOf,
  exerciseTitles,
  filmedWay,
  kitText,
  waysOf,
  wayWords,
  withWay,
  type Block,
  type Lesson,
  type Way,
} from '../lesson/index.ts';
import { moveKinds, readingMs, waitKinds, type Span } from '../schedule/index.ts';
import { byStart, gaps, type TimeSpan } from '../time/index.ts';
import type { Board, BoardOverlay } from './types.ts';

/** A section's title and a name are taken in at a glance. */
const GLANCE_MS = 4_000;
/** Shorter gaps between boards stay empty: nothing is to flicker. */
const GAP_MIN_MS = 2_000;
/** Lines of kit that have room at once. */
const KIT_LINES = 4;

/** What boards must know of the lesson around a block. */
export interface BoardContext {
  lesson: Lesson;
  /** Titles of all sections, and which one the block is in. */
  sections: readonly string[];
  section: number;
  isFirstOfSection: boolean;
  /** Kit that no block before has used. */
  newKit: Block['kit'];
}

interface Wanted {
  board: Board;
  ms: number;
}

/** The rules for so many players, then how they stand and change places. */
function rulesBoards(way: Way, { settings, audience }: Lesson): Wanted[] {
  const { players, rules, how } = wayWords(way, settings);
  return [rules, how]
    .filter((text) => text.trim() !== '')
    .map((text) => ({
      board: { kind: 'rules', players, text },
      ms: readingMs(`${players} ${text}`, audience.ageFrom),
    }));
}

/** How others than those who are filmed play it. */
function otherRules(block: Block, { lesson }: BoardContext): Wanted[] {
  if (!lesson.finish.look.boards.includes('rules')) return [];
  const filmed = filmedWay(block, lesson);
  return waysOf(block, lesson)
    .filter((way) => way !== filmed)
    .flatMap((way) => rulesBoards(way, lesson));
}

/**
 * Told one after the other at the block's beginning: where we are, who it is, what is needed, where
 * things lie.
 */
function openingBoards(
  block: Block,
  { lesson, sections, section, isFirstOfSection, newKit }: BoardContext,
): Wanted[] {
  const shown = new Set(lesson.finish.look.boards);
  const age = lesson.audience.ageFrom;
  const wanted: Wanted[] = [];
  const title = sections[section] ?? '';
  // The strip names the section all the time.
  if (shown.has('chapter') && !shown.has('strip') && isFirstOfSection && title.trim() !== '')
    wanted.push({ board: { kind: 'chapter', title }, ms: GLANCE_MS });
  if (shown.has('name') && block.shownBy.trim() !== '')
    wanted.push({ board: { kind: 'name', name: block.shownBy }, ms: GLANCE_MS });
  if (shown.has('kit') && newKit.length > 0 && block.kind !== 'card') {
    const lines = newKit.slice(0, KIT_LINES).map((item) => kitText(item, lesson.settings.language));
    wanted.push({ board: { kind: 'kit', lines }, ms: readingMs(lines.join(' '), age) });
  }
  const way = filmedWay(block, lesson);
  if (way && shown.has('rules')) wanted.push(...rulesBoards(way, lesson));
  const played = way ? withWay(block, lesson, way) : block;
  const floor = shown.has('floor') && played.floor.length > 0 ? floorUse(played) : null;
  if (floor)
    wanted.push({
      board: { kind: 'floor', floor },
      ms: readingMs(floor.marks.map(({ mark }) => mark.label).join(' '), age),
    });
  return wanted;
}

/** Easier and harder forms, the one this week asks for first. */
function levelBoards(block: Block, { lesson }: BoardContext): Wanted[] {
  if (!lesson.finish.look.boards.includes('level')) return [];
  const asked = lesson.series.level;
  const levels = block.levels
    .filter(({ text }) => text.trim() !== '')
    .sort((a, b) => Number(b.form === asked) - Number(a.form === asked));
  return levels.map(({ form, text, rule }) => ({
    board: { kind: 'level', form, text, rule },
    ms: readingMs(`${text} ${rule}`, lesson.audience.ageFrom),
  }));
}

/** Boards that name an exercise of the block, by its place in the list, and draw it. */
function exerciseBoards(block: Block, language: string) {
  const exercises = exercisesOf(block);
  const titles = exerciseTitles(block, language);
  return (kind: 'next' | 'ready', at: number): Board => ({
    kind,
    title: titles[at] ?? '',
    movement: exercises[at]?.movement ?? 'other',
  });
}

/** Each wait before another exercise of a list names it, wherever nothing else stands. */
function nextBoards(
  block: Block,
  spans: readonly Span[],
  placed: readonly BoardOverlay[],
  { lesson }: BoardContext,
): BoardOverlay[] {
  if (!lesson.finish.look.boards.includes('next') || exercisesOf(block).length < 2) return [];
  const boardOf = exerciseBoards(block, lesson.settings.language);
  let before: number | undefined;
  return spans.flatMap((span, i) => {
    if (span.exercise !== undefined) before = span.exercise;
    const next = spans[i + 1]?.exercise;
    if (!waitKinds.has(span.kind) || next === undefined || next === before) return [];
    const board = boardOf('next', next);
    return gaps(span, placed, GAP_MIN_MS).map((gap): BoardOverlay => ({
      slot: 'board',
      ...gap,
      board,
    }));
  });
}

/** Each rest that lasts until the student is ready says so, and what comes then. */
function readyBoards(block: Block, spans: readonly Span[], language: string): BoardOverlay[] {
  const boardOf = exerciseBoards(block, language);
  return spans.flatMap((span, i): BoardOverlay[] => {
    if (span.kind !== 'ready') return [];
    const next = spans.slice(i + 1).find(({ kind }) => moveKinds.has(kind));
    const board = boardOf('ready', next?.exercise ?? 0);
    return [{ slot: 'board', startMs: span.startMs, endMs: span.endMs, board }];
  });
}

/**
 * Boards of a block in its own time: those of its beginning, other forms while one waits, and the
 * strip wherever nothing else stands.
 */
export function boardsOf(
  block: Block,
  spans: readonly Span[],
  body: TimeSpan,
  context: BoardContext,
): BoardOverlay[] {
  const placed: BoardOverlay[] = [];
  let freeMs = body.startMs;
  const put = ({ board, ms }: Wanted, fromMs: number, untilMs: number): boolean => {
    const startMs = Math.max(freeMs, fromMs);
    if (startMs + ms > untilMs) return false;
    placed.push({ slot: 'board', startMs, endMs: startMs + ms, board });
    freeMs = startMs + ms;
    return true;
  };
  for (const wanted of openingBoards(block, context)) put(wanted, body.startMs, body.endMs);
  const waits = spans.filter(({ kind }) => waitKinds.has(kind) && kind !== 'ready');
  const rooms: readonly TimeSpan[] = waits.length > 0 ? waits : [body];
  const others = otherRules(block, context);
  for (const room of [...spans.filter(({ kind }) => kind === 'explain'), ...waits])
    while (others[0] && put(others[0], room.startMs, room.endMs)) others.shift();
  const levels = levelBoards(block, context);
  for (const room of rooms)
    while (levels[0] && put(levels[0], room.startMs, room.endMs)) levels.shift();
  // Where no wait is long enough, other forms are told as soon as there is time.
  for (const level of levels) put(level, freeMs, body.endMs);
  const ready = readyBoards(block, spans, context.lesson.settings.language);
  const apart = placed.flatMap((board) =>
    gaps(board, ready, GAP_MIN_MS).map((gap): BoardOverlay => ({ ...board, ...gap })),
  );
  const standing = [...apart, ...ready].sort(byStart);
  const boards = [...standing, ...nextBoards(block, spans, standing, context)].sort(byStart);
  return context.lesson.finish.look.boards.includes('strip')
    ? withStrip(boards, body, context)
    : boards;
}

function withStrip(
  placed: readonly BoardOverlay[],
  body: TimeSpan,
  { sections, section }: BoardContext,
): BoardOverlay[] {
  const board: Board = {
    kind: 'strip',
    done: section,
    of: sections.length,
    now: sections[section] ?? '',
    then: sections[section + 1] ?? '',
  };
  const strips = gaps(body, placed, GAP_MIN_MS).map((gap): BoardOverlay => ({
    slot: 'board',
    ...gap,
    board,
  }));
  return [...placed, ...strips].sort(byStart);
}
