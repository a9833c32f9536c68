import {
  Box,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Typography,
} from '@mui/material';
import { teacherText } from '@zest/core/words';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { bounces, heightAt, reactionOf } from './reaction.ts';

const KEY = 'zest-reaction-ms';

/** What was measured on this device; null when nothing was. */
export function readReaction(): number | null {
  const kept = Number(localStorage.getItem(KEY) ?? NaN);
  return Number.isFinite(kept) ? kept : null;
}

/** A ball that bounces unevenly: tapping each time it lands tells how late this person taps. */
export function ReactionDialog({ onClose }: { onClose: (ms: number | null) => void }) {
  const [landings] = useState(() => bounces(Math.floor(Math.random() * 1e6)));
  const [taps, setTaps] = useState<readonly number[]>([]);
  const ball = useRef<HTMLDivElement>(null);
  const beganMs = useRef(0);
  useEffect(() => {
    beganMs.current = performance.now();
    let frame = requestAnimationFrame(function draw(now) {
      if (ball.current)
        ball.current.style.transform = `translateY(${-heightAt(landings, now - beganMs.current) * 150}px)`;
      frame = requestAnimationFrame(draw);
    });
    return () => cancelAnimationFrame(frame);
  }, [landings]);
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    if (event.key !== 'ArrowDown') return;
    event.preventDefault();
    setTaps([...taps, event.timeStamp - beganMs.current]);
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  const found = reactionOf(landings, taps);
  const keep = () => {
    if (found === null) return;
    localStorage.setItem(KEY, String(found));
    onClose(found);
  };
  return (
    <Dialog open onClose={() => onClose(null)} aria-label={teacherText('assemble.tap-delay')}>
      <DialogTitle>{teacherText('assemble.tap-delay')}</DialogTitle>
      <DialogContent>
        <Typography>{teacherText('assemble.tap-test-how')}</Typography>
        <Box
          sx={{
            height: 210,
            position: 'relative',
            borderBottom: 3,
            borderColor: 'text.primary',
            my: 2,
          }}
          aria-hidden
        >
          <Box
            ref={ball}
            sx={{
              position: 'absolute',
              bottom: 0,
              left: 'calc(50% - 20px)',
              width: 40,
              height: 40,
              borderRadius: '50%',
              bgcolor: 'primary.main',
            }}
          />
        </Box>
        <Typography role="status">
          {found === null
            ? teacherText('assemble.taps-so-far', { count: taps.length })
            : teacherText('assemble.tap-delay-is', { found })}
        </Typography>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => onClose(null)}>{teacherText('assemble.leave')}</Button>
        <Button variant="contained" disabled={found === null} onClick={keep}>
          {teacherText('common.use-it')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
