import { Button, Paper, Stack, Typography } from '@mui/material';
import type { Take } from '@zest/contract';
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
    <Paper variant="outlined" sx={{ p: 1.5 }} component="section" aria-label="Storage and bin">
      {data && (
        <Typography color="text.secondary" data-testid="storage">
          This lesson’s footage takes {sizeText(data.bytes)} on the server;{' '}
          {sizeText(data.freeBytes)} are free.{' '}
          <Link to="/storage" style={{ color: 'inherit' }}>
            What takes up room
          </Link>
        </Typography>
      )}
      {binned.length > 0 && (
        <Stack spacing={0.5} sx={{ mt: 1 }}>
          <Typography variant="h3">In the bin</Typography>
          {binned.map(({ id: takeId, name }) => (
            <Stack key={takeId} direction="row" sx={{ gap: 1, alignItems: 'center' }}>
              <Typography noWrap sx={{ flex: 1, minWidth: 0 }}>
                {name}
              </Typography>
              <Button size="small" onClick={() => void change({ takeId, inBin: false })}>
                Take it back
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
                  answer.error && notice(problemText(answer.error) ?? 'The bin was not emptied.'),
              );
            }}
          >
            {isSure ? `Yes, erase for good (${sizeText(data?.binBytes ?? 0)})` : 'Empty the bin'}
          </Button>
        </Stack>
      )}
    </Paper>
  );
}
