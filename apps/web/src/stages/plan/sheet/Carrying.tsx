import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import { sortableKeyboardCoordinates } from '@dnd-kit/sortable';
import { findBlock, placeBlocks } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { dragWords } from '../../../ui/dragging.ts';
import type { ReactNode } from 'react';
import { edit } from '../../../app/lesson-slice.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useOpenLesson } from '../../../app/use-lesson.ts';
import { dropPlace } from './drop-place.ts';
import { useSelection } from '../selection.ts';

// The same objects at every turn: new ones would have every block drawn anew.
const BY_POINTER = { activationConstraint: { distance: 5 } };
const BY_KEYS = { coordinateGetter: sortableKeyboardCoordinates };

/**
 * Lets blocks be carried about, by pointer or keyboard; a chosen block takes the other chosen ones
 * with it.
 */
export function Carrying({ children }: { children: ReactNode }) {
  const { lesson } = useOpenLesson();
  const { ids } = useSelection();
  const dispatch = useAppDispatch();
  const sensors = useSensors(
    useSensor(PointerSensor, BY_POINTER),
    useSensor(KeyboardSensor, BY_KEYS),
  );
  const name = (id: UniqueIdentifier) =>
    findBlock(lesson, String(id))?.title ??
    lesson.sections.find((section) => section.id === id)?.title ??
    teacherText('sheet.nothing');
  const drop = ({ active, over }: DragEndEvent) => {
    const dragged = String(active.id);
    const moving = ids.has(dragged) ? ids : new Set([dragged]);
    const place = over && dropPlace(lesson, dragged, String(over.id), moving);
    if (place)
      dispatch(
        edit(
          moving.size > 1
            ? teacherText('sheet.move-blocks', { size: moving.size })
            : teacherText('sheet.move-block'),
          placeBlocks(moving, place.sectionId, place.beforeId),
        ),
      );
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={drop}
      accessibility={dragWords(name)}
    >
      {children}
    </DndContext>
  );
}
