import { Slider, Stack, Typography } from '@mui/material';
import FitIcon from '@mui/icons-material/FitScreenOutlined';
import BlockIcon from '@mui/icons-material/CropFreeOutlined';
import PauseIcon from '@mui/icons-material/Pause';
import PlayIcon from '@mui/icons-material/PlayArrow';
import NextIcon from '@mui/icons-material/ChevronRight';
import PreviousIcon from '@mui/icons-material/ChevronLeft';
import CloserIcon from '@mui/icons-material/ZoomInOutlined';
import WiderIcon from '@mui/icons-material/ZoomOutOutlined';
import { clockText, frameText, type TimeSpan } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { memo, type RefObject } from 'react';
import type { LessonPlayer } from '../../player/player.ts';
import { ToggleChip } from '../../ui/ToggleChip.tsx';
import { ToolButton } from '../../ui/ToolButton.tsx';
import { usePlayMs, type PlayClock } from './play-clock.ts';
import type { usePreview } from './use-preview.ts';

const PlayTime = ({ clock }: { clock: PlayClock }) => frameText(usePlayMs(clock));

/** Drawn anew with every frame: only its text. */
const Position = memo(function Position({
  clock,
  durationMs,
}: {
  clock: PlayClock;
  durationMs: number;
}) {
  return (
    <Typography
      data-testid="position"
      sx={{
        fontVariantNumeric: 'tabular-nums',
        px: 1,
        minWidth: 150,
        flex: 1,
        whiteSpace: 'nowrap',
      }}
    >
      <PlayTime clock={clock} /> / {clockText(durationMs)}
    </Typography>
  );
});

interface PlaceSliderProps {
  clock: PlayClock;
  /** The part of the video the lanes show. */
  window: TimeSpan;
  onSeek: (ms: number) => void;
}

/** The place in the video, over the lanes and as wide as they are. */
export const PlaceSlider = memo(function PlaceSlider({ clock, window, onSeek }: PlaceSliderProps) {
  return (
    <Slider
      size="small"
      aria-label={teacherText('transport.place')}
      value={usePlayMs(clock)}
      min={window.startMs}
      max={window.endMs}
      step={100}
      getAriaValueText={clockText}
      onChange={(_event, ms) => onSeek(ms)}
      sx={{
        display: 'block',
        width: 'calc(100% - 92px)',
        ml: '92px',
        py: 0.5,
        // It moves with every frame.
        '& .MuiSlider-thumb, & .MuiSlider-track': { transition: 'none' },
      }}
    />
  );
});

interface TransportProps {
  preview: ReturnType<typeof usePreview>;
  player: RefObject<LessonPlayer | null>;
  /** Where the chosen block lies in the video. */
  block: TimeSpan | null;
}

/** Playing, and how much of the lesson the lanes show: one line. */
export function Transport({ preview, player, block }: TransportProps) {
  const { clock, range, playing } = preview;
  const button = (
    word: 'back' | 'play' | 'stop' | 'on' | 'whole' | 'block' | 'closer' | 'wider',
    Icon: typeof PlayIcon,
    onClick: () => void,
  ) => (
    <ToolButton
      size="small"
      words={teacherText(`transport.${word}`)}
      Icon={Icon}
      onClick={onClick}
      isMain={word === 'play' || word === 'stop'}
    />
  );
  return (
    <Stack direction="row" useFlexGap sx={{ alignItems: 'center', gap: 0.25, flexWrap: 'wrap' }}>
      {button('back', PreviousIcon, () => player.current?.step(-1))}
      {playing
        ? button('stop', PauseIcon, () => player.current?.toggle())
        : button('play', PlayIcon, () => player.current?.toggle())}
      {button('on', NextIcon, () => player.current?.step(1))}
      <Position clock={clock} durationMs={preview.assembly.durationMs} />
      <ToggleChip
        label={teacherText('transport.upright')}
        isOn={preview.isUpright}
        onToggle={preview.toggleUpright}
      />
      <ToggleChip
        label={teacherText('transport.finished')}
        isOn={preview.isFinished}
        onToggle={preview.toggleFinished}
      />
      {button('wider', WiderIcon, () => range.wider(clock.ms))}
      {button('closer', CloserIcon, () => range.closer(clock.ms))}
      {block &&
        button('block', BlockIcon, () =>
          range.setWindow({ startMs: block.startMs, endMs: block.endMs }),
        )}
      {button('whole', FitIcon, () => range.setWindow(null))}
    </Stack>
  );
}
