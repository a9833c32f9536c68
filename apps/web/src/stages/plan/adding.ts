import {
  addBlock,
  addSection,
  blocksOf,
  insertAfter,
  kindName,
  LIMITS,
  makeBlock,
  makeSection,
  type Block,
  type BlockKind,
  type Lesson,
} from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { createContext, useContext, useMemo, useRef, useState } from 'react';
import { makeId } from '../../app/ids.ts';
import { edit } from '../../app/lesson-slice.ts';
import { useNotice } from '../../app/notice.tsx';
import { useAppDispatch } from '../../app/store.ts';
import { useChosenBlock, useLessonNow } from '../../app/use-lesson.ts';
import { useLatest } from '../../ui/use-latest.ts';
import { usePlanView } from './view.ts';

/** Where the next block goes: after another one, or to a section's beginning. */
type Place = { afterId: string } | { sectionId: string };

export interface Adding {
  /** The section whose beginning the next block goes to; null: after the chosen block. */
  sectionId: string | null;
  /** Has the next block go to the beginning of a section. */
  goTo: (sectionId: string | null) => void;
  add: (kind: BlockKind) => void;
  /** Puts blocks in, the last of them chosen; its first figure is gone to unless one stays. */
  putIn: (label: string, blocks: Block[], focus?: 'go' | 'stay') => void;
  /** Adds an empty section at the end; gives its id. */
  addSection: () => string;
  /** Whether the block was added just now, so that its first figure is gone to; asked once. */
  isFresh: (blockId: string) => boolean;
}

export const AddingContext = createContext<Adding | null>(null);

export function useAdding(): Adding {
  const adding = useContext(AddingContext);
  if (!adding) throw new Error(teacherText('plan.blocks-added-plan-bench'));
  return adding;
}

function placeIn(
  lesson: Lesson,
  sectionId: string | null,
  chosenId: string | undefined,
): Place | null {
  const section = lesson.sections.find(({ id }) => id === sectionId);
  if (section) return { sectionId: section.id };
  if (chosenId !== undefined && blocksOf(lesson).some(({ id }) => id === chosenId))
    return { afterId: chosenId };
  const first = lesson.sections[0];
  return first ? { sectionId: first.id } : null;
}

const sectionAt = ({ sections }: Lesson, place: Place) =>
  sections.find(({ id, blocks }) =>
    'afterId' in place
      ? blocks.some((block) => block.id === place.afterId)
      : id === place.sectionId,
  );

const newSection = () => makeSection(teacherText('sheet.new-section'), makeId);

/** Why a section takes no more. */
export const fullText = (section: string): string =>
  teacherText('sheet.full', { section, most: LIMITS.blocksPerSection });

/** Puts blocks in at a place; a lesson without sections gets its first one. */
const insertAt = (place: Place | null, blocks: readonly Block[]) => (draft: Lesson) => {
  if (place && 'afterId' in place) return insertAfter(place.afterId, blocks)(draft);
  let section = place && sectionAt(draft, place);
  if (!section) {
    section = newSection();
    addSection(section)(draft);
  }
  blocks.forEach((block, i) => addBlock(section.id, block, i)(draft));
};

/** Makes what adds blocks to the open lesson. */
export function useMakeAdding(): Adding {
  const now = useLessonNow();
  const { block: chosen, choose } = useChosenBlock();
  const dispatch = useAppDispatch();
  const notice = useNotice();
  const [sectionId, setSection] = useState<string | null>(null);
  const { turn } = usePlanView();
  const fresh = useRef<string | null>(null);
  const putIn = useLatest((label: string, blocks: Block[], focus: 'go' | 'stay' = 'go') => {
    const last = blocks.at(-1);
    if (!last) return;
    const lesson = now();
    const place = placeIn(lesson, sectionId, chosen?.id);
    const section = place && sectionAt(lesson, place);
    if ((section?.blocks.length ?? 0) + blocks.length > LIMITS.blocksPerSection)
      return notice(fullText(section?.title ?? ''));
    dispatch(edit(label, insertAt(place, blocks)));
    setSection(null);
    if (focus === 'go') {
      fresh.current = last.id;
      turn('block');
    }
    choose(last.id);
  });
  return useMemo(
    () => ({
      sectionId,
      goTo: setSection,
      putIn,
      add: (kind) =>
        putIn(teacherText('plan.add', { what: kindName(kind).toLowerCase() }), [
          makeBlock(kind, makeId, now().settings.language),
        ]),
      addSection: () => {
        const section = newSection();
        dispatch(edit(teacherText('plan.add-section'), addSection(section)));
        return section.id;
      },
      isFresh: (blockId) => {
        const is = fresh.current === blockId;
        if (is) fresh.current = null;
        return is;
      },
    }),
    [sectionId, putIn, now, dispatch],
  );
}
