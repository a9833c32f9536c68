import { Box, Button, Paper, Stack, Typography } from '@mui/material';
import type { Block } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { useTakes } from '../../app/use-lesson.ts';
import { BinPanel } from './BinPanel.tsx';
import { CompareTakes } from './CompareTakes.tsx';
import { RetakeRecord } from './RetakeRecord.tsx';
import { StartMark } from './StartMark.tsx';
import { TakeList } from './TakeList.tsx';
import { UploadPanel } from './UploadPanel.tsx';

/**
 * What was filmed of a block: which take is the one, where the block starts in it, what is wrong
 * with the others.
 */
export function TakesOfBlock({ block }: { block: Block }) {
  const all = useTakes();
  const [compares, setCompares] = useState(false);
  const takes = all.filter((take) => take.blockId === block.id && !take.inBin);
  const ready = takes.filter(({ state }) => state === 'ready');
  const chosen = takes.find((take) => take.id === block.footage?.takeId);
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 400px' },
        gap: 2,
        alignItems: 'start',
      }}
    >
      <Stack spacing={2}>
        <Paper variant="outlined" sx={{ p: 2 }}>
          {ready.length > 1 && (
            <Button
              onClick={() => setCompares(!compares)}
              aria-pressed={compares}
              variant={compares ? 'contained' : 'outlined'}
              sx={{ mb: 1.5 }}
            >
              {compares
                ? teacherText('film.back-chosen-take')
                : teacherText('film.compare-takes', { count: ready.length })}
            </Button>
          )}
          {compares && ready.length > 1 ? (
            <CompareTakes block={block} takes={ready} />
          ) : chosen?.state === 'ready' ? (
            <StartMark key={chosen.id} block={block} take={chosen} />
          ) : (
            <Typography color="text.secondary" sx={{ py: 8, textAlign: 'center' }}>
              {chosen && chosen.state !== 'failed'
                ? teacherText('film.working-copy-take-being')
                : block.kind === 'card'
                  ? teacherText('film.card-drawn-program-needs')
                  : takes.length === 0
                    ? teacherText('film.no-take-block-yet')
                    : teacherText('film.choose-take-right-set')}
            </Typography>
          )}
        </Paper>
        <RetakeRecord takes={all} />
      </Stack>
      <Stack spacing={2}>
        <UploadPanel block={block} />
        <TakeList block={block} takes={takes} />
        <BinPanel takes={all} />
      </Stack>
    </Box>
  );
}
