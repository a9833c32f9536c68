import { useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { Box, ButtonBase, Checkbox, IconButton, Stack, Typography } from '@mui/material';
import ArrowDownwardIcon from '@mui/icons-material/ArrowDownward';
import ArrowUpwardIcon from '@mui/icons-material/ArrowUpward';
import CallSplitIcon from '@mui/icons-material/CallSplit';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import DragIndicatorIcon from '@mui/icons-material/DragIndicator';
import { moveBlocks, removeBlocks } from '@zest/core/lesson';
import { blockSummary, type ScheduledBlock } from '@zest/core/schedule';
import { clockText, lengthText } from '@zest/core/time';
import { memo, useEffect, useRef } from 'react';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { paper } from '../../app/theme.ts';
import { HEAD, OPENER } from './block-keys.ts';
import { BlockFigures } from './BlockFigures.tsx';
import { useSplit } from './use-split.ts';

interface BlockPlanProps {
  planned: ScheduledBlock;
  isOpen: boolean;
  isChosen: boolean;
  onOpen: (blockId: string) => void;
  /** With `reach`, all from the last one chosen to this one. */
  onChoose: (blockId: string, reach: boolean) => void;
}

function OpenBlockButtons({ planned: { block } }: { planned: ScheduledBlock }) {
  const dispatch = useAppDispatch();
  const split = useSplit();
  const ids = new Set([block.id]);
  return (
    <Stack direction="row" sx={{ alignItems: 'center', pr: 1 }}>
      <IconButton
        aria-label={`${block.title} earlier`}
        onClick={() => dispatch(edit('Move the block', moveBlocks(ids, -1)))}
      >
        <ArrowUpwardIcon fontSize="small" />
      </IconButton>
      <IconButton
        aria-label={`${block.title} later`}
        onClick={() => dispatch(edit('Move the block', moveBlocks(ids, 1)))}
      >
        <ArrowDownwardIcon fontSize="small" />
      </IconButton>
      <IconButton
        aria-label={`Split the lesson before ${block.title}`}
        onClick={() => void split(block.id)}
      >
        <CallSplitIcon fontSize="small" />
      </IconButton>
      <IconButton
        aria-label={`Remove ${block.title}`}
        onClick={() => dispatch(edit('Remove the block', removeBlocks(ids)))}
      >
        <DeleteOutlineIcon fontSize="small" />
      </IconButton>
    </Stack>
  );
}

type Grip = Pick<
  ReturnType<typeof useSortable>,
  'attributes' | 'listeners' | 'setActivatorNodeRef'
>;

/**
 * What stands in a block's row. Drawn anew only when something of it has changed: a lesson may have
 * hundreds.
 */
const RowContent = memo(
  function RowContent({
    planned,
    isOpen,
    isChosen,
    onOpen,
    onChoose,
    attributes,
    listeners,
    setActivatorNodeRef,
  }: BlockPlanProps & Grip) {
    const { block } = planned;
    return (
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: '72px 1fr',
          borderBottom: 1,
          borderColor: 'divider',
          bgcolor: isChosen ? paper.zestPale : 'background.paper',
        }}
      >
        <Box
          sx={{
            borderRight: 3,
            borderColor: isOpen ? 'primary.main' : 'divider',
            pt: 1.4,
            pr: 1,
            textAlign: 'right',
            fontVariantNumeric: 'tabular-nums',
          }}
        >
          <Typography sx={{ fontWeight: 700 }}>{clockText(planned.startMs)}</Typography>
          {planned.studentStartMs !== planned.startMs && (
            <Typography variant="body2" color="text.secondary" title="On the student’s clock">
              {clockText(planned.studentStartMs)}
            </Typography>
          )}
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <Stack
            direction="row"
            sx={{ alignItems: 'stretch', flexWrap: { xs: 'wrap', md: 'nowrap' } }}
            {...{ [HEAD]: block.id }}
          >
            <IconButton
              ref={setActivatorNodeRef}
              {...attributes}
              {...listeners}
              data-grip
              aria-label={`Carry ${block.title}`}
              sx={{
                alignSelf: 'center',
                cursor: 'grab',
                touchAction: 'none',
                p: 0.5,
                ml: 0.5,
                color: 'text.secondary',
              }}
            >
              <DragIndicatorIcon fontSize="small" />
            </IconButton>
            <Checkbox
              size="small"
              checked={isChosen}
              sx={{ alignSelf: 'center', p: 0.5 }}
              slotProps={{ input: { 'aria-label': `Choose ${block.title}` } }}
              onClick={(event) => onChoose(block.id, event.shiftKey)}
            />
            <ButtonBase
              {...{ [OPENER]: '' }}
              onClick={(event) =>
                event.ctrlKey || event.metaKey || event.shiftKey
                  ? onChoose(block.id, event.shiftKey)
                  : onOpen(block.id)
              }
              aria-expanded={isOpen}
              sx={{
                flex: { xs: '1 1 100%', md: 1 },
                // Above its buttons where there is no room beside them.
                order: { xs: -1, md: 0 },
                minWidth: 0,
                px: 1,
                py: 1.2,
                justifyContent: 'start',
                textAlign: 'left',
              }}
            >
              <Box sx={{ minWidth: 0 }}>
                <Typography component="h3" variant="h3" noWrap>
                  {block.title || 'Untitled'}
                </Typography>
                <Typography color="text.secondary" noWrap>
                  {lengthText(planned.durationMs)} · {blockSummary(block, 'en')}
                </Typography>
              </Box>
            </ButtonBase>
            {isOpen && <OpenBlockButtons planned={planned} />}
          </Stack>
          {isOpen && <BlockFigures block={block} />}
        </Box>
      </Box>
    );
  },
  (was, is) =>
    was.planned.block === is.planned.block &&
    was.planned.startMs === is.planned.startMs &&
    was.planned.studentStartMs === is.planned.studentStartMs &&
    was.planned.durationMs === is.planned.durationMs &&
    was.isOpen === is.isOpen &&
    was.isChosen === is.isChosen &&
    was.onOpen === is.onOpen &&
    was.onChoose === is.onChoose &&
    was.attributes === is.attributes &&
    was.listeners === is.listeners,
);

/**
 * A block against the clock rail; the chosen one is open for its figures. Carrying turns only this
 * frame, not what is in it.
 */
export function BlockPlan(props: BlockPlanProps) {
  const { isOpen, planned } = props;
  const place = useRef<HTMLDivElement | null>(null);
  const {
    attributes,
    listeners,
    setNodeRef,
    setActivatorNodeRef,
    transform,
    transition,
    isDragging,
  } = useSortable({ id: planned.block.id });
  // Chosen on the ribbon, the block comes into view; one already in view stays where it is.
  useEffect(() => {
    if (isOpen) place.current?.scrollIntoView({ block: 'nearest' });
  }, [isOpen]);
  return (
    <div
      ref={(node) => {
        place.current = node;
        setNodeRef(node);
      }}
      style={{
        transform: CSS.Translate.toString(transform),
        transition: transition ?? undefined,
        opacity: isDragging ? 0.5 : 1,
        position: 'relative',
        zIndex: isDragging ? 1 : 0,
        // A closed block out of sight is not laid out.
        ...(!isOpen && { contentVisibility: 'auto', containIntrinsicSize: 'auto 66px' }),
      }}
    >
      <RowContent
        {...props}
        attributes={attributes}
        listeners={listeners}
        setActivatorNodeRef={setActivatorNodeRef}
      />
    </div>
  );
}
