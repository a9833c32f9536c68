import { isOf, type LogEntry, type Score, type SkipReason } from './entry.ts';
import { groupBy } from './group.ts';
import { beats, FINISHED, standingOf } from './figures.ts';

/** Entries by whose they are. */
export const byStudent = (entries: readonly LogEntry[]): Map<string, LogEntry[]> =>
  groupBy(entries, ({ studentId }) => studentId);

/** A block that asks for a second look when the next lesson is planned. */
export interface BlockHint {
  blockId: string;
  title: string;
  /** Students who left it out, by why; who did it once more; of how many who opened the lesson. */
  skipped: Partial<Record<SkipReason, number>>;
  replayed: number;
  of: number;
  /** What it comes to. */
  hint: 'too hard' | 'too easy' | 'it hurts' | 'watched again' | 'left out';
}

/** A block is told of when so large a part of those there, and at least so many, did the same. */
const HINT_PART = 0.25;
const HINT_LEAST = 2;

/**
 * Which blocks of a lesson were left out, watched again or too hard for a class. Pain is told of
 * from the first.
 */
export function blockHints(entries: readonly LogEntry[]): BlockHint[] {
  const of = byStudent(entries).size;
  const blocks = new Map<
    string,
    { title: string; skipped: Map<SkipReason, Set<string>>; replayed: Set<string> }
  >();
  for (const { body, studentId } of entries) {
    if (body.kind !== 'skipped' && body.kind !== 'replayed') continue;
    const block = blocks.get(body.blockId) ?? {
      title: body.title,
      skipped: new Map<SkipReason, Set<string>>(),
      replayed: new Set<string>(),
    };
    blocks.set(body.blockId, block);
    if (body.kind === 'replayed') block.replayed.add(studentId);
    else
      block.skipped.set(
        body.reason,
        (block.skipped.get(body.reason) ?? new Set<string>()).add(studentId),
      );
  }
  const isMany = (count: number) => count >= HINT_LEAST && count >= of * HINT_PART;
  return [...blocks].flatMap(([blockId, { title, skipped, replayed }]): BlockHint[] => {
    const count = (reason: SkipReason) => skipped.get(reason)?.size ?? 0;
    const left = new Set([...skipped.values()].flatMap((students) => [...students])).size;
    const hint =
      count('it hurts') > 0
        ? 'it hurts'
        : isMany(count('too hard'))
          ? 'too hard'
          : isMany(count('too easy'))
            ? 'too easy'
            : isMany(left)
              ? 'left out'
              : isMany(replayed.size)
                ? 'watched again'
                : null;
    return hint === null
      ? []
      : [
          {
            blockId,
            title,
            skipped: Object.fromEntries(
              [...skipped].map(([reason, students]) => [reason, students.size]),
            ),
            replayed: replayed.size,
            of,
            hint,
          },
        ];
  });
}

/**
 * When a class goes on, and when it goes back: the teacher's own rule. Parts in percent of those
 * who opened the lesson.
 */
export interface StepRule {
  harder: { finishedPercent: number; effortAtMost: number };
  easier: { finishedBelowPercent: number; effortAtLeast: number };
}

/**
 * What a new class starts with (common practice): most finish and do not find it hard, or few
 * finish or find it very hard.
 */
export const usualRule: StepRule = {
  harder: { finishedPercent: 80, effortAtMost: 3 },
  easier: { finishedBelowPercent: 50, effortAtLeast: 4 },
};

export interface NextStep {
  step: 'harder' | 'same' | 'easier' | 'not known';
  opened: number;
  finished: number;
  /** Mean of the efforts given; null when nobody gave one. */
  effort: number | null;
}

/** Fewer than this many who opened the lesson say nothing about a class. */
const LEAST_OPENED = 3;

/** What the rule says after a lesson, from its entries: go on, stay, or make it easier. */
export function nextStep(entries: readonly LogEntry[], { harder, easier }: StepRule): NextStep {
  const standings = [...byStudent(entries).values()].map(standingOf);
  const opened = standings.length;
  const finished = standings.filter(({ reached }) => reached >= FINISHED).length;
  const efforts = standings.flatMap(({ effort }) => effort ?? []);
  const effort =
    efforts.length > 0 ? efforts.reduce((sum, value) => sum + value, 0) / efforts.length : null;
  const percent = opened > 0 ? (finished * 100) / opened : 0;
  const figures = { opened, finished, effort };
  if (opened < LEAST_OPENED) return { step: 'not known', ...figures };
  if (percent < easier.finishedBelowPercent || (effort !== null && effort >= easier.effortAtLeast))
    return { step: 'easier', ...figures };
  // Without a word on effort nobody is asked for more.
  if (percent >= harder.finishedPercent && effort !== null && effort <= harder.effortAtMost)
    return { step: 'harder', ...figures };
  return { step: 'same', ...figures };
}

/** A level to be reached, with the teacher's own criteria. */
export interface CreditLevel {
  id: string;
  name: string;
  criteria: { id: string; text: string; measured: { key: string; atLeast: number } | null }[];
}

export interface CriterionState {
  criterionId: string;
  /** By its own numbers, or by the teacher's word. */
  met: 'measured' | 'signed' | null;
}

/**
 * What is known of a student for the levels: numbers they have reached, and what the teacher has
 * signed.
 */
export interface Attained {
  reached: readonly Pick<Score, 'key' | 'better' | 'value'>[];
  signed: readonly { levelId: string; criterionId: string }[];
}

/** What a student's entries say for the levels. */
export const attainedIn = (entries: readonly LogEntry[]): Attained => ({
  reached: entries.filter(isOf('score')).map(({ body }) => body),
  signed: entries.filter(isOf('signed')).map(({ body }) => body),
});

/**
 * Which criteria of a level one student has met. A measured one holds at the best number on any
 * side or form; the teacher's word holds always.
 */
export function creditState(level: CreditLevel, { reached, signed }: Attained): CriterionState[] {
  const byWord = new Set(
    signed.filter(({ levelId }) => levelId === level.id).map(({ criterionId }) => criterionId),
  );
  return level.criteria.map(({ id, measured }) => {
    const isReached =
      measured !== null &&
      reached.some(
        ({ key, better, value }) =>
          key === measured.key &&
          (value === measured.atLeast || beats(better, value, measured.atLeast)),
      );
    return { criterionId: id, met: byWord.has(id) ? 'signed' : isReached ? 'measured' : null };
  });
}
