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
import { lengthText } from '@zest/core/time';
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
        {words} words, {lengthText(spokenMs)}
        {roomMs !== null &&
          (isOver
            ? `: ${lengthText(spokenMs - roomMs)} more than the block lasts. Cut words or lengthen it.`
            : ` of the block’s ${lengthText(roomMs)}`)}
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
      <Button onClick={() => setOpen(true)}>Measure my pace</Button>
      <Dialog open={isOpen} onClose={close} maxWidth="sm" fullWidth>
        <DialogTitle>Read this aloud as you would on camera</DialogTitle>
        <DialogContent>
          <Typography sx={{ fontSize: '1.15rem', lineHeight: 1.6, whiteSpace: 'pre-wrap' }}>
            {text || 'This block has no words yet. Choose one with at least 20 words.'}
          </Typography>
          <Typography sx={{ mt: 2, fontVariantNumeric: 'tabular-nums' }} aria-live="polite">
            {startedAt !== null
              ? `${(tookMs / 1000).toFixed(0)} s`
              : tookMs === 0
                ? `Now: ${lesson.settings.speechWpm} words a minute.`
                : usable
                  ? `You read ${wpm} words a minute.`
                  : 'Too short to tell, or out of bounds: read at least 20 words, for 5 seconds or more.'}
          </Typography>
        </DialogContent>
        <DialogActions>
          <Button onClick={close}>Close</Button>
          {startedAt === null ? (
            <Button
              variant={usable ? 'outlined' : 'contained'}
              disabled={text === ''}
              onClick={() => {
                setTook(0);
                setStarted(performance.now());
              }}
            >
              Start reading
            </Button>
          ) : (
            <Button
              variant="contained"
              onClick={() => {
                setTook(performance.now() - startedAt);
                setStarted(null);
              }}
            >
              Done reading
            </Button>
          )}
          {usable && (
            <Button
              variant="contained"
              onClick={() => {
                dispatch(edit('My pace', (d) => void (d.settings.speechWpm = wpm)));
                close();
              }}
            >
              Use {wpm}
            </Button>
          )}
        </DialogActions>
      </Dialog>
    </>
  );
}
