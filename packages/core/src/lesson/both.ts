import { teacherText } from '../words/index.ts';
import type { Block } from './blocks.ts';
import { blocksOf } from './edit.ts';
import { LIMITS } from './limits.ts';
import { LessonError } from './read.ts';
import type { Lesson, Section } from './schema.ts';

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);

export type HowChanged = 'same' | 'changed' | 'new' | 'deleted';
export type Chosen = 'mine' | 'theirs';

/** A block, or everything but the blocks, that is not alike in two versions of a lesson. */
export interface Difference {
  /** The block's id; null for what concerns the whole lesson. */
  blockId: string | null;
  title: string;
  mine: HowChanged;
  theirs: HowChanged;
  /** Both changed it, in different ways: somebody has to choose. */
  isConflict: boolean;
}

type Whole = Omit<Lesson, 'sections'>;
const wholeOf = ({ sections: _sections, ...whole }: Lesson): Whole => whole;
const byId = (lesson: Lesson) => new Map(blocksOf(lesson).map((block) => [block.id, block]));

function howChanged(before: unknown, after: unknown): HowChanged {
  if (before === undefined) return after === undefined ? 'same' : 'new';
  return after === undefined ? 'deleted' : same(before, after) ? 'same' : 'changed';
}

/** What two people made of the same lesson, block by block; what neither touched is left out. */
export function differencesOf(base: Lesson, mine: Lesson, theirs: Lesson): Difference[] {
  const [old, ours, other] = [byId(base), byId(mine), byId(theirs)];
  const ids = new Set([...ours.keys(), ...other.keys(), ...old.keys()]);
  const blocks = [...ids].map((id): Difference => {
    const [a, b] = [howChanged(old.get(id), ours.get(id)), howChanged(old.get(id), other.get(id))];
    const block = ours.get(id) ?? other.get(id) ?? old.get(id);
    return {
      blockId: id,
      title: block?.title || teacherText('untitled'),
      mine: a,
      theirs: b,
      isConflict: a !== 'same' && b !== 'same' && !same(ours.get(id), other.get(id)),
    };
  });
  const [a, b] = [
    howChanged(wholeOf(base), wholeOf(mine)),
    howChanged(wholeOf(base), wholeOf(theirs)),
  ];
  const whole: Difference = {
    blockId: null,
    title: teacherText('lesson.whole'),
    mine: a,
    theirs: b,
    isConflict: a !== 'same' && b !== 'same' && !same(wholeOf(mine), wholeOf(theirs)),
  };
  return [whole, ...blocks].filter(
    (difference) => difference.mine !== 'same' || difference.theirs !== 'same',
  );
}

/**
 * Three versions of one thing: whoever changed it has their way; of two who did, the one chosen.
 */
function pick<T>(base: T, mine: T, theirs: T, chosen: Chosen): T {
  if (same(mine, base)) return theirs;
  return same(theirs, base) || chosen === 'mine' ? mine : theirs;
}

function wholeTogether(base: Lesson, mine: Lesson, theirs: Lesson, chosen: Chosen): Whole {
  const keys = Object.keys(wholeOf(theirs)) as (keyof Whole)[];
  return Object.fromEntries(
    keys.map((key) => [key, pick<unknown>(base[key], mine[key], theirs[key], chosen)]),
  ) as Whole;
}

/**
 * Puts a section's block where mine has it: after the nearest one before it that is there, else at
 * the beginning.
 */
function inserted(blocks: readonly Block[], block: Block, order: readonly Block[]): Block[] {
  const before = order
    .slice(
      0,
      order.findIndex(({ id }) => id === block.id),
    )
    .map(({ id }) => id);
  const at = blocks.findLastIndex(({ id }) => before.includes(id)) + 1;
  return [...blocks.slice(0, at), block, ...blocks.slice(at)];
}

/**
 * Two versions of a lesson put together: what only one changed is as they made it, what both
 * changed is as chosen (mine where nothing is). Blocks stand in the order of theirs, new ones of
 * mine after what they stood after.
 * @throws LessonError when together they are more than a lesson holds
 */
export function putTogether(
  base: Lesson,
  mine: Lesson,
  theirs: Lesson,
  chosen: ReadonlyMap<string | null, Chosen>,
): Lesson {
  const [old, ours, other] = [byId(base), byId(mine), byId(theirs)];
  const result = new Map<string, Block>();
  for (const id of new Set([...ours.keys(), ...other.keys()])) {
    const block = pick(old.get(id), ours.get(id), other.get(id), chosen.get(id) ?? 'mine');
    if (block) result.set(id, block);
  }
  const titleOf = (section: Section) =>
    pick(
      base.sections.find(({ id }) => id === section.id)?.title,
      mine.sections.find(({ id }) => id === section.id)?.title ?? section.title,
      section.title,
      chosen.get(null) ?? 'mine',
    ) ?? section.title;
  const sections = theirs.sections.map((section): Section => ({
    ...section,
    title: titleOf(section),
    blocks: section.blocks.flatMap(({ id }) => result.get(id) ?? []),
  }));
  const placed = new Set(sections.flatMap(({ blocks }) => blocks.map(({ id }) => id)));
  for (const section of mine.sections) {
    const missing = section.blocks.filter(({ id }) => result.has(id) && !placed.has(id));
    const at = sections.findIndex(({ id }) => id === section.id);
    const isNew = at < 0 && !base.sections.some(({ id }) => id === section.id);
    if (at < 0 && (missing.length > 0 || isNew))
      sections.push({ ...section, blocks: missing.map(({ id }) => result.get(id) as Block) });
    else if (at >= 0) {
      const there = sections[at] as Section;
      sections[at] = {
        ...there,
        blocks: missing.reduce(
          (blocks, { id }) => inserted(blocks, result.get(id) as Block, section.blocks),
          there.blocks,
        ),
      };
    }
  }
  // A section one of the two removed, and in which nothing is left, stays removed.
  const kept = sections.filter(
    ({ id, blocks }) =>
      blocks.length > 0 ||
      mine.sections.some((section) => section.id === id) ||
      !base.sections.some((section) => section.id === id),
  );
  if (
    kept.length > LIMITS.sections ||
    kept.some(({ blocks }) => blocks.length > LIMITS.blocksPerSection)
  )
    throw new LessonError(teacherText('lesson.both-too-much'));
  return { ...wholeTogether(base, mine, theirs, chosen.get(null) ?? 'mine'), sections: kept };
}
