import { Box, IconButton, Tooltip, useMediaQuery } from '@mui/material';
import ExpandLessIcon from '@mui/icons-material/ExpandLess';
import ExpandMoreIcon from '@mui/icons-material/ExpandMore';
import { blocksOf } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { useChosenBlock, useOpenLesson, useSchedule } from '../app/use-lesson.ts';
import { NARROW } from './Panes.tsx';
import { Ribbon } from './Ribbon.tsx';

const FOLDED_KEY = 'zest-ribbon';

/** Whether the ribbon is folded: as it was left, else on a phone. */
function useFolded(): [boolean, (folded: boolean) => void] {
  const isNarrow = useMediaQuery(NARROW);
  const [chosen, setChosen] = useState(() => localStorage.getItem(FOLDED_KEY));
  const set = (folded: boolean) => {
    const word = folded ? 'folded' : 'open';
    localStorage.setItem(FOLDED_KEY, word);
    setChosen(word);
  };
  return [chosen === null ? isNarrow : chosen === 'folded', set];
}

/** The ribbon of the open lesson, which folds to a strip. */
export function LessonRibbon() {
  const { lesson } = useOpenLesson();
  const schedule = useSchedule();
  const { block, choose } = useChosenBlock();
  const [isFolded, setFolded] = useFolded();
  const filmed = useMemo(
    () => new Set(blocksOf(lesson).flatMap(({ id, footage }) => (footage ? [id] : []))),
    [lesson],
  );
  const words = teacherText(isFolded ? 'frame.unfold' : 'frame.fold');
  return (
    <Box
      sx={{
        flex: 'none',
        display: 'flex',
        height: isFolded ? 26 : 74,
        bgcolor: 'background.paper',
        borderBlock: 1,
        borderColor: 'divider',
      }}
    >
      <Ribbon
        schedule={schedule}
        filmed={filmed}
        chosen={block?.id}
        isFolded={isFolded}
        onChoose={choose}
      />
      <Tooltip title={words}>
        <IconButton
          size="small"
          aria-label={words}
          aria-expanded={!isFolded}
          onClick={() => setFolded(!isFolded)}
          sx={{ flex: 'none', alignSelf: 'center', width: 24, height: 24, mx: 0.5 }}
        >
          {isFolded ? <ExpandMoreIcon fontSize="small" /> : <ExpandLessIcon fontSize="small" />}
        </IconButton>
      </Tooltip>
    </Box>
  );
}
