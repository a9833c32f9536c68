import { Button, Paper, Stack, Typography } from '@mui/material';
import type { Side } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { useKeys } from '../../ui/use-keys.ts';
import { ReactionDialog, readReaction } from './ReactionDialog.tsx';

export interface Tap {
  atMs: number;
  side: Side | null;
  /** Done, but not as it should be. */
  missed: boolean;
}

interface TapPanelProps {
  /** The block's own moment on screen while it plays; null while it stands. */
  momentMs: () => number | null;
  onPlay: () => void;
  onDone: (taps: Tap[]) => void;
  onCancel: () => void;
}

/**
 * Counts by tapping along: each tap is a repetition, earlier by the time this person takes to
 * react.
 */
export function TapPanel({ momentMs, onPlay, onDone, onCancel }: TapPanelProps) {
  const [taps, setTaps] = useState<Tap[]>([]);
  const [reactionMs, setReaction] = useState(readReaction);
  const [measures, setMeasures] = useState(false);
  const tap = (side: Side | null, missed = false) => {
    const ms = momentMs();
    if (ms === null || measures) return;
    setTaps((known) => [
      ...known,
      { atMs: Math.max(0, Math.round(ms - (reactionMs ?? 0))), side, missed },
    ]);
  };
  useKeys({
    ArrowDown: () => tap(null),
    ArrowLeft: () => tap('left'),
    ArrowRight: () => tap('right'),
    ArrowUp: () => tap(null, true),
  });
  const counted = taps.filter(({ missed }) => !missed);
  const on = (side: Side) => counted.filter((one) => one.side === side).length;
  const missed = taps.length - counted.length;
  return (
    <Paper
      variant="outlined"
      component="section"
      aria-label={teacherText('assemble.count-taps')}
      sx={{ p: 1.5, borderColor: 'primary.main' }}
    >
      <Typography component="h2" variant="h3" sx={{ fontSize: '1.05rem' }}>
        {teacherText('assemble.count-taps')}
      </Typography>
      <Typography variant="body2" sx={{ my: 1 }}>
        {teacherText('assemble.taps-how')}
      </Typography>
      <Typography
        sx={{ fontSize: '2.4rem', fontWeight: 750, fontVariantNumeric: 'tabular-nums' }}
        data-testid="taps"
      >
        {counted.length}
      </Typography>
      {missed > 0 && (
        <Typography variant="body2">{teacherText('assemble.not-counted', { missed })}</Typography>
      )}
      {(on('left') > 0 || on('right') > 0) && (
        <Typography variant="body2">
          {teacherText('assemble.left-right', { on: on('left'), on2: on('right') })}
        </Typography>
      )}
      <Stack direction="row" useFlexGap sx={{ gap: 1, my: 1, flexWrap: 'wrap' }}>
        <Button variant="outlined" onClick={() => (setTaps([]), onPlay())}>
          {teacherText('assemble.play-from-start')}
        </Button>
        <Button variant="outlined" size="large" onClick={() => tap('left')}>
          {teacherText('assemble.left')}
        </Button>
        <Button variant="outlined" size="large" onClick={() => tap(null)}>
          {teacherText('assemble.tap')}
        </Button>
        <Button variant="outlined" size="large" onClick={() => tap('right')}>
          {teacherText('assemble.right')}
        </Button>
        <Button variant="outlined" size="large" onClick={() => tap(null, true)}>
          {teacherText('assemble.does-not-count')}
        </Button>
      </Stack>
      <Typography variant="body2" color="text.secondary">
        {reactionMs === null
          ? teacherText('assemble.tap-delay-unknown')
          : teacherText('assemble.tap-delay-of', { reaction: reactionMs })}{' '}
        <Button size="small" onClick={() => setMeasures(true)}>
          {reactionMs === null
            ? teacherText('assemble.measure')
            : teacherText('assemble.measure-again')}
        </Button>
      </Typography>
      <Stack direction="row" sx={{ gap: 1, mt: 1 }}>
        <Button variant="contained" disabled={taps.length === 0} onClick={() => onDone(taps)}>
          {teacherText('assemble.use-these', { count: counted.length })}
        </Button>
        <Button onClick={onCancel}>{teacherText('assemble.leave')}</Button>
      </Stack>
      {measures && (
        <ReactionDialog
          onClose={(ms) => {
            if (ms !== null) setReaction(ms);
            setMeasures(false);
          }}
        />
      )}
    </Paper>
  );
}
