import type { Announcements, DndContextProps, UniqueIdentifier } from '@dnd-kit/core';
import { teacherText } from '@zest/core/words';

/** What dragging a row is called where it cannot be seen. */
export const sortable = { roleDescription: teacherText('sheet.sortable') };

/** What a screen reader says of dragging, by the names of what is dragged. */
export function dragWords(
  name: (id: UniqueIdentifier) => string,
): NonNullable<DndContextProps['accessibility']> {
  const announcements: Announcements = {
    onDragStart: ({ active }) => teacherText('sheet.lifted', { name: name(active.id) }),
    onDragOver: ({ active, over }) =>
      over ? teacherText('sheet.over', { name: name(active.id), name2: name(over.id) }) : undefined,
    onDragEnd: ({ active, over }) =>
      over
        ? teacherText('sheet.was-put-down', { name: name(active.id), name2: name(over.id) })
        : teacherText('sheet.was-put-back', { name: name(active.id) }),
    onDragCancel: ({ active }) => teacherText('sheet.was-put-back', { name: name(active.id) }),
  };
  return {
    announcements,
    screenReaderInstructions: { draggable: teacherText('sheet.press-space-lift-block') },
  };
}
