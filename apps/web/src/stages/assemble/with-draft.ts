import type { Block, Edit, EditKind, Lesson } from '@zest/core/lesson';
import { missingIn } from './new-edit.ts';

/** A change that is being made. */
export interface Draft {
  blockId: string;
  edit: Edit;
  isNew: boolean;
  /** Played with it although its place is still being chosen. */
  isTried?: boolean;
}

/** Chosen on a picture that does not show them yet, so that their place can be found on it. */
const PLACED: ReadonlySet<EditKind> = new Set(['closer', 'blur']);

/** Whether the stage shows a draft: once nothing is missing, and its place is not being chosen. */
const isShown = ({ edit, isTried }: Draft) =>
  missingIn(edit) === null && (isTried || !PLACED.has(edit.kind));

/** The lesson as it would be with a change that is being made, or as it is without it. */
export function withDraft(lesson: Lesson, draft: Draft | null): Lesson {
  if (!draft) return lesson;
  const { blockId, edit, isNew } = draft;
  const shown = isShown(draft) ? [edit] : [];
  const changed = (block: Block): Block =>
    block.id !== blockId
      ? block
      : {
          ...block,
          edits: isNew
            ? [...block.edits, ...shown]
            : block.edits.flatMap((one) => (one.id === edit.id ? shown : [one])),
        };
  return {
    ...lesson,
    sections: lesson.sections.map((section) => ({
      ...section,
      blocks: section.blocks.map(changed),
    })),
  };
}
