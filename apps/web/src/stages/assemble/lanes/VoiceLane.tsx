import { Box, useTheme } from '@mui/material';
import { takeFrameAt, type Assembly } from '@zest/core/assembly';
import { indexAt } from '@zest/core/overlay';
import { firstFrameFrom, OUTPUT_FPS, type TimeSpan } from '@zest/core/time';
import { routes, urlOf, WAVE_PER_SECOND } from '@zest/contract';
import { useEffect, useRef, useState } from 'react';
import WaveSurfer from 'wavesurfer.js';
import { pageNonce } from '../../../app/nonce.ts';

const COLUMNS = 900;
/** A lowered sound is drawn as it is heard, 12 dB softer. */
const LOW = 0.25;

/** Loudness of the finished video over a window, 0 to 1. */
function peaksOf(
  assembly: Assembly,
  waves: ReadonlyMap<string, Uint8Array>,
  { startMs, endMs }: TimeSpan,
): number[] {
  return Array.from({ length: COLUMNS }, (_, column) => {
    const ms = startMs + ((endMs - startMs) * column) / COLUMNS;
    const segment = assembly.segments[indexAt(assembly.segments, ms)];
    const wave = segment?.sound && waves.get(segment.sound.source.takeId);
    if (!segment?.sound || !wave) return 0;
    const s = takeFrameAt(segment, segment.sound.source, firstFrameFrom(ms)) / OUTPUT_FPS;
    const width = Math.max(1, Math.ceil((((endMs - startMs) / 1_000) * WAVE_PER_SECOND) / COLUMNS));
    const from = Math.floor(s * WAVE_PER_SECOND);
    return (
      (Math.max(0, ...wave.subarray(from, from + width)) / 255) * (segment.sound.low ? LOW : 1)
    );
  });
}

function useWaves(takeIds: readonly string[]): ReadonlyMap<string, Uint8Array> {
  const [waves, setWaves] = useState<ReadonlyMap<string, Uint8Array>>(new Map());
  const wanted = takeIds.join(' ');
  useEffect(() => {
    const stop = new AbortController();
    for (const takeId of wanted.split(' ').filter((id) => id !== '')) {
      fetch(urlOf(routes.takeWave, { takeId }), { signal: stop.signal })
        .then((answer) => answer.arrayBuffer())
        .then((bytes) => setWaves((known) => new Map([...known, [takeId, new Uint8Array(bytes)]])))
        // Without the drawing the lesson can still be worked on.
        .catch(() => undefined);
    }
    return () => stop.abort();
  }, [wanted]);
  return waves;
}

/** What is heard, as a waveform over the window. */
export function VoiceLane({ assembly, window }: { assembly: Assembly; window: TimeSpan }) {
  const place = useRef<HTMLDivElement>(null);
  const { palette } = useTheme();
  const { startMs, endMs } = window;
  const waves = useWaves(
    [
      ...new Set(assembly.segments.flatMap(({ sound }) => (sound ? [sound.source.takeId] : []))),
    ].sort(),
  );
  useEffect(() => {
    if (!place.current || waves.size === 0) return;
    const wave = WaveSurfer.create({
      container: place.current,
      peaks: [peaksOf(assembly, waves, { startMs, endMs })],
      duration: (endMs - startMs) / 1_000,
      height: 26,
      interact: false,
      cursorWidth: 0,
      waveColor: palette.secondary.main,
      cspNonce: pageNonce(),
    });
    return () => wave.destroy();
  }, [assembly, waves, startMs, endMs, palette]);
  return <Box ref={place} aria-hidden sx={{ height: 26, pointerEvents: 'none' }} />;
}
