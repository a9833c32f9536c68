import { useDroppable } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Box, IconButton, Paper, Stack, Tooltip, Typography } from '@mui/material';
import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward';
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import {
  addBlock,
  kindNames,
  LIMITS,
  makeBlock,
  moveSection,
  removeSection,
  type BlockKind,
  type Section as LessonSection,
} from '@zest/core/lesson';
import type { ScheduledSection } from '@zest/core/schedule';
import { lengthText } from '@zest/core/time';
import { memo, useMemo } from 'react';
import { makeId } from '../../app/ids.ts';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useLessonPart } from '../../app/use-lesson.ts';
import { TextLine } from '../../ui/fields.tsx';
import { useLatest } from '../../ui/use-latest.ts';
import { AddBlock } from './AddBlock.tsx';
import { BlockPlan } from './BlockPlan.tsx';
import { useSelection } from './selection.ts';

interface SectionPlanProps {
  planned: ScheduledSection;
  first: boolean;
  last: boolean;
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
        'Section name',
        (d) => {
          const draft = d.sections.find(({ id }) => id === section.id);
          if (draft) draft.title = text;
        },
        true,
      ),
    );
  return (
    <TextLine
      label="Section"
      value={title}
      most={LIMITS.title}
      sx={{ maxWidth: 320 }}
      onChange={set}
    />
  );
}

/** A section: its name, its blocks, and what to add. */
function Section({ planned, first, last, openId, onOpen }: SectionPlanProps) {
  const { section } = planned;
  const dispatch = useAppDispatch();
  const language = useLessonPart(({ settings }) => settings.language);
  const { ids, toggle, reach } = useSelection();
  const take = useLatest((blockId: string, isReach: boolean) =>
    isReach ? reach(blockId) : toggle(blockId),
  );
  // The same list while the same blocks stand in it: a new one would have every block drawn anew.
  const order = planned.blocks.map(({ block }) => block.id).join(' ');
  const blockIds = useMemo(() => (order === '' ? [] : order.split(' ')), [order]);
  // An empty section takes blocks too.
  const { setNodeRef, isOver } = useDroppable({ id: section.id });
  const add = (kind: BlockKind) => {
    const block = makeBlock(kind, makeId, language);
    dispatch(edit(`Add ${kindNames[kind].toLowerCase()}`, addBlock(section.id, block)));
    onOpen(block.id);
  };
  return (
    <Paper
      ref={setNodeRef}
      variant="outlined"
      component="section"
      aria-label={`Section ${section.title}`}
      sx={isOver ? { borderColor: 'primary.main' } : {}}
    >
      <Stack
        direction="row"
        spacing={1}
        sx={{ p: 1.5, alignItems: 'center', borderBottom: 1, borderColor: 'divider' }}
      >
        <SectionName section={section} />
        <Typography color="text.secondary" sx={{ flex: 1, pl: 1 }}>
          {lengthText(planned.durationMs)}
        </Typography>
        <Tooltip title="Section earlier">
          <span>
            <IconButton
              aria-label={`${section.title} earlier`}
              disabled={first}
              onClick={() => dispatch(edit('Move the section', moveSection(section.id, -1)))}
            >
              <ArrowUpwardIcon />
            </IconButton>
          </span>
        </Tooltip>
        <Tooltip title="Section later">
          <span>
            <IconButton
              aria-label={`${section.title} later`}
              disabled={last}
              onClick={() => dispatch(edit('Move the section', moveSection(section.id, 1)))}
            >
              <ArrowDownwardIcon />
            </IconButton>
          </span>
        </Tooltip>
        <Tooltip title="Remove the section (undo brings it back)">
          <IconButton
            aria-label={`Remove section ${section.title}`}
            onClick={() => dispatch(edit('Remove the section', removeSection(section.id)))}
          >
            <DeleteOutlineIcon />
          </IconButton>
        </Tooltip>
      </Stack>
      {planned.blocks.length === 0 && (
        <Typography sx={{ p: 2 }} color="text.secondary">
          Nothing here yet. Add a first block below.
        </Typography>
      )}
      <SortableContext items={blockIds} strategy={verticalListSortingStrategy}>
        {planned.blocks.map((block) => (
          <BlockPlan
            key={block.block.id}
            planned={block}
            isOpen={openId === block.block.id}
            isChosen={ids.has(block.block.id)}
            onOpen={onOpen}
            onChoose={take}
          />
        ))}
      </SortableContext>
      <Box sx={{ p: 1, display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <AddBlock isFull={planned.blocks.length >= LIMITS.blocksPerSection} onAdd={add} />
      </Box>
    </Paper>
  );
}

/** Drawn anew only when something of it has changed. */
export const SectionPlan = memo(
  Section,
  (was, is) =>
    was.planned.section === is.planned.section &&
    was.planned.startMs === is.planned.startMs &&
    was.planned.studentStartMs === is.planned.studentStartMs &&
    // A change of the lesson's pace changes lengths, not the section.
    was.planned.blocks.every(
      ({ durationMs }, i) => durationMs === is.planned.blocks[i]?.durationMs,
    ) &&
    was.first === is.first &&
    was.last === is.last &&
    was.openId === is.openId &&
    was.onOpen === is.onOpen,
);
