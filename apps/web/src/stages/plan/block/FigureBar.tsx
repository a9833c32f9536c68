import { Box, IconButton, Tooltip, Typography } from '@mui/material';
import AddIcon from '@mui/icons-material/Add';
import RemoveIcon from '@mui/icons-material/Remove';
import {
  figureOf,
  findBlock,
  readFigure,
  writeFigure,
  type Block,
  type Figure,
} from '@zest/core/lesson';
import { lengthText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useContext, type MouseEvent } from 'react';
import { useLessonPart } from '../../../app/use-lesson.ts';
import { ThingMark } from '../../../ui/pictograms.tsx';
import { useChange } from '../../../ui/use-change.ts';
import { FigureFocus, useToggleLock } from './figure-focus.ts';

/** How far one press of a button goes. */
const stepOf = ({ unit, fit }: Figure) => fit?.step ?? (unit === 'ms' ? 1_000 : 1);

/** A press leaves the keyboard in the figure. */
const stay = (event: MouseEvent) => event.preventDefault();

function Tools({ block, figure }: { block: Block; figure: Figure }) {
  const change = useChange(block);
  const toggleLock = useToggleLock(block);
  const { label, unit, range } = figure;
  const value = readFigure(block, figure.key);
  const isLocked = block.locked.includes(figure.key);
  const set = (to: number) =>
    change(label, (d) => writeFigure(d, figure.key, Math.min(range.max, Math.max(range.min, to))));
  const shown = (n: number) => (unit === 'ms' ? lengthText(n) : String(n));
  const lockWords = teacherText(isLocked ? 'figure.locked' : 'figure.lock');
  // The keyboard has arrows for the one and Alt L for the other.
  const tool = { tabIndex: -1, onMouseDown: stay };
  return (
    <Box
      sx={{
        display: 'flex',
        alignItems: 'center',
        gap: 0.5,
        px: 1.5,
        py: 0.25,
        borderTop: 1,
        borderColor: 'divider',
        bgcolor: 'background.paper',
      }}
    >
      <Typography variant="body2" noWrap sx={{ flex: 1, minWidth: 0 }}>
        <b>{label}</b>{' '}
        {unit === 'cm'
          ? ''
          : teacherText('figure.range', { from: shown(range.min), to: shown(range.max) })}
      </Typography>
      <IconButton
        {...tool}
        aria-label={teacherText('figure.less', { figure: label })}
        onClick={() => set(value - stepOf(figure))}
      >
        <RemoveIcon fontSize="small" />
      </IconButton>
      <IconButton
        {...tool}
        aria-label={teacherText('figure.more', { figure: label })}
        onClick={() => set(value + stepOf(figure))}
      >
        <AddIcon fontSize="small" />
      </IconButton>
      {figure.fit && (
        <Tooltip title={lockWords}>
          <IconButton
            {...tool}
            aria-label={`${lockWords}: ${label}`}
            aria-pressed={isLocked}
            onClick={() => toggleLock(figure)}
          >
            <ThingMark of={isLocked ? 'lock' : 'unlock'} size={18} />
          </IconButton>
        </Tooltip>
      )}
    </Box>
  );
}

/** The figure the keyboard is in: a step less or more for a thumb, its bounds, and its lock. */
export function FigureBar() {
  const focused = useContext(FigureFocus);
  const block = useLessonPart((lesson) => focused && findBlock(lesson, focused.blockId));
  const figure = block && focused ? figureOf(block, focused.key) : undefined;
  // Its place stays: nothing moves under the hand when the keyboard comes or goes.
  return (
    <Box sx={{ height: 50 }}>{block && figure && <Tools block={block} figure={figure} />}</Box>
  );
}
