import { Alert, Box, Button, Paper, Slider, Stack, Typography } from '@mui/material';
import type { Scene } from '@zest/core/overlay';
import { clockText, frameText } from '@zest/core/time';
import { useCallback, useEffect, useEffectEvent, useRef, useState } from 'react';
import { useAssembly, useChosenBlock, useOpenLesson } from '../../app/use-lesson.ts';
import { Stage } from '../../player/Stage.tsx';
import type { LessonPlayer } from '../../player/player.ts';
import { onStageKey } from '../../ui/keys.ts';
import { Lanes } from './Lanes.tsx';

const takeUrl = (takeId: string) => `/api/takes/${takeId}/video`;

/** The lesson as students will see it, with what is on screen when in lanes below. */
export function AssembleBench() {
  const assembly = useAssembly();
  const { lesson } = useOpenLesson();
  const { block } = useChosenBlock();
  const player = useRef<LessonPlayer>(null);
  const [scene, setScene] = useState<Scene | null>(null);
  const [playing, setPlaying] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const atMs = scene?.atMs ?? 0;
  const startOfBlock = assembly.blocks.find((placed) => placed.blockId === block?.id)?.startMs;

  // A block chosen on the ribbon takes the picture there.
  useEffect(() => {
    if (startOfBlock !== undefined) player.current?.seek(startOfBlock);
  }, [startOfBlock]);

  const onKey = useEffectEvent((event: KeyboardEvent) => {
    onStageKey(event, { toggle: () => player.current?.toggle(), step: (frames) => player.current?.step(frames) });
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey(event);
    window.addEventListener('keydown', listen);
    return () => window.removeEventListener('keydown', listen);
  }, []);
  const seek = useCallback((ms: number) => player.current?.seek(ms), []);

  if (assembly.durationMs === 0) return <Alert severity="info">The lesson has no length yet. Add a block on the Plan bench first.</Alert>;
  return (
    <Stack spacing={1.5}>
      {fault && (
        <Alert severity="error" onClose={() => setFault(null)}>
          {fault}
        </Alert>
      )}
      <Box sx={{ maxWidth: 'calc((100vh - 390px) * 16 / 9)', minWidth: { md: 560 }, width: '100%', alignSelf: 'center' }}>
        <Stage
          assembly={assembly}
          takeUrl={takeUrl}
          playerRef={player}
          onScene={setScene}
          onPlaying={setPlaying}
          onFault={setFault}
          caption={scene?.caption ?? null}
          label={`${lesson.title}, preview`}
        />
      </Box>
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center', justifyContent: 'center' }}>
        <Button variant="outlined" onClick={() => player.current?.step(-1)}>
          − frame
        </Button>
        <Button variant="contained" size="large" sx={{ minWidth: 130 }} onClick={() => player.current?.toggle()}>
          {playing ? 'Stop' : 'Play'}
        </Button>
        <Button variant="outlined" onClick={() => player.current?.step(1)}>
          + frame
        </Button>
        <Typography data-testid="position" sx={{ fontVariantNumeric: 'tabular-nums', pl: 1, fontSize: '1.1rem' }}>
          {frameText(atMs)} of {clockText(assembly.durationMs)}
        </Typography>
      </Stack>
      <Slider
        size="small"
        aria-label="Place in the video"
        value={atMs}
        min={0}
        max={assembly.durationMs}
        step={100}
        getAriaValueText={clockText}
        onChange={(_event, ms) => seek(ms)}
      />
      <Paper variant="outlined" sx={{ p: 1.5, overflow: 'hidden' }}>
        <Lanes assembly={assembly} atMs={atMs} onSeek={seek} />
      </Paper>
    </Stack>
  );
}
