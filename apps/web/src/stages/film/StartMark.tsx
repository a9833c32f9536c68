import { Box, Button, Slider, Stack, Typography } from '@mui/material';
import { routes, urlOf, type Take } from '@zest/contract';
import { startInTake } from '@zest/core/assembly';
import { changeBlock, type Block } from '@zest/core/lesson';
import { firstFrameFrom, frameText, instantOfFrame, OUTPUT_FPS } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useEffect, useEffectEvent, useRef, useState, type RefObject } from 'react';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { takeUrl } from '../../app/take-url.ts';
import { frameOfMedia, mediaOfFrame } from '../../player/frames.ts';
import '../../player/stage.css';
import { onStageKey } from '../../ui/keys.ts';
import { BlockOverlay, useBlockCut } from '../../stage/BlockOverlay.tsx';
import { Waveform } from './Waveform.tsx';

/** A take's video frame by frame. */
function useFrames(videoRef: RefObject<HTMLVideoElement | null>, frames: number) {
  const frameShown = useRef(0);
  const [shown, setShown] = useState(0);
  const [playing, setPlaying] = useState(false);

  useEffect(() => {
    const video = videoRef.current;
    if (!video) return;
    let callback = 0;
    const onFrame = (_now: number, { mediaTime }: VideoFrameCallbackMetadata) => {
      // On its way elsewhere, what comes is still the place it left.
      if (!video.seeking) {
        frameShown.current = frameOfMedia(mediaTime);
        setShown(frameShown.current);
      }
      callback = video.requestVideoFrameCallback(onFrame);
    };
    callback = video.requestVideoFrameCallback(onFrame);
    return () => video.cancelVideoFrameCallback(callback);
  }, [videoRef]);

  const goTo = (frame: number) => {
    const video = videoRef.current;
    if (!video) return;
    video.pause();
    // The next step counts from here, however long the picture takes.
    frameShown.current = Math.max(0, Math.min(frame, frames - 1));
    setShown(frameShown.current);
    video.currentTime = mediaOfFrame(frameShown.current);
  };
  const toggle = () => {
    const video = videoRef.current;
    if (!video) return;
    if (video.paused) void video.play();
    else video.pause();
  };
  return { shown, now: () => frameShown.current, playing, setPlaying, goTo, toggle };
}

interface FrameStepsProps {
  shown: number;
  playing: boolean;
  goTo: (frame: number) => void;
  toggle: () => void;
  onStart: () => void;
}

function FrameSteps({ shown, playing, goTo, toggle, onStart }: FrameStepsProps) {
  return (
    <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1, alignItems: 'center' }}>
      <Button variant="outlined" onClick={() => goTo(shown - OUTPUT_FPS)}>
        − 1 s
      </Button>
      <Button variant="outlined" onClick={() => goTo(shown - 1)}>
        {teacherText('film.frame')}
      </Button>
      <Button variant="outlined" onClick={toggle}>
        {playing ? teacherText('film.stop') : teacherText('film.play')}
      </Button>
      <Button variant="outlined" onClick={() => goTo(shown + 1)}>
        {teacherText('film.add-frame')}
      </Button>
      <Button variant="outlined" onClick={() => goTo(shown + OUTPUT_FPS)}>
        + 1 s
      </Button>
      <Typography
        data-testid="frame-shown"
        sx={{ fontVariantNumeric: 'tabular-nums', px: 1, fontSize: '1.1rem' }}
      >
        {frameText(instantOfFrame(shown))}
      </Typography>
      <Button variant="contained" onClick={onStart}>
        {teacherText('film.block-starts-here-m')}
      </Button>
    </Stack>
  );
}

/**
 * Where the block starts in its take: by dragging, by a key at the frame shown, or frame by frame.
 */
export function StartMark({ block, take }: { block: Block; take: Take }) {
  const { lesson } = useOpenLesson();
  const dispatch = useAppDispatch();
  const videoRef = useRef<HTMLVideoElement>(null);
  const cut = useBlockCut(lesson, block);
  const { shown, now, playing, setPlaying, goTo, toggle } = useFrames(videoRef, take.frames);
  const byMark = block.footage?.startsAtMs === null && take.marked !== null;
  const startFrame = firstFrameFrom(
    startInTake({ startsAtMs: block.footage?.startsAtMs ?? null }, take),
  );

  const setStart = (frame: number | null) => {
    dispatch(
      edit(
        teacherText('film.start', { title: block.title }),
        changeBlock(block.id, (draft) => {
          if (draft.footage)
            draft.footage.startsAtMs = frame === null ? null : instantOfFrame(frame);
        }),
        true,
      ),
    );
  };
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    onStageKey(event, {
      toggle,
      step: (frames) => goTo(now() + frames),
      mark: () => setStart(now()),
    });
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);

  return (
    <Stack spacing={1.5}>
      <Box
        sx={{
          width: '100%',
          maxWidth: 'calc((100vh - 480px) * 16 / 9)',
          minWidth: { md: 520 },
          alignSelf: 'center',
        }}
      >
        <div className="stage" style={{ aspectRatio: '16 / 9' }}>
          <video
            ref={videoRef}
            src={takeUrl(take.id)}
            playsInline
            preload="auto"
            style={{ visibility: 'visible' }}
            onPlay={() => setPlaying(true)}
            onPause={() => setPlaying(false)}
            onLoadedData={() => goTo(startFrame)}
          />
          <BlockOverlay cut={cut} momentMs={() => instantOfFrame(now() - startFrame)} />
        </div>
      </Box>
      <FrameSteps
        shown={shown}
        playing={playing}
        goTo={goTo}
        toggle={toggle}
        onStart={() => setStart(shown)}
      />
      <Box>
        <Box
          sx={{
            height: 54,
            borderRadius: 1,
            backgroundImage: `url(${urlOf(routes.takeThumbs, { takeId: take.id })})`,
            backgroundSize: '100% 100%',
          }}
        />
        {take.hasSound && <Waveform takeId={take.id} videoRef={videoRef} />}
        <Slider
          aria-label={teacherText('film.start-block-take')}
          value={startFrame}
          min={0}
          max={Math.max(1, take.frames - 1)}
          step={1}
          valueLabelDisplay="auto"
          valueLabelFormat={(frame) => frameText(instantOfFrame(frame))}
          getAriaValueText={(frame) => frameText(instantOfFrame(frame))}
          onChange={(_event, frame) => {
            setStart(frame);
            goTo(frame);
          }}
        />
        <Typography color="text.secondary" data-testid="start-mark">
          {teacherText('film.block-starts-take-minutes', {
            frame: frameText(instantOfFrame(startFrame)),
            byMark: String(byMark),
          })}
        </Typography>
        {take.marked && !byMark && (
          <Button size="small" onClick={() => setStart(null)}>
            {teacherText('film.back-where-sync-mark')}
          </Button>
        )}
      </Box>
    </Stack>
  );
}
