import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type Announcements,
  type DragEndEvent,
  type UniqueIdentifier,
} from '@dnd-kit/core';
import { sortableKeyboardCoordinates } from '@dnd-kit/sortable';
import { findBlock, placeBlocks } from '@zest/core/lesson';
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
    'nothing';
  const announcements: Announcements = {
    onDragStart: ({ active }) => `${name(active.id)} is lifted.`,
    onDragOver: ({ active, over }) =>
      over ? `${name(active.id)} is over ${name(over.id)}.` : undefined,
    onDragEnd: ({ active, over }) =>
      over
        ? `${name(active.id)} was put down at ${name(over.id)}.`
        : `${name(active.id)} was put back.`,
    onDragCancel: ({ active }) => `${name(active.id)} was put back.`,
  };
  const drop = ({ active, over }: DragEndEvent) => {
    const dragged = String(active.id);
    const moving = ids.has(dragged) ? ids : new Set([dragged]);
    const place = over && dropPlace(lesson, dragged, String(over.id), moving);
    if (place)
      dispatch(
        edit(
          moving.size > 1 ? `Move ${moving.size} blocks` : 'Move the block',
          placeBlocks(moving, place.sectionId, place.beforeId),
        ),
      );
  };
  return (
    <DndContext
      sensors={sensors}
      collisionDetection={closestCenter}
      onDragEnd={drop}
      accessibility={{
        announcements,
        screenReaderInstructions: {
          draggable:
            'Press Space to lift the block, arrow keys to carry it, Space to put it down, Escape to put it back.',
        },
      }}
    >
      {children}
    </DndContext>
  );
}
