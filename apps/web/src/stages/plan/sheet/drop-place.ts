import type { Lesson } from '@zest/core/lesson';

/**
 * Where blocks dropped over something go: before a block, or to the end of a section; null when
 * they stay.
 */
export function dropPlace(
  lesson: Lesson,
  draggedId: string,
  overId: string,
  moving: ReadonlySet<string>,
): { sectionId: string; beforeId: string | null } | null {
  if (lesson.sections.some(({ id }) => id === overId)) return { sectionId: overId, beforeId: null };
  const section = lesson.sections.find(({ blocks }) => blocks.some(({ id }) => id === overId));
  if (!section || draggedId === overId) return null;
  const at = section.blocks.findIndex(({ id }) => id === overId);
  const from = section.blocks.findIndex(({ id }) => id === draggedId);
  // Carried down within its section, a block goes after what it is dropped on.
  const rest = section.blocks
    .slice(from >= 0 && from < at ? at + 1 : at)
    .filter(({ id }) => !moving.has(id));
  return { sectionId: section.id, beforeId: rest[0]?.id ?? null };
}
