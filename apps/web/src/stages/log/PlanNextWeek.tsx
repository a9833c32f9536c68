import { Button, Checkbox, FormControlLabel, Stack, Typography } from '@mui/material';
import { figureChangeText } from '@zest/core/lesson';
import { nextLesson, stepChanges, type BlockHint, type NextStep } from '@zest/core/results';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { useNotice } from '../../app/notice.tsx';
import { useLessonNow, useOpenLesson } from '../../app/use-lesson.ts';

/**
 * Next week's lesson in one click: what would change, each change to be left out, then the lesson
 * opens.
 */
export function PlanNextWeek({
  step,
  hints,
}: {
  step: NextStep['step'];
  hints: readonly BlockHint[];
}) {
  const { lesson } = useOpenLesson();
  const now = useLessonNow();
  const [make, making] = api.useMakeLessonMutation();
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set());
  const navigate = useNavigate();
  const notice = useNotice();
  const changes = useMemo(() => stepChanges(lesson, step, hints), [lesson, step, hints]);
  const plan = async () => {
    const made = await make({
      document: nextLesson(
        now(),
        changes.filter(({ blockId }) => !left.has(blockId)),
        makeId,
      ),
    });
    if (made.data) void navigate(`/lessons/${made.data.id}/plan`);
    else notice(problemText(made.error) ?? teacherText('log.lesson-was-not-made'));
  };
  return (
    <Stack spacing={0.5}>
      {changes.length === 0 && <Typography>{teacherText('log.no-figure-would-change')}</Typography>}
      {changes.map((change) => (
        <FormControlLabel
          key={change.blockId}
          control={
            <Checkbox
              checked={!left.has(change.blockId)}
              onChange={(_event, on) =>
                setLeft(
                  on
                    ? new Set([...left].filter((id) => id !== change.blockId))
                    : new Set([...left, change.blockId]),
                )
              }
            />
          }
          label={`${figureChangeText(change)} (${change.why})`}
        />
      ))}
      <Button
        variant="contained"
        sx={{ alignSelf: 'start' }}
        disabled={making.isLoading}
        onClick={() => void plan()}
      >
        {teacherText('log.plan-next-week-s')}
      </Button>
    </Stack>
  );
}
