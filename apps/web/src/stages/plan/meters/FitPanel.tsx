import { Alert, Button, LinearProgress, Stack, Typography } from '@mui/material';
import { applyChanges, figureChangeText, meetsTarget, type Lesson } from '@zest/core/lesson';
import { fitTitle, type FitResult, type Schedule } from '@zest/core/schedule';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useEffect, useState } from 'react';
import { edit } from '../../../app/lesson-slice.ts';
import { useAppDispatch } from '../../../app/store.ts';
import { useLessonNow, useOpenLesson } from '../../../app/use-lesson.ts';
import { messageOf } from '../../../app/message.ts';
import { fitInWorker, type Fitting } from '../../../workers/fit.ts';

/**
 * Proposes the smallest change that brings the lesson into its targets, in words, and applies it on
 * a click.
 */
export function FitPanel({ schedule }: { schedule: Schedule }) {
  const { lesson } = useOpenLesson();
  const now = useLessonNow();
  const dispatch = useAppDispatch();
  const [found, setFound] = useState<{ of: Lesson; result: FitResult } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const [fitting, setFitting] = useState<Fitting | null>(null);
  useEffect(() => () => fitting?.stop(), [fitting]);
  const { video, session } = lesson.targets;
  if (meetsTarget(schedule.videoMs, video) && meetsTarget(schedule.studentMs, session)) return null;
  const propose = () => {
    const asked = now();
    setFault(null);
    const begun = fitInWorker(asked);
    setFitting(begun);
    begun.result
      .then((result) => result && setFound({ of: asked, result }))
      .catch((error: unknown) =>
        setFault(teacherText('meter.proposal-could-not-worked', { messageOf: messageOf(error) })),
      )
      .finally(() => setFitting((current) => (current === begun ? null : current)));
  };
  // A proposal is for the lesson it was asked for; once that changes, it has to be asked for again.
  const result = found?.of === lesson ? found.result : null;
  if (fault) {
    return (
      <Alert
        severity="error"
        action={
          <Button color="inherit" onClick={propose}>
            {teacherText('meter.try-again')}
          </Button>
        }
      >
        {fault}
      </Alert>
    );
  }
  if (fitting) {
    return (
      <Stack spacing={0.5}>
        <Typography>{teacherText('meter.fitting-now')}</Typography>
        <LinearProgress aria-label={teacherText('meter.fitting')} />
        <Button onClick={fitting.stop} sx={{ alignSelf: 'start' }}>
          {teacherText('meter.stop')}
        </Button>
      </Stack>
    );
  }
  if (!result) {
    return (
      <Button variant="outlined" onClick={propose} sx={{ alignSelf: 'start' }}>
        {teacherText('meter.make-fit')}
      </Button>
    );
  }
  const { changes, videoMs, sessionMs } = result.proposal;
  return (
    <Alert
      severity={result.kind === 'fits' ? 'info' : 'warning'}
      icon={false}
      role="region"
      aria-label={teacherText('meter.proposal')}
    >
      <Stack spacing={0.5}>
        {result.obstacles.map((words) => (
          <Typography key={words}>{words}</Typography>
        ))}
        {changes.length > 0 && <Typography sx={{ fontWeight: 700 }}>{fitTitle(result)}</Typography>}
        {changes.map((change) => (
          <Typography key={`${change.blockId} ${change.key}`}>
            {figureChangeText(change)}
          </Typography>
        ))}
        {changes.length > 0 && (
          <>
            <Typography color="text.secondary">
              {teacherText('meter.video-student', {
                time: clockText(videoMs),
                time2: clockText(sessionMs),
              })}
            </Typography>
            <Stack direction="row" spacing={1}>
              <Button
                variant="contained"
                size="small"
                onClick={() => dispatch(edit(teacherText('meter.make-fit'), applyChanges(changes)))}
              >
                {teacherText('meter.apply')}
              </Button>
              <Button size="small" onClick={() => setFound(null)}>
                {teacherText('meter.leave')}
              </Button>
            </Stack>
          </>
        )}
      </Stack>
    </Alert>
  );
}
