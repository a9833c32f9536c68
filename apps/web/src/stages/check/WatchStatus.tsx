import { Alert, Button, LinearProgress, Stack, Typography } from '@mui/material';
import type { Take } from '@zest/contract';
import { findBlock, type Lesson } from '@zest/core/lesson';
import { saidIn, sentencesOf } from '@zest/core/script';
import { teacherText } from '@zest/core/words';
import { api } from '../../app/api.ts';
import { useOpenLesson, useTakes } from '../../app/use-lesson.ts';

/** Whether the script of a take's block has sentences that were not looked for in it. */
function isScriptNewer({ blockId, said, hasSound }: Take, lesson: Lesson): boolean {
  const block = findBlock(lesson, blockId);
  if (!block || !hasSound) return false;
  const known = new Set(said?.sentences.map(({ text }) => text));
  return sentencesOf(saidIn(block)).some((text) => !known.has(text));
}

const isBusy = ({ watching }: Take) => watching.state === 'waiting' || watching.state === 'working';

/** Whether the takes were looked at and listened to, and the way to have it done. */
export function WatchStatus() {
  const { lesson } = useOpenLesson();
  const takes = useTakes().filter(({ state, inBin }) => state === 'ready' && !inBin);
  const [watch] = api.useWatchTakeMutation();
  if (takes.length === 0) return null;
  const busy = takes.filter(isBusy);
  const failed = takes.find(({ watching }) => watching.state === 'failed');
  const due = takes.filter(
    (take) => !isBusy(take) && (take.watching.key === null || isScriptNewer(take, lesson)),
  );
  const done =
    takes.reduce((sum, take) => sum + (isBusy(take) ? take.watching.progress : 1), 0) /
    takes.length;
  const all = async () => {
    for (const { id } of due) await watch(id);
  };
  return (
    <Stack spacing={1} data-testid="watch-status">
      <Stack direction="row" sx={{ gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
        <Typography sx={{ flex: 1 }}>
          {busy.length > 0
            ? teacherText('check.watching-takes-machine-does', {
                count: busy.length,
                count2: takes.length,
              })
            : due.length > 0
              ? teacherText('check.takes-not-been-watched', {
                  count: due.length,
                  count2: takes.length,
                })
              : teacherText('check.all-takes-were-watched', { count: takes.length })}
        </Typography>
        {due.length > 0 && (
          <Button variant={busy.length > 0 ? 'outlined' : 'contained'} onClick={() => void all()}>
            {teacherText('check.watch', { count: due.length })}
          </Button>
        )}
      </Stack>
      {busy.length > 0 && (
        <LinearProgress
          variant="determinate"
          value={100 * done}
          aria-label={teacherText('check.part-takes-watched')}
        />
      )}
      {failed && (
        <Alert severity="error">
          {teacherText('check.could-not-watched-try', {
            name: failed.name,
            n: failed.watching.fault ?? teacherText('check.no-reason-given'),
          })}
        </Alert>
      )}
    </Stack>
  );
}
