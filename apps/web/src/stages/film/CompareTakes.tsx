import { Box, Button, Stack, Typography } from '@mui/material';
import type { Take } from '@zest/contract';
import { alignTake } from '@zest/core/assembly';
import type { Block } from '@zest/core/lesson';
import { clockText, instantOfFrame } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useEffect, useEffectEvent, useRef, useState, type RefObject } from 'react';
import { useAppDispatch } from '../../app/store.ts';
import { takeUrl } from '../../app/take-url.ts';
import { useKeys } from '../../ui/use-keys.ts';
import { chooseTake } from './uploads.ts';

const LOOK_EVERY_MS = 200;
/** Pictures further apart than this are seen to be. */
const MOST_APART_S = 0.06;
const STEP_S = 2;

interface InStep {
  block: Block;
  takes: readonly Take[];
  /** The take whose clock the others follow. */
  looked: Take | undefined;
  videos: RefObject<Map<string, HTMLVideoElement>>;
}

/** Plays all takes in step, on the clock of the block. */
function useInStep({ block, takes, looked, videos }: InStep) {
  const [playing, setPlaying] = useState(false);
  const [seconds, setSeconds] = useState(0);
  const alignmentOf = (take: Take) =>
    alignTake(
      { startsAtMs: take.id === block.footage?.takeId ? block.footage.startsAtMs : null },
      take,
    );
  /** Where a take is when the plan's clock is at `s`: its own clock may run fast or slow. */
  const placeOf = (take: Take, s: number) => alignmentOf(take).toTake(s * 1000) / 1000;
  const clock = () => {
    const video = looked && videos.current.get(looked.id);
    return video && looked ? alignmentOf(looked).toBlock(video.currentTime * 1000) / 1000 : 0;
  };
  const goTo = (s: number) => {
    for (const take of takes) {
      const video = videos.current.get(take.id);
      if (video) video.currentTime = Math.max(0, placeOf(take, s));
    }
    setSeconds(s);
  };
  const toggle = () => {
    const next = !playing;
    if (next) goTo(clock());
    for (const video of videos.current.values())
      if (next) void video.play().catch(() => undefined);
      else video.pause();
    setPlaying(next);
  };
  const keepStep = useEffectEvent(() => {
    const s = clock();
    setSeconds(s);
    for (const take of takes) {
      const video = videos.current.get(take.id);
      if (!video || take === looked || video.ended) continue;
      const wanted = placeOf(take, s);
      if (Math.abs(video.currentTime - wanted) > MOST_APART_S) video.currentTime = wanted;
    }
    if (looked && videos.current.get(looked.id)?.ended) setPlaying(false);
  });
  useEffect(() => {
    if (!playing) return;
    const looking = setInterval(() => keepStep(), LOOK_EVERY_MS);
    return () => clearInterval(looking);
  }, [playing]);
  return { seconds, playing, goTo, toggle, clock, placeOf };
}

/**
 * Takes of a block side by side, in step by where the block starts in each; sound comes from the
 * one looked at.
 */
export function CompareTakes({ block, takes }: { block: Block; takes: readonly Take[] }) {
  const dispatch = useAppDispatch();
  const videos = useRef(new Map<string, HTMLVideoElement>());
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      takes.findIndex(({ id }) => id === block.footage?.takeId),
    ),
  );
  const looked = takes[Math.min(at, takes.length - 1)];
  const { seconds, playing, goTo, toggle, clock, placeOf } = useInStep({
    block,
    takes,
    looked,
    videos,
  });
  const makeTheOne = (take: Take) => dispatch(chooseTake(block, take.id, null));
  useKeys({
    ' ': toggle,
    '[': () => goTo(clock() - STEP_S),
    ']': () => goTo(clock() + STEP_S),
    ArrowLeft: () => setAt((at + takes.length - 1) % takes.length),
    ArrowRight: () => setAt((at + 1) % takes.length),
    b: () => looked && makeTheOne(looked),
  });
  return (
    <Stack spacing={1.5}>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: takes.length > 1 ? 'repeat(2, minmax(0, 1fr))' : '1fr',
          gap: 1.5,
        }}
      >
        {takes.map((take, i) => (
          <Box
            key={take.id}
            data-testid="compared"
            sx={{
              border: 3,
              borderColor: i === at ? 'primary.main' : 'divider',
              borderRadius: 1,
              p: 1,
            }}
            onClick={() => setAt(i)}
          >
            <video
              ref={(video) => {
                if (video) videos.current.set(take.id, video);
                else videos.current.delete(take.id);
              }}
              src={takeUrl(take.id)}
              muted={i !== at}
              playsInline
              preload="auto"
              onLoadedMetadata={(event) =>
                (event.currentTarget.currentTime = Math.max(0, placeOf(take, seconds)))
              }
              style={{ width: '100%', aspectRatio: '16 / 9', background: '#000' }}
            />
            <Stack direction="row" sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
              <Typography noWrap sx={{ flex: 1, minWidth: 0, fontWeight: 650 }}>
                {take.name}
              </Typography>
              {take.id === block.footage?.takeId ? (
                <Typography color="primary">{teacherText('film.use')}</Typography>
              ) : (
                <Button size="small" onClick={() => makeTheOne(take)}>
                  {teacherText('film.use-take')}
                </Button>
              )}
            </Stack>
            <Typography variant="body2" color="text.secondary">
              {clockText(instantOfFrame(take.frames))}
              {', '}
              {teacherText(take.marked ? 'film.in-step' : 'film.from-beginning')}
              {take.reason && ` · ${take.reason}`}
            </Typography>
          </Box>
        ))}
      </Box>
      <Stack direction="row" useFlexGap sx={{ gap: 1, alignItems: 'center', flexWrap: 'wrap' }}>
        <Button variant="outlined" onClick={() => goTo(0)}>
          {teacherText('film.block-s-start')}
        </Button>
        <Button variant="outlined" onClick={() => goTo(clock() - STEP_S)}>
          − 2 s ([)
        </Button>
        <Button variant="contained" onClick={toggle}>
          {playing ? teacherText('film.stop') : teacherText('film.play-all')}
        </Button>
        <Button variant="outlined" onClick={() => goTo(clock() + STEP_S)}>
          + 2 s (])
        </Button>
        <Typography
          sx={{ fontVariantNumeric: 'tabular-nums', fontSize: '1.2rem' }}
          data-testid="compare-clock"
        >
          {seconds < 0 ? `−${clockText(-seconds * 1000)}` : clockText(seconds * 1000)}
        </Typography>
        <Typography color="text.secondary">
          {teacherText('film.arrow-keys-look-another')}
        </Typography>
      </Stack>
    </Stack>
  );
}
