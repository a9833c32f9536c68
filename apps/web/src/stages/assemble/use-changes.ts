import { onCamera, onScreen, type Assembly } from '@zest/core/assembly';
import {
  changeBlock,
  editName,
  findBlock,
  LIMITS,
  type Edit,
  type EditKind,
  type EditOf,
} from '@zest/core/lesson';
import { indexAt } from '@zest/core/overlay';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { makeId } from '../../app/ids.ts';
import { edit as change } from '../../app/lesson-slice.ts';
import { useNotice } from '../../app/notice.tsx';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonNow } from '../../app/use-lesson.ts';
import { newEdit, type NewEditAt } from './new-edit.ts';
import type { Draft } from './with-draft.ts';
import type { PickedBox } from './PlacePicker.tsx';
import { slotName } from '../../ui/slot-name.ts';

/**
 * Changes by hand: the one being worked on, and what makes, keeps and removes them. Each is one
 * step to undo.
 */
export function useChanges() {
  const dispatch = useAppDispatch();
  const notice = useNotice();
  const now = useLessonNow();
  const [draft, setDraft] = useState<Draft | null>(null);

  const keep = (blockId: string, edit: Edit) => {
    const block = findBlock(now(), blockId);
    if (!block) return notice(teacherText('assemble.block-gone'));
    const isKnown = block.edits.some(({ id }) => id === edit.id);
    if (!isKnown && block.edits.length >= LIMITS.edits)
      return notice(teacherText('assemble.changes-full', { edits: LIMITS.edits }));
    dispatch(
      change(
        teacherText('assemble.change-in', {
          ...{ what: editName(edit.kind), title: block.title || teacherText('untitled') },
        }),
        changeBlock(
          blockId,
          (d) =>
            void (d.edits = isKnown
              ? d.edits.map((one) => (one.id === edit.id ? edit : one))
              : [...d.edits, edit]),
        ),
      ),
    );
    setDraft(null);
  };
  const remove = (blockId: string, { id, kind }: Edit) => {
    dispatch(
      change(
        teacherText('assemble.take-back', { what: editName(kind).toLowerCase() }),
        changeBlock(blockId, (d) => void (d.edits = d.edits.filter((one) => one.id !== id))),
      ),
    );
    if (draft?.edit.id === id) setDraft(null);
  };
  const begin = (kind: EditKind, blockId: string, at: Omit<NewEditAt, 'id'>) => {
    const made = newEdit(kind, { id: makeId(), ...at });
    if (made) setDraft({ blockId, edit: made, isNew: true });
  };
  /** A place chosen in one block holds in all that have none of their own. */
  const keepEverywhere = ({ id, slot, x, y }: EditOf<'place'>) => {
    dispatch(
      change(teacherText('assemble.place', { slotName: slotName(slot) }), (d) => {
        d.finish.look.slots[slot].place = { x, y };
        // The block it was chosen in needs none of its own any more.
        for (const block of d.sections.flatMap(({ blocks }) => blocks))
          block.edits = block.edits.filter((one) => one.id !== id);
      }),
    );
    setDraft(null);
  };
  return { draft, setDraft, keep, keepEverywhere, remove, begin };
}

/** The place a draft has on screen, and how a new one is taken down. Null for what has no place. */
export function placing(
  draft: Draft | null,
  assembly: Assembly,
  atMs: number,
): { shape: 'point' | 'box'; value: PickedBox | null; pick: (box: PickedBox) => Edit } | null {
  const segment = assembly.segments[indexAt(assembly.segments, atMs)];
  if (!draft || !segment) return null;
  const { edit } = draft;
  const { look } = segment;
  const asBox = (a: { x: number; y: number }, b: { x: number; y: number }): PickedBox => ({
    x: Math.min(a.x, b.x),
    y: Math.min(a.y, b.y),
    width: Math.abs(a.x - b.x),
    height: Math.abs(a.y - b.y),
  });
  const seen = ({ x, y, width, height }: PickedBox) =>
    asBox(onScreen(look, { x, y }), onScreen(look, { x: x + width, y: y + height }));
  const filmed = ({ x, y, width, height }: PickedBox) =>
    asBox(onCamera(look, { x, y }), onCamera(look, { x: x + width, y: y + height }));
  switch (edit.kind) {
    case 'freeze':
      return (
        edit.point && {
          shape: 'point',
          value: seen({ ...edit.point, width: 0, height: 0 }),
          pick: (box) => ({ ...edit, point: onCamera(look, box) }),
        }
      );
    case 'place':
      return {
        shape: 'point',
        value: { x: edit.x, y: edit.y, width: 0, height: 0 },
        pick: ({ x, y }) => ({ ...edit, x, y }),
      };
    case 'blur':
      return { shape: 'box', value: seen(edit), pick: (box) => ({ ...edit, ...filmed(box) }) };
    case 'closer': {
      const size = 100_000 / edit.zoom;
      const pick = (box: PickedBox): Edit => {
        const filmedBox = filmed(box);
        const middle = {
          x: Math.round(filmedBox.x + filmedBox.width / 2),
          y: Math.round(filmedBox.y + filmedBox.height / 2),
        };
        const zoom = Math.round(
          Math.min(
            LIMITS.zoom.max,
            Math.max(LIMITS.zoom.min, 100_000 / Math.max(1, filmedBox.width, filmedBox.height)),
          ),
        );
        return { ...edit, zoom, from: middle, to: middle, path: [] };
      };
      return {
        shape: 'box',
        value: seen({
          x: edit.from.x - size / 2,
          y: edit.from.y - size / 2,
          width: size,
          height: size,
        }),
        pick,
      };
    }
    default:
      return null;
  }
}
