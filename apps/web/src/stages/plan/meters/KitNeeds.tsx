import { Button, Stack, Typography } from '@mui/material';
import { insertBefore, neededText } from '@zest/core/lesson';
import { fetchPause, type KitLine } from '@zest/core/ledger';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { makeId } from '../../../app/ids.ts';
import { edit } from '../../../app/lesson-slice.ts';
import { useAppDispatch } from '../../../app/store.ts';

export function kitHeadline(lines: KitLine[]): { words: string; isWell: boolean } {
  const late = lines.filter(({ fetchBefore }) => fetchBefore).length;
  if (lines.length === 0) return { words: teacherText('meter.nothing-needed'), isWell: true };
  return late === 0
    ? {
        words: teacherText('meter.all-named-time', { count: lines.length }),
        isWell: true,
      }
    : { words: teacherText('meter.not-named-time', { late }), isWell: false };
}

/** What is needed, from when, and whether it is named in time. */
export function KitNeeds({ lines, language }: { lines: KitLine[]; language: string }) {
  const dispatch = useAppDispatch();
  if (lines.length === 0)
    return (
      <Typography color="text.secondary">{teacherText('meter.no-block-asks-anything')}</Typography>
    );
  return (
    <Stack spacing={1}>
      {lines.map((line) => {
        const { name, needs, standIns, neededIn, announcedMs, fetchBefore } = line;
        return (
          <div key={name}>
            <Typography sx={{ fontWeight: 700 }}>{neededText(name, needs, language)}</Typography>
            <Typography variant="body2" color="text.secondary">
              {[
                announcedMs === null
                  ? teacherText('meter.never-named')
                  : teacherText('meter.named', { time: clockText(announcedMs) }),
                neededIn
                  ? teacherText('meter.needed', {
                      time: clockText(neededIn.atMs),
                      title: neededIn.title,
                    })
                  : teacherText('meter.not-used-any-block'),
                ...standIns.map((name) => teacherText('meter.or', { name })),
              ].join(' · ')}
            </Typography>
            {fetchBefore && (
              <Button
                size="small"
                onClick={() =>
                  dispatch(
                    edit(
                      teacherText('meter.pause-fetch', { name }),
                      insertBefore(fetchBefore, fetchPause(line, language, makeId)),
                    ),
                  )
                }
              >
                {teacherText('meter.add-pause-fetch')}
              </Button>
            )}
          </div>
        );
      })}
    </Stack>
  );
}
