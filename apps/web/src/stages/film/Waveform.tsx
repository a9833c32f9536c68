import { Box, useTheme } from '@mui/material';
import { useEffect, useRef, type RefObject } from 'react';
import WaveSurfer from 'wavesurfer.js';
import { routes, urlOf } from '@zest/contract';
import { pageNonce } from '../../app/nonce.ts';

/** The take's sound as a waveform, drawn from the peaks the server measured; a click goes there. */
export function Waveform({
  takeId,
  videoRef,
}: {
  takeId: string;
  videoRef: RefObject<HTMLVideoElement | null>;
}) {
  const place = useRef<HTMLDivElement>(null);
  const { palette } = useTheme();
  useEffect(() => {
    const video = videoRef.current;
    if (!place.current || !video) return;
    let wave: WaveSurfer | undefined;
    const stop = new AbortController();
    const draw = async () => {
      const answer = await fetch(urlOf(routes.takeWave, { takeId }), { signal: stop.signal });
      const bytes = new Uint8Array(await answer.arrayBuffer());
      if (!place.current || stop.signal.aborted) return;
      wave = WaveSurfer.create({
        container: place.current,
        media: video,
        peaks: [Array.from(bytes, (peak) => peak / 255)],
        duration: video.duration,
        height: 48,
        waveColor: palette.secondary.main,
        progressColor: palette.primary.main,
        cursorColor: palette.text.primary,
        cspNonce: pageNonce(),
      });
    };
    // Without the drawing the take can still be used.
    draw().catch(() => undefined);
    return () => {
      stop.abort();
      wave?.destroy();
    };
  }, [takeId, videoRef, palette]);
  return <Box ref={place} sx={{ mt: 0.5 }} />;
}
