import { Button, Paper, Stack, Typography } from '@mui/material';
import type { Take } from '@zest/contract';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { useNotice } from '../../app/notice.tsx';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { sizeText } from '../../ui/size-text.ts';

/**
 * What the footage takes on the server, and the bin: takes come back from it until it is emptied.
 */
export function BinPanel({ takes }: { takes: readonly Take[] }) {
  const { id } = useOpenLesson();
  const { data } = api.useStorageQuery(id);
  const [change] = api.useChangeTakeMutation();
  const [empty] = api.useEmptyBinMutation();
  const [isSure, setSure] = useState(false);
  const notice = useNotice();
  const binned = takes.filter(({ inBin }) => inBin);
  return (
    <Paper
      variant="outlined"
      sx={{ p: 1.5 }}
      component="section"
      aria-label={teacherText('film.storage-bin')}
    >
      {data && (
        <Typography color="text.secondary" data-testid="storage">
          {teacherText('film.lesson-s-footage-takes', {
            size: sizeText(data.bytes),
            size2: sizeText(data.freeBytes),
          })}{' '}
          <Link to="/storage" style={{ color: 'inherit' }}>
            {teacherText('film.what-takes-up-room')}
          </Link>
        </Typography>
      )}
      {binned.length > 0 && (
        <Stack spacing={0.5} sx={{ mt: 1 }}>
          <Typography variant="h3">{teacherText('film.bin')}</Typography>
          {binned.map(({ id: takeId, name }) => (
            <Stack key={takeId} direction="row" sx={{ gap: 1, alignItems: 'center' }}>
              <Typography noWrap sx={{ flex: 1, minWidth: 0 }}>
                {name}
              </Typography>
              <Button size="small" onClick={() => void change({ takeId, inBin: false })}>
                {teacherText('film.take-back')}
              </Button>
            </Stack>
          ))}
          <Button
            color="error"
            variant={isSure ? 'contained' : 'outlined'}
            onBlur={() => setSure(false)}
            onClick={() => {
              if (!isSure) return setSure(true);
              setSure(false);
              void empty(id).then(
                (answer) =>
                  answer.error &&
                  notice(problemText(answer.error) ?? teacherText('film.bin-was-not-emptied')),
              );
            }}
          >
            {isSure
              ? teacherText('film.yes-erase-good', { size: sizeText(data?.binBytes ?? 0) })
              : teacherText('film.empty-bin')}
          </Button>
        </Stack>
      )}
    </Paper>
  );
}
