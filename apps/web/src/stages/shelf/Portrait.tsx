import { Box } from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import { drawPerformer, poseAt, type DrawContext } from '@zest/performer';
import { useEffect, useRef } from 'react';
import { LessonStrip } from './LessonStrip.tsx';

const WIDTH = 600;
const HEIGHT = 338;
/** A moment at which every movement is well under way. */
const MOMENT_S = 0.55;

/** The drawn performer in the midst of what the lesson is mostly about. */
function Drawn({ movement }: Pick<LessonSummary['portrait'], 'movement'>) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const ctx = canvas.current?.getContext('2d');
    if (ctx)
      drawPerformer(
        ctx as CanvasRenderingContext2D & DrawContext,
        poseAt(movement, MOMENT_S),
        WIDTH,
        HEIGHT,
      );
  }, [movement]);
  return <canvas ref={canvas} width={WIDTH} height={HEIGHT} style={{ width: '100%' }} />;
}

/** What a lesson looks like: its footage, or the drawn performer, and its blocks to scale. */
export function Portrait({ portrait }: Pick<LessonSummary, 'portrait'>) {
  const { takeId, movement, strip } = portrait;
  return (
    <Box
      aria-hidden="true"
      sx={{ position: 'relative', aspectRatio: '16 / 9', overflow: 'hidden' }}
    >
      {takeId === null ? (
        <Drawn movement={movement} />
      ) : (
        <Box
          sx={{
            position: 'absolute',
            inset: 0,
            bgcolor: '#26211c',
            // A row of frames, the first of them shown.
            background: `url(/api/takes/${takeId}/thumbs) left top / auto 100% no-repeat`,
          }}
        />
      )}
      <Box sx={{ position: 'absolute', insetInline: 0, bottom: 0 }}>
        <LessonStrip blocks={strip} height={14} />
      </Box>
    </Box>
  );
}
