import { Box, Typography } from '@mui/material';
import type { Schedule } from '@zest/core/schedule';
import { clockText, lengthText } from '@zest/core/time';
import { useOpenLesson } from '../../app/use-lesson.ts';

function BigClock({ name, ms, testId }: { name: string; ms: number; testId: string }) {
  return (
    <Box>
      <Typography color="text.secondary">{name}</Typography>
      <Typography data-testid={testId} sx={{ fontSize: '2rem', fontWeight: 700, fontVariantNumeric: 'tabular-nums', lineHeight: 1.1 }}>
        {clockText(ms)}
      </Typography>
    </Box>
  );
}

/** How the video's length stands to the target, in words and as a bar. */
export function SlotGauge({ schedule }: { schedule: Schedule }) {
  const { targetMs } = useOpenLesson().lesson;
  const { videoMs, studentMs } = schedule;
  const apart = targetMs === null ? 0 : videoMs - targetMs;
  const words =
    targetMs === null
      ? 'No target length set.'
      : apart === 0
        ? `Exactly the ${lengthText(targetMs)} you aim for.`
        : apart < 0
          ? `${lengthText(-apart)} free of the ${lengthText(targetMs)} you aim for.`
          : `${lengthText(apart)} over the ${lengthText(targetMs)} you aim for.`;
  const whole = Math.max(videoMs, targetMs ?? 0, 1);
  return (
    <Box aria-live="polite">
      <Box sx={{ display: 'flex', gap: 4 }}>
        <BigClock name="Video" ms={videoMs} testId="video-clock" />
        <BigClock name="Student" ms={studentMs} testId="student-clock" />
      </Box>
      {targetMs !== null && (
        <Box sx={{ position: 'relative', height: 16, mt: 1, bgcolor: 'background.default', borderRadius: 1, border: 1, borderColor: 'divider' }}>
          <Box sx={{ position: 'absolute', inset: 0, width: `${(videoMs / whole) * 100}%`, bgcolor: apart > 0 ? 'error.main' : 'secondary.main', borderRadius: 1 }} />
          <Box sx={{ position: 'absolute', top: -4, bottom: -4, left: `calc(${(targetMs / whole) * 100}% - 2px)`, width: 4, bgcolor: 'text.primary' }} />
        </Box>
      )}
      <Typography sx={{ mt: 1 }}>{words}</Typography>
    </Box>
  );
}
