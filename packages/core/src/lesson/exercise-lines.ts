import { parseLength } from '../time/index.ts';
import type { Block } from './blocks.ts';
import { inRange, LIMITS } from './limits.ts';
import { makeBlock, type MakeId } from './make.ts';
import type { Movement } from './parts.ts';

/** What came of a list of exercises: the blocks made of it, and the lines nothing could be made of. */
export interface ReadLines {
  blocks: Block[];
  notRead: string[];
}

type Sides = 'both' | 'each' | 'alternating';

/** The figures of a line. */
type Figures =
  | { kind: 'work'; workMs: number; restMs: number; rounds: number }
  | { kind: 'time'; ms: number; times: number; sides: Sides }
  | { kind: 'reps'; reps: number; sets: number; sides: Sides }
  | { kind: 'breaths'; breaths: number; times: number; sides: Sides }
  | { kind: 'laps'; laps: number };

const UNIT = String.raw`s|secs?|seconds?|sek|sekunden?|seg|segundos?|m|mins?|minut(?:e[sn]?|os?)`;
const TIME = String.raw`\d+:\d{2}|\d+(?:[.,]\d+)?\s*(?:${UNIT})\b`;
const TIMES = 'reps?|repetitions?|times|wdh|wiederholungen|mal|repeticiones|veces';
const LIMB = 'side|leg|arm|hand|seite|bein|lado|pierna|brazo|mano';
const A_SIDE = String.raw`(?:a|per|each|every|je|pro|jede|por|cada)\s+(?:${LIMB})`;
const SIDES = String.raw`(?:\s*(?:${A_SIDE}|each|e\/s|alternating|alternate|alternando|alt|abwechselnd)\b)?`;
const SETS = String.raw`(\d{1,2})\s*(?:sets?\s+of|sätze\s+(?:à|mit)|series\s+de|[x×*])\s*`;
const COUNT = `(?:${SETS})?`;
const BY = String.raw`(?:(\d{1,2})\s*[x×*]\s*)?`;
const LENGTH = String.raw`(\d+(?::\d{2})?)\s*(?:s|sec)?`;

const sidesIn = (words: string): Sides =>
  /\balt|abwechselnd/.test(words)
    ? 'alternating'
    : /\b(?:a|per|each|every|e\/s|je|pro|jede|por|cada)\b/.test(words)
      ? 'each'
      : 'both';

/** Ways in which figures are written, the most telling first; each is found anywhere in a line. */
const forms: [RegExp, (found: RegExpExecArray) => Figures | null][] = [
  [
    // 30/15, 30/15 x 3, 3 x 30/15
    new RegExp(`${BY}${LENGTH}\\s*\\/\\s*${LENGTH}(?:\\s*[x×*]\\s*(\\d{1,2}))?(?![\\w/])`, 'i'),
    ([, before, work = '', rest = '', after]) => {
      const [workMs, restMs] = [parseLength(work), parseLength(rest)];
      const rounds = Number(before ?? after ?? 1);
      return workMs !== null &&
        restMs !== null &&
        inRange(workMs, LIMITS.workMs) &&
        inRange(restMs, LIMITS.restMs) &&
        inRange(rounds, LIMITS.rounds)
        ? { kind: 'work', workMs, restMs, rounds }
        : null;
    },
  ],
  [
    // 3 breaths each side, 2 x 4 breaths
    new RegExp(
      `${COUNT}(\\d{1,2})\\s*(?:slow\\s+|langsame\\s+)?(?:breaths?|atemzüge?|respiraciones|respiración)\\b(${SIDES})`,
      'i',
    ),
    ([, times = '1', n, sides = '']) =>
      inRange(Number(n), LIMITS.breaths) && inRange(Number(times), LIMITS.holds)
        ? { kind: 'breaths', breaths: Number(n), times: Number(times), sides: sidesIn(sides) }
        : null,
  ],
  [
    /(\d{1,2})\s*(?:laps?|runden?|vueltas?)\b/i,
    ([, n]) => (inRange(Number(n), LIMITS.laps) ? { kind: 'laps', laps: Number(n) } : null),
  ],
  [
    // 40 s, 1:30, 2 min, 3 x 30 s each side
    new RegExp(`${COUNT}(${TIME})(${SIDES})`, 'i'),
    ([, times = '1', length = '', sides = '']) => {
      const ms = parseLength(length.replace(/(\d)\s*m$/i, '$1 min'));
      return ms !== null && inRange(ms, LIMITS.workMs) && inRange(Number(times), LIMITS.holds)
        ? { kind: 'time', ms, times: Number(times), sides: sidesIn(sides) }
        : null;
    },
  ],
  [
    // 3 x 10, 3 sets of 10 each side, 12 each, 12 reps, x12
    new RegExp(
      `(?<![\\w.:/])(?:${SETS}|[x×*]\\s*)?(\\d{1,3})\\s*(?:${TIMES})?(${SIDES})(?![\\w/:.])`,
      'i',
    ),
    ([, sets = '1', n, sides = '']) =>
      inRange(Number(n), LIMITS.reps) && inRange(Number(sets), LIMITS.sets)
        ? { kind: 'reps', reps: Number(n), sets: Number(sets), sides: sidesIn(sides) }
        : null,
  ],
];

/** Words for what is held still, not moved through. */
const HELD = new RegExp(
  [
    String.raw`\b(?:plank|hold|balance|stretch|bridge|wall sit|stand|pose|tree)`,
    String.raw`\b(?:halten|dehn|brücke|baum)|stütz`,
    String.raw`\b(?:planch|mantener|equilibrio|estir|puente|árbol)`,
  ].join('|'),
  'i',
);

/** Words by which a movement the performer can draw is known. */
const MOVEMENTS: [RegExp, Movement][] = [
  [/\b(?:rope|skip|comba)|seil/i, 'skip-rope'],
  [/\b(?:disc|throw|lanz)|scheibe|wurf|werfen/i, 'disc-throw'],
  [/\b(?:band|row|pull|remo|rudern)/i, 'seated-pull'],
  [
    /\b(?:balance|one leg|single leg|stork|tree|einbein|equilibrio|a la pata coja)/i,
    'one-leg-balance',
  ],
  [/\b(?:step|reach|march|side ?step|paso|alcanz)|schritt|marsch/i, 'step-and-reach'],
  [/\b(?:squat|sit to stand|chair stand|kniebeuge|sentadilla)/i, 'squat'],
];

/** The movement an exercise's name speaks of, as far as the performer can draw it. */
export const movementNamed = (title: string): Movement =>
  MOVEMENTS.find(([words]) => words.test(title))?.[1] ?? 'other';

/** Bullets and numbers of a list. */
const BULLET = /^\s*(?:[-–•*]\s+|\d{1,2}[.)]\s+)/;

/** A name without what joined it with its figures. */
const tidy = (name: string) =>
  name
    .replace(/[\s:,;–—(-]+$/, '')
    .replace(/^[\s:,;–—)-]+/, '')
    .replace(/\s+/g, ' ')
    .trim();

/** Cells of a table's line: a name, then figures; two bare numbers are work and rest. */
function joinCells(line: string): string {
  const cells = line.split('\t').map((cell) => cell.trim());
  const [name, a, b, ...more] = cells.filter((cell) => cell !== '');
  const isBare = (cell: string | undefined) => cell !== undefined && /^\d+(?::\d{2})?$/.test(cell);
  return isBare(a) && isBare(b) && more.length === 0 ? `${name} ${a}/${b}` : cells.join(' ');
}

function blockOf(title: string, figures: Figures, makeId: MakeId, language: string): Block {
  const movement = movementNamed(title);
  const make = <K extends Block['kind']>(kind: K) => {
    const block = makeBlock(kind, makeId, language) as Extract<Block, { kind: K }>;
    return Object.assign(block, { title });
  };
  switch (figures.kind) {
    case 'work': {
      const block = make('intervals');
      const { workMs, restMs, rounds } = figures;
      Object.assign(block, { workMs, restMs, rounds });
      for (const exercise of block.exercises) exercise.movement = movement;
      return block;
    }
    case 'reps': {
      const block = make('reps');
      block.exercise.movement = movement;
      const { reps, sets, sides } = figures;
      return Object.assign(block, { reps, sets, sides });
    }
    case 'laps': {
      const block = make('laps');
      block.exercise.movement = movement;
      return Object.assign(block, { laps: figures.laps });
    }
    case 'breaths': {
      const block = make('hold');
      block.exercise.movement = movement;
      const { breaths, times, sides } = figures;
      return Object.assign(block, { by: 'breaths', breaths, holds: times, sides });
    }
    case 'time': {
      const { ms, times, sides } = figures;
      if (inRange(ms, LIMITS.holdMs) && HELD.test(title)) {
        const block = make('hold');
        block.exercise.movement = movement;
        return Object.assign(block, { holdMs: ms, holds: times, sides });
      }
      const block = make('intervals');
      for (const exercise of block.exercises)
        Object.assign(exercise, { movement, sides: sides === 'both' ? 'both' : 'halves' });
      return Object.assign(block, {
        workMs: ms,
        restMs: times > 1 ? block.restMs : 0,
        rounds: times,
      });
    }
  }
}

/** One line of a list as a block, or null where no name and figures are found in it. */
function readLine(line: string, makeId: MakeId, language: string): Block | null {
  const text = joinCells(line).replace(BULLET, '');
  for (const [form, figuresOf] of forms) {
    const found = form.exec(text);
    if (!found) continue;
    const figures = figuresOf(found);
    const title = tidy(
      `${text.slice(0, found.index)} ${text.slice(found.index + found[0].length)}`,
    );
    return figures && title !== '' && title.length <= LIMITS.title && !/\d/.test(title)
      ? blockOf(title, figures, makeId, language)
      : null;
  }
  return null;
}

/**
 * Reads exercises as teachers note them, a line each: "Star jumps 30/15", "Squats 12 each",
 * "Plank 40 s", "3 x 10 Band rows", or the lines of a table.
 * @param language of the lesson they are for, BCP 47
 */
export function readExerciseLines(text: string, makeId: MakeId, language = 'en'): ReadLines {
  const read: ReadLines = { blocks: [], notRead: [] };
  for (const line of text.split(/\r?\n/)) {
    if (line.trim() === '') continue;
    const block = readLine(line, makeId, language);
    if (block) read.blocks.push(block);
    else read.notRead.push(line.trim());
  }
  return read;
}
