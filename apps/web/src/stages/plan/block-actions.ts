import {
  blocksOf,
  insertAfter,
  LessonError,
  LIMITS,
  moveBlocks,
  packBlocks,
  removeBlocks,
  unpackBlocks,
  type Block,
} from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useMemo } from 'react';
import { api } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { edit } from '../../app/lesson-slice.ts';
import { useNotice } from '../../app/notice.tsx';
import type { AppThunk } from '../../app/state.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useChosenBlock, useLessonNow, useOpenLesson } from '../../app/use-lesson.ts';
import { fullText } from './adding.ts';
import { useSelection } from './selection.ts';

/**
 * Blocks copied last, for the button that puts them in: browsers let pages read the clipboard only
 * on a key press.
 */
const LAST_COPY = 'zest-copied-blocks';

const several = (n: number) => teacherText('plan.several', { n });

/**
 * Gives blocks from another lesson takes of this one; gives how many blocks had footage that is
 * nowhere.
 */
const ownFootage =
  (
    lessonId: string,
    blocks: readonly Block[],
  ): AppThunk<Promise<{ blocks: Block[]; lost: number }>> =>
  async (dispatch) => {
    const takes = await dispatch(api.endpoints.takes.initiate(lessonId, { subscribe: false }));
    const here = new Set(takes.data?.map(({ id }) => id));
    const wanted = blocks.flatMap(({ id: blockId, footage }) =>
      footage && !here.has(footage.takeId) ? [{ takeId: footage.takeId, blockId }] : [],
    );
    const copied =
      wanted.length > 0
        ? await dispatch(api.endpoints.copyTakes.initiate({ lessonId, takes: wanted }))
        : { data: [] };
    const idOf = new Map(copied.data?.map(({ from, takeId }) => [from, takeId]));
    let lost = 0;
    const settled = blocks.map((block) => {
      if (!block.footage || here.has(block.footage.takeId)) return block;
      const takeId = idOf.get(block.footage.takeId);
      if (!takeId) lost += 1;
      return { ...block, footage: takeId ? { ...block.footage, takeId } : null };
    });
    return { blocks: settled, lost };
  };

/** What can be done with the chosen blocks, or the open one when none are chosen together. */
export function useBlockActions() {
  const { id: lessonId } = useOpenLesson();
  const now = useLessonNow();
  const { ids, set } = useSelection();
  const { block: open, choose } = useChosenBlock();
  const dispatch = useAppDispatch();
  const notice = useNotice();
  return useMemo(() => {
    const current = ids.size > 0 ? ids : new Set(open ? [open.id] : []);
    const chosen = (of: ReadonlySet<string> = current) =>
      blocksOf(now()).filter(({ id }) => of.has(id));
    const putIn = async (pasted: Block[]) => {
      const { sections } = now();
      const after = chosen().at(-1)?.id;
      const target =
        sections.find((section) => section.blocks.some(({ id }) => id === after)) ??
        sections.at(-1);
      if (!target) return notice(teacherText('plan.add-section-first-blocks'));
      if (target.blocks.length + pasted.length > LIMITS.blocksPerSection)
        return notice(fullText(target.title));
      const { blocks: settled, lost } = await dispatch(ownFootage(lessonId, pasted));
      dispatch(
        edit(
          teacherText('plan.put', { several: several(settled.length) }),
          insertAfter(after, settled),
        ),
      );
      set(settled.length > 1 ? settled.map(({ id }) => id) : []);
      if (settled[0]) choose(settled[0].id);
      if (lost > 0) notice(teacherText('plan.blocks-came-without-footage', { lost }));
    };
    const actions = {
      count: current.size,
      move: (by: -1 | 1, of: ReadonlySet<string> = current) =>
        void dispatch(
          edit(teacherText('plan.move', { several: several(of.size) }), moveBlocks(of, by)),
        ),
      remove: (of: ReadonlySet<string> = current) => {
        dispatch(edit(teacherText('plan.remove', { several: several(of.size) }), removeBlocks(of)));
        set([]);
      },
      /** The blocks as text, also kept for the button. */
      copy: (of: ReadonlySet<string> = current): string => {
        const text = packBlocks(chosen(of));
        try {
          localStorage.setItem(LAST_COPY, text);
        } catch {
          // The browser's store is full: the clipboard has them.
        }
        notice(
          teacherText('plan.copied-ctrl-v-puts', { several: several(of.size), size: of.size }),
        );
        return text;
      },
      paste: (text = localStorage.getItem(LAST_COPY) ?? '') => {
        try {
          void putIn(unpackBlocks(text, makeId));
        } catch (error) {
          if (!(error instanceof LessonError)) throw error;
          notice(error.message);
        }
      },
      duplicate: () => void putIn(unpackBlocks(packBlocks(chosen()), makeId)),
    };
    return actions;
  }, [ids, set, open, now, lessonId, choose, dispatch, notice]);
}
