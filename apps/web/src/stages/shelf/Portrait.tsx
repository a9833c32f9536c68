import { Box } from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import { DrawnPose } from '../../ui/DrawnPose.tsx';
import { LessonStrip } from './LessonStrip.tsx';

/** What a lesson looks like: its footage, or the drawn performer, and its blocks to scale. */
export function Portrait({ portrait }: Pick<LessonSummary, 'portrait'>) {
  const { takeId, movement, strip } = portrait;
  return (
    <Box
      aria-hidden="true"
      sx={{ position: 'relative', aspectRatio: '16 / 9', overflow: 'hidden' }}
    >
      {takeId === null ? (
        <DrawnPose movement={movement} width={600} />
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
