import { useDroppable } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Box, IconButton, Tooltip } from '@mui/material';
import AddIcon from '@mui/icons-material/Add';
import {
  LIMITS,
  moveSection,
  removeSection,
  type Section as LessonSection,
} from '@zest/core/lesson';
import type { ScheduledSection } from '@zest/core/schedule';
import { lengthText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { memo, useMemo } from 'react';
import { edit } from '../../../app/lesson-slice.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useLessonPart } from '../../../app/use-lesson.ts';
import { FieldLook } from '../../../ui/field-look.ts';
import { TextLine } from '../../../ui/fields.tsx';
import { MenuButton } from '../../../ui/MenuButton.tsx';
import { useLatest } from '../../../ui/use-latest.ts';
import { useAdding } from '../adding.ts';
import { useSelection } from '../selection.ts';
import { BlockLine } from './BlockLine.tsx';

interface SectionPlanProps {
  planned: ScheduledSection;
  first: boolean;
  last: boolean;
  longestMs: number;
  /** The open block, if it is one of these. */
  openId: string | null;
  onOpen: (blockId: string) => void;
}

function SectionName({ section }: { section: LessonSection }) {
  const title = useLessonPart(
    ({ sections }) => sections.find(({ id }) => id === section.id)?.title ?? section.title,
  );
  const dispatch = useAppDispatch();
  const set = (text: string) =>
    dispatch(
      edit(
        teacherText('sheet.section-name'),
        (d) => {
          const draft = d.sections.find(({ id }) => id === section.id);
          if (draft) draft.title = text;
        },
        true,
      ),
    );
  return (
    <FieldLook value="bare">
      <TextLine
        label={teacherText('sheet.section')}
        value={title}
        most={LIMITS.title}
        onChange={set}
      />
    </FieldLook>
  );
}

/** A section's name, how long it is, and what can be done with it. */
function SectionHead({
  planned: { section, durationMs },
  first,
  last,
}: Pick<SectionPlanProps, 'planned' | 'first' | 'last'>) {
  const dispatch = useAppDispatch();
  const { sectionId, goTo } = useAdding();
  const { title, id } = section;
  const isAimed = sectionId === id;
  const here = teacherText('sheet.add-here', { section: title });
  return (
    <Box className={`sheet-section${isAimed ? ' is-aimed' : ''}`}>
      <h2 className="unseen">{title || teacherText('untitled')}</h2>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <SectionName section={section} />
      </Box>
      <Box component="span" sx={{ fontVariantNumeric: 'tabular-nums', whiteSpace: 'nowrap' }}>
        {lengthText(durationMs)}
      </Box>
      <Tooltip title={here}>
        <IconButton
          size="small"
          aria-label={here}
          aria-pressed={isAimed}
          onClick={() => goTo(isAimed ? null : id)}
        >
          <AddIcon fontSize="small" />
        </IconButton>
      </Tooltip>
      <MenuButton
        label={teacherText('sheet.section-menu', { section: title })}
        entries={[
          ...(first
            ? []
            : [
                {
                  name: teacherText('sheet.earlier-of', { title }),
                  run: () =>
                    void dispatch(edit(teacherText('sheet.move-section'), moveSection(id, -1))),
                },
              ]),
          ...(last
            ? []
            : [
                {
                  name: teacherText('sheet.later-of', { title }),
                  run: () =>
                    void dispatch(edit(teacherText('sheet.move-section'), moveSection(id, 1))),
                },
              ]),
          {
            name: teacherText('sheet.remove-section-of', { section: title }),
            run: () => void dispatch(edit(teacherText('sheet.remove-section'), removeSection(id))),
          },
        ]}
      />
    </Box>
  );
}

/** A section: its name, and a line for each of its blocks. */
function Section({ planned, first, last, longestMs, openId, onOpen }: SectionPlanProps) {
  const { section } = planned;
  const { ids, toggle, reach } = useSelection();
  const take = useLatest((blockId: string, isReach: boolean) =>
    isReach ? reach(blockId) : toggle(blockId),
  );
  // The same list while the same blocks stand in it: a new one would have every block drawn anew.
  const order = planned.blocks.map(({ block }) => block.id).join(' ');
  const blockIds = useMemo(() => (order === '' ? [] : order.split(' ')), [order]);
  // An empty section takes blocks too.
  const { setNodeRef, isOver } = useDroppable({ id: section.id });
  return (
    <Box
      ref={setNodeRef}
      component="section"
      aria-label={teacherText('sheet.section-of', { title: section.title })}
      sx={{
        border: 1,
        borderColor: isOver ? 'primary.main' : 'divider',
        borderRadius: 1,
        overflow: 'hidden',
        mb: 1,
      }}
    >
      <SectionHead planned={planned} first={first} last={last} />
      <SortableContext items={blockIds} strategy={verticalListSortingStrategy}>
        {planned.blocks.map((block) => (
          <BlockLine
            key={block.block.id}
            planned={block}
            longestMs={longestMs}
            isOpen={openId === block.block.id}
            isChosen={ids.has(block.block.id)}
            onOpen={onOpen}
            onChoose={take}
          />
        ))}
      </SortableContext>
    </Box>
  );
}

/** Drawn anew only when something of it has changed. */
export const SectionPlan = memo(
  Section,
  (was, is) =>
    was.planned.section === is.planned.section &&
    was.planned.startMs === is.planned.startMs &&
    // A change of the lesson's pace changes lengths, not the section.
    was.planned.blocks.every(
      ({ durationMs }, i) => durationMs === is.planned.blocks[i]?.durationMs,
    ) &&
    was.first === is.first &&
    was.last === is.last &&
    was.longestMs === is.longestMs &&
    was.openId === is.openId &&
    was.onOpen === is.onOpen,
);
