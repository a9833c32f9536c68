import { Alert, Box, Paper, Stack, Tab, Tabs, Typography } from '@mui/material';
import { useEffect, useState } from 'react';
import { recoverRecordings } from '../../record/recorder.ts';
import { uploadFault } from '../../record/upload.ts';
import { useChosenBlock, useOpenLesson, useTakes } from '../../app/use-lesson.ts';
import { RecordPanel } from './RecordPanel.tsx';
import { StartMark } from './StartMark.tsx';
import { TakeList } from './TakeList.tsx';
import { UploadPanel } from './UploadPanel.tsx';

/** Footage for one block: record it, upload it, choose the take, set where the block starts in it. */
export function FilmBench() {
  const { id: lessonId } = useOpenLesson();
  const { block } = useChosenBlock();
  const takes = useTakes();
  const [way, setWay] = useState<'takes' | 'record'>('takes');
  const [news, setNews] = useState<{ severity: 'info' | 'success' | 'warning'; text: string } | null>(null);

  useEffect(() => {
    let left = false;
    const say = (next: typeof news) => !left && setNews(next);
    recoverRecordings(lessonId, () => say({ severity: 'info', text: 'A recording of a closed window was found here. Sending it …' }))
      .then((count) => count > 0 && say({ severity: 'success', text: 'The recording of the closed window is saved.' }))
      .catch((error: unknown) => say({ severity: 'warning', text: `A recording of a closed window is kept here but could not be sent. ${uploadFault(error)}` }));
    return () => {
      left = true;
    };
  }, [lessonId]);

  if (!block) return <Alert severity="info">There is nothing to film yet. Add a block on the Plan bench first.</Alert>;
  const own = takes.filter((take) => take.blockId === block.id);
  const chosen = own.find((take) => take.id === block.footage?.takeId);
  return (
    <Stack spacing={2}>
      {news && (
        <Alert severity={news.severity} onClose={() => setNews(null)}>
          {news.text}
        </Alert>
      )}
      <Stack direction="row" spacing={3} sx={{ alignItems: 'center' }}>
        <Typography variant="h2">{block.title || 'Untitled'}</Typography>
        <Tabs value={way} onChange={(_event, next: typeof way) => setWay(next)} aria-label="Ways to get footage">
          <Tab value="takes" label="Takes" />
          <Tab value="record" label="Record" />
        </Tabs>
      </Stack>
      {way === 'record' ? (
        <RecordPanel key={block.id} block={block} onDone={() => setWay('takes')} />
      ) : (
        <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 380px' }, gap: 2, alignItems: 'start' }}>
          <Paper variant="outlined" sx={{ p: 2 }}>
            {chosen?.state === 'ready' ? (
              <StartMark key={chosen.id} block={block} take={chosen} />
            ) : (
              <Typography color="text.secondary" sx={{ py: 8, textAlign: 'center' }}>
                {chosen && chosen.state !== 'failed'
                  ? 'The working copy of this take is being made. Meanwhile you can film the next block.'
                  : own.length === 0
                  ? 'No take of this block yet. Record one, or upload a file from your phone.'
                  : 'Choose a take on the right to set where the block starts in it.'}
              </Typography>
            )}
          </Paper>
          <Stack spacing={2}>
            <UploadPanel block={block} />
            <TakeList block={block} takes={own} />
          </Stack>
        </Box>
      )}
    </Stack>
  );
}
