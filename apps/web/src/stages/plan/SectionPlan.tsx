import { useDroppable } from '@dnd-kit/core';
import { SortableContext, verticalListSortingStrategy } from '@dnd-kit/sortable';
import { Box, IconButton, Paper, Stack, Tooltip, Typography } from '@mui/material';
import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward';
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import { addBlock, kindNames, LIMITS, makeBlock, moveSection, removeSection, type BlockKind } from '@zest/core/lesson';
import type { ScheduledSection } from '@zest/core/schedule';
import { lengthText } from '@zest/core/time';
import { useMemo } from 'react';
import { makeId } from '../../app/ids.ts';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useChosenBlock } from '../../app/use-lesson.ts';
import { TextLine } from '../../ui/fields.tsx';
import { useLatest } from '../../ui/use-latest.ts';
import { AddBlock } from './AddBlock.tsx';
import { BlockPlan } from './BlockPlan.tsx';
import { useSelection } from './selection.ts';

/** A section: its name, its blocks, and what to add. */
export function SectionPlan({ planned, first, last }: { planned: ScheduledSection; first: boolean; last: boolean }) {
  const { section } = planned;
  const dispatch = useAppDispatch();
  const { block: chosen, choose } = useChosenBlock();
  const { ids, toggle, reach } = useSelection();
  const open = useLatest(choose);
  const take = useLatest((blockId: string, isReach: boolean) => (isReach ? reach(blockId) : toggle(blockId)));
  const blockIds = useMemo(() => planned.blocks.map(({ block }) => block.id), [planned]);
  // An empty section takes blocks too.
  const { setNodeRef, isOver } = useDroppable({ id: section.id });
  const add = (kind: BlockKind) => {
    const block = makeBlock(kind, makeId);
    dispatch(edit(`Add ${kindNames[kind].toLowerCase()}`, addBlock(section.id, block)));
    choose(block.id);
  };
  return (
    <Paper ref={setNodeRef} variant="outlined" component="section" aria-label={`Section ${section.title}`} sx={isOver ? { borderColor: 'primary.main' } : {}}>
      <Stack direction="row" spacing={1} sx={{ p: 1.5, alignItems: 'center', borderBottom: 1, borderColor: 'divider' }}>
        <TextLine
          label="Section"
          value={section.title}
          most={LIMITS.title}
          sx={{ maxWidth: 320 }}
          onChange={(text) =>
            dispatch(
              edit(
                'Section name',
                (d) => {
                  const own = d.sections.find(({ id }) => id === section.id);
                  if (own) own.title = text;
                },
                true,
              ),
            )
          }
        />
        <Typography color="text.secondary" sx={{ flex: 1, pl: 1 }}>
          {lengthText(planned.durationMs)}
        </Typography>
        <Tooltip title="Section earlier">
          <span>
            <IconButton aria-label={`${section.title} earlier`} disabled={first} onClick={() => dispatch(edit('Move the section', moveSection(section.id, -1)))}>
              <ArrowUpwardIcon />
            </IconButton>
          </span>
        </Tooltip>
        <Tooltip title="Section later">
          <span>
            <IconButton aria-label={`${section.title} later`} disabled={last} onClick={() => dispatch(edit('Move the section', moveSection(section.id, 1)))}>
              <ArrowDownwardIcon />
            </IconButton>
          </span>
        </Tooltip>
        <Tooltip title="Remove the section (undo brings it back)">
          <IconButton aria-label={`Remove section ${section.title}`} onClick={() => dispatch(edit('Remove the section', removeSection(section.id)))}>
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
          <BlockPlan key={block.block.id} planned={block} isOpen={chosen?.id === block.block.id} isChosen={ids.has(block.block.id)} onOpen={open} onChoose={take} />
        ))}
      </SortableContext>
      <Box sx={{ p: 1, display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <AddBlock disabled={planned.blocks.length >= LIMITS.blocksPerSection} onAdd={add} />
      </Box>
    </Paper>
  );
}
