import { Button, Stack, Typography } from '@mui/material';
import { insertBefore, neededText } from '@zest/core/lesson';
import { fetchPause, type KitLine } from '@zest/core/ledger';
import { clockText } from '@zest/core/time';
import { makeId } from '../../../app/ids.ts';
import { edit } from '../../../app/lesson-slice.ts';
import { useAppDispatch } from '../../../app/store.ts';

export function kitHeadline(lines: KitLine[]): { words: string; isWell: boolean } {
  const late = lines.filter(({ fetchBefore }) => fetchBefore).length;
  if (lines.length === 0) return { words: 'nothing needed', isWell: true };
  return late === 0
    ? {
        words: `${lines.length} ${lines.length === 1 ? 'thing' : 'things'}, all named in time`,
        isWell: true,
      }
    : { words: `${late} not named in time`, isWell: false };
}

/** What is needed, from when, and whether it is named in time. */
export function KitNeeds({ lines, language }: { lines: KitLine[]; language: string }) {
  const dispatch = useAppDispatch();
  if (lines.length === 0)
    return <Typography color="text.secondary">No block asks for anything.</Typography>;
  return (
    <Stack spacing={1}>
      {lines.map((line) => {
        const { name, needs, standIns, neededIn, announcedMs, fetchBefore } = line;
        return (
          <div key={name}>
            <Typography sx={{ fontWeight: 700 }}>{neededText(name, needs, language)}</Typography>
            <Typography variant="body2" color="text.secondary">
              {[
                announcedMs === null ? 'never named' : `named at ${clockText(announcedMs)}`,
                neededIn
                  ? `needed at ${clockText(neededIn.atMs)} in “${neededIn.title}”`
                  : 'not used by any block',
                ...(standIns.length > 0 ? [`or ${standIns.join(', or ')}`] : []),
              ].join(' · ')}
            </Typography>
            {fetchBefore && (
              <Button
                size="small"
                onClick={() =>
                  dispatch(
                    edit(
                      `Pause to fetch ${name}`,
                      insertBefore(fetchBefore, fetchPause(line, language, makeId)),
                    ),
                  )
                }
              >
                Add a pause to fetch it
              </Button>
            )}
          </div>
        );
      })}
    </Stack>
  );
}
