import isEqual from 'fast-deep-equal';
import { enablePatches, produceWithPatches, applyPatches, type Patch } from 'immer';
import type { Block } from './blocks.ts';
import type { Lesson, Section } from './schema.ts';

enablePatches();

/** A small change to a lesson, written as if the lesson could be changed in place. */
export type LessonEdit = (draft: Lesson) => void;

/** One undoable step: what was done and where, what does it again, and what takes it back. */
export interface Step {
  /** What was done, in a word or two; `stepText` says where as well. */
  what: string;
  /** Blocks it touches, by id, or parts of the lesson; changes of two places never become one step. */
  where: string[];
  /** What it was meant for, where more of the same may follow; none for a step that stands alone. */
  intention: number | null;
  forward: Patch[];
  back: Patch[];
}

/** A lesson with its undo and redo stacks, newest step last. */
export interface EditedLesson {
  lesson: Lesson;
  past: Step[];
  future: Step[];
}

/** Steps kept for undo; older ones remain restorable as revisions. */
const MAX_STEPS = 300;

export function beginEditing(lesson: Lesson): EditedLesson {
  return { lesson, past: [], future: [] };
}

/** The places patches touch in the lesson before them or after: block ids, else parts by name. */
function placesOf(before: Lesson, after: Lesson, patches: readonly Patch[]): string[] {
  const places = patches.flatMap(({ path: [part, s, blocks, b] }): string[] => {
    if (part !== 'sections' || typeof s !== 'number') return [String(part)];
    if (blocks !== 'blocks' || typeof b !== 'number') return [`section ${s}`];
    return [before, after].flatMap(({ sections }) => sections[s]?.blocks[b]?.id ?? []);
  });
  return [...new Set(places)].sort();
}

/**
 * Applies an edit as one undoable step. Changes of one `intention` (a figure set, a sentence typed)
 * in one place are one step, and none at all once together they change nothing. An edit that
 * changes nothing leaves the state as it is.
 */
export function applyEdit(
  state: EditedLesson,
  what: string,
  edit: LessonEdit,
  intention: number | null = null,
): EditedLesson {
  const [lesson, forward, back] = produceWithPatches(state.lesson, (draft: Lesson) => {
    edit(draft);
  });
  if (forward.length === 0) return state;
  const where = placesOf(state.lesson, lesson, forward);
  const last = state.past.at(-1);
  if (!last || intention === null || last.intention !== intention || !isEqual(last.where, where)) {
    return {
      lesson,
      past: [...state.past, { what, where, intention, forward, back }].slice(-MAX_STEPS),
      future: [],
    };
  }
  const before = state.past.slice(0, -1);
  const joined = {
    what,
    where,
    intention,
    forward: [...last.forward, ...forward],
    back: [...back, ...last.back],
  };
  return {
    lesson,
    past: isEqual(applyPatches(lesson, joined.back), lesson) ? before : [...before, joined],
    future: [],
  };
}

/** A step in words: what was done, and to which block where it was one. */
export function stepText({ what, where }: Step, lesson: Lesson): string {
  const [only] = where;
  const block = where.length === 1 && only !== undefined ? findBlock(lesson, only) : undefined;
  return block && block.title !== '' ? `${what} (${block.title})` : what;
}

/** Takes back the last step; the same state when there is none. */
export function undo(state: EditedLesson): EditedLesson {
  const step = state.past.at(-1);
  if (!step) return state;
  return {
    lesson: applyPatches(state.lesson, step.back),
    past: state.past.slice(0, -1),
    future: [...state.future, step],
  };
}

/** Does again what was last taken back; the same state when there is nothing. */
export function redo(state: EditedLesson): EditedLesson {
  const step = state.future.at(-1);
  if (!step) return state;
  return {
    lesson: applyPatches(state.lesson, step.forward),
    past: [...state.past, step],
    future: state.future.slice(0, -1),
  };
}

export function blocksOf(lesson: Lesson): Block[] {
  return lesson.sections.flatMap((section) => section.blocks);
}

export function findBlock(lesson: Lesson, blockId: string): Block | undefined {
  for (const section of lesson.sections) {
    const found = section.blocks.find((block) => block.id === blockId);
    if (found) return found;
  }
  return undefined;
}

export const addSection =
  (section: Section, at?: number): LessonEdit =>
  (draft) => {
    draft.sections.splice(at ?? draft.sections.length, 0, section);
  };

export const removeSection =
  (sectionId: string): LessonEdit =>
  (draft) => {
    draft.sections = draft.sections.filter((section) => section.id !== sectionId);
  };

/** Moves a section `by` places, as far as there is room. */
export const moveSection =
  (sectionId: string, by: number): LessonEdit =>
  (draft) => {
    const from = draft.sections.findIndex((section) => section.id === sectionId);
    const to = Math.min(Math.max(from + by, 0), draft.sections.length - 1);
    if (from < 0 || to === from) return;
    const [section] = draft.sections.splice(from, 1);
    if (section) draft.sections.splice(to, 0, section);
  };

export const addBlock =
  (sectionId: string, block: Block, at?: number): LessonEdit =>
  (draft) => {
    const section = draft.sections.find((s) => s.id === sectionId);
    section?.blocks.splice(at ?? section.blocks.length, 0, block);
  };

/** Puts a block right before another; nothing happens when that is gone. */
export const insertBefore =
  (blockId: string, block: Block): LessonEdit =>
  (draft) => {
    for (const { blocks } of draft.sections) {
      const at = blocks.findIndex(({ id }) => id === blockId);
      if (at >= 0) return void blocks.splice(at, 0, block);
    }
  };

/** Puts blocks after another, in its section; at the end of the last section when there is none. */
export const insertAfter =
  (blockId: string | undefined, blocks: readonly Block[]): LessonEdit =>
  (draft) => {
    const section =
      draft.sections.find((s) => s.blocks.some(({ id }) => id === blockId)) ??
      draft.sections.at(-1);
    if (!section) return;
    const at = section.blocks.findIndex(({ id }) => id === blockId);
    section.blocks.splice(at < 0 ? section.blocks.length : at + 1, 0, ...blocks);
  };

export const removeBlocks =
  (blockIds: ReadonlySet<string>): LessonEdit =>
  (draft) => {
    for (const section of draft.sections)
      section.blocks = section.blocks.filter(({ id }) => !blockIds.has(id));
  };

/**
 * Puts the named blocks, in the order they stand, right before another block of the section;
 * `null`: at its end.
 */
export const placeBlocks =
  (blockIds: ReadonlySet<string>, sectionId: string, beforeId: string | null): LessonEdit =>
  (draft) => {
    const target = draft.sections.find(({ id }) => id === sectionId);
    if (!target || (beforeId !== null && blockIds.has(beforeId))) return;
    const moving = draft.sections.flatMap(({ blocks }) =>
      blocks.filter(({ id }) => blockIds.has(id)),
    );
    removeBlocks(blockIds)(draft);
    const at = target.blocks.findIndex(({ id }) => id === beforeId);
    target.blocks.splice(at < 0 ? target.blocks.length : at, 0, ...moving);
  };

/**
 * Moves blocks together one place earlier (-1) or later (+1), across section borders; all end up
 * side by side.
 */
export const moveBlocks =
  (blockIds: ReadonlySet<string>, by: -1 | 1): LessonEdit =>
  (draft) => {
    const places = draft.sections.flatMap((section) =>
      section.blocks.map((block) => ({ section, block })),
    );
    const edge =
      by < 0
        ? places.findIndex(({ block }) => blockIds.has(block.id))
        : places.findLastIndex(({ block }) => blockIds.has(block.id));
    const at = places[edge];
    if (!at) return;
    const s = draft.sections.indexOf(at.section);
    const rest = at.section.blocks.filter(({ id }) => !blockIds.has(id) || id === at.block.id);
    const index = rest.indexOf(at.block);
    const inside = by < 0 ? index > 0 : index < rest.length - 1;
    const section = inside ? at.section : draft.sections[s + by];
    if (!section) return;
    const others = section.blocks.filter(({ id }) => !blockIds.has(id));
    // Later: before what comes after the block that is stepped over.
    const before = inside
      ? by < 0
        ? rest[index - 1]
        : rest[index + 2]
      : by < 0
        ? undefined
        : others[0];
    placeBlocks(blockIds, section.id, before?.id ?? null)(draft);
  };

/** Changes one block in place; nothing happens when it is gone. */
export const changeBlock =
  (blockId: string, change: (block: Block) => void): LessonEdit =>
  (draft) => {
    const block = findBlock(draft, blockId);
    if (block) change(block);
  };
