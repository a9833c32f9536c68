import { Alert, Box, Button, Slider, Stack, Typography } from '@mui/material';
import { routes, urlOf } from '@zest/contract';

import type { Finish } from '@zest/core/lesson';
import { clockText, frameText, type TimeSpan } from '@zest/core/time';
import { memo, type RefObject } from 'react';
import type { LessonPlayer } from '../../player/player.ts';
import { Stage } from '../../player/Stage.tsx';
import { ToggleChip } from '../../ui/ToggleChip.tsx';
import { PlacePicker } from './PlacePicker.tsx';
import { useCaption, usePlayMs, type PlayClock } from './play-clock.ts';
import { placing, type Draft } from './use-changes.ts';
import type { usePreview } from './use-preview.ts';

export const takeUrl = (takeId: string) => urlOf(routes.takeVideo, { takeId });
const finishedUrl = (takeId: string, { lufs, lowCut, noise }: Finish['sound']) =>
  urlOf(routes.takeFinished, { takeId }, { lufs, lowCut, noise });

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
      sx={{ fontVariantNumeric: 'tabular-nums', px: 1, fontSize: '1.1rem', minWidth: 170 }}
    >
      <PlayTime clock={clock} /> of {clockText(durationMs)}
    </Typography>
  );
});

interface PlaceSliderProps {
  clock: PlayClock;
  durationMs: number;
  onSeek: (ms: number) => void;
}

export function PlaceSlider({ clock, durationMs, onSeek }: PlaceSliderProps) {
  return (
    <Slider
      size="small"
      aria-label="Place in the video"
      value={usePlayMs(clock)}
      min={0}
      max={durationMs}
      step={100}
      getAriaValueText={clockText}
      onChange={(_event, ms) => onSeek(ms)}
      sx={{ py: 1 }}
    />
  );
}

type StageProps = Omit<Parameters<typeof Stage>[0], 'caption' | 'onScene' | 'takeUrl'>;

function StageAndCaption({
  clock,
  onScene,
  ...props
}: StageProps & { clock: PlayClock; onScene: Parameters<typeof Stage>[0]['onScene'] }) {
  return <Stage {...props} takeUrl={takeUrl} onScene={onScene} caption={useCaption(clock)} />;
}

type Preview = ReturnType<typeof usePreview>;

interface AssembleStageProps {
  preview: Preview;
  player: RefObject<LessonPlayer | null>;
  stage: RefObject<HTMLDivElement | null>;
  title: string;
  sound: Finish['sound'];
  draft: Draft | null;
  onDraft: (draft: Draft) => void;
}

/** The picture, and over it the place that is being chosen. */
export function AssembleStage({
  preview,
  player,
  stage,
  title,
  sound,
  draft,
  onDraft,
}: AssembleStageProps) {
  const { assembly, showsUpright, clock, isFinished, fault } = preview;
  const place = placing(draft, assembly, clock.ms);
  return (
    <>
      {fault && (
        <Alert severity="error" onClose={() => preview.setFault(null)}>
          {fault}
        </Alert>
      )}
      <Box
        ref={stage}
        sx={{
          position: 'relative',
          scrollMarginTop: 180,
          maxWidth: showsUpright
            ? 'calc((100vh - 300px) * 9 / 16)'
            : 'calc((100vh - 420px) * 16 / 9)',
          minWidth: { md: showsUpright ? 300 : 480 },
          width: '100%',
          alignSelf: 'center',
        }}
      >
        <StageAndCaption
          clock={clock}
          assembly={assembly}
          playerRef={player}
          onScene={preview.onScene}
          onPlaying={preview.setPlaying}
          onFault={preview.setFault}
          label={`${title}, preview`}
          waits="Loading the video …"
          {...(isFinished && { soundUrl: (takeId: string) => finishedUrl(takeId, sound) })}
        />
        {place && draft && (
          <PlacePicker
            shape={place.shape}
            value={place.value}
            onPick={(box) => onDraft({ ...draft, edit: place.pick(box) })}
          />
        )}
      </Box>
    </>
  );
}

interface TransportProps {
  preview: Preview;
  player: RefObject<LessonPlayer | null>;
  /** Where the chosen block lies in the video. */
  block: TimeSpan | null;
}

/** Playing, and how much of the lesson the lanes show. */
export function Transport({ preview, player, block }: TransportProps) {
  const { clock, range } = preview;
  return (
    <Stack
      direction="row"
      useFlexGap
      sx={{ alignItems: 'center', justifyContent: 'center', gap: 1, flexWrap: 'wrap' }}
    >
      <Button variant="outlined" onClick={() => player.current?.step(-1)}>
        − frame
      </Button>
      <Button
        variant="contained"
        size="large"
        sx={{ minWidth: 120 }}
        onClick={() => player.current?.toggle()}
      >
        {preview.playing ? 'Stop' : 'Play'}
      </Button>
      <Button variant="outlined" onClick={() => player.current?.step(1)}>
        + frame
      </Button>
      <Position clock={clock} durationMs={preview.assembly.durationMs} />
      <ToggleChip label="Upright" isOn={preview.isUpright} onToggle={preview.toggleUpright} />
      <ToggleChip
        label="Finished sound"
        isOn={preview.isFinished}
        onToggle={preview.toggleFinished}
      />
      <Button onClick={() => range.setWindow(null)}>Whole lesson</Button>
      <Button
        disabled={!block}
        onClick={() => block && range.setWindow({ startMs: block.startMs, endMs: block.endMs })}
      >
        This block
      </Button>
      <Button onClick={() => range.closer(clock.ms)}>Closer</Button>
      <Button onClick={() => range.wider(clock.ms)}>Wider</Button>
    </Stack>
  );
}
