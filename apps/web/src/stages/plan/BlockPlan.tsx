import { Box, ButtonBase, IconButton, Stack, Tooltip, Typography } from '@mui/material';
import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward';
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import { moveBlock, removeBlock } from '@zest/core/lesson';
import { blockSummary, type ScheduledBlock } from '@zest/core/schedule';
import { clockText, lengthText } from '@zest/core/time';
import { useEffect, useRef } from 'react';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { BlockFigures } from './BlockFigures.tsx';

interface BlockPlanProps {
  planned: ScheduledBlock;
  isOpen: boolean;
  onOpen: () => void;
}

/** A block against the clock rail; the chosen one is open for its figures. */
export function BlockPlan({ planned, isOpen, onOpen }: BlockPlanProps) {
  const { block } = planned;
  const dispatch = useAppDispatch();
  const place = useRef<HTMLDivElement>(null);
  // Chosen on the ribbon, the block comes into view; one already in view stays where it is.
  useEffect(() => {
    if (isOpen) place.current?.scrollIntoView({ block: 'nearest' });
  }, [isOpen]);
  return (
    <Box ref={place} sx={{ display: 'grid', gridTemplateColumns: '72px 1fr', borderBottom: 1, borderColor: 'divider' }}>
      <Box sx={{ borderRight: 3, borderColor: isOpen ? 'primary.main' : 'divider', pt: 1.4, pr: 1, textAlign: 'right', fontVariantNumeric: 'tabular-nums' }}>
        <Typography sx={{ fontWeight: 700 }}>{clockText(planned.startMs)}</Typography>
        {planned.studentStartMs !== planned.startMs && (
          <Tooltip title="On the student’s clock">
            <Typography variant="body2" color="text.secondary">
              {clockText(planned.studentStartMs)}
            </Typography>
          </Tooltip>
        )}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        <Stack direction="row" sx={{ alignItems: 'stretch' }}>
          <ButtonBase onClick={onOpen} aria-expanded={isOpen} sx={{ flex: 1, minWidth: 0, px: 1.5, py: 1.2, justifyContent: 'start', textAlign: 'left' }}>
            <Box sx={{ minWidth: 0 }}>
              <Typography component="h3" variant="h3" noWrap>
                {block.title || 'Untitled'}
              </Typography>
              <Typography color="text.secondary" noWrap>
                {lengthText(planned.durationMs)} · {blockSummary(block)}
              </Typography>
            </Box>
          </ButtonBase>
          <Stack direction="row" sx={{ alignItems: 'center', pr: 1 }}>
            <IconButton aria-label={`${block.title} earlier`} onClick={() => dispatch(edit('Move the block', moveBlock(block.id, -1)))}>
              <ArrowUpwardIcon fontSize="small" />
            </IconButton>
            <IconButton aria-label={`${block.title} later`} onClick={() => dispatch(edit('Move the block', moveBlock(block.id, 1)))}>
              <ArrowDownwardIcon fontSize="small" />
            </IconButton>
            <IconButton aria-label={`Remove ${block.title}`} onClick={() => dispatch(edit('Remove the block', removeBlock(block.id)))}>
              <DeleteOutlineIcon fontSize="small" />
            </IconButton>
          </Stack>
        </Stack>
        {isOpen && <BlockFigures block={block} />}
      </Box>
    </Box>
  );
}
