import { Box, Chip, Slider, Stack, Typography } from '@mui/material';
import PauseIcon from '@mui/icons-material/Pause';
import PlayIcon from '@mui/icons-material/PlayArrow';
import NextIcon from '@mui/icons-material/SkipNext';
import PreviousIcon from '@mui/icons-material/SkipPrevious';
import { blocksOf, type Block } from '@zest/core/lesson';
import { timeBlock } from '@zest/core/schedule';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { takeUrl } from '../app/take-url.ts';
import { useMemo, useState } from 'react';
import { useChosenBlock, useOpenLesson, useReadyTakes } from '../app/use-lesson.ts';
import { ToolButton } from '../ui/ToolButton.tsx';
import { useKeys } from '../ui/use-keys.ts';
import { BlockOverlay, useBlockCut } from './BlockOverlay.tsx';
import { usePointed } from './pointing.ts';
import { Filmed } from './Filmed.tsx';
import { StageFrame } from './StageFrame.tsx';
import { StageOverlays } from './StageOverlays.tsx';
import { StandIn } from './StandIn.tsx';
import { Strip } from './Strip.tsx';
import { speeds, useRehearsal, type Rehearsal } from './use-rehearsal.ts';

interface TransportProps {
  rehearsal: Rehearsal;
  lengthMs: number;
  isWhole: boolean;
  onWhole: (isWhole: boolean) => void;
}

/** The place in the block, and below it: play, calls, speed. */
function Transport({ rehearsal, lengthMs, isWhole, onWhole }: TransportProps) {
  const { isPlaying, shownMs, speed } = rehearsal;
  const button = (
    word: 'play' | 'stop' | 'before' | 'after',
    Icon: typeof PlayIcon,
    onClick: () => void,
  ) => (
    <ToolButton
      words={teacherText(`rehearse.${word}`)}
      Icon={Icon}
      onClick={onClick}
      isMain={word === 'play'}
    />
  );
  return (
    <>
      <Slider
        size="small"
        aria-label={teacherText('rehearse.place')}
        value={Math.min(shownMs, lengthMs)}
        min={0}
        max={Math.max(1, lengthMs)}
        step={100}
        getAriaValueText={clockText}
        onChange={(_event, ms) => rehearsal.seek(ms)}
        sx={{ display: 'block', py: 0.75 }}
      />
      <Stack direction="row" useFlexGap sx={{ alignItems: 'center', gap: 0.5 }}>
        {button('before', PreviousIcon, () => rehearsal.jump(-1))}
        {isPlaying
          ? button('stop', PauseIcon, rehearsal.stop)
          : button('play', PlayIcon, rehearsal.play)}
        {button('after', NextIcon, () => rehearsal.jump(1))}
        <Typography
          variant="body2"
          data-testid="rehearsal-clock"
          sx={{ fontVariantNumeric: 'tabular-nums', whiteSpace: 'nowrap', flex: 1 }}
        >
          {clockText(shownMs)} / {clockText(lengthMs)}
        </Typography>
        <Chip
          size="small"
          clickable
          variant="outlined"
          label={`${speed}×`}
          aria-label={teacherText('rehearse.speed', { speed: String(speed) })}
          onClick={() =>
            rehearsal.setSpeed(speeds[(speeds.indexOf(speed) + 1) % speeds.length] ?? 1)
          }
        />
        <Chip
          size="small"
          clickable
          color={isWhole ? 'primary' : 'default'}
          variant={isWhole ? 'filled' : 'outlined'}
          aria-pressed={isWhole}
          label={teacherText('rehearse.whole')}
          onClick={() => onWhole(!isWhole)}
        />
      </Stack>
    </>
  );
}

/** The picture of a block as it is planned or filmed, and its rehearsal. */
function Planned({ block }: { block: Block }) {
  const { lesson } = useOpenLesson();
  const { choose } = useChosenBlock();
  const takes = useReadyTakes();
  const cut = useBlockCut(lesson, block, takes);
  const isFilmed = block.footage !== null && takes.has(block.footage.takeId);
  const times = useMemo(() => timeBlock(block, lesson), [block, lesson]);
  const [isWhole, setWhole] = useState(false);
  const blocks = blocksOf(lesson);
  const after = blocks[blocks.findIndex(({ id }) => id === block.id) + 1];
  const rehearsal = useRehearsal(block, lesson, cut.durationMs, () => {
    if (isWhole && after) choose(after.id);
    return isWhole && after !== undefined;
  });
  usePointed((blockId, share) => {
    if (blockId === block.id && !rehearsal.isPlaying) rehearsal.seek(share * cut.durationMs);
  });
  useKeys({ r: rehearsal.isPlaying ? rehearsal.stop : rehearsal.play });
  const isCard = block.kind === 'card' || block.kind === 'question';
  return (
    <Box component="section" aria-label={teacherText('stage.name')}>
      <Box sx={{ position: 'relative' }}>
        <StageFrame label={teacherText('stage.of', { title: block.title })}>
          {isFilmed ? (
            <Filmed
              takeUrl={takeUrl}
              cut={cut}
              momentMs={rehearsal.momentMs}
              isPlaying={rehearsal.isPlaying}
              speed={rehearsal.speed}
            />
          ) : (
            <StandIn spans={times.spans} momentMs={rehearsal.momentMs} />
          )}
          <BlockOverlay cut={cut} momentMs={rehearsal.momentMs} withCard={isCard} />
          {!isCard && !isFilmed && (
            <Typography
              variant="body2"
              sx={{
                position: 'absolute',
                left: 8,
                bottom: 6,
                px: 0.75,
                borderRadius: 0.5,
                bgcolor: 'rgba(38, 33, 28, 0.78)',
                color: '#fff6ea',
              }}
            >
              {teacherText(block.footage ? 'stage.drawn' : 'stage.not-filmed')}
            </Typography>
          )}
        </StageFrame>
        {!rehearsal.isPlaying && (
          <StageOverlays lesson={lesson} block={block} cut={cut} shownMs={rehearsal.shownMs} />
        )}
      </Box>
      <Strip
        block={block}
        times={times}
        cues={cut.lanes.cue}
        lengthMs={cut.durationMs}
        shownMs={rehearsal.shownMs}
      />
      <Transport
        rehearsal={rehearsal}
        lengthMs={cut.durationMs}
        isWhole={isWhole}
        onWhole={setWhole}
      />
    </Box>
  );
}

/** The lesson as students see it at the chosen block; a drawn performer does what is planned. */
export function BlockStage() {
  const { block } = useChosenBlock();
  return block ? <Planned block={block} /> : null;
}
