import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Stack,
  Typography,
} from '@mui/material';
import { LIMITS, type Block } from '@zest/core/lesson';
import { measuredWpm, paceOf, saidIn } from '@zest/core/script';

import { teacherText } from '@zest/core/words';
import { useEffect, useState } from 'react';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';

/** Words, time they take, and whether the block has that time. */
export function PaceMeter({ block }: { block: Block }) {
  const { lesson } = useOpenLesson();
  const { words, spokenMs, roomMs } = paceOf(block, lesson);
  const isOver = roomMs !== null && spokenMs > roomMs;
  const part = roomMs === null || roomMs === 0 ? 1 : Math.min(1, spokenMs / roomMs);
  if (words === 0) return null;
  return (
    <Stack
      direction="row"
      sx={{ alignItems: 'center', columnGap: 1.5, flexWrap: 'wrap' }}
      useFlexGap
    >
      <Box
        sx={{
          width: 90,
          height: 8,
          borderRadius: 1,
          border: 1,
          borderColor: 'divider',
          bgcolor: 'background.default',
        }}
        aria-hidden
      >
        <Box
          sx={{
            width: `${part * 100}%`,
            height: '100%',
            bgcolor: isOver ? 'error.main' : 'secondary.main',
          }}
        />
      </Box>
      <Typography variant="body2" color={isOver ? 'error' : 'text.secondary'}>
        {roomMs === null
          ? teacherText('script.words-last', { words, spokenMs })
          : teacherText(isOver ? 'script.words-over' : 'script.words-within', {
              ...{ words, spokenMs, roomMs },
              overMs: spokenMs - roomMs,
            })}
      </Typography>
    </Stack>
  );
}

/** Measures the teacher's own pace by reading a block's words aloud. */
export function ReadAloud({ block }: { block: Block }) {
  const { lesson } = useOpenLesson();
  const dispatch = useAppDispatch();
  const [isOpen, setOpen] = useState(false);
  const [startedAt, setStarted] = useState<number | null>(null);
  const [tookMs, setTook] = useState(0);
  useEffect(() => {
    if (startedAt === null) return;
    const timer = setInterval(() => setTook(performance.now() - startedAt), 100);
    return () => clearInterval(timer);
  }, [startedAt]);
  const text = saidIn(block);
  const wpm = startedAt === null && tookMs > 0 ? measuredWpm(text, tookMs) : null;
  const usable = wpm !== null && wpm >= LIMITS.speechWpm.min && wpm <= LIMITS.speechWpm.max;
  const close = () => {
    setOpen(false);
    setStarted(null);
    setTook(0);
  };
  return (
    <>
      <Button onClick={() => setOpen(true)}>{teacherText('script.measure-my-pace')}</Button>
      <Dialog open={isOpen} onClose={close} maxWidth="sm" fullWidth>
        <DialogTitle>{teacherText('script.read-aloud-you-would')}</DialogTitle>
        <DialogContent>
          <Typography sx={{ fontSize: '1.15rem', lineHeight: 1.6, whiteSpace: 'pre-wrap' }}>
            {text || teacherText('script.block-has-no-words')}
          </Typography>
          <Typography sx={{ mt: 2, fontVariantNumeric: 'tabular-nums' }} aria-live="polite">
            {startedAt !== null
              ? `${(tookMs / 1000).toFixed(0)} s`
              : tookMs === 0
                ? teacherText('script.now-words-minute', { speechWpm: lesson.settings.speechWpm })
                : usable
                  ? teacherText('script.you-read-words-minute', { wpm })
                  : teacherText('script.too-short-tell-out')}
          </Typography>
        </DialogContent>
        <DialogActions>
          <Button onClick={close}>{teacherText('common.close')}</Button>
          {startedAt === null ? (
            <Button
              variant={usable ? 'outlined' : 'contained'}
              disabled={text === ''}
              onClick={() => {
                setTook(0);
                setStarted(performance.now());
              }}
            >
              {teacherText('script.start-reading')}
            </Button>
          ) : (
            <Button
              variant="contained"
              onClick={() => {
                setTook(performance.now() - startedAt);
                setStarted(null);
              }}
            >
              {teacherText('script.done-reading')}
            </Button>
          )}
          {usable && (
            <Button
              variant="contained"
              onClick={() => {
                dispatch(
                  edit(teacherText('script.my-pace'), (d) => void (d.settings.speechWpm = wpm)),
                );
                close();
              }}
            >
              {teacherText('script.use', { wpm })}
            </Button>
          )}
        </DialogActions>
      </Dialog>
    </>
  );
}
